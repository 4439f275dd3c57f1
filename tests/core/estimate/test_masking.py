"""Tape and film by hand arithmetic: edges once round and a tenth for laps."""

from typing import Any

import pytest

from amber_gable.core.estimate.estimate import job_estimate
from amber_gable.core.estimate.masking import masked
from amber_gable.core.survey.amounts.painted import painted_parts
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.operation import Operation
from tests.jobs import demo_job, one_wall, opening

WINDOWS = (opening("w", 0.5, 1.0, 1.0, 1.5), opening("d", 3.0, 0.0, 0.9, 2.1))
GARAGE = {"kind": "garage-door", "width_m": 2.5, "height_m": 2.1}
DOOR = {"kind": "glazed-door", "width_m": 0.9, "height_m": 2.0, "glazed": 0.4}
CASES = [
    # what is masked, how many, the film's method, metres of tape, m² of film
    # 5.0 m round the window and 6.0 round the door; 1.5 and 1.89 m².
    ("wall by hand", None, 2, None, 11.0 * 1.1, 3.39 * 1.1),
    ("one of the wall's two", None, 1, None, 5.5 * 1.1, 3.39 * 1.1 / 2),
    # For a spray 0.3 m of film past every edge: 1.6 × 2.1 and 1.5 × 2.7; three tenths more tape for its outer edge.
    ("wall by spray", None, 2, "airless", 11.0 * 1.1 * 1.3, 3.36 + 4.05),
    # Jambs and head 6.7 m taped on both edges of the film, the gasket 2.5 m once; a drape of 0.3 m.
    ("garage door", GARAGE, 1, None, (2 * 6.7 + 2.5) * 1.1, 6.7 * 0.3 * 1.1),
    # Its strip 4.9 m; glass of two fifths of the leaf in its proportion: 5.8 m × √0.4 round, 0.72 m².
    ("glazed door", DOOR, 1, None, (4.9 + 5.8 * 0.4**0.5) * 1.1, 0.72 * 1.1),
    ("both sides of two glazed doors", DOOR | {"sides": 2}, 2, None, 2 * (4.9 + 11.6 * 0.4**0.5) * 1.1, 4 * 0.72 * 1.1),
    ("a shutter has nothing to mask", {"kind": "shutter-pair", "leaf_width_m": 0.4, "height_m": 1.5}, 1, None, 0, 0),
]


@pytest.mark.parametrize(("spec", "count", "method", "tape", "film"), [c[1:] for c in CASES], ids=[c[0] for c in CASES])
def test_what_masking_takes(
    spec: dict[str, Any] | None, count: int, method: str | None, tape: float, film: float
) -> None:
    raw = one_wall(6.0, 3.0, WINDOWS).model_dump(mode="json")
    if spec is not None:
        raw["property"]["items"] = [
            {"id": "item", "name": "Item", "face": "wall", "colour_now": "#808080", "spec": spec}
        ]
    bundle = JobBundle.model_validate(raw)
    parts = painted_parts(bundle.property, bundle.deduction)
    part = next(p for p in parts.values() if (spec is not None) == bool(p.item_kind))
    step = {"id": "mask", "name": "Mask", "kind": "mask", "amount": count, "unit": "pieces", "method": method}
    found = masked(part, Operation.model_validate(step))
    assert found == pytest.approx((tape, film), rel=1e-6)


def test_a_floor_without_openings_keeps_the_tape_of_its_edge() -> None:
    tape = next(s for s in job_estimate(demo_job("4-heron-deck")).supplies if s.code == "tape")
    assert tape.amount == pytest.approx(0.3), "15 m of a roll of 50 m, along walls and posts"
