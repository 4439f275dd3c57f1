"""Decks, porches and fences blocked out from one form."""

import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.house.survey import Property
from amber_gable.services.context import Context
from amber_gable.services.job.details import start_job
from amber_gable.store.job.jobs import load_bundle
from tests.clients import submit
from tests.jobs import demo_job

DECK = {
    "name": "Cedar deck", "width_m": "6", "depth_m": "4.2", "looks": "S", "substrate": "wood-deck", "colour": "#9b8468",
    "boards": "across", "rails": "4.4; left", "rail_substrate": "wood-trim", "rail_colour": "#9b8468", "treads": "4",
}  # fmt: skip


@pytest.fixture
def empty(ctx: Context) -> str:
    return start_job(ctx, {"name": "Heron Lane 2", "customer": "Nell Hart", "place": "New Glasgow"})


def _house(ctx: Context, job_id: str) -> Property:
    with ctx.reading() as session:
        return load_bundle(session, job_id).property


def test_a_deck_with_railings_and_a_stair_as_the_demo_has_it(client: TestClient, ctx: Context, empty: str) -> None:
    assert client.post(f"/jobs/{empty}/survey/block/floor", data=DECK).status_code == 200
    house, demo = _house(ctx, empty), demo_job("4-heron-deck").property
    (deck,) = house.faces
    theirs = demo.face("deck")
    assert (deck.area_m2, deck.azimuth_deg, deck.tilt_deg) == (theirs.area_m2, theirs.azimuth_deg, theirs.tilt_deg)
    assert house.zones[0].profile == demo.zones[0].profile
    rails = [i.spec.length_m for i in house.items if i.spec.kind == "railing"]
    assert rails == [4.4, 4.2] and [i.spec.treads for i in house.items if i.spec.kind == "stair"] == [4]
    submit(client, f"/jobs/{empty}/undo")
    assert not _house(ctx, empty).faces and not _house(ctx, empty).items


def test_two_of_a_kind_get_names_of_their_own(client: TestClient, ctx: Context, empty: str) -> None:
    slab = DECK | {"name": "Porch", "substrate": "concrete-slab", "rails": "all", "treads": ""}
    for form in (slab, slab):
        assert client.post(f"/jobs/{empty}/survey/block/floor", data=form).status_code == 200
    house = _house(ctx, empty)
    assert [f.name for f in house.faces] == ["Porch", "Porch 2"]
    # Round three sides: 4.2, 6 and 4.2 m, twice; a slab has no boards.
    assert sorted(i.spec.length_m for i in house.items) == [4.2, 4.2, 4.2, 4.2, 6, 6]
    assert len({i.name for i in house.items}) == 6 and all(z.profile is None for z in house.zones)


def test_a_name_may_have_any_letters(client: TestClient, ctx: Context, empty: str) -> None:
    for name in ("Véranda", "½", "納屋"):
        assert client.post(f"/jobs/{empty}/survey/block/floor", data=DECK | {"name": name}).status_code == 200
    assert [f.name for f in _house(ctx, empty).faces] == ["Véranda", "½", "納屋"]


def test_a_fence_has_two_sides_that_look_apart(client: TestClient, ctx: Context, empty: str) -> None:
    fence = {"name": "Fence", "length_m": "12' 6\"", "height_m": "6'", "looks": "E", "substrate": "board-batten",
             "colour": "#9b8468", "both_sides": "on", "units": "us"}  # fmt: skip
    assert client.post(f"/jobs/{empty}/survey/block/fence", data=fence).status_code == 200
    here, there = _house(ctx, empty).faces
    assert (here.azimuth_deg, there.azimuth_deg) == (90, 270)
    assert here.area_m2 == there.area_m2 == pytest.approx(12.5 * 6 * 0.3048**2)


@pytest.mark.parametrize(
    ("what", "change", "field"),
    [
        ("floor", {"width_m": ""}, "width_m"), ("floor", {"rails": "everywhere"}, "rails"),
        ("floor", {"treads": "a few"}, "treads"), ("floor", {"looks": "up"}, "looks"),
        ("floor", {"rail_height_m": "9"}, "rail_height_m"), ("fence", {"height_m": "40 m"}, "height_m"),
        ("fence", {"length_m": "long"}, "length_m"), ("fence", {"substrate": "jam"}, ""),
        ("floor", {"substrate": "jam"}, ""), ("floor", {"rail_substrate": "jam"}, ""),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_at_its_field(
    client: TestClient, ctx: Context, empty: str, what: str, change: dict[str, str], field: str
) -> None:
    form = (DECK | {"length_m": "6", "height_m": "1.8"}) | change
    page = client.post(f"/jobs/{empty}/survey/block/{what}", data=form)
    assert page.status_code == 422 and not _house(ctx, empty).faces
    assert (f'id="fault-{field}"' if field else 'class="fault"') in page.text
    assert change.get(field, "") in page.text
