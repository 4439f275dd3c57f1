"""Stops travel: what the survey found that must be answered before a part is coated, for every later stage."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date

from amber_gable.core.specification.diagnosis import derive
from amber_gable.core.specification.facts import Facts
from amber_gable.core.specification.heat_check import Wanted, heat_checks
from amber_gable.core.specification.part_facts import part_facts
from amber_gable.core.specification.rule import Level
from amber_gable.core.survey.painted import Key, PaintedPart, painted_parts
from amber_gable.domain.finish import Finish
from amber_gable.domain.job import JobBundle
from amber_gable.domain.operation import OperationKind
from amber_gable.domain.product import Product


@dataclass(frozen=True)
class Stop:
    """Why nothing of a part may be begun, what lifts it, and the day it ends by itself where there is one."""

    part: Key
    face_name: str
    part_name: str
    rule: str
    words: str
    todo: str
    until: date | None = None

    @property
    def said(self) -> str:
        """'Stopped: … What lifts it: …', with the day."""
        ends = f" Ends by itself on {self.until.isoformat()}." if self.until else ""
        lifts = f" What lifts it: {self.todo}" if self.todo else ""
        return f"Stopped: {self.words}.{lifts}{ends}"


def job_stops(bundle: JobBundle) -> dict[Key, tuple[Stop, ...]]:
    """The stops of every part that has a finish, in the order of the finishes; parts without one are not in it."""
    parts = painted_parts(bundle.property, bundle.deduction)
    facts = {f.part: part_facts(bundle, parts[f.part], f.colour, f.aim, f.schools) for f in bundle.job.finishes}
    found = {f.part: list(_found(bundle, parts[f.part], f, facts[f.part])) for f in bundle.job.finishes}
    for key, stop in _vinyl(bundle, parts, facts):
        found[key].append(stop)
    return {key: tuple(stops) for key, stops in found.items() if stops}


def _finish_product(bundle: JobBundle, finish: Finish) -> Product | None:
    coats = (o.product for o in bundle.operations(finish) if o.kind is OperationKind.COAT)
    code = next(coats, None)
    return next((p for p in bundle.products if p.code == code), None)


def _found(bundle: JobBundle, part: PaintedPart, finish: Finish, facts: Facts) -> Iterable[Stop]:
    product = _finish_product(bundle, finish)
    if product is not None:
        facts = facts.with_finish(product)
    for f in derive(facts).stops:
        yield Stop(part.key, part.face.name, part.name, f.rule, f.words, f.todo, f.until)


def _vinyl(bundle: JobBundle, parts: dict[Key, PaintedPart], known: dict[Key, Facts]) -> Iterable[tuple[Key, Stop]]:
    """Colours that vinyl must not take: kept before they were refused, or brought by a file."""
    wanted = []
    for finish in bundle.job.finishes:
        part = parts[finish.part]
        facts = known[finish.part]
        if "vinyl" in facts.tags:
            product = _finish_product(bundle, finish)
            safe = product is not None and product.vinyl_safe
            wanted.append(Wanted(part, finish.colour, facts.schools["vinyl"], safe))
    for check in heat_checks(bundle.property, wanted):
        if check.level is Level.STOP:
            part = check.wanted.part
            todo = f"Nearest colour that passes: {check.admissible}."
            yield part.key, Stop(part.key, part.face.name, part.name, "heat", check.words.rstrip("."), todo)
