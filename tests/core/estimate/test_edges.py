"""Edges that are taped: trim beside a sprayed field, by metres, where it goes first or stays as it is."""

from typing import Any

import pytest

from amber_gable.core.estimate.estimate import job_estimate
from amber_gable.core.specification.derived.completing import completed
from amber_gable.core.survey.amounts.painted import painted_parts
from amber_gable.domain.job.job import JobBundle
from tests.jobs import coopers_rise


def _job(schools: dict[str, str], left: tuple[str, ...] = ()) -> JobBundle:
    """Cooper's Rise derived anew under these schools, with some of its trim left as it is."""
    raw: dict[str, Any] = coopers_rise().model_dump(mode="json")
    raw["job"]["schools"] = schools
    kept = [f for f in raw["job"]["finishes"] if f.get("zone") not in left]
    raw["job"]["finishes"] = [
        {k: v for k, v in f.items() if k not in ("operations", "overrides", "system", "picks")} for f in kept
    ]
    raw["job"]["left"] = [{"zone": zone} for zone in left]
    return completed(JobBundle.model_validate(raw))


def _taped(bundle: JobBundle) -> dict[str, float]:
    """Metres by what is said, on the street front."""
    parts = painted_parts(bundle.property, bundle.deduction)
    return {
        line.words: line.labour.amount
        for line in job_estimate(bundle).hours.lines
        if line.operation is None and line.labour.rate.code == "edge-tape"
        if line.part is not None and parts[line.part].face.id == "front"
    }


def test_trim_is_masked_beside_a_sprayed_field_where_it_goes_first_or_stays() -> None:
    plain = coopers_rise()
    parts = painted_parts(plain.property, plain.deduction)
    trim = {key[1]: part for key, part in parts.items() if part.trim_m > 0 and part.face.id == "front"}
    assert trim, "the street front has trim"
    ids = tuple(trim)
    assert _taped(_job({"method": "hand", "order": "trim-first"})) == {}, "by hand it is cut in"
    assert not any(w.startswith("Mask") for w in _taped(_job({"method": "spray"}))), (
        "the field goes first, trim covers it"
    )
    first = _taped(_job({"method": "spray", "order": "trim-first"}))
    stays = _taped(_job({"method": "spray"}, left=ids))
    for part in trim.values():
        painted, kept = (
            f"Mask {part.name}, {why}, beside the spray" for why in ("which is painted", "which stays as it is")
        )
        assert first[painted] == pytest.approx(part.trim_m)
        assert stays[kept] == pytest.approx(part.trim_m)
