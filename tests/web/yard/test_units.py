"""A reader of one system of units finds no unit of the other, and what is typed in either comes back exactly."""

import re

import pytest
from fastapi.testclient import TestClient
from hypothesis import given
from hypothesis import strategies as st

from amber_gable.domain.paint.product import Product
from amber_gable.domain.units import UNITS, Quantity, UnitSystem, in_units, number, read, shown, typed
from amber_gable.services.company.stores import typed_product
from amber_gable.services.company.usual_units import usual_units
from amber_gable.services.context import Context
from amber_gable.services.job.stages import STAGES
from amber_gable.store.job.jobs import live_job
from amber_gable.store.tables import PropertyRow
from amber_gable.web.views.sheet_form import sheet_values
from tests.clients import submit
from tests.jobs import coopers_rise
from tests.web.forms import form_of

METRIC, US = UnitSystem.METRIC, UnitSystem.US
Q = Quantity

# By hand or from tables: quantity, metric, US
KNOWN = [
    (Q.TEMPERATURE, 10.0, "50.0 °F"),
    (Q.TEMPERATURE, -40.0, "-40.0 °F"),
    (Q.TEMPERATURE_DIFFERENCE, 3.0, "5.4 °F"),
    (Q.AREA, 9.290304, "100 ft²"),
    (Q.VOLUME, 3.785411784, "1.00 gal"),
    (Q.COVERAGE, 9.81696, "400 ft²/gal"),
    (Q.FILM, 38.1, "1.5 mil"),
    (Q.WIND, 4.4704, "10 mph"),
    (Q.RAIN_RATE, 2.54, "0.10 in/h"),
    (Q.PRESSURE, 137.9, "2000 psi"),
    (Q.MASS, 10.0, "22.0 lb"),
    (Q.DENSITY, 1.2, "10.0 lb/gal"),
    (Q.SMALL_LENGTH, 50.8, "2.00 in"),
    (Q.RUN, 3.048, "10.0 ft"),
]


@pytest.mark.parametrize(("quantity", "metric", "us"), KNOWN)
def test_figures_in_us_units(quantity: Quantity, metric: float, us: str) -> None:
    assert shown(quantity, metric, US) == us
    assert read(quantity, us, US) == pytest.approx(metric, rel=0.02)
    assert read(quantity, shown(quantity, metric, METRIC, 6), US) == pytest.approx(metric, abs=1e-6), "its own unit"


@given(st.sampled_from(list(Quantity)), st.sampled_from(list(UnitSystem)), st.integers(-40_000, 2_000_000))
def test_what_is_typed_comes_back_exactly(quantity: Quantity, system: UnitSystem, thousandths: int) -> None:
    metric = thousandths / 1000
    assert read(quantity, typed(quantity, metric, system), system) == pytest.approx(metric, abs=1e-9)


@pytest.mark.parametrize("text", ["", "warm", "10 m", "1 2", "50 °C °F", "NaN"])
def test_what_is_no_figure_is_refused_with_what_to_write(text: str) -> None:
    with pytest.raises(ValueError, match=r"not a number|not a unit"):
        read(Q.TEMPERATURE, text, US)


# Our own words, and what a reader of US units reads.
WORDS = [
    ("surface 5–35 °C, air 10 to 32 °C", "surface 41–95 °F, air 50 to 90 °F"),
    ("3 K over dew point, RH ≤ 85 %, wind ≤ 10 m/s", "5.4 °F over dew point, RH ≤ 85 %, wind ≤ 22 mph"),
    ("ground sheeted 3 m out", "ground sheeted 10 ft out"),
    ("49.5 m² ÷ 11 m²/h", "533 ft² ÷ 118 ft²/h"),
    ("wait 14 h; 2 coats; 12 to 17 %", "wait 14 h; 2 coats; 12 to 17 %"),
    ("a 0.5 mm gap, 40 µm dry", "a 0.020 in gap, 1.6 mil dry"),
]


@pytest.mark.parametrize(("words", "us"), WORDS)
def test_words_are_told_in_the_readers_units(words: str, us: str) -> None:
    assert in_units(words, US) == us
    assert in_units(words, METRIC) == words


def test_nothing_that_is_no_number_gets_digits() -> None:
    assert number(Q.TEMPERATURE, float("inf"), US) == "none"
    assert number(Q.WIND, -0.01, METRIC) == "0.0"


def test_a_sheet_goes_through_the_form_unchanged_in_both_systems(ctx: Context) -> None:
    for product in coopers_rise().products:
        for system in UnitSystem:
            values = sheet_values(product, system)
            single = {k: "yes" if v is True else v for k, v in values.items() if isinstance(v, str) or v is True}
            several = {k: v for k, v in values.items() if isinstance(v, list)}
            back = typed_product(single, several, system)
            assert back == Product.model_validate(product.model_dump()), (product.code, system)


RISE = "/jobs/coopers-rise"
PAGES = [
    *(f"{RISE}/{stage.path}" for stage in STAGES),
    "/", "/settings/rates", "/stores", "/stores/product/skerry-housecoat", "/stores/product/new", "/stores/colours",
    f"{RISE}/survey/face/front", f"{RISE}/survey/zone/front-siding", f"{RISE}/survey/item/shutters-1",
    f"{RISE}/survey/zone/new?face=front", f"{RISE}/survey/zone/front-siding/condition",
    f"{RISE}/survey/face/front/surroundings", f"{RISE}/survey/walk?at=front", f"{RISE}/survey/files",
    f"{RISE}/specification/zone/east-gable-siding", f"{RISE}/specification/item/shutters-1",
    "/jobs/quarry-lane/specification/zone/ql-left-vinyl", "/jobs/heron-deck/specification",
    f"{RISE}/specification/colours", f"{RISE}/specification/boards", "/jobs/heron-deck/estimate",
    f"{RISE}/today?day=2026-09-16", "/jobs/net-loft/today?day=2026-09-16", "/jobs/quarry-lane/plan",
]  # fmt: skip
_FIGURE = r"\d[\d.,]*\s*"
FOREIGN = {
    METRIC: re.compile(rf"{_FIGURE}(?:°F|ft²?|gal|mil|mph|psi|lb|in/h)\b|{_FIGURE}(?:°F|ft²)|\d['\u2032]\s?\d"),
    US: re.compile(rf"{_FIGURE}(?:°C|m²|m²/L|m/s|mm/h|mm|µm|cm|m|L|K|kg|bar|km)(?![\w²'/])"),
}


def _said(html: str) -> str:
    """What a reader sees or is read: text and labels, not what stands in the fields to be sent back."""
    html = re.sub(r"<(script|style)\b.*?</\1>", " ", html, flags=re.S)
    labels = re.findall(r'(?:aria-label|title|placeholder|data-label)="([^"]*)"', html)
    return " ".join([re.sub(r"\s+", " ", re.sub(r"<[^>]+>", " ", html)), *labels]).replace("&#39;", "'")


@pytest.mark.parametrize("system", list(UnitSystem))
@pytest.mark.parametrize("address", PAGES)
def test_no_page_shows_a_unit_of_the_other_system(visitor: TestClient, address: str, system: UnitSystem) -> None:
    answer = visitor.get(address, headers={"cookie": f"units={system.value}"})
    assert answer.status_code == 200
    found = FOREIGN[system].search(_said(answer.text))
    around = _said(answer.text)[max(found.start() - 60, 0) : found.end() + 30] if found else ""
    assert found is None, around


def test_units_are_guessed_from_where_the_houses_stand(ctx: Context) -> None:
    assert usual_units(ctx) is METRIC
    with ctx.writing() as session:
        place = session.get_one(PropertyRow, live_job(session, "coopers-rise").property_id)
        place.time_zone, place.created_at = "America/Denver", 1
    assert usual_units(ctx) is US


def test_the_choice_is_kept_whatever_was_guessed(client: TestClient) -> None:
    assert "m²" in client.get(f"{RISE}/survey").text
    submit(client, "/units")
    assert "ft²" in client.get(f"{RISE}/quantities").text
    submit(client, "/units")
    assert "ft²" not in client.get(f"{RISE}/quantities").text
    assert set(UNITS) == set(Quantity)


def test_a_form_is_read_in_the_units_it_was_shown_in(client: TestClient, ctx: Context) -> None:
    """The units are changed in another tab while a sheet stands open: 50 °F do not become 50 °C."""
    client.cookies.set("units", "us")
    form = form_of(client.get("/stores/product/skerry-housecoat").text, "/stores/product/save")
    assert form["surface_min_c"] == "50"
    client.cookies.set("units", "metric")
    answer = client.post("/stores/product/save", data=form | {"rh_max_pct": "84"})
    assert answer.status_code == 200
    again = form_of(client.get("/stores/product/skerry-housecoat").text, "/stores/product/save")
    assert (again["surface_min_c"], again["rh_max_pct"]) == ("10", "84")
