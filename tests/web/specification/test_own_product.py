"""An own product from what its can says: read in the reader's units, the rest its family's and shown as such."""

from decimal import Decimal

import pytest
from fastapi.testclient import TestClient

from amber_gable.core.specification.choices.own_product import FAMILY_SHEETS, CanFigures, own_product, taken_from_family
from amber_gable.domain.paint.families import Family
from amber_gable.domain.paint.product import Container, Product
from amber_gable.domain.units import UnitSystem
from amber_gable.services.company.containers_typed import typed_containers
from amber_gable.services.company.own_products import own_tried
from amber_gable.services.company.stores import shelves
from amber_gable.services.context import Context

M, US = UnitSystem.METRIC, UnitSystem.US
CANS = (Container(litres=10, price=Decimal("132")),)
CAN = {"family": "exterior-acrylic", "name": "Tern Wallcoat", "containers": "1 L: 15.40; 10 L: 132", "units": "metric"}


def _made(family: Family = Family.EXTERIOR_ACRYLIC, **figures: object) -> Product:
    return own_product(family, CanFigures.model_validate({"name": "Own", "containers": CANS} | figures), "own")


def test_film_and_coverage_belong_together() -> None:
    """The family has 38 % solids at 40 µm: 10 × 38 ÷ 40 = 9.5 m²/L. Told 12 m²/L the film is 10 × 38 ÷ 12 = 31.7 µm;
    told 50 % it covers 10 × 50 ÷ 40 = 12.5 m²/L."""
    thin = _made(coverage_m2_l=(12.0, 12.0))
    assert thin.dry_film_um == pytest.approx(31.667, abs=0.001) and thin.volume_solids_pct == 38
    rich = _made(volume_solids_pct=50.0)
    assert rich.dry_film_um == 40 and rich.volume_solids_pct == 50
    stain = _made(Family.DECK_STAIN, coverage_m2_l=(4.0, 6.0))
    assert stain.dry_film_um == FAMILY_SHEETS[Family.DECK_STAIN].dry_film_um, "a stain goes in: no film to reckon"
    assert (stain.spread_low_m2_l, stain.spread_high_m2_l) == (4, 6)


def test_no_time_is_later_than_the_recoat_and_none_is_made_up() -> None:
    """An alkyd gloss dries to touch in 8 h; a can that says 6 h between coats is dry by then."""
    usual, quick = FAMILY_SHEETS[Family.ALKYD_GLOSS], _made(Family.ALKYD_GLOSS, recoat_h=6.0)
    assert (quick.touch_h, quick.recoat_h, quick.rain_ready_h) == (6, 6, usual.rain_ready_h)
    assert quick.max_recoat_h == usual.max_recoat_h and quick.cure_d == usual.cure_d


def test_a_base_brings_its_hazards_into_any_family() -> None:
    """Oily rags catch fire by themselves: the card must hang on an alkyd, whatever it was made from."""
    assert not _made().hazards
    assert set(_made(base="alkyd").hazards) == {"oily-rags", "strong-fumes"}
    assert "flammable" in _made(Family.STAIN_BLOCKER, base="shellac").hazards


@pytest.mark.parametrize("family", FAMILY_SHEETS)
def test_every_family_makes_a_sheet_that_says_what_is_the_familys(family: Family) -> None:
    can = CanFigures(name="Own", containers=CANS, lowest_c=4.0)
    made = own_product(family, can, "own")
    assert (made.air_min_c, made.surface_min_c) == (4, 4) and made.containers == CANS
    left = taken_from_family(made, can)
    assert "recoat_h" in left and "air_min_c" not in left and "air_max_c" in left


@pytest.mark.parametrize(
    ("text", "system", "litres", "price"),
    [
        ("1 gal: $52", M, 3.785412, "52"), ("1:56", M, 1, "56"), ("1:56", US, 3.785412, "56"),
        ("3.785 L 56,50", M, 3.785, "56.50"), ("5 gallons for 240.5", US, 18.927059, "240.5"),
        ("18.9 l = €1.240,50", M, 18.9, "1240.50"), ("1 qt @ 17", US, 0.946353, "17"),
        ("750 ml: 9.95", M, 0.75, "9.95"), ("10 L: 1,240", M, 10, "1240"),
    ],
)  # fmt: skip
def test_a_container_as_people_write_it(text: str, system: UnitSystem, litres: float, price: str) -> None:
    (can,) = typed_containers(text, system)
    assert can == {"litres": pytest.approx(litres, abs=1e-5), "price": price}


@pytest.mark.parametrize("text", ["fifty", "1 bucket: 50", "1 L", ": 50"])
def test_what_is_no_container_is_said_with_an_example(text: str) -> None:
    with pytest.raises(ValueError, match="write"):
        typed_containers(text, M)


@pytest.mark.parametrize(
    ("form", "system", "expected"),
    [
        ({"spread": "350-400", "lowest": "40", "recoat": "overnight", "coats": "two"}, US,
         {"spread_low_m2_l": 8.589835, "spread_high_m2_l": 9.816955, "air_min_c": 4.4444, "recoat_h": 16, "coats": 2}),
        ({"spread": "42 % solids", "lowest": "5 °C", "recoat": "2 days", "base": "alkyd"}, US,
         {"volume_solids_pct": 42, "air_min_c": 5, "recoat_h": 48, "base": "alkyd"}),
        ({"spread": "10 m²/L", "recoat": "90 min"}, M, {"dry_film_um": 38, "recoat_h": 1.5, "touch_h": 1}),
    ],
)  # fmt: skip
def test_figures_in_the_readers_units(form: dict[str, str], system: UnitSystem, expected: dict[str, object]) -> None:
    made, _ = own_tried(CAN | form, system)
    found = {k: getattr(made, k) for k in expected}
    assert found == {k: pytest.approx(v, abs=1e-4) if isinstance(v, float | int) else v for k, v in expected.items()}


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"name": ""}, "name"), ({"containers": ""}, "containers"), ({"spread": "400 m²/L"}, "spread"),
        ({"spread": "much"}, "spread"), ({"coats": "9"}, "coats"), ({"recoat": "soon"}, "recoat"),
        ({"lowest": "60"}, "lowest"), ({"family": "jam"}, "family"),
        # A stain's second coat goes on within the day: a later recoat is no longer that family's.
        ({"family": "deck-stain", "recoat": "2 days"}, "recoat"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_at_its_field(
    client: TestClient, ctx: Context, change: dict[str, str], field: str
) -> None:
    before = shelves(ctx).products
    page = client.post("/stores/product/own", data=CAN | change)
    assert page.status_code == 422 and (CAN | change)["containers"] in page.text
    assert f'id="fault-{field}"' in page.text or 'class="fault"' in page.text or "warn stop" in page.text
    assert shelves(ctx).products == before


def test_it_is_shown_while_it_is_typed_and_then_in_the_stores(client: TestClient, ctx: Context) -> None:
    tried = client.post("/stores/product/own", data=CAN, headers={"hx-request": "true"}).text
    assert "its family" in tried and "the can" in tried and "<html" not in tried
    page = client.post("/stores/product/own", data=CAN)
    assert page.url.path == "/stores/product/tern-wallcoat" and "Made and in the stores" in page.text
    again = client.post("/stores/product/own", data=CAN)
    assert again.url.path == "/stores/product/tern-wallcoat-2", "a second can of the name is a product of its own"
    assert {"tern-wallcoat", "tern-wallcoat-2"} <= {p.code for p in shelves(ctx).products}
