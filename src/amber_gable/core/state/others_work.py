"""What our work waits for that other people do, and from when theirs may come."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, time, timedelta, tzinfo

from amber_gable.core.state.wait import Wait
from amber_gable.core.survey.amounts.painted import Key, PaintedPart
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.plan import Plan, Task
from amber_gable.domain.wording import dated
from amber_gable.domain.work.scope import OthersWork, Turn


def done_tasks(bundle: JobBundle) -> frozenset[str]:
    """Ids of the tasks that others did, by what was noted last."""
    said = {n.task: n.done for n in bundle.job.others_noted}
    return frozenset(task for task, done in said.items() if done)


def concerns(bundle: JobBundle, task: OthersWork, key: Key, face: str) -> bool:
    """Whether a part lies where the task is. A task at a part that is not painted concerns the whole of its face: new
    windows come before their wall is painted."""
    if task.where is None:
        return True
    kind, id_ = task.where
    if kind == "face":
        return id_ == face
    if bundle.finish_of(kind, id_) is not None:
        return (kind, id_) == key
    part = bundle.property.part((kind, id_))
    return part is not None and part.face == face


def others_waits(bundle: JobBundle, part: PaintedPart, *, film: bool, now: datetime, tz: tzinfo) -> list[Wait]:
    """What a step of the part waits for; `film`: whether it lays one. A task with a day is taken to be done by its end,
    until that is past and nobody noted it."""
    out = []
    behind = done_tasks(bundle)
    for task in bundle.job.others:
        waits = task.turn is Turn.BEFORE_WORK or (task.turn is Turn.BEFORE_COATS and film)
        if not waits or task.id in behind or not concerns(bundle, task, part.key, part.face.id):
            continue
        who = f"{task.who} first: {task.what}"
        if task.day is None:
            out.append(Wait("O", f"{who}, no day is agreed", None, "agree a day, or note that it is done"))
            continue
        until = datetime.combine(task.day + timedelta(days=1), time(), tz)
        if until > now:
            out.append(Wait("O", f"{who}, agreed for {dated(task.day)}", until, "or note that it is done"))
        else:
            words = f"{who}, agreed for {dated(task.day)} and not noted as done"
            out.append(Wait("O", words, None, "note that it is done, or agree another day"))
    return out


@dataclass(frozen=True)
class OthersTurn:
    """A task of others as it stands. `from_`: when ours lets them in, by the plan, for what comes after us; None where
    the plan does not tell."""

    task: OthersWork
    place: str
    done: bool
    late: bool
    from_: datetime | None = None


def others_turns(bundle: JobBundle, now: datetime, plan: Plan | None) -> list[OthersTurn]:
    """Every task of others, in the order given. `late`: its day is past and it is not noted as done."""
    behind = done_tasks(bundle)
    return [
        OthersTurn(
            task=task,
            place=place_name(bundle, task),
            done=task.id in behind,
            late=task.id not in behind and task.day is not None and task.day < now.date(),
            from_=_free_from(bundle, task, plan, now) if task.turn is Turn.AFTER and plan is not None else None,
        )
        for task in bundle.job.others
    ]


def place_name(bundle: JobBundle, task: OthersWork) -> str:
    """Where it is, in the house's own names."""
    face = _face_name(bundle, task)
    part = None if task.where is None or task.where[0] == "face" else bundle.property.part(task.where)
    return "the whole job" if task.where is None else face if part is None else f"{part.name} on {face}"


def _face_name(bundle: JobBundle, task: OthersWork) -> str:
    """Of the face it is on; '' for the whole job."""
    if task.where is None:
        return ""
    kind, id_ = task.where
    part = None if kind == "face" else bundle.property.part((kind, id_))
    return bundle.property.face(part.face if part is not None else id_).name


def _free_from(bundle: JobBundle, task: OthersWork, plan: Plan, now: datetime) -> datetime | None:
    """When the last planned task there is over and its film can be worked beside, at once where nothing of ours is
    left; None where some work of its face, or of the job, has no place."""
    face = _face_name(bundle, task)
    if any(face in ("", u.face_name) for u in plan.unplaced):
        return None
    ends = [t.ready_at or t.end for t in plan.tasks if any(concerns(bundle, task, k, t.face) for k in _keys(t))]
    return max(ends, default=now)


def _keys(task: Task) -> Sequence[Key]:
    """The parts that a planned task is on."""
    return task.extent.parts if task.extent is not None else (task.part,)
