"""Where a house stands, as it is typed: found by a town's name, and asked about where it cannot be."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Annotated
from zoneinfo import ZoneInfo

import numpy as np

from amber_gable.domain.errors import Refused
from amber_gable.exchange.towns import Town, distance_km, find_towns, folded, nearest_town
from amber_gable.services.company.stores import usual_of
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form, Reads
from amber_gable.services.forms.types import Number, Tick, number
from amber_gable.store.job.board import first_place

MOST_OFF_H = 2.0
"""How far the sun may be from the clock: no zone but a few great ones goes further, so more is asked about."""
NEAR_KM, FAR_KM, SAME_TOWN_KM = 150.0, 300.0, 50.0


@dataclass(frozen=True)
class TypedPlace:
    """place: words for pages. altitude None: not typed."""

    place: str
    latitude: float
    longitude: float
    time_zone: str
    altitude_m: float | None


def _degrees(text: str) -> float:
    try:
        return number(text)
    except ValueError:
        raise ValueError("is not a number; write degrees such as 45.25") from None


class PlaceForm(Form):
    """Where a house stands, as far as it is told; `sure`: what is unlikely about it is meant so."""

    place: str = ""
    town: str = ""
    latitude: Annotated[float, Reads(lambda text, _: _degrees(text))] | None = None
    longitude: Annotated[float, Reads(lambda text, _: _degrees(text))] | None = None
    altitude_m: Number | None = None
    time_zone: str = ""
    sure: Tick = False


def towns_like(ctx: Context, text: str) -> list[Town]:
    """Near the company's home first, or near its first house before that is known."""
    return find_towns(text, home_of(ctx))


def home_of(ctx: Context) -> tuple[float, float] | None:
    """Degrees."""
    usual = usual_of(ctx)
    if usual is not None and usual.home is not None:
        return usual.home.latitude, usual.home.longitude
    with ctx.reading() as session:
        return first_place(session)


def read_place(ctx: Context, form: Mapping[str, str]) -> TypedPlace:
    """A place from a form: that of the town that was chosen (`town`, as `town_value` writes it), else the coordinates
    as they are typed, else those of the only town of its name, or of the only one near the company's home. A time zone
    left empty is that of the nearest town. What cannot be is refused by field, and what is only unlikely until `sure`
    is ticked. Raises Refused."""
    typed = PlaceForm.read(form)
    place, zone, latitude, longitude = typed.place, typed.time_zone, typed.latitude, typed.longitude
    chosen = next((t for t in towns_like(ctx, place) if town_value(t) == typed.town), None) if typed.town else None
    if chosen is not None:
        place, latitude, longitude, zone = chosen.name, chosen.latitude, chosen.longitude, chosen.time_zone
    elif latitude is None and longitude is None:
        only = _town(ctx, place)
        place, latitude, longitude, zone = only.name, only.latitude, only.longitude, zone or only.time_zone
    if latitude is None or longitude is None:
        missing = "latitude" if latitude is None else "longitude"
        raise Refused({missing: "is missing; give both, or neither and a town"})
    for key, value, most in (("latitude", latitude, 66.5), ("longitude", longitude, 180.0)):
        if abs(value) > most:
            raise Refused({key: f"{value:g} is outside −{most:g} to {most:g}"})
    zone = zone or nearest_town(latitude, longitude)[0].time_zone
    if not typed.sure:
        doubt = place_doubt(latitude, longitude, zone) or _elsewhere(place, latitude, longitude)
        if doubt:
            raise Refused({"sure": doubt})
    return TypedPlace(place, latitude, longitude, zone, typed.altitude_m)


def _elsewhere(place: str, latitude: float, longitude: float) -> str:
    """Where every town that a place is named after lies far from its coordinates: one of them was changed, and not the
    other. '' where nothing speaks against them."""
    wanted = folded(place.partition(",")[0])
    named = [t for t in find_towns(place, (latitude, longitude)) if folded(t.name) == wanted]
    away = [_km(t, latitude, longitude) for t in named]
    if not away or min(away) <= SAME_TOWN_KM:
        return ""
    town = named[away.index(min(away))]
    return f"{town.words} is {min(away):.0f} km from these coordinates; empty them, and the town’s are taken"


def _km(town: Town, latitude: float, longitude: float) -> float:
    return float(distance_km(np.array([town.latitude]), np.array([town.longitude]), latitude, longitude)[0])


def _near_home(ctx: Context, town: Town) -> bool:
    """Whether the company, once it said where it is at home, would mean this one of a name."""
    usual = usual_of(ctx)
    if usual is None or usual.home is None:
        return False
    return _km(town, usual.home.latitude, usual.home.longitude) < NEAR_KM


def town_value(town: Town) -> str:
    """As a form carries it."""
    return f"{town.latitude:g}/{town.longitude:g}/{town.time_zone}/{town.name}"


def _town(ctx: Context, place: str) -> Town:
    """The only one of its name. Raises Refused."""
    if not place:
        raise Refused({"place": "name the town, or give its coordinates"})
    found = towns_like(ctx, place)
    exact = [t for t in found if t.name.casefold() == place.partition(",")[0].strip().casefold()]
    if not found:
        raise Refused({"place": f"no town is known as “{place[:40]}”: name a larger one near by, or give coordinates"})
    if len(exact) == 1 or len(found) == 1:
        return (exact or found)[0]
    near = [t for t in exact if _near_home(ctx, t)]
    if len(near) == 1:
        return near[0]
    raise Refused({"place": f"“{place[:40]}” may be one of {len(found)} towns: choose it below"})


def nearest(latitude: float, longitude: float) -> tuple[str, str]:
    """Name of the nearest town, and how far away it is, in words."""
    town, km = nearest_town(latitude, longitude)
    name = town.name if km <= SAME_TOWN_KM else f"near {town.name}"
    return name, f"{km:.0f} km from {town.words}" if km >= 1 else f"in {town.words}"


def place_doubt(latitude: float, longitude: float, zone: str) -> str:
    """What is unlikely about coordinates and a time zone, in a sentence; '' where nothing is. Raises Refused for a zone
    that is not known."""
    try:
        tz = ZoneInfo(zone)
    except (KeyError, ValueError, OSError):
        raise Refused({"time_zone": f"“{zone[:40]}” is not a time zone; write such as America/Halifax"}) from None
    off = sun_off_h(longitude, tz)
    town, away = nearest_town(latitude, longitude)
    better = _other_sign(latitude, longitude, zone)
    if abs(off) > MOST_OFF_H:
        noon = (12 + off) % 24
        words = f"there the sun would stand highest at {int(noon):02d}:{int(noon % 1 * 60):02d} by the clock of {zone}"
        return f"{words}{better or f'; the zone there is {town.time_zone}'}"
    if better and (town.time_zone != zone or away > FAR_KM):
        return f"the nearest town, {town.words}, is {away:.0f} km away{better}"
    return ""


def _other_sign(latitude: float, longitude: float, zone: str) -> str:
    """Where another sign would put it near a town of that zone."""
    for lat, lon, words in (
        (latitude, -longitude, f"longitude {-longitude:g}"),
        (-latitude, longitude, f"latitude {-latitude:g}"),
        (-latitude, -longitude, f"latitude {-latitude:g} and longitude {-longitude:g}"),
    ):
        town, away = nearest_town(lat, lon)
        if away < NEAR_KM and town.time_zone == zone:
            return f"; with {words} it lies near {town.words}: west and south are negative"
    return ""


def sun_off_h(longitude: float, tz: ZoneInfo) -> float:
    """How much later than 12:00 the sun stands highest by standard time, hours; the equation of time (a quarter of an
    hour) left out."""
    offsets = [tz.utcoffset(datetime(2026, month, 15, tzinfo=UTC).astimezone(tz)) for month in (1, 7)]
    standard = min(o.total_seconds() / 3600 for o in offsets if o is not None)
    return (standard - longitude / 15 + 12) % 24 - 12
