"""What was found, set on many surfaces at once as one step."""

from typing import Any

from amber_gable.core.survey.findings.answers import (
    fits,
    is_drawn,
    metered,
    surface_kinds,
    surfaces_of,
    tallies,
    tells_of_many,
)
from amber_gable.domain.errors import Refused
from amber_gable.domain.findings.guided_tests import GUIDED_TESTS
from amber_gable.domain.house.survey import Part
from amber_gable.domain.units import UnitSystem
from amber_gable.services.context import Context
from amber_gable.services.survey.conditions import job_day, tested
from amber_gable.services.survey.forms import made_part
from amber_gable.services.survey.readings import reading_of
from amber_gable.services.survey.surveying import KIND_OF, write_step
from amber_gable.store.job import survey
from amber_gable.store.job.jobs import load_bundle

__all__ = ["metered", "set_findings", "surface_kinds", "surfaces_of", "tallies"]

_OF_MANY = {t.code: t for t in GUIDED_TESTS if tells_of_many(t)}


def set_findings(
    ctx: Context, job_id: str, kind: str, face: str, code: str, text: str, system: UnitSystem = UnitSystem.METRIC
) -> int:
    """Give one test the same answer on every surface of a kind (empty: all) on a face (empty: all) that it fits; what
    is painted on the drawing stays. Returns how many changed. Raises Refused under the test's code, NotFound."""
    test = _OF_MANY.get(code)
    if test is None:
        raise Refused({code: "this test is not one that many surfaces share an answer of"})
    if not text.strip():
        raise Refused({code: "is needed"})
    value = reading_of(test, text.strip(), system)
    with ctx.writing() as session:
        bundle = load_bundle(session, job_id)
        versions, today = survey.versions(session, job_id), job_day(ctx, bundle)
        changes: list[tuple[Part, str, int | None]] = []
        for part in surfaces_of(bundle.property, kind, face):
            was = part.condition
            if not fits(test, part) or is_drawn(test, was):
                continue
            tests = tested(was, test, today)
            if getattr(was, test.field) == value and len(tests) == len(was.tests):
                continue
            sort = KIND_OF[type(part)]
            fields: dict[str, Any] = {"condition": was.model_dump() | {test.field: value, "tests": tests}}
            changes.append((made_part(sort, part, fields), part.face, versions[sort, part.id]))
        if changes:
            write_step(session, job_id, changes, f"test {test.name.lower()} on {len(changes)} surfaces")
    return len(changes)
