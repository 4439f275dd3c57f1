"""What was forecast when, and what the newest says otherwise: in words, in hours of each face, in planned coats."""

from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

import numpy as np

from amber_gable.core.state.job_state import TaskState
from amber_gable.core.state.task_status import Status
from amber_gable.core.weather.futures.forecast_change import DAYS, ForecastChange, changes
from amber_gable.domain.errors import NotFound
from amber_gable.domain.house.survey import Face
from amber_gable.domain.job.plan import Task
from amber_gable.domain.job.site_record import Said
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.services.job.view import JobView
from amber_gable.services.weather.faces.judged_faces import JudgedFace, LaneQuestion
from amber_gable.store.weather.versions import KeptVersion, list_versions, load_version

_DONE = (Said.STARTED, Said.DONE, Said.PART_DONE)


@dataclass(frozen=True)
class Version:
    """A forecast as it was had, local time; `decided`: what was decided while it was the newest."""

    kept: KeptVersion
    had: datetime
    decided: tuple[str, ...]


@dataclass(frozen=True)
class FaceHours:
    """Hours in which a face's next coat can be laid, by the forecast of then and by the newest."""

    face: Face
    then_h: float
    now_h: float


@dataclass(frozen=True)
class TaskMoved:
    """A planned task that fits the one forecast and not the other: where the other shuts it, with the letter."""

    task: Task
    at: datetime
    letter: str


@dataclass(frozen=True)
class Compared:
    """until: how far both reach, six days at most."""

    then: WeatherSeries
    now: WeatherSeries
    until: datetime
    changes: list[ForecastChange]
    faces: list[FaceHours]
    lost: list[TaskMoved]
    gained: list[TaskMoved]


def versions(view: JobView) -> list[Version]:
    """The latest first; none of what a clock that was set back has still before it."""
    place, now = view.bundle.property, int(view.now.timestamp())
    with view.ctx.reading() as session:
        found = list_versions(session, place.id, now)
    out, until = [], now + 1
    planned = None if view.kept is None else view.kept.planned_at
    noted = sorted({e.at.timestamp() for e in view.bundle.job.record if e.said in _DONE})
    for kept in found:
        told = ["the plan was made"] if planned is not None and kept.kept_at <= planned < until else []
        touches = bisect_left(noted, until) - bisect_left(noted, kept.kept_at)
        if touches:
            told.append("work was noted" if touches == 1 else f"work was noted {touches} times")
        out.append(Version(kept, _local(kept.kept_at, view), tuple(told)))
        until = kept.kept_at
    return out


def _local(at: float, view: JobView) -> datetime:
    return datetime.fromtimestamp(at, UTC).astimezone(view.now.tzinfo)


def version_series(view: JobView, kept_at: int) -> WeatherSeries:
    """Raises NotFound where that version is not kept, or was not yet had."""
    with view.ctx.reading() as session:
        found = load_version(session, view.bundle.property.id, kept_at) if kept_at <= view.now.timestamp() else None
    if found is None:
        raise NotFound("forecast", f"{_local(kept_at, view):%d %b %H:%M}")
    return found


def believed(view: JobView, kept_at: int | None) -> Version | None:
    """The version that was had then."""
    return next((v for v in versions(view) if v.kept.kept_at == kept_at), None) if kept_at is not None else None


def compare(view: JobView, then: WeatherSeries) -> Compared | None:
    """A forecast of then with the one in use, from now on. None without a forecast in use."""
    now = view.weather.series
    if now is None:
        return None
    end = min(then.end, now.end, view.now.timestamp() + DAYS * 86400)
    old = view.believing(then)
    lost, gained = _tasks(old, view)
    return Compared(
        then=then,
        now=now,
        until=_local(end, view),
        changes=changes(then, now, view.now),
        faces=_faces(old, view, end),
        lost=lost,
        gained=gained,
    )


def since_planned(view: JobView) -> tuple[Version, list[ForecastChange]] | None:
    """The forecast the plan was made by, where another is in use by now, and what that says otherwise."""
    now, kept = view.weather.series, view.kept
    if now is None or kept is None or view.weather.from_file:
        return None
    found = next((v for v in versions(view) if v.kept.kept_at <= kept.planned_at), None)
    if found is None or found.kept.issued == now.issued:
        return None
    return found, changes(version_series(view, found.kept.kept_at), now, view.now)


def _faces(old: JobView, new: JobView, end: float) -> list[FaceHours]:
    question = LaneQuestion("coat")
    before = {r.face.id: r for r in question.rows(old)}
    return [
        FaceHours(r.face, _hours(before[r.face.id], new.now, end), _hours(r, new.now, end))
        for r in question.rows(new)
        if r.face.id in before
    ]


def _hours(row: JudgedFace, since: datetime, end: float) -> float:
    slots = row.windows.slots
    begins = slots.start + slots.length_s * np.arange(len(slots))
    here = (begins >= since.timestamp()) & (begins + slots.length_s <= end)
    return float(row.ok[here].sum() * slots.length_h)


def _tasks(old: JobView, new: JobView) -> tuple[list[TaskMoved], list[TaskMoved]]:
    """Planned coats ahead that only the old forecast leaves alone, and those that only the new one does."""
    if old.board is None or new.board is None:
        return [], []
    before = {t.task.id: t for t in old.board.tasks}
    pairs = [(before[t.task.id], t) for t in new.board.tasks if t.task.id in before and _counts(t, new.now)]
    pairs = [p for p in pairs if not any(s.shut is not None and s.shut[1] == "?" for s in p)]
    lost = [_moved(now) for then, now in pairs if then.shut is None and now.shut is not None]
    gained = [_moved(then) for then, now in pairs if then.shut is not None and now.shut is None]
    return lost, gained


def _counts(state: TaskState, now: datetime) -> bool:
    ahead = state.status in (Status.AHEAD, Status.DUE, Status.RUNNING)
    return ahead and state.task.kind.lays_film and state.task.start < now + timedelta(days=DAYS)


def _moved(state: TaskState) -> TaskMoved:
    assert state.shut is not None
    return TaskMoved(state.task, *state.shut)


def coats_lost(moved: Sequence[TaskMoved]) -> str:
    """'3 coats lose their window'."""
    return "1 coat loses its window" if len(moved) == 1 else f"{len(moved)} coats lose their windows"
