"""The specification's pages: deriving, choosing, changing by hand, refusing, and what the stores hold."""

import re

import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.job.job import JobBundle
from amber_gable.exchange.job.bundle import dump_bundle, load_bundle
from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.services.specification.report import specification
from amber_gable.store.job.jobs import load_bundle as stored
from amber_gable.store.job.jobs import save_bundle
from amber_gable.store.tables import SheetRow
from tests.clients import submit
from tests.jobs import coopers_rise
from tests.web.forms import form_of

pytestmark = pytest.mark.usefixtures("indoors")

RISE, LANE = "/jobs/coopers-rise/specification", "/jobs/quarry-lane/specification"
FRONT = f"{RISE}/zone/front-siding"


@pytest.fixture
def bare(ctx: Context) -> Context:
    """14 Cooper's Rise with nothing specified yet."""
    bundle = coopers_rise()
    job = bundle.job.model_copy(update={"finishes": ()})
    with ctx.writing() as session:
        save_bundle(session, load_bundle(dump_bundle(bundle.model_copy(update={"job": job})), "x"), replace=True)
    return ctx


def _finish(ctx: Context, kind: str, id_: str) -> dict[str, object]:
    with ctx.reading() as session:
        found = stored(session, "coopers-rise").finish_of(kind, id_)
    assert found is not None
    return found.model_dump()


def _steps(ctx: Context, kind: str = "zone", id_: str = "front-siding") -> list[str]:
    return [o["id"] for o in _finish(ctx, kind, id_)["operations"]]  # type: ignore[index, attr-defined]


def test_from_empty_to_every_part_in_one_step(bare: Context, client: TestClient) -> None:
    page = client.get(RISE).text
    assert "<b>28</b> parts have no steps yet" in page
    done = client.post(f"{RISE}/derive").text
    assert "28 parts are changed" in done
    assert "<b>4</b> parts ask for a decision" in done, (
        "the near-black door, the wires at the gable, and 12 m² of presumed lead on two walls"
    )
    with bare.reading() as session:
        bundle = stored(session, "coopers-rise")
    assert len(bundle.job.finishes) == len(bundle.property.zones) + len(bundle.property.items)
    assert "peel-bonding-primer" in {
        bundle.product(o.product).family for f in bundle.job.finishes for o in f.operations if o.product
    }
    assert "Nothing changes by it" in client.post(f"{RISE}/again").text


def test_a_step_says_why_on_how_much_and_with_what(client: TestClient) -> None:
    page = client.get(FRONT).text
    for words in (
        "because 24 % is loose or peeling",
        "11.8 m² <small>24 % of it",
        "Gannet Tightbond",
        "Not by dry scrape: a safety card forbids it here",
        "Lead paint is presumed",
        "Until the old colour is hidden",
        "Schools side by side",
        "Week's hours",
    ):
        assert words in page, words
    door = client.get(f"{RISE}/item/front-door-item").text
    assert "The door, member by member" in door
    assert client.get(f"{RISE}/zone/nowhere").status_code == 404


def test_a_colour_is_set_and_a_stale_one_shows_both(ctx: Context, client: TestClient) -> None:
    form = form_of(client.get(FRONT).text, f"{FRONT}/colour")
    page = client.post(f"{FRONT}/colour", data=form | {"library": "Harbour"})
    assert "Saved." in page.text
    assert _finish(ctx, "zone", "front-siding")["colour"] == "#2f4b60"
    late = client.post(f"{FRONT}/colour", data=form | {"colour": "#7b2d26", "colour_name": "Barn Red"})
    assert late.status_code == 409
    assert "Somebody changed" in late.text
    assert "#2f4b60" in late.text
    assert "#7b2d26" in late.text
    for spoilt, words in (({"colour": "red"}, "must be a colour"), ({"colour_name": " "}, "is needed")):
        now = form_of(client.get(FRONT).text, f"{FRONT}/colour")
        refused = client.post(f"{FRONT}/colour", data=now | spoilt)
        assert refused.status_code == 422
        assert words in refused.text


def test_a_school_of_one_part_and_of_the_whole_job(ctx: Context, client: TestClient) -> None:
    version = form_of(client.get(FRONT).text, f"{FRONT}/school")["version"]
    page = client.post(f"{FRONT}/school", data={"version": version, "topic": "failing", "school": "strip"})
    assert "in: Take the old film off to bare wood" in page.text
    assert "prime" in _steps(ctx)
    back = form_of(page.text, f"{FRONT}/school")["version"]
    assert (
        "out: Take the old film off to bare wood"
        in client.post(f"{FRONT}/school", data={"version": back, "topic": "failing", "school": ""}).text
    )
    whole = client.post(f"{RISE}/school", data={"level": "job", "topic": "method", "school": "spray"}).text
    assert re.search(r"\d+ parts are changed", whole)
    assert "airless" in str(_finish(ctx, "zone", "east-gable-siding"))
    company = client.post(f"{RISE}/school", data={"level": "company", "topic": "brick", "school": "prime"})
    assert "Nothing changes by it" in company.text
    assert "Changed in the company since" in client.get(LANE).text, "another job is asked, not changed"
    assert client.post(f"{RISE}/school", data={"level": "job", "topic": "wash", "school": "steam"}).status_code == 422


def test_steps_are_changed_by_hand_with_a_reason_and_survive(ctx: Context, client: TestClient) -> None:
    action = f"{FRONT}/steps/caulk"
    form = form_of(client.get(FRONT).text, action)
    no_reason = client.post(action, data=form | {"act": "change", "amount": "25"})
    assert no_reason.status_code == 422
    assert "say why" in no_reason.text
    assert 'value="25"' in no_reason.text, "what was typed stays"
    page = client.post(action, data=form | {"act": "change", "amount": "25,5", "reason": "gutter side too"})
    assert "by hand: gutter side too" in page.text
    added = form_of(page.text, f"{FRONT}/steps") | {"name": "Prime the sills again", "kind": "prime", "after": "caulk"}
    missing = client.post(f"{FRONT}/steps", data=added | {"reason": "weather side", "product": ""})
    assert "a coat needs its product" in missing.text
    page = client.post(
        f"{FRONT}/steps", data=added | {"reason": "weather side", "product": "gannet-barewood", "share": "5"}
    )
    assert _steps(ctx)[_steps(ctx).index("caulk") + 1] == "own-prime-the-sills-again"
    submit(client, f"{RISE}/school", data={"level": "job", "topic": "prime-sound", "school": "everything"})
    kept = _finish(ctx, "zone", "front-siding")["operations"]
    caulk = next(o for o in kept if o["id"] == "caulk")  # type: ignore[attr-defined]
    assert caulk["amount"] == 25.5
    assert "own-prime-the-sills-again" in _steps(ctx)
    out = form_of(client.get(FRONT).text, f"{FRONT}/steps/nails")
    page = client.post(f"{FRONT}/steps/nails", data=out | {"act": "remove", "reason": "done by the roofer"})
    assert "Taken out by hand" in page.text
    put = form_of(page.text, f"{FRONT}/steps/nails")
    assert "nails" not in _steps(ctx)
    submit(client, f"{FRONT}/steps/nails", data={"version": put["version"], "act": "drop"})
    assert "nails" in _steps(ctx)


def test_a_forbidden_step_is_refused_and_nothing_is_saved(ctx: Context, client: TestClient) -> None:
    before = _finish(ctx, "zone", "front-siding")
    action = f"{FRONT}/steps/wash"
    form = form_of(client.get(FRONT).text, action)
    page = client.post(action, data=form | {"act": "change", "technique": "pressure-wash", "reason": "faster"})
    assert page.status_code == 422
    assert "pressure wash is forbidden here (lead)" in page.text
    assert _finish(ctx, "zone", "front-siding") == before
    assert client.post(f"{RISE}/lead-year", data={"year": "old"}).status_code == 422
    assert "24 parts are changed" in client.post(f"{RISE}/lead-year", data={"year": "1930"}).text
    assert "parts are changed" in client.post(f"{RISE}/lead-year", data={"year": "1978"}).text
    tested = client.post(f"{RISE}/lead", data={"found": "no"})
    assert "parts are changed" in tested.text
    form = form_of(client.get(FRONT).text, action)
    page = client.post(action, data=form | {"act": "change", "technique": "pressure-wash", "reason": "faster"})
    assert "Saved." in page.text


@pytest.mark.weather
def test_another_product_is_taken_with_its_hours_beside(ctx: Context, client: TestClient) -> None:
    page = client.get(f"{RISE}/zone/back-siding").text
    assert "Skerry Latewall" in page
    version = form_of(page, f"{RISE}/zone/back-siding/pick")["version"]
    action = f"{RISE}/zone/back-siding/pick"
    refused = client.post(action, data={"version": version, "pick": "coat", "product": "house-magic"})
    assert refused.status_code == 422
    assert "hold no product" in refused.text
    page = client.post(action, data={"version": version, "pick": "coat", "product": "corrie-longcoat"}).text
    assert {o["product"] for o in _finish(ctx, "zone", "back-siding")["operations"] if o["product"]} == {  # type: ignore[attr-defined]
        "corrie-longcoat"
    }
    # The new film's surface is worked out beside the page; hours stand there once it is.
    assert job_view(ctx, "coopers-rise", waits=True).site is not None
    page = client.get(f"{RISE}/zone/back-siding").text
    gain = re.search(r"(\w+ \w+) opens ([\d.]+) more hours in the coming week", page)
    assert gain, "a low-temperature acrylic has more of a cold week"
    assert float(gain[2]) > 0


def test_vinyl_refuses_near_black_with_its_temperatures(client: TestClient) -> None:
    gable = f"{LANE}/zone/ql-left-vinyl"
    form = form_of(client.get(gable).text, f"{gable}/colour")
    page = client.post(f"{gable}/colour", data=form | {"library": "Near Black"})
    assert page.status_code == 422
    assert re.search(r"peak 8\d °C, as made 7\d °C; limit 65 °C", page.text)
    assert "Saved." in client.post(f"{gable}/colour", data=form | {"library": "Taupe"}).text
    scheme = client.post(f"{LANE}/colours/schemes/night/apply").text
    assert "keeps its colour: Refused on vinyl" in scheme
    assert "Near Black" in client.get(f"{LANE}/zone/ql-front-brick").text


def test_like_parts_take_the_same(ctx: Context, client: TestClient) -> None:
    sash = f"{RISE}/item/front-w1-item"
    form = form_of(client.get(sash).text, f"{sash}/colour")
    submit(client, f"{sash}/colour", data=form | {"library": "Gull White"})
    assert "8 like parts set" in client.post(f"{sash}/alike").text
    assert _finish(ctx, "item", "east-w1-item")["colour_name"] == "Gull White"
    assert "putty" in _steps(ctx, "item", "front-w2-item"), "each keeps what its own state asks for"


def test_cards_are_acknowledged_by_name(client: TestClient) -> None:
    assert "not read" in client.get(RISE).text
    assert client.post(f"{RISE}/acknowledge", data={"by": " "}).status_code == 422
    page = client.post(f"{RISE}/acknowledge", data={"by": "Wren Calloway"}).text
    assert "read by Wren Calloway, Mon 14 Sep" in page
    assert "I have read them all" not in page


def test_a_company_system_instead_and_a_part_left_out(ctx: Context, client: TestClient) -> None:
    version = form_of(client.get(FRONT).text, f"{FRONT}/system")["version"]
    page = client.post(f"{FRONT}/system", data={"version": version, "system": "wood-lap-peeling"})
    assert "Saved." in page.text
    assert _finish(ctx, "zone", "front-siding")["system"] == "wood-lap-peeling"
    assert client.post(f"{FRONT}/system", data={"version": "1", "system": "wood-lap-peeling"}).status_code == 409
    version = form_of(page.text, f"{FRONT}/leave")["version"]
    assert "left as it is" in client.post(f"{FRONT}/leave", data={"version": version}).text


def test_a_system_that_scrapes_dry_is_refused_where_lead_is_presumed(ctx: Context, client: TestClient) -> None:
    here = f"{RISE}/zone/front-siding"
    with ctx.writing() as session:
        row = session.query(SheetRow).filter_by(code="wood-lap-peeling").one()
        steps = [o | ({"technique": "dry-scrape"} if o["kind"] == "scrape" else {}) for o in row.body["operations"]]
        row.body = row.body | {"operations": steps}
    version = form_of(client.get(here).text, f"{here}/system")["version"]
    page = client.post(f"{here}/system", data={"version": version, "system": "wood-lap-peeling"})
    assert page.status_code == 422
    assert "dry scrape is forbidden here (lead)" in page.text


def test_a_step_added_by_hand_says_how(client: TestClient) -> None:
    form = form_of(client.get(FRONT).text, f"{FRONT}/steps") | {"name": "Look behind the boards", "reason": "asked for"}
    page = client.post(f"{FRONT}/steps", data=form | {"kind": "repair", "technique": "", "after": "wash"})
    assert page.status_code == 422
    assert "say how it is done" in page.text
    refused = client.post(f"{FRONT}/steps", data=form | {"kind": "repair", "technique": "grind", "after": "wash"})
    assert "grind is forbidden here (lead)" in refused.text


def test_the_preview_follows_the_hour(client: TestClient) -> None:
    fragment = f"{RISE}/colours/preview?left=chosen&right=harbour&day=2026-09-14"
    morning, evening = client.get(f"{fragment}&hour=9").text, client.get(f"{fragment}&hour=17").text
    assert re.search(r"East gable <span class=\"muted\">in the sun", morning)
    assert re.search(r"East gable <span class=\"muted\">in shade", evening)
    assert "the sun is down" in client.get(f"{fragment}&hour=2").text
    assert "contrast" in morning
    odd = client.get(f"{RISE}/colours?left=nothing&day=never&hour=noon")
    assert odd.status_code == 200
    assert "15:00" in odd.text


def test_a_scheme_is_kept_put_in_and_dropped(ctx: Context, client: TestClient) -> None:
    form = {"name": "Dusk", "body.name": "Storm Blue", "door.name": "own", "door.colour": "#aa5500"}
    assert "Dusk" in client.post(f"{RISE}/colours/schemes", data=form).text
    assert client.post(f"{RISE}/colours/schemes", data={"name": ""}).status_code == 422
    assert client.post(f"{RISE}/colours/schemes", data={**form, "door.colour": "brown"}).status_code == 422
    page = client.post(f"{RISE}/colours/schemes/dusk/apply").text
    assert "Scheme taken" in page
    assert _finish(ctx, "zone", "back-siding")["colour_name"] == "Storm Blue"
    assert _finish(ctx, "item", "front-door-item")["colour"] == "#aa5500"
    assert "Storm Blue" in client.get(f"{RISE}/boards?group=body").text
    assert "Dusk" not in client.post(f"{RISE}/colours/schemes/dusk/drop").text
    assert client.post(f"{RISE}/colours/schemes/dusk/drop").status_code == 404


def test_a_sheet_is_changed_and_an_impossible_one_refused(client: TestClient) -> None:
    sheet = form_of(client.get("/stores/product/skerry-housecoat").text, "/stores/product/save")
    assert sheet["volume_solids_pct"] == "38"
    for spoilt, words in (
        ({"volume_solids_pct": "140"}, "less than or equal to 100"),
        ({"recoat_h": "0.5"}, "recoat comes before dry to touch"),
        ({"containers": "3.785"}, "write its size and price"),
        ({"name": ""}, "is needed"),
    ):
        refused = client.post("/stores/product/save", data=sheet | spoilt)
        assert refused.status_code == 422, spoilt
        assert words in refused.text
    saved = client.post("/stores/product/save", data=sheet | {"volume_solids_pct": "42,5", "methods": "brush"})
    assert "Saved." in saved.text
    assert 'value="42.5"' in client.get("/stores/product/skerry-housecoat").text
    stale = client.post("/stores/product/save", data=sheet | {"sheen": "satin"})
    assert stale.status_code == 409
    kept = client.post("/stores/product/skerry-housecoat/delete", data={"version": "2"})
    assert "uses it" in kept.text
    new = client.post("/stores/product/save", data=sheet | {"code": "skerry-new", "name": "Skerry New", "version": "0"})
    assert "Skerry New" in new.text
    gone = client.post("/stores/product/skerry-new/delete", data={"version": "1"})
    assert "Skerry New" not in gone.text


def test_product_and_colour_files_are_taken_whole_or_not_at_all(client: TestClient) -> None:
    text = client.get("/stores/products.csv").text
    bad = text.replace("skerry-latewall", "skerry-other").replace(",40,", ",140,", 1)
    refused = client.post("/stores/import", files={"file": ("p.csv", bad)})
    assert refused.status_code == 422
    assert "column" in refused.text
    assert "line" in refused.text
    assert "skerry-other" not in client.get("/stores").text
    good = text.replace("skerry-latewall", "skerry-other").replace("Skerry Latewall", "Skerry Other")
    assert "Brought in: 1 new, 0 changed" in client.post("/stores/import", files={"file": ("p.csv", good)}).text
    assert client.get("/stores/products.json").json()["format"] == "amber-gable-products"
    palette = "GIMP Palette\nName: Harbour set\n12 34 56 Tide Mark\n"
    assert "Brought in: 1 new" in client.post("/stores/colours/import", files={"file": ("a.gpl", palette)}).text
    assert "Tide Mark" in client.get(FRONT).text
    assert "line 2" in client.post("/stores/colours/import", files={"file": ("b.gpl", "GIMP Palette\n1 2\n")}).text


@pytest.mark.weather
def test_a_stop_is_on_every_page_that_follows(client: TestClient) -> None:
    here = "/jobs/coopers-rise/survey/zone/east-gable-siding/condition"
    before = client.get(RISE).text
    assert "stopped" not in before
    reading = form_of(client.get(here).text, f"{here}/moisture") | {"pct": "19"}
    assert client.post(f"{here}/moisture", data=reading).status_code == 200
    for path in ("quantities", "today", "specification", "plan"):
        page = client.get(f"/jobs/coopers-rise/{path}").text
        assert "1 stopped" in page, f"the rail says so on {path}"
    for path in ("quantities", "today"):
        page = client.get(f"/jobs/coopers-rise/{path}").text
        assert "the wood is at 19 %" in page
        assert "meter again: 15 % or less" in page
    sheet = client.get("/jobs/coopers-rise/today").text
    assert sheet.count("Stop: the wood is at 19 %") >= 1, "the wash of the east gable, planned before the reading"
    submit(client, "/jobs/coopers-rise/plan")
    plan = client.get("/jobs/coopers-rise/plan").text
    assert "Stopped: the wood is at 19 %" in plan
    assert "East gable, Siding" not in plan.split("unplaced")[0] or "All of it" in plan
    part = client.get(f"{RISE}/zone/east-gable-siding").text
    assert '<p class="warn stop"><b>The wood is at 19 %.</b>' in part


def test_a_wish_that_cannot_be_is_told_on_the_part_and_the_overview(client: TestClient, ctx: Context) -> None:
    """A school of decks on a wall: nothing hangs on it, and it is said so; what was looked for and changes nothing is
    listed with its reason."""
    here = f"{RISE}/zone/east-gable-trim"
    form = form_of(client.get(here).text, f"{here}/school")
    page = client.post(f"{here}/school", data=form | {"topic": "deck-sand", "school": "grip"}).text
    assert "<b>Leave for grip was wished, and cannot be:</b> nothing on this surface hangs on it" in page
    overview = client.get(RISE).text
    assert "Leave for grip was wished, and cannot be" in overview
    assert "Recorded, and nothing follows from it" in page
    report = specification(_bundle(ctx))
    told = next(p for p in report["parts"] if p["part"] == "east-gable-trim")
    assert told["refused"] == [
        {
            "wish": "Leave for grip",
            "because": "nothing on this surface hangs on it",
            "instead": "it is specified as without it",
        }
    ]
    assert {n["finding"].partition(":")[0] for n in told["no_matter"]} >= {"Chalking"}
    assert all(n["because"] for p in report["parts"] for n in p["no_matter"])


def _bundle(ctx: Context) -> JobBundle:
    with ctx.reading() as session:
        return stored(session, "coopers-rise")
