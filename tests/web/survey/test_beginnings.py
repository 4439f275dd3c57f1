"""Sensible beginnings: what a new part is when nobody said, and what follows when its kind changes."""

from fastapi.testclient import TestClient

from amber_gable.services.context import Context
from amber_gable.store.job.jobs import load_bundle
from tests.clients import submit
from tests.web.forms import form_of

SURVEY = "/jobs/coopers-rise/survey"


def test_another_kind_brings_its_usual_size_place_and_stuff(client: TestClient) -> None:
    """What nobody typed follows the kind; what was typed stays. The front's eave stands at 5.6 m, 9.6 m long."""
    blank = form_of(client.get(f"{SURVEY}/item/new?face=front").text, f"{SURVEY}/item/save")
    typed = blank | {"spec.kind": "gutter", "name": "Front gutter", "colour_now": "#444444"}
    gutter = form_of(client.post(f"{SURVEY}/item/form", data=typed).text, f"{SURVEY}/item/save")
    expected = {"spec.length_m": "9.6", "y_m": "5.48", "x_m": "0", "spec.downspout_m": "5.3", "name": "Front gutter"}
    assert {k: gutter[k] for k in expected} == expected
    assert gutter["substrate"] == "aluminium-trim" and gutter["colour_now"] == "#444444"
    changed = client.post(f"{SURVEY}/item/form", data=gutter | {"spec.kind": "garage-door"})
    door = form_of(changed.text, f"{SURVEY}/item/save")
    assert (door["substrate"], door["spec.width_m"], door["y_m"]) == ("metal-door", "2.4", "0")


def test_a_garage_door_stands_on_the_ground_and_keeps_a_width_that_was_typed(client: TestClient) -> None:
    blank = form_of(client.get(f"{SURVEY}/opening/new?face=front").text, f"{SURVEY}/opening/save")
    changed = client.post(f"{SURVEY}/opening/form", data=blank | {"kind": "garage-door", "width_m": "3"})
    garage = form_of(changed.text, f"{SURVEY}/opening/save")
    assert (garage["width_m"], garage["height_m"], garage["y_m"]) == ("3", "2.1", "0")


def test_what_is_there_keeps_its_size_when_its_kind_changes(client: TestClient) -> None:
    there = form_of(client.get(f"{SURVEY}/opening/front-w1").text, f"{SURVEY}/opening/save")
    changed = client.post(f"{SURVEY}/opening/form", data=there | {"kind": "door"})
    door = form_of(changed.text, f"{SURVEY}/opening/save")
    assert {k: door[k] for k in ("width_m", "height_m", "y_m")} == {k: there[k] for k in ("width_m", "height_m", "y_m")}


def test_a_gutter_told_in_a_line_runs_along_the_eave_in_metal(client: TestClient, ctx: Context) -> None:
    submit(client, f"{SURVEY}/face/back/line", data={"line": "gutter, 2 downspouts;; "})
    with ctx.reading() as session:
        items = load_bundle(session, "coopers-rise").property.items_of("back")
    gutter = next(i for i in items if i.spec.kind == "gutter")
    assert (gutter.spec.length_m, gutter.spec.downspouts, gutter.y_m) == (9.6, 2, 5.48)
    assert gutter.substrate == "aluminium-trim"
    wrong = client.post(f"{SURVEY}/face/back/line", data={"line": "gutter, gold"})
    assert wrong.status_code == 422 and "gutter, 2 downspouts" in wrong.text
