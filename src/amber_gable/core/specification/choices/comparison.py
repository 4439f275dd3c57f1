"""Schools side by side for one part: what each costs and what it risks."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from decimal import Decimal

from amber_gable.core.specification.derived.diagnosis import derive
from amber_gable.core.specification.derived.facts import Facts
from amber_gable.core.specification.derived.system import specify
from amber_gable.core.survey.amounts.painted import PaintedPart
from amber_gable.core.work.pace import USUAL_PACE, Pace
from amber_gable.core.work.record import PartWork, part_work
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.operation import Operation
from amber_gable.domain.work.schools import AskedBy, School, Topic, topics_of

_LIFE_YEARS = (
    # usual years between coats (docs/trade.md §16), first tags that fit
    ("roof", 10.0),
    ("deck", 2.5),
    ("floor", 4.0),
    ("garage-door", 6.0),
    ("door", 4.5),
    ("window", 6.0),
    ("trim", 6.0),
    ("masonry", 10.0),
    ("vinyl", 9.0),
    ("metal", 9.0),
    ("fibre-cement", 10.0),
    ("wood", 7.5),
)


@dataclass(frozen=True)
class Sums:
    """What a list of operations comes to: film coats, person-hours, litres, cost of paint, fixed waits in hours."""

    coats: int
    hours: float
    litres: float
    cost: Decimal
    wait_h: float

    @property
    def wait_days(self) -> float:
        return self.wait_h / 24


@dataclass(frozen=True)
class Option:
    """One school of a topic on this part. `adds` and `drops` are steps against the school that holds; `life_years` a
    rough usual life."""

    school: School
    holds: bool
    sums: Sums
    life_years: float
    adds: tuple[str, ...]
    drops: tuple[str, ...]


@dataclass(frozen=True)
class Choice:
    topic: Topic
    options: tuple[Option, ...]


def sums_of(work: PartWork) -> Sums:
    """Coats, hours, litres and cost of a part's work; paint at the best price per litre."""
    coats, litres, cost, wait = 0, 0.0, Decimal(0), 0.0
    for item in work.lines:
        wait += item.operation.wait_h
        if item.paint is not None:
            coats += 1
            litres += item.litres
            cost += item.paint.product.price_per_litre * Decimal(str(item.litres))
    return Sums(coats, work.hours, litres, cost, wait)


def usual_life(facts: Facts) -> float:
    """Years until the next coat, usual for such surfaces."""
    return next((years for tag, years in _LIFE_YEARS if tag in facts.tags), 8.0)


def choices(
    part: PaintedPart,
    facts: Facts,
    products: Iterable[Product],
    picks: Mapping[str, str] | None = None,
    pace: Pace = USUAL_PACE,
) -> tuple[Choice, ...]:
    """Topics on which the schools differ on this part, each with all its schools worked out."""
    shelf = {p.code: p for p in products}

    def done(there: Facts) -> tuple[Operation, ...]:
        return specify(derive(there), shelf.values(), picks).operations

    now, out = done(facts), []
    for topic in topics_of(AskedBy.SPECIFICATION):
        held = facts.schools[topic.code]
        ways = [(s, now if s.code == held else done(facts.under(topic.code, s.code))) for s in topic.schools]
        if all(difference(now, operations, shelf) == ((), ()) for _, operations in ways):
            continue
        options = []
        for school, operations in ways:
            adds, drops = difference(now, operations, shelf)
            options.append(
                Option(
                    school=school,
                    holds=school.code == held,
                    sums=sums_of(part_work(part, operations, shelf, part.colour_now, pace)),
                    life_years=usual_life(facts) * school.life,
                    adds=adds,
                    drops=drops,
                )
            )
        out.append(Choice(topic, tuple(options)))
    return tuple(out)


def difference(
    before: Iterable[Operation], after: Iterable[Operation], products: Mapping[str, Product] | None = None
) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Steps that come in and that go out, by name; a step done otherwise counts as both. So does one with another
    paint, where the `products` are given by code."""

    def told(operations: Iterable[Operation]) -> list[str]:
        return [_said(o, (products or {}).get(o.product or "")) for o in operations]

    here, there = told(before), told(after)
    return tuple(n for n in there if n not in here), tuple(n for n in here if n not in there)


def _said(o: Operation, product: Product | None) -> str:
    method = f", {o.method.value}" if o.method is not None else ""
    rolled = ", back-rolled" if o.back_roll else ""
    share = f" on {o.share * 100:.0f} %" if o.share < 1 else ""
    there = f", {o.where.words}" if o.where else ""
    return f"{o.name}{method}{rolled}{share}{there}{f', {product.name}' if product else ''}"
