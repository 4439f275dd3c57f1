"""Parts that are left, replaced or taken away, and other people's work: on pages, in pictures, hours and the record."""

import pytest
from fastapi.testclient import TestClient

from amber_gable.core.survey.drawing.after import house_after
from amber_gable.core.work.record import job_work
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.scope import Leaving
from amber_gable.services.context import Context
from amber_gable.services.specification.report import lines, specification
from amber_gable.store.job.jobs import load_bundle, save_bundle
from amber_gable.web.views.survey.elevation import draw, finish_colours
from tests.clients import submit
from tests.small_jobs import shop_front
from tests.web.forms import form_of

pytestmark = pytest.mark.usefixtures("indoors")
SPEC, OTHERS = "/jobs/shop-front/specification", "/jobs/shop-front/specification/others"
SASH = f"{SPEC}/item/sash"
BROWN = "#5a3d2b"


@pytest.fixture
def shop(ctx: Context) -> Context:
    with ctx.writing() as session:
        save_bundle(session, shop_front())
    return ctx


def _stored(ctx: Context) -> JobBundle:
    with ctx.reading() as session:
        return load_bundle(session, "shop-front")


def test_what_is_left_has_no_steps_and_the_wall_is_taped_and_mended_for_it() -> None:
    """The door has 2 × (1.0 + 2.1) = 6.2 m of edge; a sign hangs on six fixings."""
    bundle = shop_front()
    assert set(job_work(bundle)) == {("zone", "wall"), ("item", "sash")}
    wall = bundle.finish_of("zone", "wall")
    assert wall is not None
    told = {o.id: (o.name, o.amount) for o in wall.operations}
    assert told["mask-left"] == ("Tape and cover what is left as it is: Door", 6.2)
    assert told["patch-holes"] == ("Pull plugs and old sealant, fill the holes where Sign was", 6.0)
    patch = next(o for o in wall.operations if o.id == "prime-spots")
    assert patch.share == pytest.approx(1.2 * 3.0 * 0.5 / (6.0 * 3.2), rel=0.02), "the bare patch behind the sign"
    assert not bundle.undecided


def test_the_report_names_what_is_not_ours() -> None:
    raw = shop_front().model_dump(mode="json")
    raw["job"]["others"] = [{"id": "o1", "who": "Electrician", "what": "frees the sign", "where": ["item", "sign"]}]
    report = specification(JobBundle.model_validate(raw))
    assert [p["part"] for p in report["parts"]] == ["wall", "sash"]
    assert {p["part"]: p["leaving"] for p in report["not_painted"]} == {
        "door": "as-it-is", "gutter": "replaced", "sign": "taken-away",
    }  # fmt: skip
    told = "\n".join(lines(report))
    assert "Gutter: replaced by others, Brown #5a3d2b (Window makers)" in told
    assert "Electrician: frees the sign, before any of our work there, no day agreed" in told


def test_pictures_show_the_house_as_it_will_be(shop: Context, client: TestClient) -> None:
    bundle = shop_front()
    place = house_after(bundle)
    drawing = draw(place, place.faces[0], 40.0, colours=finish_colours(bundle))
    shown = {p.id: p.colour for p in drawing.parts}
    assert shown == {"door": "#e4e0d4", "sash": "#e9dcc1", "gutter": BROWN}, "the sign is gone, the door as it was"
    after, now = client.get(SPEC).text, client.get("/jobs/shop-front/survey").text
    assert BROWN in after and BROWN not in now
    assert BROWN in client.get("/").text, "and on the board"


def test_nothing_is_asked_of_what_is_left(shop: Context, client: TestClient) -> None:
    page = client.get(SPEC).text
    for words in ("left as it is", "replaced by others", "taken away for good"):
        assert words in page
    assert "to choose" not in page and "have no steps yet" not in page
    assert "Not in these litres" not in client.get("/jobs/shop-front/quantities").text


def test_a_part_is_left_and_painted_after_all(shop: Context, client: TestClient) -> None:
    typed = form_of(client.get(SASH).text, f"{SASH}/leave") | {"leaving": "as-it-is", "note": "new last year"}
    for _ in range(2):
        submit(client, f"{SASH}/leave", data=typed)
    left = _stored(shop).left_of("item", "sash")
    assert left is not None and (left.leaving, left.note) == (Leaving.AS_IT_IS, "new last year")
    assert _stored(shop).finish_of("item", "sash") is None
    page = client.get(SASH).text
    assert "Left as it is" in page and "new last year" in page and "Wash with detergent" not in page
    submit(client, f"{SASH}/derive", data=form_of(page, f"{SASH}/derive"))
    assert _stored(shop).left_of("item", "sash") is None and _stored(shop).finish_of("item", "sash") is not None


def test_a_wall_is_not_taken_away_and_a_replacement_has_its_colour(shop: Context, client: TestClient) -> None:
    wall = f"{SPEC}/zone/wall"
    typed = form_of(client.get(wall).text, f"{wall}/leave")
    answer = client.post(f"{wall}/leave", data=typed | {"leaving": "taken-away"})
    assert answer.status_code == 422 and "cannot be taken away" in answer.text
    answer = client.post(f"{wall}/leave", data=typed | {"leaving": "replaced", "colour": "", "by": "Cladders"})
    assert answer.status_code == 422 and "give the colour it will have" in answer.text and "Cladders" in answer.text
    assert _stored(shop).finish_of("zone", "wall") is not None


def test_others_are_agreed_changed_noted_and_taken_out(shop: Context, client: TestClient) -> None:
    typed = {"who": "Glazier", "what": "sets a pane", "where": "item:sash", "turn": "before-coats", "cost": "95,50"}
    submit(client, OTHERS, data=typed)
    task = _stored(shop).job.others[0]
    assert (task.where, task.cost, task.day) == (("item", "sash"), 95.5, None)
    assert "no day agreed" in client.get(OTHERS).text
    submit(client, OTHERS, data=typed | {"task": task.id, "day": "2026-09-20"})
    assert [str(t.day) for t in _stored(shop).job.others] == ["2026-09-20"]
    for _ in range(2):
        submit(client, f"{OTHERS}/{task.id}/note", data={"done": "yes", "from": "today"})
    assert [n.done for n in _stored(shop).job.others_noted] == [True], "tapped twice it is noted once"
    submit(client, f"{OTHERS}/{task.id}/drop", data={})
    assert not _stored(shop).job.others


@pytest.mark.parametrize(
    ("field", "typed", "said"),
    [
        ("who", "", "say who does it"),
        ("day", "31/31", "day"),
        ("cost", "-5", "amount of money"),
        ("cost", "ten", "amount of money"),
        ("where", "item:gone", "gone from the survey"),
        ("turn", "whenever", "choose when it comes"),
    ],
)
def test_what_cannot_be_agreed_is_said_beside_what_was_typed(
    shop: Context, client: TestClient, field: str, typed: str, said: str
) -> None:
    good = {"who": "Electrician", "what": "frees the sign", "where": "", "turn": "after", "day": "", "cost": ""}
    answer = client.post(OTHERS, data=good | {field: typed})
    assert answer.status_code == 422 and said in answer.text
    assert "frees the sign" in answer.text
    assert not _stored(shop).job.others


def test_a_deleted_part_takes_its_word_along_and_brings_it_back(shop: Context, client: TestClient) -> None:
    submit(
        client,
        OTHERS,
        data={"who": "Gardener", "what": "ties the rose up", "where": "item:door", "turn": "before-work"},
    )
    with shop.reading() as session:
        assert len(load_bundle(session, "shop-front").job.others) == 1
    item = "/jobs/shop-front/survey/item/door"
    submit(client, f"{item}/delete", data=form_of(client.get(item).text, f"{item}/delete"))
    assert _stored(shop).left_of("item", "door") is None and not _stored(shop).job.others
    assert client.get(SPEC).status_code == client.get(OTHERS).status_code == 200
    # What is agreed meanwhile does not wipe out what waits for the part to come back.
    submit(client, OTHERS, data={"who": "Neighbour", "what": "moves the car", "where": "", "turn": "before-work"})
    submit(client, "/jobs/shop-front/undo", data=form_of(client.get(SPEC).text, "/jobs/shop-front/undo"))
    submit(client, "/jobs/shop-front/undo", data=form_of(client.get(SPEC).text, "/jobs/shop-front/undo"))
    assert _stored(shop).left_of("item", "door") is not None
    assert [t.who for t in _stored(shop).job.others] == ["Gardener"]


def test_a_wall_is_only_washed_by_the_choice_on_its_page(shop: Context, client: TestClient) -> None:
    wall = f"{SPEC}/zone/wall"
    typed = form_of(client.get(wall).text, f"{wall}/colour") | {"aim": "wash-only", "colour": "#112233"}
    page = client.post(f"{wall}/colour", data=typed)
    assert page.status_code == 200 and "out: " in page.text
    page = client.get(wall)
    assert "First coat" not in page.text and "Wash at 50 to 60 bar" in page.text
    finish = _stored(shop).finish_of("zone", "wall")
    assert finish is not None and (finish.colour, finish.colour_name) == ("#c9bfae", "as it is")
    assert "#112233" not in client.get(SPEC).text
    again = client.post(f"{wall}/colour", data=form_of(page.text, f"{wall}/colour") | {"aim": "paint"})
    assert "First coat" in again.text
