"""What is found while working: more damage than was surveyed changes the survey, the steps of the part and its hours,
and stands in the record with what it takes."""

import uuid
from collections.abc import Mapping
from dataclasses import dataclass

from amber_gable.core.survey.amounts.painted import Key
from amber_gable.core.work.record import PartWork, job_work
from amber_gable.domain.errors import NotFound, Refused
from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.findings.guided_tests import GUIDED_TESTS, GuidedTest
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Item, Zone
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.site_record import FoundMore
from amber_gable.domain.units import UnitSystem
from amber_gable.domain.work.operation import OperationKind
from amber_gable.services.context import Context
from amber_gable.services.job.undo import job_step
from amber_gable.services.specification.specifying import derived_anew
from amber_gable.services.survey.conditions import job_day, tested
from amber_gable.services.survey.forms import made_part
from amber_gable.services.survey.readings import reading_of
from amber_gable.services.today.noting import signed
from amber_gable.store.job import survey
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.site_record import append
from amber_gable.store.job.survey import check_references

FINDS = (OperationKind.WASH, OperationKind.STRIP, OperationKind.SCRAPE, OperationKind.SAND, OperationKind.REPAIR)
"""Kinds of work that bring to light what a survey does not see."""
_FIELDS = ("loose_pct", "bare_pct", "rust_pct", "mildew_pct", "rot_m2", "crack_m", "caulk_m", "putty_m", "nails")


@dataclass(frozen=True)
class Findable:
    """Something of which there may be more than was surveyed: `surveyed` in the unit of its field."""

    test: GuidedTest
    surveyed: float


def findable(part: Zone | Item) -> list[Findable]:
    """What can be found on a part, with how much of it was surveyed."""
    family = SUBSTRATES[part.substrate].family
    fits = [t for t in GUIDED_TESTS if t.field in _FIELDS and t.fits(family)]
    return [Findable(t, float(getattr(part.condition, t.field) or 0.0)) for t in fits]


def note_found(
    ctx: Context, job_id: str, key: Key, form: Mapping[str, str], system: UnitSystem = UnitSystem.METRIC
) -> None:
    """Enter what was found of a part (by the test's code), derive it anew and keep what that takes. Raises NotFound,
    and Refused by field."""
    with job_step(ctx, job_id, "more found while working") as session:
        before = load_bundle(session, job_id)
        part = before.property.part(key)
        if part is None:
            raise NotFound(*key)
        more = _more(part, form, system)
        condition, today = part.condition, job_day(ctx, before)
        for test, value in more.items():
            fields = {test.field: value, "tests": tested(condition, test, today)}
            condition = Condition.model_validate(condition.model_dump() | fields)
        made = made_part(key[0], part, {"condition": condition.model_dump()})
        survey.put_part(session, job_id, made, part.face, survey.live_part(session, job_id, *key).version)
        session.flush()
        derived_anew(session, load_bundle(session, job_id), lambda p, *_: p.key == key)
        check_references(session, job_id)
        session.flush()
        append(session, job_id, [_line(ctx, before, load_bundle(session, job_id), key, more, form.get("by", ""))])


def company_system(bundle: JobBundle, key: Key) -> str:
    """The name of the company's system that a part was given, whose steps no finding changes; empty where its steps
    are derived."""
    finish = bundle.finish_of(*key)
    return next((s.name for s in bundle.systems if finish is not None and s.id == finish.system), "")


def _more(part: Zone | Item, form: Mapping[str, str], system: UnitSystem) -> dict[GuidedTest, float]:
    out: dict[GuidedTest, float] = {}
    faults: dict[str, str] = {}
    for one in findable(part):
        text = form.get(one.test.code, "").strip()
        if not text:
            continue
        try:
            value = reading_of(one.test, text, system)
        except Refused as error:
            faults |= error.fields
            continue
        if value <= one.surveyed:
            faults[one.test.code] = f"“{text[:20]}” is no more than was surveyed: {one.test.name.lower()}"
        else:
            out[one.test] = value
    if not out and not faults:
        faults[""] = "say how much of what was found"
    if faults:
        raise Refused(faults)
    return out


def _line(
    ctx: Context, before: JobBundle, after: JobBundle, key: Key, more: Mapping[GuidedTest, float], by: str
) -> FoundMore:
    was, now = job_work(before).get(key), job_work(after).get(key)
    part = before.property.part(key)
    assert part is not None
    found = {t.field: (float(getattr(part.condition, t.field) or 0.0), float(value)) for t, value in more.items()}
    return FoundMore.model_validate(
        {
            "id": uuid.uuid4().hex, "touch": uuid.uuid4().hex, "at": ctx.now, "noted": ctx.now, "part": key,
            "by": signed(by or ctx.actor), "found": found,
            "hours": (_hours(was), _hours(now)), "litres": (_litres(was), _litres(now)),
        }
    )  # fmt: skip


def _hours(work: PartWork | None) -> float:
    return round(work.hours, 3) if work is not None else 0.0


def _litres(work: PartWork | None) -> float:
    return round(sum(line.litres for line in work.lines), 3) if work is not None else 0.0


@dataclass(frozen=True)
class Found:
    """A find that stands: the part, what of it in words, and the person-hours and litres more that it takes."""

    line: FoundMore
    part: str
    face: str
    words: tuple[tuple[GuidedTest, float, float], ...]

    @property
    def more_hours(self) -> float:
        return self.line.hours[1] - self.line.hours[0]

    @property
    def more_litres(self) -> float:
        return self.line.litres[1] - self.line.litres[0]


def finds(bundle: JobBundle) -> list[Found]:
    """What was found while working, the latest first; what was taken back in the survey meanwhile is left out."""
    tests, out = {t.field: t for t in GUIDED_TESTS}, []
    for line in reversed(bundle.job.found_more):
        part = bundle.property.part(line.part)
        if part is None:
            continue
        stands = {f: v for f, v in line.found.items() if float(getattr(part.condition, f) or 0.0) >= v[1] - 1e-9}
        if stands:
            words = tuple((tests[f], *v) for f, v in stands.items())
            out.append(Found(line, part.name, bundle.property.face(part.face).name, words))
    return out
