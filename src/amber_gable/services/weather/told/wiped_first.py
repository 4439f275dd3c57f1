"""What is worth wiping dry when the day begins: small things that get a coat that day, and the start it buys."""

from dataclasses import dataclass
from datetime import date, datetime, timedelta

from amber_gable.core.climate.job_climate import SiteClimate, place_of
from amber_gable.core.state.judgement import Judged
from amber_gable.core.weather.futures.members import Coat
from amber_gable.core.weather.judged.wiped import WipedStart, wiped_start
from amber_gable.domain.work.operation import Where
from amber_gable.services.job.view import JobView
from amber_gable.services.workspace import digest

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
        task = one.task
        if task.start.astimezone(view.now.tzinfo).date() != day or not task.kind.lays_film or one.judged is None:
            continue
        if one.judged.work.stint.first.where in (Where.UNDER_COVER, Where.SHOP):
            continue
        found = _start(view, site, one.judged, site.slots.dates.index(day.isoformat()))
        if found is not None and found.at > view.now and _worth(found, task.start):
            title = f"{task.face_name}, {task.zone_name}"
            out.setdefault(title, WipedFirst(title, found))
    return list(out.values())


def _start(view: JobView, site: SiteClimate, judged: Judged, day: int) -> WipedStart | None:
    """Worked out once for a weather, a coat and a day."""
    step, policy, crew = judged.work.step, view.bundle.policy, view.bundle.job.crew
    if not isinstance(step, Coat):
        return None
    known = (place_of(view.bundle.property), view.weather.series, site.steps.start, day)
    key = "wiped" + digest(*known, step, policy, crew, judged.ok, judged.ready)
    return view.ctx.space.standing.get(
        key, lambda: wiped_start(site.steps, site.slots, step, policy, crew, day, judged.ok, judged.ready)
    )


def _worth(found: WipedStart, planned: datetime) -> bool:
    """Where it is the water that the planned start waits for."""
    if found.gain is None or found.else_at is None:
        return True
    return found.gain >= WORTH and planned <= found.else_at + WORTH
