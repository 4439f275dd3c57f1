"""How many days a job takes at the least: by its hours, and by what must dry overnight. Weather is the plan's."""

from collections.abc import Mapping
from dataclasses import dataclass
from math import ceil

from amber_gable.core.survey.amounts.painted import Key, PaintedPart
from amber_gable.core.work.record import PartWork
from amber_gable.core.work.sides import sides
from amber_gable.core.work.stints import Stint, stints
from amber_gable.core.work.waits import film_stage, wait_hours
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.working import CrewDay

OVERNIGHT_H = 6.0
"""A longer wait takes the rest of a day: the work goes on another day. An assumption."""


@dataclass(frozen=True)
class SiteDays:
    """`days` on site of a crew of `people` that goes together; `visits`: different days on which the part that waits
    most is worked on, `longest` that part. `spray_days`: days on which a sprayer is set up; `roof_days`: days on a
    roof."""

    days: int
    people: int
    visits: int
    longest: Key | None
    spray_days: int
    roof_days: int

    @property
    def person_days(self) -> int:
        return self.days * self.people


def site_days(
    work: Mapping[Key, PartWork],
    parts: Mapping[Key, PaintedPart],
    products: Mapping[str, Product],
    crew: CrewDay,
    *,
    roofs: frozenset[Key] = frozenset(),
    once_h: float = 0.0,
) -> SiteDays:
    """Days of a job. `once_h`: hours that belong to no part; `roofs`: parts one stands on with fall protection."""
    shift_h = crew.last_h - crew.first_h
    days = {key: _days_of(w, parts[key], products, shift_h, crew.people) for key, w in work.items()}
    visits = {key: found[-1][1] + 1 for key, found in days.items() if found}
    longest = max(visits, key=lambda k: visits[k], default=None)
    most = visits[longest] if longest is not None else 0
    shift = shift_h * crew.people
    hours = sum(w.hours for w in work.values()) + once_h
    sprayed = [{day for s, day in found if s.lays_film and _sprays(s)} for found in days.values()]
    on_roof = sum(work[k].hours for k in roofs if k in work)
    roof_visits = max((visits.get(k, 0) for k in roofs), default=0)
    return SiteDays(
        days=max(most, ceil(hours / shift - 1e-9)) if work else 0,
        people=crew.people,
        visits=most,
        longest=longest,
        spray_days=max((len(s) for s in sprayed), default=0),
        roof_days=max(roof_visits, ceil(on_roof / shift - 1e-9)) if on_roof else 0,
    )


def _days_of(
    work: PartWork, part: PaintedPart, products: Mapping[str, Product], shift_h: float, people: int
) -> list[tuple[Stint, int]]:
    """The stints of a part, side by side where it lies down, each with the number of its day, as if nothing but its
    waits and the end of the day held them up: what no longer fits behind them is done on the next."""
    hours = {line.operation.id: line.hours / people for line in work.lines}
    out: list[tuple[Stint, int]] = []
    day, gone = 0, 0.0
    for stint in stints([line.operation for line in work.lines]):
        done_by_side = sides(part, stint.first)
        takes = sum(hours[o.id] for o in stint.operations) / len(done_by_side)
        for _ in done_by_side:
            wait = _wait_h(out[-1][0], stint, products) if out else 0.0
            if out and (wait > OVERNIGHT_H or gone + wait + takes > shift_h):
                day, gone = day + 1, takes
            else:
                gone += wait + takes
            out.append((stint, day))
    return out


def _wait_h(before: Stint, after: Stint, products: Mapping[str, Product]) -> float:
    if before.lays_film and before.first.product is not None:
        sheet = products[before.first.product]
        return sheet.recoat_h if film_stage(after.first) is not None else 0.0
    return max(wait_hours(o, after.first) for o in before.operations)


def _sprays(stint: Stint) -> bool:
    return stint.first.method is not None and stint.first.method.sprays
