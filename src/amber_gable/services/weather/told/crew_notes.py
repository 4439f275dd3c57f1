"""Heat and cold of a day for the crew: from when to when, how bad, what is usually done, and where the shade is."""

from dataclasses import dataclass
from datetime import date, datetime

import numpy as np

from amber_gable.core.weather.judged.crew_air import (
    COLD_LEVELS,
    HEAT_LEVELS,
    AirLevel,
    Strain,
    heat_index,
    in_sun,
    level,
    wind_chill,
)
from amber_gable.core.weather.judged.slots import mean
from amber_gable.core.weather.outdoors.air import Array, Ints
from amber_gable.domain.house.survey import Face
from amber_gable.services.job.view import JobView

SHADE_BELOW = 20.0
"""Direct sun on a face, W/m²."""
SHADE_LEAST_H = 1.0
LULL_H = 1.0
"""An hour that asks nothing between two that do parts no span."""
KNELT_ON_C, TOUCHED_C = 50.0, 65.0
"""From where on a surface hurts: one that is knelt on burns within a minute, a wall within seconds (after ISO 13732-1:
51 °C whatever it is made of; for seconds 55 of bare metal, 66 of stone, more of wood)."""
KNELT_ON_DEG = 60.0


@dataclass(frozen=True)
class Shade:
    """A face without sun in the hot hours: in all of them, or the longest stretch of them."""

    face: str
    start: datetime
    end: datetime
    all_of_it: bool


@dataclass(frozen=True)
class HotSurface:
    face: str
    up_to_c: float
    at: datetime


@dataclass(frozen=True)
class CrewNote:
    """spans: from when to when it asks something; worst_c: heat index in the shade, or wind chill; sun_c the worst heat
    index in the sun (None: of cold)."""

    strain: Strain
    level: AirLevel
    spans: tuple[tuple[datetime, datetime], ...]
    worst_c: float
    sun_c: float | None
    shade: tuple[Shade, ...] = ()


@dataclass(frozen=True)
class CrewNotes:
    notes: tuple[CrewNote, ...]
    hot: tuple[HotSurface, ...]


def crew_notes(view: JobView, day: date) -> CrewNotes:
    """Of the crew's hours that day as the forecast has them; empty where it does not reach or asks nothing."""
    site = view.site
    if site is None:
        return CrewNotes((), ())
    slots, steps, crew = site.slots, site.steps, view.bundle.job.crew
    shift = (slots.hours >= crew.start_h) & (slots.hours < crew.end_h)
    of_day = [i for i in np.flatnonzero(shift).tolist() if slots.time(i).date() == day]
    if not of_day:
        return CrewNotes((), ())
    at = np.array(of_day)
    air, rh, wind, beam = (mean(a, slots)[..., at] for a in (steps.air, steps.rh, steps.wind, steps.light.dni))
    warm, chill = heat_index(air, rh), wind_chill(air, wind)
    sunny = in_sun(warm, beam)
    notes = (
        _note(view, Strain.HEAT, at, warm >= HEAT_LEVELS[0].limit, warm, sunny),
        _note(view, Strain.COLD, at, chill <= COLD_LEVELS[0].limit, chill, None),
    )
    return CrewNotes(tuple(n for n in notes if n is not None), _hot(view, at))


def _note(
    view: JobView, strain: Strain, at: Ints, asks: np.ndarray, felt: Array, sunny: Array | None
) -> CrewNote | None:
    """Of the slots that ask something; a cold morning and a cold evening are two spans, short lulls are none."""
    assert view.site is not None
    slots, where = view.site.slots, np.flatnonzero(asks)
    if not where.size:
        return None
    pieces = np.split(where, np.flatnonzero(np.diff(where) > LULL_H / slots.length_h) + 1)
    spans = tuple((slots.time(int(at[p[0]])), slots.time(int(at[p[-1]]) + 1)) for p in pieces)
    worst = float(felt[asks].max() if sunny is not None else felt[asks].min())
    sun = None if sunny is None else float(sunny[asks].max())
    step = level(strain, worst if sun is None else sun)
    assert step is not None
    shade = () if sunny is None else _shade(view, at[where[0] : where[-1] + 1])
    return CrewNote(strain, step, spans, worst, sun, shade)


def _of_faces(view: JobView, name: str, at: Ints) -> list[tuple[Face, Array]]:
    """The greatest of a quantity over the parts of each face, in those slots."""
    site = view.site
    assert site is not None
    out = []
    for face in view.bundle.property.faces:
        zones, items = view.bundle.property.zones_of(face.id), view.bundle.property.items_of(face.id)
        parts = [p for p in zones or items if site.knows(p)]
        if parts:
            each = [getattr(site.surface_of(p, p.colour_now).climate, name)[0] for p in parts]
            out.append((face, np.asarray(mean(np.maximum.reduce(each), site.slots)[at])))
    return out


def _shade(view: JobView, at: Ints) -> tuple[Shade, ...]:
    assert view.site is not None
    slots = view.site.slots
    out = []
    for face, beam in _of_faces(view, "poa_direct", at):
        edges = np.flatnonzero(np.diff(np.concatenate([[0], beam < SHADE_BELOW, [0]]).astype(int)))
        stretches = list(zip(edges[::2].tolist(), edges[1::2].tolist(), strict=True))
        if not stretches:
            continue
        a, b = max(stretches, key=lambda s: s[1] - s[0])
        if (b - a) * slots.length_h >= SHADE_LEAST_H or b - a == len(at):
            out.append(Shade(face.name, slots.time(int(at[a])), slots.time(int(at[b - 1]) + 1), b - a == len(at)))
    return tuple(out)


def _hot(view: JobView, at: Ints) -> tuple[HotSurface, ...]:
    assert view.site is not None
    slots = view.site.slots
    return tuple(
        HotSurface(face.name, float(c.max()), slots.time(int(at[int(c.argmax())])))
        for face, c in _of_faces(view, "surface", at)
        if c.max() >= (KNELT_ON_C if face.tilt_deg < KNELT_ON_DEG else TOUCHED_C)
    )
