"""The list of towns: names as people type them, on every continent, without a network."""

import numpy as np
import pytest

from amber_gable.exchange.towns import distance_km, find_towns, folded, nearest_town

# Typed, what is found first, its zone, and about where (whole degrees).
TOWNS = [
    ("Halifax, Canada", "Halifax", "America/Halifax", 45, -64),
    ("bangor, me", "Bangor", "America/New_York", 45, -69),
    ("St John's", "St. John's", "America/St_Johns", 48, -53),
    ("São Paulo", "São Paulo", "America/Sao_Paulo", -24, -47),
    ("valparaiso, chile", "Valparaíso", "America/Santiago", -33, -72),
    ("Quito", "Quito", "America/Guayaquil", 0, -79),
    ("Anchorage", "Anchorage", "America/Anchorage", 61, -150),
    ("Caracas", "Caracas", "America/Caracas", 10, -67),
    ("reykjavik", "Reykjavík", "Atlantic/Reykjavik", 64, -22),
    ("Cork", "Cork", "Europe/Dublin", 52, -8),
    ("Zurich", "Zürich", "Europe/Zurich", 47, 9),
    ("Malaga", "Málaga", "Europe/Madrid", 37, -4),
    ("Tromso", "Tromsø", "Europe/Oslo", 70, 19),
    ("Lodz", "Łódź", "Europe/Warsaw", 52, 19),
    ("Lagos, Nigeria", "Lagos", "Africa/Lagos", 6, 3),
    ("Lagos, Portugal", "Lagos", "Europe/Lisbon", 37, -9),
    ("Nairobi", "Nairobi", "Africa/Nairobi", -1, 37),
    ("Cape Town", "Cape Town", "Africa/Johannesburg", -34, 18),
    ("Cairo", "Cairo", "Africa/Cairo", 30, 31),
    ("Tehran", "Tehran", "Asia/Tehran", 36, 51),
    ("Kathmandu", "Kathmandu", "Asia/Kathmandu", 28, 85),
    ("Mumbai", "Mumbai", "Asia/Kolkata", 19, 73),
    ("Yangon", "Yangon", "Asia/Yangon", 17, 96),
    ("Urumqi", "Ürümqi", "Asia/Urumqi", 44, 88),
    ("Sapporo", "Sapporo", "Asia/Tokyo", 43, 141),
    ("Adelaide", "Adelaide", "Australia/Adelaide", -35, 139),
    ("Broken Hill", "Broken Hill", "Australia/Broken_Hill", -32, 141),
    ("Hobart, Australia", "Hobart", "Australia/Hobart", -43, 147),
    ("Dunedin, New Zealand", "Dunedin", "Pacific/Auckland", -46, 171),
    ("Suva", "Suva", "Pacific/Fiji", -18, 178),
    ("Honolulu", "Honolulu", "Pacific/Honolulu", 21, -158),
]


@pytest.mark.parametrize(("typed", "name", "zone", "latitude", "longitude"), TOWNS, ids=[t[0] for t in TOWNS])
def test_towns_of_every_continent(typed: str, name: str, zone: str, latitude: int, longitude: int) -> None:
    town = find_towns(typed)[0]
    assert (town.name, town.time_zone) == (name, zone)
    assert abs(town.latitude - latitude) < 1 and abs(town.longitude - longitude) < 1


def test_a_name_that_stands_in_several_countries_gives_all_the_one_near_home_first() -> None:
    far = find_towns("Halifax")
    assert {t.country for t in far if t.name == "Halifax"} >= {"Canada", "United Kingdom"}
    assert find_towns("Halifax", (53.8, -1.8))[0].country == "United Kingdom"
    assert find_towns("Halifax", (45.0, -62.0))[0].country == "Canada"


@pytest.mark.parametrize("typed", ["", "x", "Qzzxy", "Halifax, Atlantis", ",", "  "])
def test_what_is_no_town_finds_none(typed: str) -> None:
    assert find_towns(typed) == []


def test_the_beginning_of_a_name_is_enough() -> None:
    assert "Yarmouth" in {t.name for t in find_towns("yarmo")}
    assert folded("St. John’s") == folded("st john's")


def test_the_nearest_town_and_how_far_it_is() -> None:
    town, away = nearest_town(44.65, -63.58)
    assert "Halifax" in town.name and away < 10
    _, away = nearest_town(0.0, -140.0)
    assert away > 900
    # A quarter of the way round, and a degree along the equator.
    found = distance_km(np.array([0.0, 0.0]), np.array([90.0, 1.0]), 0.0, 0.0)
    assert found == pytest.approx([10007.5, 111.19], rel=1e-4)
