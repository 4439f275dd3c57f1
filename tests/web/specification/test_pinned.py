"""A job keeps the sheets and settings it was specified with; newer ones are offered and taken over by a decision."""

import pytest
from fastapi.testclient import TestClient

from amber_gable.core.specification.derived.part_spec import made_finish
from amber_gable.domain.paint.product import Product
from amber_gable.services.company.stores import save_product, take_out
from amber_gable.services.context import Context
from amber_gable.services.job.details import start_job
from amber_gable.services.quantities.quantities import job_quantities
from amber_gable.services.specification.schemes import apply_scheme, save_scheme
from amber_gable.services.specification.specifying import change_wish, set_lead_year, set_school
from amber_gable.services.specification.taking_over import offers, take_newer
from amber_gable.store.company import sheets
from amber_gable.store.job.jobs import load_bundle, save_bundle
from tests.jobs import coopers_rise, one_wall
from tests.web.forms import form_of

pytestmark = pytest.mark.usefixtures("indoors")
RISE, LANE, CODE = "coopers-rise", "quarry-lane", "skerry-trimline"
NEW_JOB = {
    "name": "2 Beech Walk", "customer": "Ada Fenn", "place": "Fernhill", "latitude": "45.2", "longitude": "-62.1",
    "time_zone": "America/Halifax",
}  # fmt: skip


def _sheet(ctx: Context, code: str = CODE) -> Product:
    with ctx.reading() as session:
        return next(p for p in sheets.company_products(session, _company(ctx)) if p.code == code)


def _company(ctx: Context) -> str:
    with ctx.reading() as session:
        return load_bundle(session, RISE).company.id


def _edit(ctx: Context, **fields: object) -> None:
    """The office changes a sheet in Stores."""
    with ctx.reading() as session:
        version = sheets.product_version(session, _company(ctx), CODE)
    save_product(ctx, Product.model_validate(_sheet(ctx).model_dump() | fields), version)


def _litres(ctx: Context, job: str) -> float:
    with ctx.reading() as session:
        return sum(o.litres for o in job_quantities(load_bundle(session, job)).orders)


def _read(ctx: Context, job: str) -> Product:
    with ctx.reading() as session:
        return load_bundle(session, job).product(CODE)


def test_a_second_job_begins_after_sheets_and_schools_were_changed(ctx: Context) -> None:
    _edit(ctx, volume_solids_pct=30.0)
    set_school(ctx, RISE, "company", "wash", "pressure")
    set_lead_year(ctx, RISE, {"year": "1990"})
    for number in (1, 2):
        job = start_job(ctx, NEW_JOB | {"name": f"Job {number}"})
        with ctx.reading() as session:
            bundle = load_bundle(session, job)
        assert bundle.company.schools["wash"] == "pressure"
        assert bundle.company.lead_cutoff_year == 1990
        assert bundle.product(CODE).volume_solids_pct == 30.0


def test_a_job_follows_the_stores_until_a_step_uses_the_sheet(ctx: Context) -> None:
    job = start_job(ctx, NEW_JOB)
    _edit(ctx, volume_solids_pct=31.0)
    assert _read(ctx, job).volume_solids_pct == 31.0
    assert not offers(ctx, job)


def test_litres_of_a_specified_job_stay_until_the_sheet_is_taken_over(ctx: Context) -> None:
    before, solids = _litres(ctx, RISE), _sheet(ctx).volume_solids_pct
    _edit(ctx, volume_solids_pct=solids * 0.9)
    assert _litres(ctx, RISE) == before
    (offer,) = offers(ctx, RISE).sheets
    assert offer.differences == {"volume_solids_pct": (solids, solids * 0.9)}
    take_newer(ctx, RISE, [CODE])
    assert _litres(ctx, RISE) > before + 0.1, "less solids in the can: more litres for the same film"
    assert not offers(ctx, RISE)


def test_deriving_after_a_sheet_was_changed_reads_the_sheet_of_the_job(ctx: Context) -> None:
    solids = _sheet(ctx).volume_solids_pct
    _edit(ctx, volume_solids_pct=solids / 2, note="new can")
    with ctx.reading() as session:
        version = load_bundle(session, RISE).finish_of("zone", "front-siding")
    assert version is not None
    change_wish(ctx, RISE, ("zone", "front-siding"), 1, lambda wish, _: wish)
    assert _read(ctx, RISE).volume_solids_pct == solids


def test_one_job_takes_over_and_the_other_keeps(ctx: Context) -> None:
    _edit(ctx, rain_ready_h=20.0)
    take_newer(ctx, RISE, [CODE])
    assert (_read(ctx, RISE).rain_ready_h, offers(ctx, RISE).sheets) == (20.0, ())
    assert _read(ctx, LANE).rain_ready_h != 20.0
    assert [s.code for s in offers(ctx, LANE).sheets] == [CODE]


def test_a_company_setting_changed_from_one_job_is_offered_to_the_others(ctx: Context) -> None:
    set_lead_year(ctx, RISE, {"year": "1950"})
    set_school(ctx, RISE, "company", "wash", "pressure")
    with ctx.reading() as session:
        mine, other = load_bundle(session, RISE).company, load_bundle(session, LANE).company
    assert (mine.lead_cutoff_year, mine.schools["wash"]) == (1950, "pressure")
    assert (other.lead_cutoff_year, other.schools.get("wash")) == (1978, None)
    assert not offers(ctx, RISE)
    assert set(offers(ctx, LANE).settings) == {"lead_cutoff_year", "schools"}
    take_newer(ctx, LANE, [], settings=True)
    with ctx.reading() as session:
        assert load_bundle(session, LANE).company.lead_cutoff_year == 1950


def test_a_job_brought_in_with_another_sheet_bends_nobody_elses(ctx: Context) -> None:
    """It was refused before; now it reads its own sheet, and the stores keep theirs."""
    bundle = coopers_rise()
    product = bundle.product(CODE).model_copy(update={"touch_h": 2.5, "rain_ready_h": 9.0})
    other = one_wall().model_copy(update={"company": bundle.company})
    with ctx.writing() as session:
        save_bundle(session, other.model_copy(update={"products": (*other.products, product)}))
    assert _read(ctx, other.job.id).rain_ready_h == 9.0
    assert _read(ctx, RISE) == bundle.product(CODE) == _sheet(ctx)


def test_a_sheet_is_taken_out_where_no_step_uses_it(ctx: Context) -> None:
    job = start_job(ctx, NEW_JOB)
    with ctx.reading() as session:
        used = {p["code"] for j in session.query(sheets.JobRow) for p in j.products if p["revision"] is not None}
        systems = sheets.company_systems(session, _company(ctx))
        used |= {o.product for s in systems for o in s.operations}
        free = next(p.code for p in sheets.company_products(session, _company(ctx)) if p.code not in used)
    take_out(ctx, free, 1)
    with ctx.reading() as session:
        assert free not in {p.code for p in load_bundle(session, job).products}


def test_the_offer_stands_on_the_page_and_is_taken_there(ctx: Context, client: TestClient) -> None:
    _edit(ctx, volume_solids_pct=33.0)
    for stage in ("specification", "quantities"):
        page = client.get(f"/jobs/{RISE}/{stage}").text
        assert "Changed in the company since" in page
        assert "→ <b>33 %</b>" in page
    form = form_of(page, f"/jobs/{RISE}/specification/newer")
    done = client.post(f"/jobs/{RISE}/specification/newer", data=form)
    assert "Taken over" in done.text
    assert "Changed in the company since" not in done.text


def test_a_scheme_is_put_in_whole_or_not_at_all(ctx: Context, monkeypatch: pytest.MonkeyPatch) -> None:
    """A fault of the program half-way leaves every part as it was."""
    scheme = save_scheme(ctx, RISE, {"name": "Green", "body.name": "own", "body.colour": "#4d6b57"})
    runs: list[object] = []

    def fails_at_the_third(*parts: object) -> object:
        runs.append(parts)
        if len(runs) == 3:
            raise ZeroDivisionError
        return made_finish(*parts)  # type: ignore[arg-type]

    with ctx.reading() as session:
        before = load_bundle(session, RISE).job.finishes
    monkeypatch.setattr("amber_gable.services.specification.specifying.made_finish", fails_at_the_third)
    with pytest.raises(ZeroDivisionError):
        apply_scheme(ctx, RISE, scheme)
    with ctx.reading() as session:
        assert load_bundle(session, RISE).job.finishes == before
