"""One part of a job specified: what was found, what is done about it, and what it comes to."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

from amber_gable.core.specification.choices.comparison import Sums, sums_of
from amber_gable.core.specification.derived.diagnosis import Derivation, derive
from amber_gable.core.specification.derived.no_matter import NoMatter, no_matter
from amber_gable.core.specification.derived.overrides import Conflict, forbidden_steps
from amber_gable.core.specification.derived.part_facts import part_facts
from amber_gable.core.specification.derived.refused import RefusedWish, refused_wishes
from amber_gable.core.specification.derived.system import Specified, finish_product, specify
from amber_gable.core.survey.amounts.painted import PaintedPart
from amber_gable.core.work.pace import pace_of
from amber_gable.core.work.record import PartWork, part_work
from amber_gable.core.work.waits import next_waits
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.aims import KEEPS_UP, Aim
from amber_gable.domain.work.finish import Finish, Override
from amber_gable.domain.work.operation import Operation
from amber_gable.domain.work.scope import LeftPart


@dataclass(frozen=True)
class Wish:
    """What was chosen for a part, from which its steps follow."""

    colour: str
    colour_name: str
    aim: Aim | None = None
    schools: Mapping[str, str] = field(default_factory=dict)
    picks: Mapping[str, str] = field(default_factory=dict)
    overrides: Sequence[Override] = ()

    @staticmethod
    def of(finish: Finish) -> "Wish":
        return Wish(finish.colour, finish.colour_name, finish.aim, finish.schools, finish.picks, finish.overrides)


def refusals(wish: Wish, fresh: Specified, products: Iterable[Product]) -> tuple[RefusedWish, ...]:
    """What of a wish is impossible on its part."""
    return refused_wishes(
        fresh.derivation, fresh.operations, products, aim=wish.aim, schools=wish.schools, picks=wish.picks
    )


def untold(part: PaintedPart, fresh: Specified) -> tuple[NoMatter, ...]:
    """What was recorded of a part and changes nothing, each with the reason."""
    return no_matter(fresh.derivation, part.condition, SUBSTRATES[part.substrate].family)


@dataclass(frozen=True)
class PartSpec:
    """`operations` stand now (stored, or fresh where nothing is stored); `fresh` is what the rules say today. They
    differ when the survey, the stores or the schools changed since. `refused`: what was wished and
    cannot be; `left`: how it is left, where it is not painted: the steps are then those it would get."""

    part: PaintedPart
    finish: Finish | None
    derivation: Derivation
    fresh: Specified
    operations: tuple[Operation, ...]
    work: PartWork
    refused: tuple[RefusedWish, ...] = ()
    left: LeftPart | None = None

    @cached_property
    def next_waits(self) -> list[float]:
        """Hours from each step to the next, as page, plan and day sheet take them."""
        return next_waits(self.operations)

    @cached_property
    def sums(self) -> Sums:
        return sums_of(self.work)

    @property
    def changed(self) -> bool:
        """The stored steps are no longer those that the rules give. A company's system is never out of date."""
        return self.finish is not None and self.finish.derived and self.operations != self.fresh.operations

    @property
    def conflicts(self) -> tuple[Conflict, ...]:
        if self.finish is None or self.finish.derived:
            return self.fresh.conflicts
        return forbidden_steps(self.operations, self.derivation.forbidden)


def fresh_spec(bundle: JobBundle, part: PaintedPart, wish: Wish | None, products: Iterable[Product]) -> Specified:
    """What the rules give for the part today. Raises NoSteps when no product serves a step."""
    facts = part_facts(
        bundle, part, wish.colour if wish else None, wish.aim if wish else None, wish.schools if wish else None
    )
    shelf, picks = list(products), wish.picks if wish else {}
    first = derive(facts)
    finish = finish_product(first, shelf, picks)
    # What the chosen sheet says of hiding and of moisture may ask for other steps than the family's usual figures.
    told = facts if finish is None else facts.with_finish(finish)
    return specify(first if told == facts else derive(told), shelf, picks, wish.overrides if wish else ())


def part_spec(bundle: JobBundle, part: PaintedPart, products: Iterable[Product]) -> PartSpec:
    """The part as it stands in the job, beside what the rules give today."""
    shelf = list(products)
    finish = bundle.finish_of(*part.key)
    fresh = fresh_spec(bundle, part, Wish.of(finish) if finish else None, shelf)
    operations = bundle.operations(finish) if finish else fresh.operations
    by_code = {p.code: p for p in (*shelf, *bundle.products)}
    work = part_work(part, operations, by_code, finish.colour if finish else part.colour_now, pace_of(bundle))
    refused = refusals(Wish.of(finish), fresh, shelf) if finish is not None and finish.derived else ()
    return PartSpec(part, finish, fresh.derivation, fresh, operations, work, refused, bundle.left_of(*part.key))


def made_finish(part: PaintedPart, wish: Wish, operations: Sequence[Operation]) -> Finish:
    """The record to keep; what is only kept up stays in the colour it has."""
    kind, id_ = part.key
    stays = wish.aim in KEEPS_UP
    return Finish.model_validate(
        {
            kind: id_,
            "operations": [o.model_dump() for o in operations],
            "colour": part.colour_now if stays else wish.colour,
            "colour_name": "as it is" if stays else wish.colour_name,
            "aim": wish.aim,
            "schools": dict(wish.schools),
            "picks": dict(wish.picks),
            "overrides": [o.model_dump() for o in wish.overrides],
        }
    )


def with_wishes(bundle: JobBundle, wishes: Iterable[tuple[PaintedPart, Wish]]) -> JobBundle:
    """The job as it will be once these parts get what is wished: what is done once for a face is seen over them all."""
    have = {f.part for f in bundle.job.finishes}
    more = tuple(made_finish(part, wish, ()) for part, wish in wishes if part.key not in have)
    if not more:
        return bundle
    return bundle.model_copy(update={"job": bundle.job.model_copy(update={"finishes": (*bundle.job.finishes, *more)})})
