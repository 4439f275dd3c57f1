"""The survey's pages: forms and their faults, undo, copies, conditions, the meter, the walk, photos, files."""

import csv
import io
import re

import pytest
from fastapi.testclient import TestClient

from amber_gable.core.survey.drawing.house_plan import house_plan
from amber_gable.domain.job.job import JobBundle
from amber_gable.services.context import Context
from amber_gable.store.job.jobs import load_bundle
from tests.clients import submit
from tests.fixtures import unchanged
from tests.web.forms import form_of

pytestmark = pytest.mark.usefixtures("indoors")

RISE = "/jobs/coopers-rise"
SURVEY = f"{RISE}/survey"


def stored(ctx: Context, job: str = "coopers-rise") -> JobBundle:
    with ctx.reading() as session:
        return load_bundle(session, job)


# What the drawing table asks for: the part of the page that changes.
FRAGMENT = {"hx-request": "true"}


def _form(client: TestClient, kind: str, id_: str) -> dict[str, str]:
    return form_of(client.get(f"{SURVEY}/{kind}/{id_}", headers=FRAGMENT).text, f"{SURVEY}/{kind}/save")


FAULTS = [
    ("face", "front", {"outline.height_m": "-5.6"}, "less than nothing"),
    ("face", "front", {"outline.height_m": "0"}, "greater than 0"),
    ("face", "front", {"outline.width_m": "wide"}, "is not a length"),
    ("face", "front", {"outline.width_m": "9600 kg"}, "not a unit of length"),
    ("face", "front", {"outline.width_m": "1000000000 m"}, "no wall is longer"),
    ("face", "front", {"outline.width_m": "nan"}, "not a length"),
    ("face", "front", {"outline.width_m": "2"}, "outside the face"),
    ("face", "front", {"azimuth_deg": "up"}, "not a bearing"),
    ("face", "front", {"name": ""}, "is needed"),
    ("opening", "front-door", {"width_m": "30"}, "larger than the face"),
    ("opening", "front-door", {"x_m": "1.2"}, "overlap"),
    ("zone", "front-siding", {"substrate": "cheese"}, "not known"),
    ("zone", "front-trim", {"area.area_m2": ""}, "is needed"),
    ("zone", "front-trim", {"area.kind": "band", "area.from_m": "3", "area.to_m": "2"}, "above its lower edge"),
    ("zone", "front-trim", {"area.kind": "band", "area.from_m": "1", "area.to_m": "9"}, "reaches outside face"),
    ("zone", "front-trim", {"area.kind": "band", "area.from_m": "0", "area.to_m": "1"}, "lies over two zones"),
    ("zone", "front-trim", {"area.kind": "region", "area.corners": "0/0; 4/3; 4/0; 0/3"}, "crosses itself"),
    ("zone", "front-siding", {"profile.kind": "lap", "profile.exposure_m": "150"}, "add the unit"),
]


@pytest.mark.parametrize(("kind", "id_", "change", "words"), FAULTS)
def test_a_fault_in_a_form_is_shown_by_its_field_and_nothing_is_saved(
    client: TestClient, ctx: Context, kind: str, id_: str, change: dict[str, str], words: str
) -> None:
    form = _form(client, kind, id_)
    with unchanged(ctx):
        page = client.post(f"{SURVEY}/{kind}/save", data=form | change, headers=FRAGMENT)
    assert page.status_code == 422
    assert words in page.text
    kept = form_of(page.text, f"{SURVEY}/{kind}/save")
    assert {k: kept[k] for k in change if k != "substrate"} == {k: v for k, v in change.items() if k != "substrate"}


@pytest.mark.parametrize("system", ["metric", "us"])
def test_a_form_sent_back_untouched_changes_nothing_in_either_system_of_units(
    client: TestClient, ctx: Context, system: str
) -> None:
    client.cookies.set("units", system)
    before = stored(ctx).property
    parts = {"face": "west-gable", "opening": "front-w1", "zone": "front-trim", "item": "front-w1-item"}
    for kind, id_ in parts.items():
        sent = client.post(f"{SURVEY}/{kind}/save", data=_form(client, kind, id_), headers=FRAGMENT)
        assert sent.status_code == 200, id_
    after = stored(ctx).property
    assert after.model_dump(exclude={"faces"}) == before.model_dump(exclude={"faces"})
    for new, old in zip(after.faces, before.faces, strict=True):
        assert [o.width_m for o in new.openings] == pytest.approx([o.width_m for o in old.openings], abs=1e-6)
        assert new.area_m2 == pytest.approx(old.area_m2, rel=1e-6)


def test_us_units_are_shown_and_typed(client: TestClient, ctx: Context) -> None:
    client.cookies.set("units", "us")
    page = client.get(SURVEY).text
    assert "ft²" in page
    form = _form(client, "face", "wing-east") | {"outline.width_m": "10' 6\""}
    assert client.post(f"{SURVEY}/face/save", data=form).status_code == 200
    assert stored(ctx).property.face("wing-east").width_m == pytest.approx(3.2004)


def test_two_tabs_the_second_is_told_what_the_first_saved(client: TestClient) -> None:
    form = _form(client, "opening", "front-w1")
    assert client.post(f"{SURVEY}/opening/save", data=form | {"width_m": "0.8"}).status_code == 200
    page = client.post(f"{SURVEY}/opening/save", data=form | {"width_m": "1.0"})
    assert page.status_code == 409
    assert "Somebody changed" in page.text
    assert "<td>0.8</td><td>1.0</td>" in page.text
    again = form_of(page.text, f"{SURVEY}/opening/save")
    assert again["width_m"] == "1.0"
    assert client.post(f"{SURVEY}/opening/save", data=again).status_code == 200


def test_what_is_typed_is_drawn_before_it_is_saved(client: TestClient, ctx: Context) -> None:
    before = stored(ctx)
    form = {
        "outline.kind": "rectangle",
        "name": "North lean",
        "azimuth_deg": "N",
        "size": "27' x 9'",
        "tilt_deg": "90",
    }
    page = client.post(f"{SURVEY}/face/try", data=form).text
    assert "8.23" in page
    assert "2.74" in page
    assert "<svg" in page
    half = client.post(f"{SURVEY}/face/try", data=form | {"size": "27' x"}).text
    assert "not a size" in half
    moved = client.post(f"{SURVEY}/opening/try", data=_form(client, "opening", "back-w1") | {"x_m": "3.3"}).text
    assert "3.30 from the left" in moved
    assert stored(ctx) == before


def test_a_shape_asks_for_its_own_sizes(client: TestClient) -> None:
    form = form_of(client.get(f"{SURVEY}/face/new").text, f"{SURVEY}/face/save")
    assert "outline.height_m" in form
    page = client.post(f"{SURVEY}/face/form", data=form | {"outline.kind": "hip-end", "name": "Half done"}).text
    new = form_of(page, f"{SURVEY}/face/save")
    assert new["name"] == "Half done"
    assert {"outline.eave_height_m", "outline.rise_m", "outline.ridge_m"} <= set(new)


def test_steps_are_taken_back_and_done_again_one_by_one(client: TestClient, ctx: Context) -> None:
    first = stored(ctx)
    submit(client, f"{SURVEY}/opening/save", data=_form(client, "opening", "back-w1") | {"x_m": "1.5"})
    second = stored(ctx)
    submit(client, f"{SURVEY}/face/back/delete")
    assert not any(f.id == "back" for f in stored(ctx).property.faces)
    assert "Taken back." in client.post(f"{SURVEY.removesuffix('/survey')}/undo").text
    assert stored(ctx) == second
    submit(client, f"{SURVEY.removesuffix('/survey')}/undo")
    assert stored(ctx) == first
    submit(client, f"{SURVEY.removesuffix('/survey')}/redo")
    assert stored(ctx) == second
    submit(client, f"{SURVEY}/face/back/mirror")
    assert client.post(f"{SURVEY.removesuffix('/survey')}/redo").status_code == 422, (
        "a new step ends what could be done again"
    )
    assert stored(ctx).property.face("back").openings[0].x_m == pytest.approx(9.6 - 1.5 - 0.9)
    for _ in range(2):
        submit(client, f"{SURVEY.removesuffix('/survey')}/undo")
    assert "nothing to take back" in client.post(f"{SURVEY.removesuffix('/survey')}/undo").text


def test_drawing_moves_an_opening_with_what_fills_it(client: TestClient, ctx: Context) -> None:
    window = next(o for o in stored(ctx).property.face("back").openings if o.id == "back-w1")
    form = {"version": _form(client, "opening", "back-w1")["version"], "x_m": "2.05", "y_m": "3.5"}
    sizes = {"width_m": "1", "height_m": "1.2"}
    assert client.post(f"{SURVEY}/opening/back-w1/place", data=form | sizes).status_code == 200
    after = stored(ctx).property
    moved = next(o for o in after.face("back").openings if o.id == "back-w1")
    assert (moved.x_m, moved.y_m, moved.width_m, moved.height_m) == (2.05, 3.5, 1.0, 1.2)
    sash = next(i for i in after.items_of("back") if i.name == window.name)
    assert (sash.x_m, sash.spec.width_m) == (2.05, 1.0)  # type: ignore[union-attr]
    submit(client, f"{SURVEY.removesuffix('/survey')}/undo")
    assert next(o for o in stored(ctx).property.face("back").openings if o.id == "back-w1") == window
    late = client.post(f"{SURVEY}/opening/back-w1/place", data=form)
    assert late.status_code == 409, "drawn on what somebody else has changed meanwhile"
    assert client.post(f"{SURVEY}/opening/back-w1/place", data={"x_m": "abc", "version": "1"}).status_code == 422


def test_parts_and_faces_are_duplicated_and_copied(client: TestClient, ctx: Context) -> None:
    before = stored(ctx).property
    submit(client, f"{SURVEY}/opening/wing-door/duplicate")
    doors = stored(ctx).property.face("wing-back").openings
    assert [d.name for d in doors] == ["Kitchen door", "Kitchen door 2"]
    full = client.post(f"{SURVEY}/opening/front-w4/duplicate")
    assert full.status_code in (200, 422)
    submit(client, f"{SURVEY}/face/west-gable/copy", data={"to": "opposite"})
    new = stored(ctx).property.faces[-1]
    assert (new.name, new.azimuth_deg) == ("Opposite West gable", 98)
    assert len(stored(ctx).property.zones_of(new.id)) == len(before.zones_of("west-gable"))


def test_the_house_turns_as_one(client: TestClient, ctx: Context) -> None:
    before = {f.id: f.azimuth_deg for f in stored(ctx).property.faces}
    submit(client, f"{SURVEY}/turn", data={"face": "front", "bearing": "SW"})
    for f in stored(ctx).property.faces:
        assert f.azimuth_deg == pytest.approx((before[f.id] + 225 - 188) % 360)
    assert "not a bearing" in client.post(f"{SURVEY}/turn", data={"face": "front", "bearing": "up"}).text


def test_a_corner_of_a_zone_is_moved_within_its_face(client: TestClient, ctx: Context) -> None:
    here = "/jobs/net-loft/survey/zone/sign-band"
    form = form_of(client.get(here).text, "/jobs/net-loft/survey/zone/save")
    place = {"version": form["version"], "corner": "2", "x_m": "13.2", "y_m": "4.05"}
    assert client.post(f"{here}/corner", data=place).status_code == 200
    band = next(z for z in stored(ctx, "net-loft").property.zones if z.id == "sign-band")
    assert band.area.corners[2] == (13.2, 4.05)  # type: ignore[union-attr]
    assert client.post(f"{here}/corner", data=place).status_code == 409
    now = place | {"version": str(int(form["version"]) + 1)}
    for change, words in (
        ({"x_m": "15"}, "reaches outside"),
        ({"corner": "9"}, "no such corner"),
        ({"y_m": "up"}, "numbers"),
    ):
        page = client.post(f"{here}/corner", data=now | change)
        assert page.status_code == 422
        assert words in page.text


def test_a_wall_is_put_in_its_place_and_the_others_stay(client: TestClient, ctx: Context) -> None:
    job = "quarry-lane"
    here = f"/jobs/{job}/survey/face/ql-left/stand"
    before = {w.face.id: w.start for w in house_plan(stored(ctx, job).property.faces)}
    submit(client, here, data={"east_m": "3.25", "north_m": "-1"})
    after = {w.face.id: w.start for w in house_plan(stored(ctx, job).property.faces)}
    assert after.pop("ql-left") == (3.25, -1.0)
    for id_, start in after.items():
        assert start == pytest.approx(before[id_], abs=1e-3)
    assert client.post(here, data={"east_m": "far", "north_m": "1"}).status_code == 422
    submit(client, f"/jobs/{job}/undo")
    assert all(f.plan is None for f in stored(ctx, job).property.faces)


def test_the_walk_keeps_its_ticks_and_takes_answers_on_the_spot(client: TestClient) -> None:
    page = client.get(f"{SURVEY}/walk?at=back").text
    assert "<h2>Back</h2>" in page
    ticked = client.post(f"{SURVEY}/walk/tick", data={"place": "back", "step": "size", "done": "done"}).text
    assert "take the tick away" in ticked
    assert client.post(f"{SURVEY}/walk/tick", data={"place": "moon", "step": "size", "done": "done"}).status_code == 404
    assert f"{SURVEY}/zone/back-trim/condition/test" in page
    last = client.get(f"{SURVEY}/walk?at=end").text
    assert "Still missing" in last


def test_a_take_off_comes_in_whole_or_not_at_all(client: TestClient, ctx: Context) -> None:
    before = stored(ctx)
    text = client.get(f"{SURVEY}/files/takeoff.csv").content.decode("utf-8-sig")
    again = client.post(f"{SURVEY}/files/takeoff", files={"file": ("t.csv", text.encode())})
    assert again.status_code == 422
    assert "line 2, name: face &#39;Street front&#39; is there already" in again.text
    rows = list(csv.DictReader(io.StringIO(text)))
    for row in rows:
        row["name" if row["record"] == "face" else "face"] += " again"
    out = io.StringIO()
    writer = csv.DictWriter(out, rows[0].keys())
    writer.writeheader()
    writer.writerows(rows)
    text = out.getvalue()
    broken = text.replace("width_m=1.1;", "width_m=11;", 1)
    page = client.post(f"{SURVEY}/files/takeoff", files={"file": ("t.csv", broken.encode())})
    assert "t.csv, line 3" in page.text
    assert stored(ctx) == before
    page = client.post(f"{SURVEY}/files/takeoff", files={"file": ("t.csv", text.encode())})
    assert "parts brought in" in page.text
    assert len(stored(ctx).property.faces) == 2 * len(before.property.faces)
    submit(client, f"{SURVEY.removesuffix('/survey')}/undo")
    assert stored(ctx) == before


def test_drawings_leave_as_files_without_script(client: TestClient) -> None:
    svg = client.get(f"{SURVEY}/files/face/west-gable.svg")
    assert svg.headers["content-disposition"].startswith("attachment")
    assert svg.text.startswith("<?xml")
    assert "<script" not in svg.text
    # 7.4 m at 1 : 50 is 148 mm; the margins come on top.
    width = float(re.search(r'width="([\d.]+)mm"', svg.text)[1])  # type: ignore[index]
    assert 148 < width < 200
    assert client.get(f"{SURVEY}/files/face/nowhere.dxf").status_code == 404
    book = client.get(f"{SURVEY}/files/takeoff.xlsx").content
    assert io.BytesIO(book).read(2) == b"PK"


@pytest.mark.parametrize(
    "path", ["roof/x", "face/nowhere", "opening/x", "zone/new?face=nowhere", "photos/x", "walk?at=x"]
)
def test_odd_addresses_do_no_harm(visitor: TestClient, path: str) -> None:
    assert visitor.get(f"{SURVEY}/{path}").status_code in (200, 404)


def test_trees_before_a_face_are_sketched_and_change_its_horizon(client: TestClient, ctx: Context) -> None:
    here = f"{SURVEY}/face/front/surroundings"
    tree = {"kind": "tree", "name": "Maple", "distance_m": "8", "height_m": "11", "width_m": "6", "left_m": "-3"}
    assert "<path" in client.post(f"{here}/try", data=tree).text
    assert stored(ctx).property.face("front").blocks == ()
    page = client.post(here, data=tree).text
    assert "Maple, 8 m away, 11 m high, 46° up" in page
    bad = client.post(here, data=tree | {"distance_m": "0", "height_m": "tall"})
    assert bad.status_code == 422
    assert "not a length" in bad.text
    submit(client, f"{here}/0/delete")
    assert stored(ctx).property.face("front").blocks == ()
