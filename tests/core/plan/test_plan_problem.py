"""What makes a plan out of date, and that the planner reads nothing else."""

from collections.abc import Callable
from datetime import datetime
from typing import Any

import pytest
from pydantic import create_model

from amber_gable.core.plan.build import plan_job
from amber_gable.core.plan.problem import LABELS, UNREAD, WORDS, plan_problem
from amber_gable.domain.findings.condition import MoistureReading
from amber_gable.domain.house.survey import PlanPlace
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.families import Family
from amber_gable.domain.paint.generic_products import GENERIC_PRODUCTS
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Base, Hazard, Product
from amber_gable.domain.work.rates import OwnRate
from amber_gable.domain.work.working import CrewDay
from tests.jobs import coopers_rise
from tests.site_cases import at, site_of, wall

SPARE = GENERIC_PRODUCTS["deck-clear-coat"]


def _with(bundle: JobBundle, part: str, **fields: Any) -> JobBundle:
    return bundle.model_copy(update={part: getattr(bundle, part).model_copy(update=fields)})


def _with_first(bundle: JobBundle, holder: str, what: str, **fields: Any) -> JobBundle:
    first, *others = getattr(getattr(bundle, holder), what)
    return _with(bundle, holder, **{what: (first.model_copy(update=fields), *others)})


def _with_product(bundle: JobBundle, **fields: Any) -> JobBundle:
    """Every sheet changed: the first may be one that no step uses."""
    return bundle.model_copy(update={"products": tuple(p.model_copy(update=fields) for p in bundle.products)})


def _with_estimating(bundle: JobBundle, **fields: Any) -> JobBundle:
    return _with(bundle, "job", estimating=bundle.job.estimating.model_copy(update=fields))


def _with_condition(bundle: JobBundle, **fields: Any) -> JobBundle:
    zone = bundle.property.zones[0]
    return _with_first(bundle, "property", "zones", condition=zone.condition.model_copy(update=fields))


def _with_another_item(bundle: JobBundle) -> JobBundle:
    """A flush door where a panelled one was, of the same size: only the kind of its record tells them apart."""
    items = bundle.property.items
    at_ = next(n for n, i in enumerate(items) if i.spec.kind == "panelled-door")
    sizes = {k: v for k, v in items[at_].spec.model_dump().items() if k in ("width_m", "height_m", "sides")}
    changed = type(items[at_]).model_validate(items[at_].model_dump() | {"spec": sizes | {"kind": "flush-door"}})
    return _with(bundle, "property", items=(*items[:at_], changed, *items[at_ + 1 :]))


BRUSH = OwnRate(per_hour=9, spread=1.5)
READING = MoistureReading(pct=19.0, at=datetime.fromisoformat("2026-09-14T06:00-03:00"))
# What of a job is changed, and whether its plan is out of date by it.
CHANGES: list[tuple[str, Callable[[JobBundle], JobBundle], bool]] = [
    ("nothing", lambda b: b, False),
    ("customer", lambda b: _with(b, "job", customer="Other"), False),
    ("note", lambda b: _with(b, "job", note="Other"), False),
    ("price", lambda b: _with_product(b, containers=b.products[0].containers[:1]), False),
    ("an unused product", lambda b: b.model_copy(update={"products": (*b.products, SPARE)}), False),
    ("name of a wall", lambda b: _with_first(b, "property", "faces", name="Other"), False),
    ("what is bought", lambda b: _with_estimating(b, buy_level=95), False),
    ("a meter reading", lambda b: _with_condition(b, moisture=(READING,)), False),
    ("bearing of a wall", lambda b: _with_first(b, "property", "faces", azimuth_deg=12.0), True),
    ("the building a wall belongs to", lambda b: _with_first(b, "property", "faces", building="Barn"), True),
    ("where a wall stands on the plan",
     lambda b: _with_first(b, "property", "faces", plan=PlanPlace(east_m=3, north_m=4)), True),
    ("another kind of item of the same size", _with_another_item, True),
    ("drying", lambda b: _with_product(b, recoat_h=20.0), True),
    ("the longest recoat", lambda b: _with_product(b, max_recoat_h=200.0), True),
    ("crew", lambda b: _with(b, "job", crew=b.job.crew.model_copy(update={"people": 5})), True),
    ("a rate of the company's own", lambda b: _with(b, "company", rates={"brush": BRUSH}), True),
    ("the cold days", lambda b: _with_estimating(b, cold_pct=40), True),
    ("the order on a face", lambda b: _with(b, "company", schools={"order": "trim-first"}), True),
    ("lead test", lambda b: _with(b, "property", lead_found=False), True),
    ("colour", lambda b: _with_first(b, "job", "finishes", colour="#112233"), True),
    ("a part left out", lambda b: _with(b, "job", finishes=b.job.finishes[1:]), True),
]  # fmt: skip


@pytest.mark.parametrize(("change", "stale"), [c[1:] for c in CHANGES], ids=[c[0] for c in CHANGES])
def test_a_plan_is_out_of_date_only_by_what_it_reads(change: Callable[[JobBundle], JobBundle], stale: bool) -> None:
    bundle = coopers_rise()
    assert (plan_problem(change(bundle)).fingerprint != plan_problem(bundle).fingerprint) is stale


# Another value for every field of a data sheet but its code.
SHEET: dict[str, Any] = {
    "name": "Other", "maker": "Other", "family": Family.MASONRY_PAINT, "base": Base.ALKYD, "sheen": "gloss",
    "volume_solids_pct": 61.5, "density_kg_l": 1.99, "dry_film_um": 77.0, "spread_low_m2_l": 1.5,
    "spread_high_m2_l": 39.0, "coats": 6, "air_min_c": -1.0, "air_max_c": 99.0, "surface_min_c": -2.0,
    "surface_max_c": 98.0, "rh_max_pct": 71.0, "spread_min_c": 4.5, "hold_h": 11.5, "moisture_max_pct": 9.5,
    "touch_h": 0.1, "rain_ready_h": 99.0, "recoat_h": 98.0, "max_recoat_h": 999.0, "foot_h": 97.0, "cure_d": 399.0,
    "thinning_max_pct": 49.0, "voc_g_l": 899.0, "tips": "other", "methods": (Method.ROLLER,), "substrates": ("vinyl",),
    "primer": True, "self_priming": True, "vinyl_safe": True, "vinyl_colours": ("#123456",),
    "contrast": 0.501, "solar_reflectance": 0.501,
    "shelf_months": 239, "hazards": (Hazard.CAUSTIC,), "note": "other", "containers": (),
}  # fmt: skip


def test_every_field_of_a_sheet_is_read_or_left_out_on_purpose() -> None:
    assert set(SHEET) == set(Product.model_fields) - {"code"}
    bundle = coopers_rise()
    before = plan_problem(bundle).fingerprint
    for name, value in SHEET.items():
        # One sheet that has it already is no change: all are given it, and one at least had another.
        changed = plan_problem(_with_product(bundle, **{name: value})).fingerprint != before
        assert changed is (name not in UNREAD["product"] | WORDS | LABELS), name


def test_a_field_added_to_the_program_makes_no_plan_stale() -> None:
    problem = plan_problem(coopers_rise())
    bundle = coopers_rise()
    grown = create_model("CrewDay", __base__=CrewDay, breaks=(int, 2))
    crew = grown(**bundle.job.crew.model_dump())
    assert plan_problem(_with(bundle, "job", crew=crew)).fingerprint == problem.fingerprint


def test_what_is_left_out_changes_no_plan() -> None:
    """The planner computes with the problem alone: words, prices and what is agreed beside the work do not reach it."""
    begin = at(0, "07:00")
    bundle = wall(("done", "wash", at(-1, "09:00")), readings=[(17.0, at(0, "06:30"))])
    other = _with(_with(bundle, "job", customer="X", note="Y"), "company", name="Z", currency="EUR")
    other = _with_product(other, maker="X", note="Y", voc_g_l=3.0, shelf_months=1, tips="other")
    plan = plan_job(site_of(bundle, begin), begin)
    assert plan.tasks and plan == plan_job(site_of(other, begin), begin)
    assert "wash" not in {s for t in plan.tasks for s in t.steps}, "what is done comes from the record"
    dry = wall(("done", "wash", at(-1, "09:00")))
    assert plan_problem(bundle).fingerprint == plan_problem(dry).fingerprint
    primed = [
        next(t.start for t in p.tasks if "prime" in t.steps) for p in (plan, plan_job(site_of(dry, begin), begin))
    ]
    assert primed[0] > primed[1], "the reading puts the primer off"
