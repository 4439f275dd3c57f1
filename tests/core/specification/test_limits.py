"""One limit: what limits a coat on a part is resolved in one place, as value and source, and every stage asks it."""

import inspect
from datetime import datetime

import numpy as np
import pytest

from amber_gable.core.climate import job_climate
from amber_gable.core.climate.job_climate import part_moisture_limit, site_climate
from amber_gable.core.specification.cautions import safety
from amber_gable.core.specification.cautions.limits import moisture_limit
from amber_gable.core.specification.choices import candidates
from amber_gable.core.specification.choices.candidates import candidates as ranked
from amber_gable.core.specification.colour import heat_check
from amber_gable.core.specification.derived import coats, facts
from amber_gable.core.weather.film import drying
from amber_gable.core.weather.film import limits as weather_limits
from amber_gable.core.weather.film.limits import coat_limits
from amber_gable.core.weather.judged import windows
from amber_gable.core.work import coverage
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.families import Family
from amber_gable.domain.paint.generic_products import GENERIC_PRODUCTS
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.schools import DEFAULTS, resolved
from amber_gable.domain.work.working import Policy
from tests.core.specification.spec_case import SOUND, case
from tests.jobs import one_wall
from tests.weather_cases import real_year

ACRYLIC = GENERIC_PRODUCTS["exterior-acrylic-standard"]
WOOD, DECK, BRICK = frozenset({"wood", "siding"}), frozenset({"wood", "deck"}), frozenset({"masonry", "brick"})

MOISTURE = [
    # tags, aim, school, the sheet's own figure -> limit, a word of its source
    (WOOD, "paint", "15", None, 15.0, "school"),
    (WOOD, "paint", "17", None, 17.0, "school"),
    (WOOD, "paint", "17", 15.0, 15.0, "sheet"),
    (WOOD, "paint", "15", 18.0, 15.0, "school"),
    (WOOD, "solid-stain", "15", None, 15.0, "school"),
    (WOOD, "semi-transparent", "15", None, 17.0, "stain"),
    (DECK, "translucent", "15", 14.0, 14.0, "sheet"),
    (DECK, "solid-stain", "17", None, 17.0, "school"),
]


@pytest.mark.parametrize(("tags", "aim", "school", "sheet", "value", "source"), MOISTURE)
def test_the_strictest_moisture_holds_and_says_whose_it_is(
    tags: frozenset[str], aim: str, school: str, sheet: float | None, value: float, source: str
) -> None:
    found = moisture_limit(tags, aim, resolved({"damp-limit": school}), sheet)
    assert found is not None
    assert found.value == value
    assert source in found.source
    assert moisture_limit(BRICK, aim, DEFAULTS, sheet) is None


def test_hold_and_wind_take_the_stricter_of_sheet_and_policy() -> None:
    long_hold = ACRYLIC.model_copy(update={"hold_h": 6.0})
    assert coat_limits(long_hold, Policy())["hold"].value == 6.0
    assert "sheet" in coat_limits(long_hold, Policy())["hold"].source
    overnight = coat_limits(long_hold, Policy(hold="overnight"))["hold"]
    assert (overnight.value, overnight.source) == (14.0, "school: overnight, fourteen hours")
    assert coat_limits(ACRYLIC, Policy())["wind"].value == 10.0
    assert coat_limits(ACRYLIC, Policy(), sprays=True)["wind"].value == 7.0
    assert coat_limits(ACRYLIC, Policy(spray_wind_max=12.0), sprays=True)["wind"].source == "policy: ladders"


def _damp_wall(school: str, reading: float) -> JobBundle:
    raw = one_wall().model_dump(mode="json")
    raw["property"]["zones"][0]["condition"] = SOUND | {"moisture": [{"pct": reading}]}
    raw["job"]["schools"] = {"damp-limit": school}
    return JobBundle.model_validate(raw)


@pytest.mark.parametrize(("school", "reading", "limit"), [("15", 16.0, 15.0), ("17", 16.0, 17.0), ("17", 17.5, 17.0)])
def test_specification_weather_and_ranking_give_the_same_answer(school: str, reading: float, limit: float) -> None:
    bundle = _damp_wall(school, reading)
    zone = bundle.property.zones[0]
    stopped = reading > limit
    told = part_moisture_limit(bundle, zone, ACRYLIC)
    assert told is not None
    assert told.value == limit
    found = case("w", "wood-lap", SOUND | {"moisture": reading}, "", "", schools={"damp-limit": school})
    assert bool(found.derived().stops) is stopped
    (best, *_) = ranked((Family.EXTERIOR_ACRYLIC,), found.facts, Method.BRUSH, [ACRYLIC])
    assert any("at most" in r for r in best.reasons) is stopped
    begin = datetime.fromisoformat("2025-06-02T00:00-05:00")
    site = site_climate(bundle, real_year(), begin, 1, begin.tzinfo)
    (check,) = [c for c in site.for_coat(zone, ACRYLIC, Method.BRUSH, "#e9dcc1").checks if c.rule.id == "substrate"]
    assert float(check.limit[0, 0]) == limit
    assert bool(np.all(check.stops)) is stopped
    assert school in check.source


USED = {
    # field of the sheet -> modules that compute with it
    "family": (candidates, coverage),
    "base": (candidates, windows),
    "sheen": (candidates,),
    "volume_solids_pct": (coverage,),
    "dry_film_um": (coverage,),
    "spread_low_m2_l": (coverage,),
    "spread_high_m2_l": (coverage,),
    "coats": (facts, coats),
    "air_min_c": (weather_limits,),
    "air_max_c": (weather_limits,),
    "surface_min_c": (weather_limits,),
    "surface_max_c": (weather_limits,),
    "rh_max_pct": (weather_limits,),
    "spread_min_c": (weather_limits,),
    "hold_h": (weather_limits,),
    "moisture_max_pct": (facts,),
    "touch_h": (drying,),
    "rain_ready_h": (drying,),
    "recoat_h": (drying,),
    "max_recoat_h": (weather_limits,),
    "foot_h": (facts, weather_limits),
    "methods": (candidates,),
    "substrates": (candidates,),
    "self_priming": (candidates,),
    "vinyl_safe": (candidates, heat_check),
    "vinyl_colours": (heat_check,),
    "contrast": (facts,),
    "hazards": (safety,),
    "solar_reflectance": (heat_check, job_climate),
}
INFORMATION = {
    "code", "name", "maker", "density_kg_l", "cure_d", "thinning_max_pct", "voc_g_l", "tips", "primer",
    "shelf_months", "note", "containers",
}  # fmt: skip
"""Shown, bought by, or kept for stages to come; no limit is taken from them."""


def test_every_field_of_a_sheet_is_computed_with_or_known_to_be_information() -> None:
    assert set(Product.model_fields) == set(USED) | INFORMATION
    assert not set(USED) & INFORMATION
    for field, modules in USED.items():
        for module in modules:
            assert field in inspect.getsource(module), f"{field} is not used in {module.__name__}"
