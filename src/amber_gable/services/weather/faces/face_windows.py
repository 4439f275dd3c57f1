"""The one-face question of the command line: when can this coat go on this face?"""

from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, timedelta
from typing import Annotated, Any

import numpy as np
from pydantic import Field

from amber_gable.core.specification.cautions.limits import moisture_limit
from amber_gable.core.specification.colour.absorptance import absorptance_of
from amber_gable.core.weather.film.limits import Limit, coat_limits
from amber_gable.core.weather.futures.ensemble import MOST_MEMBERS, drawn_weather
from amber_gable.core.weather.futures.members import Coat, odds
from amber_gable.core.weather.judged.helps import SMALL
from amber_gable.core.weather.judged.windows import Windows
from amber_gable.core.weather.outdoors.typical import LEAD_DAYS, TAIL_DAYS, at_place
from amber_gable.core.weather.wall.damp import Damp
from amber_gable.core.weather.wall.slot_climate import (
    Place,
    PlaceWeather,
    SurfaceClimate,
    place_weather,
    surfaces_through,
)
from amber_gable.core.weather.wall.substrate_moisture import Moisture, MoistureEvent, dry_masonry, through
from amber_gable.core.weather.wall.surface import FaceSurface, WaterEvent
from amber_gable.domain.base import Azimuth, HexColour, Percent, Record
from amber_gable.domain.errors import InputError
from amber_gable.domain.findings.moisture_figures import MasonryFigures, moisture_figures
from amber_gable.domain.house.exposure import Exposure, Terrain
from amber_gable.domain.house.substrates import Substrate, substrate
from amber_gable.domain.paint.generic_products import generic_product
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Product
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.work.aims import usual_aim
from amber_gable.domain.work.schools import DEFAULTS
from amber_gable.domain.work.working import CrewDay, Policy
from amber_gable.services.weather.faces.face_answer import Reckoned, answer

MEMBER_DAYS = 9_000
"""Members times days that are computed at once: more would not fit into the memory of a small machine."""


class Reading(Record):
    """A meter's figure at a local time."""

    at: datetime
    pct: Percent


class CoatQuestion(Record):
    """A coat on faces of one kind. Coordinates default to the weather file's own."""

    latitude: Annotated[float, Field(ge=-66.5, le=66.5)] | None = None
    longitude: Annotated[float, Field(ge=-180, le=180)] | None = None
    tilt: Annotated[float, Field(ge=0, le=90)] = 90.0
    substrate: str
    colour: HexColour
    product: str
    method: Method
    exposure: Exposure = Exposure.OPEN
    terrain: Terrain = Terrain.SUBURB
    day_start: float = 7.0
    day_end: float = 19.0
    policy: Policy = Policy()


class FaceQuestion(CoatQuestion):
    """A coat on one face through a stretch of days, and what is done to it. Times without an offset are the file's."""

    azimuth: Azimuth
    moisture_pct: Percent | None = None
    readings: tuple[Reading, ...] = ()
    washes: tuple[datetime, ...] = ()
    towels: tuple[datetime, ...] = ()
    members: Annotated[int, Field(ge=1, le=MOST_MEMBERS)] | None = None
    seed: Annotated[int, Field(ge=0)] | None = None
    events: bool = False
    slot_min: int = 30
    start: date
    days: Annotated[int, Field(ge=1, le=366)] = 7


@dataclass(frozen=True)
class Framed:
    """The question in the words of the core."""

    face: FaceSurface
    product: Product
    place: Place
    begin: datetime
    damp: Damp | None
    water: tuple[WaterEvent, ...]
    crew: CrewDay


def answer_windows(question: FaceQuestion, series: WeatherSeries) -> dict[str, Any]:
    """Every slot of the days: workable or what stops it, readings, and when the coat is touch-dry and rain-ready.

    Times are the standard time of the place. A coat's times count from the end of its slot. Raises InputError and
    NoClimate in words.
    """
    series = there(question, series)
    q, asked = question, _asked(question, series)
    weather = place_weather(asked.place, series, asked.begin, q.days, slot_s=60 * q.slot_min)
    surface = surfaces_through(weather, [asked.face], water=asked.water)[0]
    windows = surface.coat(asked.product, q.method, q.policy, asked.crew, asked.damp)
    _long_enough(windows, weather, asked.product, series)
    made = Reckoned(
        surface=surface,
        windows=windows,
        moisture=_moisture(surface, asked.damp),
        limits=coat_limits(asked.product, q.policy, asked.damp.limit if asked.damp else None, sprays=q.method.sprays),
        product=asked.product,
        odds=None,
        events=q.events,
    )
    if q.members is None:
        return answer(made, series.notes)
    # The pace at which it dries was found in the weather itself, not in what might come of it.
    damp = asked.damp and replace(asked.damp, factor=made.moisture.factor if made.moisture else None)
    coat = Coat(asked.face, asked.product, q.method, damp, asked.water)
    drawn = _members(q, series, asked)
    return answer(made.with_odds(odds(drawn, [coat], q.policy, asked.crew)[0]), (*series.notes, _drawn(q)))


def there(q: CoatQuestion, series: WeatherSeries) -> WeatherSeries:
    """The series as it is read for the place asked about, with a note where it was made far from it."""
    if q.latitude is None or q.longitude is None:
        return series
    # Only asked for another place: the towns take a moment to read.
    from amber_gable.services.weather.held.far_away import far_words

    far = far_words(series, q.latitude, q.longitude)
    moved = at_place(series, q.longitude, UTC)
    return replace(moved, notes=(*moved.notes, f"the weather is of a place {far}")) if far else moved


def framed(q: CoatQuestion, azimuth: float, series: WeatherSeries, begin: datetime) -> Framed:
    """The question about one face in the words of the core, nothing done to it. Raises InputError, UnknownCode."""
    latitude = q.latitude if q.latitude is not None else series.latitude
    longitude = q.longitude if q.longitude is not None else series.longitude
    if latitude is None or longitude is None:
        raise InputError("--lat, --lon", f"{series.source} does not say where it is", "give both")
    product, kind = generic_product(q.product), substrate(q.substrate)
    taken = absorptance_of(q.colour, product.solar_reflectance)
    face = FaceSurface(
        azimuth_deg=azimuth,
        tilt_deg=q.tilt,
        substrate=kind,
        absorptance=taken.likely,
        exposure=q.exposure,
        terrain=q.terrain,
        absorptance_band=(taken.low, taken.high),
    )
    # No job says what is aimed at: the usual finish of the surface, under the usual schools.
    limit = moisture_limit(kind.tags, usual_aim(kind.tags).value, DEFAULTS, product.moisture_max_pct)
    limit = limit or dry_masonry(kind)
    return Framed(
        face=face,
        product=product,
        place=Place(latitude, longitude, series.altitude_m, series.zone),
        begin=begin,
        damp=_untouched(kind, limit),
        water=(),
        crew=CrewDay(start_h=q.day_start, end_h=q.day_end, setup_h=0, cleanup_h=0),
    )


def _untouched(kind: Substrate, limit: Limit | None) -> Damp | None:
    """Of a face nothing is told about: siding under its old film, which sheds the rain; masonry drinks through it, and
    a deck, which is walked on and lies flat, counts as bare."""
    figures = moisture_figures(kind)
    bare = isinstance(figures, MasonryFigures) or "deck" in kind.tags
    return None if limit is None or figures is None else Damp(limit, bare=bare)


def _asked(q: FaceQuestion, series: WeatherSeries) -> Framed:
    """With all that is done to the face."""
    held = q.days + LEAD_DAYS + TAIL_DAYS
    if q.members is not None and q.members * held > MEMBER_DAYS:
        most = MEMBER_DAYS // held
        raise InputError("--members", f"{q.members} members over {q.days} days are too many", f"ask for {most} at most")
    begin = datetime(q.start.year, q.start.month, q.start.day, tzinfo=series.zone)
    made = framed(q, q.azimuth, series, begin)
    return replace(made, damp=_damp(q, made), water=_water(q, made.face.substrate, begin))


def _damp(q: FaceQuestion, made: Framed) -> Damp | None:
    if made.damp is None:
        if q.readings or q.moisture_pct is not None:
            name = made.face.substrate.name
            raise InputError("--reading", f"{name} holds no water that a meter reads", "leave it out")
        return None
    read = [MoistureEvent(_moment(r.at, "--reading", q, made.begin), r.pct) for r in q.readings]
    if q.moisture_pct is not None:
        read.append(MoistureEvent(made.begin.timestamp(), q.moisture_pct))
    washed = [MoistureEvent(_moment(at, "--wash", q, made.begin)) for at in q.washes]
    events = tuple(sorted([*read, *washed], key=lambda e: e.at))
    # Who washes or meters it has it under preparation: bare in places.
    return replace(made.damp, events=events, bare=made.damp.bare or bool(events))


def _water(q: FaceQuestion, kind: Substrate, begin: datetime) -> tuple[WaterEvent, ...]:
    if q.towels and not kind.tags & SMALL:
        raise InputError(
            "--towel", f"{kind.name} is too large to be wiped dry", "wipe doors, trim, railings and floors"
        )
    done = [WaterEvent(_moment(at, "--wash", q, begin)) for at in q.washes]
    done += [WaterEvent(_moment(at, "--towel", q, begin), towel=True) for at in q.towels]
    return tuple(sorted(done, key=lambda e: e.at))


def _moment(at: datetime, flag: str, q: FaceQuestion, begin: datetime) -> float:
    """The epoch second of a local time between two days before the first day and the end of the last."""
    local = at if at.tzinfo is not None else at.replace(tzinfo=begin.tzinfo)
    first, end = begin - timedelta(days=2), begin + timedelta(days=q.days)
    if not first <= local < end:
        raise InputError(
            flag,
            f"{at:%Y-%m-%dT%H:%M} is outside the days asked for",
            f"give a time from {first:%Y-%m-%dT%H:%M} on and before {end:%Y-%m-%dT%H:%M}",
        )
    return local.timestamp()


def _long_enough(windows: Windows, weather: PlaceWeather, product: Product, series: WeatherSeries) -> None:
    """Raises InputError where the weather ends before the first coat could be rain-ready at its sheet's pace."""
    assert windows.rain_ready_at is not None
    ends = weather.steps.times[-1]
    after_h = (ends - windows.slots.start) / 3600 - windows.slots.length_h
    if np.isinf(windows.rain_ready_at).all() and after_h < product.rain_ready_h:
        until = datetime.fromtimestamp(ends, UTC).astimezone(windows.slots.tz)
        raise InputError(
            series.source or "the weather",
            f"it ends {until:%Y-%m-%d %H:%M}, {max(after_h, 0):.1f} h after the first slot; {product.name} is rain-"
            f"ready after {product.rain_ready_h:g} h by its sheet",
            "bring weather that reaches further",
        )


def _moisture(surface: SurfaceClimate, damp: Damp | None) -> Moisture | None:
    return None if damp is None else through(surface.climate, damp.events, bare=damp.bare)


def _members(q: FaceQuestion, series: WeatherSeries, asked: Framed) -> PlaceWeather:
    return drawn_weather(asked.place, series, asked.begin, q.days, q.members or 1, q.seed, 60 * q.slot_min)


def _drawn(q: FaceQuestion) -> str:
    return f"{q.members} members drawn around the weather as a forecast, the first being it"
