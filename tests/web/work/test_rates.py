"""The company's rates: typed, brought in and taken out, and what a job makes of them."""

import csv
import io

import pytest
from fastapi.testclient import TestClient

from amber_gable.core.work.record import job_work
from amber_gable.domain.errors import InputError
from amber_gable.domain.units import UnitSystem
from amber_gable.domain.work.rates import PACE_FACTORS, RATES, OwnRate
from amber_gable.exchange.stores.rates_csv import read_rates, write_rates
from amber_gable.services.company.rates import keep_rates, own_factors, own_rates, shown
from amber_gable.services.context import Context
from amber_gable.services.job.details import start_job
from amber_gable.services.job.view import job_view
from tests.clients import submit
from tests.web.forms import form_of, said_on
from tests.web.survey.test_block_out import NEW

PAGE = "/settings/rates"


def test_a_rate_of_ones_own_holds_for_new_jobs_and_is_offered_to_those_that_are_begun(
    client: TestClient, ctx: Context
) -> None:
    form = form_of(client.get(PAGE).text, PAGE)
    assert form["rate.brush"] == "", "nobody has figures of his own yet"
    submit(client, PAGE, data=form | {"rate.brush": "13", "rate.sash-1": "30 min"})
    own = own_rates(ctx)
    assert {c: o.per_hour for c, o in own.items()} == pytest.approx({"brush": 13, "sash-1": 2})
    assert "the company's own" in said_on(client.get(PAGE).text)
    fresh = job_view(ctx, start_job(ctx, NEW)).bundle
    assert fresh.company.rates == own
    rise = job_view(ctx, "coopers-rise").bundle
    assert rise.company.rates == {}, "it was specified with the trade's"
    offered = said_on(client.get("/jobs/coopers-rise/quantities").text)
    assert "Rate, brush siding and other surfaces: 11 → 13 m² an hour" in offered
    submit(client, "/jobs/coopers-rise/specification/newer", data={"code": ""})
    coat = job_work(job_view(ctx, "coopers-rise").bundle)["zone", "wing-back-siding"].lines[5]
    assert coat.labour.rate.per_hour == 13 and coat.labour.rate.source == "the company's own"
    # An empty field is the trade's again.
    form = form_of(client.get(PAGE).text, PAGE)
    assert (form["rate.brush"], form["rate.sash-1"]) == ("13", "30")
    submit(client, PAGE, data=form | {"rate.brush": " "})
    assert set(own_rates(ctx)) == {"sash-1"}


def test_a_factor_of_ones_own_slows_the_hours_it_is_of(client: TestClient, ctx: Context) -> None:
    form = form_of(client.get(PAGE).text, PAGE)
    submit(client, PAGE, data=form | {"factor.above-3": "1,30", "rate.brush": "12"})
    assert own_factors(ctx) == {"above-3": 1.3}
    said = said_on(client.get("/jobs/coopers-rise/quantities").text)
    assert "Hours from a ladder above 3 m: × 1.15 → × 1.3" in said
    submit(client, "/jobs/coopers-rise/specification/newer", data={"code": ""})
    window = job_work(job_view(ctx, "coopers-rise").bundle)["item", "back-w1-item"].lines
    assert {f.value for line in window for f in line.labour.factors if "ladder" in f.name} == {1.3}
    taken = client.get(f"{PAGE}.csv").content
    submit(client, PAGE, data=form_of(client.get(PAGE).text, PAGE) | {"factor.above-3": "", "rate.brush": ""})
    assert own_factors(ctx) == {}
    submit(client, f"{PAGE}.csv", files={"file": ("rates.csv", taken, "text/csv")})
    assert (own_factors(ctx), own_rates(ctx)["brush"].per_hour) == ({"above-3": 1.3}, 12)
    wrong = client.post(PAGE, data={"factor.cold": "nan", "factor.solo": "7"})
    assert wrong.status_code == 422 and wrong.text.count("is not a factor from 0.3 to 5") == 2


@pytest.mark.parametrize("system", list(UnitSystem))
def test_rates_sent_back_as_they_were_shown_stay_to_the_last_digit(ctx: Context, system: UnitSystem) -> None:
    own = {code: OwnRate(per_hour=r.per_hour * 1.0371829, source="2025") for code, r in RATES.items()}
    keep_rates(
        ctx, {f"rate.{c}": shown(RATES[c], o.per_hour, UnitSystem.METRIC) for c, o in own.items()}, UnitSystem.METRIC
    )
    held = own_rates(ctx)
    back = {f"rate.{c}": shown(RATES[c], o.per_hour, system) for c, o in held.items()}
    keep_rates(ctx, back, system)
    assert own_rates(ctx) == held


WRONG = [
    ("brush", "0"), ("brush", "fast"), ("brush", "-3"), ("brush", "0.001"), ("sash-1", "0"), ("sash-1", "1e999"),
    ("sash-1", "nan"),
    ("trim-brush", "9e9"),
]  # fmt: skip


@pytest.mark.parametrize(("field", "typed"), WRONG)
def test_what_is_no_rate_is_refused_beside_it_and_nothing_is_kept(
    client: TestClient, ctx: Context, field: str, typed: str
) -> None:
    answer = client.post(PAGE, data={f"rate.{field}": typed, "rate.roller": "30"})
    assert answer.status_code == 422 and f'id="fault-{field}"' in answer.text
    assert f'value="{typed}"' in answer.text and 'value="30"' in answer.text, "what was typed stays"
    assert own_rates(ctx) == {}


def test_a_file_taken_out_comes_in_again_and_marks_only_what_differs(client: TestClient, ctx: Context) -> None:
    taken = client.get(f"{PAGE}.csv").content.decode("utf-8-sig")
    rows = list(csv.DictReader(io.StringIO(taken)))
    assert [r["code"] for r in rows] == [*RATES, *(f"factor-{code}" for code in PACE_FACTORS)]
    assert read_rates(taken, "rates.csv") == ({}, {}), "the trade's own figures are nobody's"
    former = taken.replace("the trade's median", "handbook §17")
    assert read_rates(former, "rates.csv") == ({}, {}), "nor are those of a file of an older version"
    mine = taken.replace("brush,brush siding and other surfaces,m2,11,1.5,the trade's median",
                         "brush,brush siding and other surfaces,m2,12.5,1.3,season 2025")  # fmt: skip
    submit(client, f"{PAGE}.csv", files={"file": ("rates.csv", mine.encode(), "text/csv")})
    assert own_rates(ctx) == {"brush": OwnRate(per_hour=12.5, spread=1.3, source="season 2025")}
    assert read_rates(write_rates(own_rates(ctx)), "again") == (own_rates(ctx), {})


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "line 1.*no column 'code'"),
        ("code,what\nbrush,x\n", "no column 'per_hour'"),
        ("code,per_hour\nbursh,3\n", "line 2, code.*“bursh” is no rate"),
        ("code,per_hour\nbrush,3\nbrush,4\n", "line 3, code.*twice"),
        ("code,per_hour\nfactor-wett,2\n", "line 2, code.*no factor that is known"),
        ("code,per_hour\nfactor-wet,9\n", "line 2, per_hour.*no factor from 0.3 to 5"),
        ("code,per_hour\nbrush,quick\n", "line 2, per_hour.*“quick” is not a number"),
        ("code,per_hour\nbrush,0\n", "line 2.*greater than or equal to 0.01"),
        ("code,per_hour\nbrush,nan\n", "line 2"),
        ("code,per_hour\nbrush,3,4\n", "line 2.*more cells"),
        ("code,per_hour,spread\nbrush,3,0.5\n", "line 2.*greater than or equal to 1"),
    ],
)
def test_a_broken_file_is_refused_whole_with_its_line(client: TestClient, ctx: Context, text: str, words: str) -> None:
    with pytest.raises(InputError, match=words):
        read_rates(text, "rates.csv")
    answer = client.post(f"{PAGE}.csv", files={"file": ("rates.csv", text.encode() or b"\n", "text/csv")})
    assert answer.status_code == 422 and "rates.csv, line" in said_on(answer.text)
    assert own_rates(ctx) == {}
