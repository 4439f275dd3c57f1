"""A house blocked out from one form: drawn while it is typed, built in one step, taken back in one."""

import re

import pytest
from fastapi.testclient import TestClient

from amber_gable.core.survey.drawing.house_plan import house_plan
from amber_gable.domain.house.survey import Property
from amber_gable.services.context import Context
from amber_gable.services.job.details import start_job
from amber_gable.store.job.jobs import load_bundle
from tests.clients import submit

FORM = {
    "width_m": "9.6", "depth_m": "8", "eaves_m": "5.6", "looks": "188", "roof": "gable-along", "pitch": "35°",
    "substrate": "wood-lap", "colour": "#53685c", "trim": "on",
}  # fmt: skip
NEW = {"name": "9 Weir Lane", "customer": "Nell Hart", "place": "New Glasgow"}


@pytest.fixture
def empty(ctx: Context) -> str:
    return start_job(ctx, NEW)


def _house(ctx: Context, job_id: str) -> Property:
    with ctx.reading() as session:
        return load_bundle(session, job_id).property


def test_a_house_is_built_in_one_step_and_taken_back_in_one(client: TestClient, ctx: Context, empty: str) -> None:
    page = client.post(f"/jobs/{empty}/survey/block", data=FORM)
    assert page.status_code == 200 and "Built." in page.text
    house = _house(ctx, empty)
    assert [f.name for f in house.faces] == ["Front", "Left side", "Back", "Right side"]
    # 35° over half of 8 m: 4 × tan 35° = 2.80 m.
    assert house.face(house.faces[1].id).top_m == pytest.approx(8.401, abs=0.001)
    assert {z.substrate for z in house.zones} == {"wood-lap", "wood-trim"} and len(house.zones) == 8
    assert "fail to close" not in page.text
    submit(client, f"/jobs/{empty}/undo")
    assert not _house(ctx, empty).faces


def test_it_is_drawn_while_it_is_typed_and_nothing_is_saved(client: TestClient, ctx: Context, empty: str) -> None:
    panel = {"hx-request": "true"}
    drawn = client.post(f"/jobs/{empty}/survey/block", data=FORM, headers=panel).text
    assert drawn.count("<figure") == 4 and "<html" not in drawn
    short = client.post(f"/jobs/{empty}/survey/block", data={"width_m": "9.6"}, headers=panel).text
    assert "<figure" not in short and "then it is drawn" in short
    wrong = client.post(f"/jobs/{empty}/survey/block", data=FORM | {"depth_m": "eight"}, headers=panel).text
    assert "eight" in wrong and not _house(ctx, empty).faces


def test_a_height_is_told_in_storeys(client: TestClient, ctx: Context, empty: str) -> None:
    submit(client, f"/jobs/{empty}/survey/block", data=FORM | {"eaves_m": "2 storeys", "units": "us"})
    # 2.8 m from floor to floor, whatever units are shown.
    assert _house(ctx, empty).faces[0].top_m == pytest.approx(5.6)
    wrong = client.post(f"/jobs/{empty}/survey/block", data=FORM | {"eaves_m": "70 storeys"})
    assert wrong.status_code == 422 and "70 storeys are no house" in wrong.text


def test_feet_and_inches_and_a_pitch_in_twelfths(client: TestClient, ctx: Context, empty: str) -> None:
    feet = {"width_m": "31' 6\"", "depth_m": "24", "eaves_m": "18'", "pitch": "8/12", "units": "us"}
    submit(client, f"/jobs/{empty}/survey/block", data=FORM | feet)
    left = _house(ctx, empty).faces[1]
    # 8 in 12 over 12 feet: 8 feet more than the eave's 18.
    assert left.width_m == pytest.approx(24 * 0.3048) and left.top_m == pytest.approx(26 * 0.3048)


def test_a_second_building_gets_names_of_its_own(client: TestClient, ctx: Context, empty: str) -> None:
    for form in (FORM, FORM | {"building": "Garage", "roof": "flat", "pitch": "", "roof_substrate": "membrane-roof"}):
        assert client.post(f"/jobs/{empty}/survey/block", data=form).status_code == 200
    house = _house(ctx, empty)
    names = [f.name for f in house.faces]
    assert len(set(names)) == len(names) == 9 and "Front 2" in names
    assert {f.building for f in house.faces} == {"House", "Garage"}


@pytest.mark.parametrize(
    ("change", "field", "words"),
    [
        ({"width_m": ""}, "width_m", "is needed"),
        ({"depth_m": "500 m"}, "depth_m", ""),
        ({"looks": "up"}, "looks", "up"),
        ({"pitch": ""}, "pitch", "8/12"),
        ({"pitch": "85°"}, "pitch", "no roof’s pitch"),
        ({"pitch": "steep"}, "pitch", "steep"),
        ({"roof": "dome"}, "roof", "not a roof"),
        ({"colour": "red"}, "colour", ""),
    ],
)
def test_what_cannot_be_is_said_by_its_field_and_the_rest_stays(
    client: TestClient, ctx: Context, empty: str, change: dict[str, str], field: str, words: str
) -> None:
    page = client.post(f"/jobs/{empty}/survey/block", data=FORM | change)
    assert page.status_code == 422 and words in page.text and 'value="5.6"' in page.text
    assert re.search(r'class="fault"', page.text)
    assert not _house(ctx, empty).faces


def test_a_wall_is_filled_from_one_line_and_emptied_in_one(client: TestClient, ctx: Context, empty: str) -> None:
    submit(client, f"/jobs/{empty}/survey/block", data=FORM)
    front = _house(ctx, empty).faces[0].id
    line = {"line": "2 2/2 sash 0.9 x 1.4 sill 0.9, shutters; door; 2 2/2 sash, shutters", "from": "list"}
    page = client.post(f"/jobs/{empty}/survey/face/{front}/line", data=line)
    assert page.status_code == 200 and "Put up." in page.text
    house = _house(ctx, empty)
    face = house.face(front)
    assert [o.kind.value for o in face.openings] == ["window", "window", "door", "window", "window"]
    kinds = [i.spec.kind for i in house.items_of(front)]
    assert (kinds.count("sash-window"), kinds.count("shutter-pair"), kinds.count("panelled-door")) == (4, 4, 1)
    sash = next(i.spec for i in house.items if i.spec.kind == "sash-window")
    assert (sash.panes_across, sash.panes_down) == (2, 1)
    submit(client, f"/jobs/{empty}/undo")
    assert not _house(ctx, empty).face(front).openings and not _house(ctx, empty).items


@pytest.mark.parametrize(
    ("line", "words"),
    [("3 portholes", "no opening known here"), ("12 sash", "are free"), ("sash 0.9 x 9", ""), ("", "othing is told")],
)
def test_a_line_that_cannot_be_stays_with_its_words(
    client: TestClient, ctx: Context, empty: str, line: str, words: str
) -> None:
    submit(client, f"/jobs/{empty}/survey/block", data=FORM)
    front = _house(ctx, empty).faces[0].id
    page = client.post(f"/jobs/{empty}/survey/face/{front}/line", data={"line": line})
    assert page.status_code == 422 and words in page.text and f'value="{line}"' in page.text
    assert not _house(ctx, empty).face(front).openings


WING = {
    "wing_side": "back", "wing_width_m": "4.2", "wing_depth_m": "3", "wing_from": "right", "wing_eaves_m": "2.8",
    "wing_roof": "lean-to", "wing_pitch": "0.7 m", "wing_name": "Kitchen wing",
}  # fmt: skip


def test_a_wing_makes_an_l_and_stands_on_the_plan(client: TestClient, ctx: Context, empty: str) -> None:
    page = client.post(f"/jobs/{empty}/survey/block", data=FORM | WING)
    house = _house(ctx, empty)
    names = [f.name for f in house.faces][4:]
    assert names == ["Kitchen wing, right side", "Kitchen wing, back", "Kitchen wing, left side"]
    back = next(f for f in house.faces if f.name == "Back")
    # 9.6 × 5.6 less the 4.2 × 3.5 that the wing's roof line and walls hide at its right.
    assert back.area_m2 == pytest.approx(9.6 * 5.6 - 4.2 * 3.5) and back.points[1][0] == pytest.approx(5.4)
    assert "fail to close" not in page.text
    submit(client, f"/jobs/{empty}/survey/block", data=FORM | WING | {"building": "Barn"})
    stands = {"House": list[float](), "Barn": list[float]()}
    for wall in house_plan(_house(ctx, empty).faces):
        stands[wall.face.building] += [wall.start[0], wall.end[0]]
    assert min(stands["Barn"]) > max(stands["House"]) + 1


def test_a_wing_is_refused_at_its_field(client: TestClient, ctx: Context, empty: str) -> None:
    for change, field, words in (
        ({"wing_depth_m": ""}, "wing_depth_m", "is needed"),
        ({"wing_from": "far"}, "wing_from", "far"),
        ({"wing_pitch": "steep"}, "wing_pitch", "steep"),
        ({"wing_width_m": "12"}, "", "ends 12.00 m"),
        ({"wing_eaves_m": "5.5"}, "", "stands above the wall it meets"),
    ):
        page = client.post(f"/jobs/{empty}/survey/block", data=FORM | WING | change)
        assert page.status_code == 422 and words in page.text and 'value="Kitchen wing"' in page.text, change
        assert not field or f'id="fault-{field}"' in page.text, change
    assert not _house(ctx, empty).faces


def test_a_house_is_walked_round_wall_by_wall(client: TestClient, ctx: Context, empty: str) -> None:
    walk = f"/jobs/{empty}/survey/block/walk"
    form = {k: v for k, v in FORM.items() if k not in ("width_m", "depth_m", "roof", "pitch")}
    missed = client.post(walk, data=form | {"walk": "9.6 left 8 left 9.6 left 7", "eaves_m": ""})
    assert (
        missed.status_code == 422 and "1.00 m behind it" in missed.text and "9.6 left 8 left 9.6 left 7" in missed.text
    )
    assert not _house(ctx, empty).faces
    built = client.post(walk, data=form | {"walk": "9.6 left 8 left 5.4 right 3"})
    assert built.status_code == 200 and "Built." in built.text and "fail to close" not in built.text
    house = _house(ctx, empty)
    assert [f.name for f in house.faces] == ["Front", "Right side", "Back", "Right side 2", "Back 2", "Left side"]
    assert sum(f.area_m2 for f in house.faces) == pytest.approx(5.6 * (9.6 + 8 + 5.4 + 3 + 4.2 + 11))
    submit(client, f"/jobs/{empty}/undo")
    assert not _house(ctx, empty).faces


def test_a_wall_is_filled_like_another_and_the_opposite_one_the_other_way_round(
    client: TestClient, ctx: Context, empty: str
) -> None:
    submit(client, f"/jobs/{empty}/survey/block", data=FORM)
    base = f"/jobs/{empty}/survey"
    submit(client, f"{base}/face/front/line", data={"line": "door; 2 sash 0.9 x 1.4 sill 0.9, shutters"})
    submit(client, f"{base}/face/back/line", data={"line": "Same as front"})
    house = _house(ctx, empty)
    front, back = house.face("front"), house.face("back")
    placed = {f.id: sorted((round(o.x_m + o.width_m / 2, 3), o.kind.value) for o in f.openings) for f in (front, back)}
    # The door stands left in front; who looks at the back sees it at the right.
    assert placed["back"] == sorted((round(9.6 - x, 3), kind) for x, kind in placed["front"])
    kinds = {f: sorted(i.spec.kind for i in house.items_of(f)) for f in ("front", "back")}
    assert kinds["back"] == kinds["front"]
    assert kinds["back"] == ["panelled-door", "sash-window", "sash-window", "shutter-pair", "shutter-pair"]
    assert len({o.name for f in house.faces for o in f.openings}) == 6, "each has a name of its own"
    assert client.get(f"{base}/face/back").text.count('title="fill Back like Front"') == 1, "one step"
    wrong = client.post(f"{base}/face/left-side/line", data={"line": "same as barn"}).text
    assert "“barn” is no other wall here: Front, Back, Right side" in wrong
    narrow = client.post(f"{base}/face/left-side/line", data={"line": "same as left"}).text
    assert "is no other wall here" in narrow
    submit(client, f"/jobs/{empty}/undo")
    assert not _house(ctx, empty).face("back").openings
