"""Stops travel: what the survey found that must be answered before a part is coated, for every later stage."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date

from amber_gable.core.specification.colour.heat_check import Wanted, heat_checks
from amber_gable.core.specification.derived.diagnosis import derive
from amber_gable.core.specification.derived.part_facts import part_facts
from amber_gable.core.survey.amounts.painted import Key, PaintedPart, painted_parts
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.finish import Finish
from amber_gable.domain.work.operation import OperationKind


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
    return gathered({f.part: part_stops(bundle, parts[f.part], f) for f in bundle.job.finishes}, vinyl_stops(bundle))


def gathered(found: Mapping[Key, Sequence[Stop]], vinyl: Iterable[Stop]) -> dict[Key, tuple[Stop, ...]]:
    """What each part's survey stops, and then what its colour does."""
    out = {key: [*stops] for key, stops in found.items()}
    for stop in vinyl:
        out[stop.part].append(stop)
    return {key: tuple(stops) for key, stops in out.items() if stops}


def _finish_product(bundle: JobBundle, finish: Finish) -> Product | None:
    coats = (o.product for o in bundle.operations(finish) if o.kind is OperationKind.COAT)
    code = next(coats, None)
    return next((p for p in bundle.products if p.code == code), None)


def part_stops(bundle: JobBundle, part: PaintedPart, finish: Finish) -> tuple[Stop, ...]:
    """What the survey of the part stops."""
    facts = part_facts(bundle, part, finish.colour, finish.aim, finish.schools)
    product = _finish_product(bundle, finish)
    if product is not None:
        facts = facts.with_finish(product)
    return tuple(
        Stop(part.key, part.face.name, part.name, f.rule, f.words, f.todo, f.until) for f in derive(facts).stops
    )


def vinyl_stops(bundle: JobBundle) -> Iterable[Stop]:
    """Colours that vinyl must not take: kept before they were refused, or brought by a file."""
    parts = painted_parts(bundle.property, bundle.deduction)
    wanted = []
    for finish in bundle.job.finishes:
        part = parts[finish.part]
        if "vinyl" in SUBSTRATES[part.substrate].tags:
            school = part_facts(bundle, part, finish.colour, finish.aim, finish.schools).schools["vinyl"]
            wanted.append(Wanted(part, finish.colour, school, _finish_product(bundle, finish)))
    for check in heat_checks(bundle.property, wanted):
        if check.level is Alert.STOP:
            part = check.wanted.part
            todo = f"Nearest colour that passes: {check.admissible}."
            yield Stop(part.key, part.face.name, part.name, "heat", check.words.rstrip("."), todo)
