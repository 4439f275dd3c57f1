"""The weather of a place in members drawn around what is forecast for it."""

from dataclasses import replace
from datetime import datetime

from amber_gable.core.weather.futures.ensemble import draw_members, seed_of
from amber_gable.core.weather.outdoors.typical import stretch
from amber_gable.core.weather.wall.slot_climate import Place, PlaceWeather, place_weather
from amber_gable.domain.grid import SLOT_S
from amber_gable.domain.weather.series import WeatherSeries


def drawn_weather(
    place: Place,
    series: WeatherSeries,
    begin: datetime,
    days: int,
    count: int,
    seed: int | None = None,
    slot_s: int = SLOT_S,
) -> PlaceWeather:
    """`count` members for `days` days from the local date of `begin`; the first is the series itself.

    What tells no time of issue is taken as forecast when the first day begins. seed: by default that of the place and
    the issue. Raises NoClimate when the weather does not cover the days.
    """
    midnight = begin.astimezone(place.tz).replace(hour=0, minute=0, second=0, microsecond=0, fold=0)
    known = replace(stretch(series, midnight.date(), days), typical_year=False)
    first = int(midnight.timestamp())
    seed = seed if seed is not None else seed_of(known, first)
    drawn = draw_members(known, count, seed, first if known.issued is None else known.issued)
    return place_weather(place, drawn, midnight, days, slot_s=slot_s)
