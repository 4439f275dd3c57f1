"""What is worth wiping dry when the day begins: small things that get a coat that day, and the start it buys."""

from dataclasses import dataclass
from datetime import date, datetime, timedelta

from amber_gable.core.weather.futures.members import Coat
from amber_gable.core.weather.judged.wiped import WipedStart, wiped_start
from amber_gable.domain.work.operation import Where
from amber_gable.services.job.view import JobView

WORTH = timedelta(minutes=30)
"""A start that is less earlier is not worth the walk."""


@dataclass(frozen=True)
class WipedFirst:
    title: str
    start: WipedStart


def wiped_first(view: JobView, day: date) -> list[WipedFirst]:
    """For each coat that is planned that day on a small thing under the open sky; none without weather or plan."""
    site, board = view.site, view.board
    if site is None or board is None or day.isoformat() not in site.slots.dates:
        return []
    out: dict[str, WipedFirst] = {}
    for one in board.open:
        if one.task.start.astimezone(view.now.tzinfo).date() != day or not one.task.kind.lays_film:
            continue
        judged = one.judged
        if judged is None or not isinstance(judged.work.step, Coat):
            continue
        if judged.work.stint.first.where in (Where.UNDER_COVER, Where.SHOP):
            continue
        number = site.slots.dates.index(day.isoformat())
        found = wiped_start(
            site.steps, site.slots, judged.work.step, view.bundle.policy, view.bundle.job.crew, number, judged.ok,
            judged.ready,
        )  # fmt: skip
        if found is not None and found.at > view.now and _worth(found, one.task.start):
            title = f"{one.task.face_name}, {one.task.zone_name}"
            out.setdefault(title, WipedFirst(title, found))
    return list(out.values())


def _worth(found: WipedStart, planned: datetime) -> bool:
    """Where it is the water that the planned start waits for."""
    if found.gain is None or found.else_at is None:
        return True
    return found.gain >= WORTH and planned <= found.else_at + WORTH
