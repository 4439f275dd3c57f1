"""What goes with a day's work: the safety cards, and the painting order of its things."""

from collections.abc import Iterator, Sequence
from datetime import date

from amber_gable.core.specification.cautions.safety import Card, day_cards
from amber_gable.core.specification.derived.order_drawn import PaintingOrder
from amber_gable.core.specification.derived.sequences import painting_order
from amber_gable.core.work.steps import steps_of
from amber_gable.domain.job.plan import Task
from amber_gable.services.job.view import JobView


def painting_orders(view: JobView, tasks: Sequence[Task]) -> Iterator[tuple[Task, PaintingOrder | None]]:
    """The order of its own that each coated thing has: doors, sashes, decks and the like."""
    for task in tasks:
        part = view.parts.get(task.part)
        if part is not None and task.kind.lays_film:
            finish = view.bundle.finish_of(*task.part)
            operations = steps_of(view.bundle, finish) if finish is not None else ()
            yield task, painting_order(part, view.bundle.property.items_of(part.face.id), operations)


def cautions(view: JobView, tasks: Sequence[Task], day: date) -> list[Card]:
    """Safety cards of what is done that day, heat and cold included."""
    return day_cards(view.bundle, view.parts, tasks, *_air_range(view, day))


def _air_range(view: JobView, day: date) -> tuple[float | None, float | None]:
    """Greatest and least air temperature of that day's working hours, where the weather knows them."""
    if view.site is None:
        return None, None
    slots = view.site.slots
    if day.isoformat() not in slots.dates:
        return None, None
    crew = view.bundle.job.crew
    works = (
        (slots.day == slots.dates.index(day.isoformat())) & (slots.hours >= crew.start_h) & (slots.hours < crew.end_h)
    )
    air = view.site.steps.air[slots.first[works]]
    return (float(air.max()), float(air.min())) if air.size else (None, None)
