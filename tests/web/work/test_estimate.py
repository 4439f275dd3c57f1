"""The Estimate page: its sums, how it is reckoned with other people, days and ways up."""

import re

import pytest
from fastapi.testclient import TestClient

from amber_gable.core.estimate.estimate import job_estimate
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.access import Access
from amber_gable.services.context import Context
from amber_gable.services.job.details import start_job
from amber_gable.services.job.view import job_view
from amber_gable.web.views.estimate.ledger import KINDS, bars, hour_range, kind_of, kind_sums
from tests.clients import submit
from tests.jobs import coopers_rise, demo_job
from tests.web.forms import form_of, said_on
from tests.web.survey.test_block_out import NEW

PAGE = "/jobs/coopers-rise/estimate"
PACE = {"skill": "experienced", "cold_pct": "0", "travel_min": ""}


def _bundle(ctx: Context) -> JobBundle:
    return job_view(ctx, "coopers-rise").bundle


def test_the_page_tells_the_hours_that_are_computed(visitor: TestClient) -> None:
    hours = job_estimate(coopers_rise()).hours
    said = said_on(visitor.get(PAGE).text)
    assert f"{hours.hours:.0f} person-hours" in said
    assert f"{hours.p10:.0f} to {hours.p90:.0f} h" in said
    assert "8 days of 3 people" in said
    # Front siding, washed: all of it, round the openings too; 46 % of it above 3 m.
    assert "51 m² ÷ 30 m²/h × 1.07 (46 % from a ladder above 3 m) the trade's median: wash by hose and brush" in said
    assert "ft²" in visitor.get(PAGE, headers={"cookie": "units=us"}).text


@pytest.mark.parametrize("stem", "12345")
def test_bars_pieces_kinds_and_lines_add_up_to_the_same_hours(stem: str) -> None:
    found = job_estimate(demo_job(stem))
    total = found.hours.hours
    drawn = bars(found)
    assert sum(b.hours for b in drawn) == pytest.approx(total)
    assert sum(p.hours for b in drawn for p in b.pieces) == pytest.approx(total)
    assert sum(r.hours for b in drawn for g in b.groups for r in g.rows) == pytest.approx(total)
    assert sum(k.hours for k in kind_sums(found)) == pytest.approx(total)
    assert max(p.x + p.width for b in drawn for p in b.pieces) == pytest.approx(100)
    assert {kind_of(line) for line in found.hours.lines} <= {key for key, _ in KINDS}
    scale = hour_range(found)
    places = [scale.low.x, scale.lines.x, scale.middle.x, scale.high.x]
    assert places == sorted(places) and places[0] >= 0 and places[-1] <= 100
    assert 2 <= len(scale.ticks) <= 9


def test_of_a_large_house_a_faces_lines_are_fetched_when_it_is_opened(
    visitor: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("amber_gable.web.routes.estimate.MOST_LINES", 10)
    page = visitor.get(PAGE).text
    assert "<table" not in page[: page.index("What the range")] and page.count("Its lines") == 8, "seven, and the job"
    opened = visitor.get(f"{PAGE}?face=front").text
    assert "51 m² ÷ 30 m²/h" in said_on(opened) and 'id="row-front" open' in opened
    assert opened.count("Its lines") == 7
    assert "Walk round with the customer" in said_on(visitor.get(f"{PAGE}?face=the-job").text)


def test_people_cold_and_the_way_there_change_the_hours_and_are_taken_back(client: TestClient, ctx: Context) -> None:
    before = job_estimate(_bundle(ctx)).hours.hours
    changed = {"skill": "mixed", "cold_pct": "40", "travel_min": "90"}
    assert client.post(f"{PAGE}/pace", data=changed).url.query == b"said=reckoned"
    bundle = _bundle(ctx)
    assert bundle.job.estimating.travel_h == 1.5 and bundle.job.crew.skill.value == "mixed"
    assert bundle.job.crew.people == 3, "the rest of the crew's day stays"
    hours = job_estimate(bundle).hours
    # 15 % for learners and 0.4 × 15 % for the cold on all work by hand, an hour and a half on the road.
    assert 1.2 * before < hours.hours < 1.6 * before
    page = client.get(PAGE).text
    assert 'value="90"' in page and 'value="40"' in page
    submit(client, "/jobs/coopers-rise/undo", data={"back": PAGE})
    assert job_estimate(_bundle(ctx)).hours.hours == pytest.approx(before)


@pytest.mark.parametrize(
    ("field", "typed", "words"),
    [
        ("cold_pct", "-1", "“-1” is not a share of the work in %"),
        ("cold_pct", "warm", "“warm” is not a share"),
        ("cold_pct", "101", "0 to 100"),
        ("travel_min", "1e999", "minutes there and back"),
        ("travel_min", "481", "0 to 480"),
        ("skill", "wizard", "choose who does the work"),
    ],
)
def test_what_cannot_be_is_refused_beside_its_field_and_nothing_is_kept(
    client: TestClient, ctx: Context, field: str, typed: str, words: str
) -> None:
    answer = client.post(f"{PAGE}/pace", data=PACE | {"cold_pct": "7"} | {field: typed})
    assert answer.status_code == 422
    assert words in said_on(answer.text)
    assert field == "skill" or f'value="{typed}"' in answer.text
    assert _bundle(ctx).job.estimating.cold_pct == 0


def test_the_way_up_is_kept_with_its_reason_and_changes_the_hours(client: TestClient, ctx: Context) -> None:
    before = job_estimate(_bundle(ctx)).hours
    ways = {"access.west-gable": "lift", "reason.west-gable": "firm lawn, no wires", "access.front": "ladder"}
    submit(client, f"{PAGE}/ways", data=ways)
    chosen = _bundle(ctx).job.estimating.access
    assert list(chosen) == ["west-gable"], "a ladder without a word is as it was"
    assert chosen["west-gable"].access is Access.LIFT and chosen["west-gable"].reason == "firm lawn, no wires"
    after = job_estimate(_bundle(ctx)).hours
    saved = sum(x.hours for x in before.of_face("west-gable")) - sum(x.hours for x in after.of_face("west-gable"))
    assert saved > 2
    assert f"saves {saved:.1f} h" in said_on(client.get(PAGE).text)
    for page in ("plan", "today"):
        said = said_on(client.get(f"/jobs/coopers-rise/{page}").text)
        assert "by lift : firm lawn, no wires" in said.replace("lift:", "lift :"), page
    assert not any("ladder" in f.name for x in after.of_face("west-gable") for f in x.labour.factors)
    # Another page that does not name the face leaves it alone.
    submit(client, f"{PAGE}/ways", data={"access.back": "tower"})
    assert set(_bundle(ctx).job.estimating.access) == {"west-gable", "back"}
    assert "West gable: choose ladder" in client.post(f"{PAGE}/ways", data={"access.west-gable": "rope"}).text
    long = client.post(f"{PAGE}/ways", data={"access.back": "lift", "reason.back": "x" * 201})
    assert long.status_code == 422 and "at most 200 letters" in long.text
    assert _bundle(ctx).job.estimating.access["back"].access is Access.TOWER


QUANTITIES = "/jobs/coopers-rise/quantities"


def test_paint_is_bought_as_surely_as_was_chosen(client: TestClient, ctx: Context) -> None:
    usual = job_estimate(_bundle(ctx))
    said = said_on(client.get(QUANTITIES).text)
    assert f"{usual.paint_cost:.2f}" in said and "enough in 80 of 100 such jobs" in said
    assert "Paintable caulk, tubes of 300 mL 2 tubes" in said
    assert "0.00 L" not in said and "#" not in said, "no zero where little is needed, no colour codes"
    submit(client, f"{QUANTITIES}/level", data={"buy_level": "95"})
    surer = job_estimate(_bundle(ctx))
    assert surer.paint_cost > usual.paint_cost
    assert "enough in 95 of 100 such jobs" in said_on(client.get(QUANTITIES).text)
    for wrong in ("49", "nan", "", "1e999"):
        answer = client.post(f"{QUANTITIES}/level", data={"buy_level": wrong})
        assert answer.status_code == 422 and "in how many a paint is enough: 50 to 99" in said_on(answer.text)
    assert _bundle(ctx).job.estimating.buy_level == 95
    submit(client, "/jobs/coopers-rise/undo", data={"back": QUANTITIES})
    assert _bundle(ctx).job.estimating.buy_level == 80


def test_what_is_stirred_into_the_finish_is_bought_by_its_litres(client: TestClient, ctx: Context) -> None:
    assert "Growth was found on this house" in said_on(client.get(QUANTITIES).text)
    submit(client, f"{QUANTITIES}/additives", data={"add-mildewcide": "1", "add-extender": "1"})
    found = job_estimate(_bundle(ctx))
    finish = [o for o in found.orders if o.reserve_l]
    amounts = {s.code: s.amount for s in found.supplies}
    assert amounts["mildewcide"] == pytest.approx(sum(o.litres for o in finish) * 0.008)
    waterborne = [o for o in finish if o.product.base == "waterborne"]
    assert amounts["extender"] == pytest.approx(sum(o.litres for o in waterborne) * 0.06)
    assert 0 < len(waterborne) < len(finish), "the sash paint is no waterborne one"
    assert "Mildewcide" in said_on(client.get(QUANTITIES).text)
    assert client.post(f"{QUANTITIES}/additives", data={"add-sugar": "1"}).status_code == 422
    submit(client, "/jobs/coopers-rise/undo", data={"back": QUANTITIES})
    assert _bundle(ctx).job.estimating.additives == ()


def test_a_job_without_steps_is_told_where_they_come_from(client: TestClient, ctx: Context) -> None:
    said = said_on(client.get(f"/jobs/{start_job(ctx, NEW)}/estimate").text)
    assert "Nothing has steps yet" in said and "person-hours" not in said


def test_a_length_nobody_took_is_named_and_gone_once_it_is_typed(client: TestClient) -> None:
    """4.8 m² at a girth of 15 cm are 32 m; they were taken as 28 m."""
    survey = "/jobs/coopers-rise/survey"
    form = form_of(client.get(f"{survey}/zone/back-trim").text, f"{survey}/zone/save")
    assert form["area.trim_m"] == "28"
    assert "Length not measured" not in client.get(PAGE).text
    assert client.post(f"{survey}/zone/save", data=form | {"area.trim_m": ""}).status_code == 200
    assert "Back, Trim and corner boards 32 m" in said_on(client.get(PAGE).text)
    form = form_of(client.get(f"{survey}/zone/back-trim").text, f"{survey}/zone/save")
    assert client.post(f"{survey}/zone/save", data=form | {"area.trim_m": "30"}).status_code == 200
    assert "Length not measured" not in client.get(PAGE).text


@pytest.mark.parametrize("name", ["work.csv", "work.xlsx", "purchase.csv", "purchase.xlsx"])
def test_the_tables_are_taken_out_as_files(visitor: TestClient, name: str) -> None:
    answer = visitor.get(f"{PAGE}/{name}")
    assert answer.status_code == 200
    assert answer.headers["content-disposition"] == f'attachment; filename="coopers-rise-{name}"'
    assert answer.content[:2] == (b"PK" if name.endswith("xlsx") else b"\xef\xbb")
    page = PAGE if name.startswith("work") else QUANTITIES
    assert f'href="{PAGE}/{name}"' in visitor.get(page).text
    assert visitor.get(f"{PAGE}/prices.csv").status_code == 404


SIDING = "/jobs/coopers-rise/specification/zone/west-gable-siding"


def test_coats_are_laid_by_another_method_with_its_reason(client: TestClient, ctx: Context) -> None:
    page = client.get(f"{SIDING}?hours=true").text
    said = said_on(page)
    assert "Brush, roller or sprayer" in said and "airless, back-rolled" in said
    before = job_estimate(_bundle(ctx)).hours
    refused = client.post(f"{SIDING}/way", data=_version(page) | {"way": "airless+", "reason": ""})
    assert refused.status_code == 422 and "say why" in refused.text
    assert client.post(f"{SIDING}/way", data=_version(page) | {"way": "rag", "reason": "quick"}).status_code == 422
    submit(client, f"{SIDING}/way", data=_version(page) | {"way": "airless+", "reason": "no car near, dry wood"})
    finish = _bundle(ctx).finish_of("zone", "west-gable-siding")
    assert finish is not None
    coats = [o for o in finish.operations if o.kind == "coat"]
    assert [(o.method, o.back_roll, o.because) for o in coats] == [
        ("airless", True, "by hand: no car near, dry wood"),
        ("airless", True, "by hand: no car near, dry wood"),
    ]
    assert any("spraying" in o.name for o in finish.operations), "openings are masked for the sprayer"
    after = job_estimate(_bundle(ctx)).hours
    assert after.hours < before.hours and after.days.spray_days > 0


def _version(page: str) -> dict[str, str]:
    return {"version": re.search(r'name="version" value="(\d+)"', page)[1]}  # type: ignore[index]


def test_small_extras_have_their_hours_and_nonsense_is_refused(ctx: Context, client: TestClient) -> None:
    """Twelve windows at 0.15 h and two lamps at 0.4 h: 2.6 h with the job's own."""
    extras = f"{PAGE}/extras"

    def hours() -> float:
        lines = job_estimate(_bundle(ctx)).hours.of_job
        return sum(line.hours for line in lines if line.labour.rate.code.startswith("extra-"))

    assert hours() == 0
    submit(client, extras, data={"extra-window": "12", "extra-lamp": "2", "extra-gutter": ""})
    assert hours() == pytest.approx(12 * 0.15 + 2 * 0.4)
    shown = client.get(PAGE).text
    assert "Windows cleaned outside" in shown and 'value="12"' in shown
    refused = client.post(extras, data={"extra-window": "a dozen", "extra-lamp": "2"})
    assert refused.status_code == 422 and "“a dozen” is no amount" in refused.text and 'value="a dozen"' in refused.text
    assert hours() == pytest.approx(2.6), "nothing is half saved"
    submit(client, extras, data={})
    assert hours() == 0
