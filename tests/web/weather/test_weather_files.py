"""How far away a weather file's place is."""

from dataclasses import replace

import pytest

from amber_gable.services.weather.held.far_away import away_words
from tests.jobs import coopers_rise
from tests.weather_cases import steady, utc

HOUSE = coopers_rise().property.model_copy(update={"latitude": 45.25, "longitude": -62.1})


@pytest.mark.parametrize(
    ("place", "words"),
    [
        # A degree of latitude is 111.2 km.
        ((44.25, -62.1), "111 km (69 miles) away"),
        ((45.25 + 0.44, -62.1), ""),
        ((45.25 + 0.46, -62.1), "51 km"),
        # A degree of longitude there is cos 45.25° of it: 78.3 km.
        ((45.25, -63.1), "78 km"),
        ((45.25, -62.1), ""),
        ((None, None), ""),
    ],
)
def test_it_is_told_from_the_great_circle(place: tuple[float | None, float | None], words: str) -> None:
    series = replace(steady(utc("2026-09-14T00:00"), 72), latitude=place[0], longitude=place[1])
    told = away_words(series, HOUSE)
    assert words in told and bool(told) is bool(words)


def test_the_date_line_is_no_wall() -> None:
    fiji = HOUSE.model_copy(update={"latitude": -17.0, "longitude": 179.9})
    assert away_words(replace(steady(utc("2026-09-14T00:00"), 72), latitude=-17.0, longitude=-179.9), fiji) == ""
