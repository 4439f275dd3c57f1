"""A house in candidate colours under the sun of a chosen day and hour (docs/trade.md §6).

A face gives back its colour times the light that falls on it: beam, sky and ground on its own plane under a clear sky
(docs/physics.md §2), against full sun. Low sun is amber. What the eye adapts to is kept: shade is never black.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime

import numpy as np

from amber_gable.core.specification.colour.difference import as_hex, linear
from amber_gable.core.specification.derived.facts import surface_tags
from amber_gable.core.survey.amounts.painted import Key, part_key
from amber_gable.core.survey.drawing.horizon import face_horizon
from amber_gable.core.weather.outdoors import irradiance, sun
from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.weather.outdoors.light import HorizontalLight
from amber_gable.domain.house.survey import Face, Item, Property, Zone
from amber_gable.domain.paint.scheme import Scheme, colour_group

FULL_SUN = 950.0
"""Light on a plane square to a high clear sun, W/m²: counts as 1."""
CLEAR_DIFFUSE = 0.17
"""Share of diffuse light under a cloudless sky: an assumption, about what Erbs gives for a clearness index of 0.75."""
_ADAPTED, _DARKEST = 0.42, 0.12
_LOW_SUN_DEG = 25.0
_AMBER = np.array([1.0, 0.90, 0.72])
_NIGHT = np.array([0.80, 0.88, 1.0])


@dataclass(frozen=True)
class Light:
    """What falls on a face: all light on its plane and the beam in it, W/m², and the factor on linear light (3,)."""

    poa_global: float
    poa_direct: float
    factor: Array

    @property
    def in_sun(self) -> bool:
        return self.poa_direct > 40.0


@dataclass(frozen=True)
class Moment:
    """The sun at the chosen time, and the light on every face by its id."""

    elevation: float
    azimuth: float
    faces: Mapping[str, Light]


def light_at(place: Property, when: datetime) -> Moment:
    """Clear-sky light on each face at a moment with its time zone. Sun by NREL SPA, sky after Haurwitz, tilted after
    Hay & Davies."""
    position = sun.position(np.array([when.timestamp()]), place.latitude, place.longitude, place.altitude_m)
    light = _clear(position)
    faces = place.faces
    azimuth = np.array([f.azimuth_deg for f in faces])
    tilt = np.array([f.tilt_deg for f in faces])
    on = sun.on_faces(position, light, azimuth, tilt, [face_horizon(f) for f in faces])
    elevation = float(position.elevation[0])
    lights = {
        f.id: _light(float(on.poa_global[i, 0]), float(on.poa_direct[i, 0]), elevation) for i, f in enumerate(faces)
    }
    return Moment(elevation, float(position.azimuth[0]), lights)


def _clear(position: sun.SunPosition) -> HorizontalLight:
    zenith = 90.0 - position.elevation
    ghi = irradiance.clear_sky(zenith)
    ghi = np.where(position.elevation > 0, ghi, 0.0)
    dhi = CLEAR_DIFFUSE * ghi
    height = np.sin(np.radians(np.maximum(position.elevation, 0)))
    dni = np.divide(ghi - dhi, height, out=np.zeros_like(ghi), where=height > 0.03)
    return HorizontalLight(
        ghi=ghi, dni=np.minimum(dni, position.extraterrestrial * 0.85), dhi=dhi, cloud=np.zeros_like(ghi)
    )


def _light(plane: float, beam: float, elevation: float) -> Light:
    """The factor on linear light: the eye adapts, so the shade keeps a good part of its brightness."""
    strength = min(plane / FULL_SUN, 1.0)
    lit = np.ones(3)
    if elevation <= 0:
        return Light(plane, beam, _DARKEST * _NIGHT)
    low = max(0.0, 1.0 - elevation / _LOW_SUN_DEG)
    share = beam / plane if plane > 0 else 0.0
    lit = lit - (1.0 - _AMBER) * low * share
    return Light(plane, beam, (_ADAPTED + (1.0 - _ADAPTED) * strength) * lit)


def shown(colour: str, light: Light) -> str:
    """A colour as it looks in that light."""
    return as_hex(linear(colour) * light.factor)


def part_colours(place: Property, scheme: Scheme | None, base: Mapping[Key, str]) -> dict[Key, str]:
    """The colour of every zone and item: the scheme's for its group, else what `base` says, else what it has now."""
    out: dict[Key, str] = {}
    parts: list[Zone | Item] = [*place.zones, *place.items]
    for part in parts:
        kind = part.spec.kind if isinstance(part, Item) else ""
        group = colour_group(surface_tags(part.substrate, kind))
        chosen = scheme.colours.get(group) if scheme else None
        out[part_key(part)] = chosen.colour if chosen else base.get(part_key(part), part.colour_now)
    return out


def lit_colours(face: Face, place: Property, colours: Mapping[Key, str], moment: Moment) -> dict[Key, str]:
    """The colours of a face's parts as they look at that moment."""
    light = moment.faces[face.id]
    parts: list[Zone | Item] = [*place.zones_of(face.id), *place.items_of(face.id)]
    return {part_key(p): shown(colours[part_key(p)], light) for p in parts}
