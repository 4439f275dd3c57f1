"""Other people's work on a job: agreed, changed, taken out, and noted as done."""

import uuid
from collections.abc import Mapping
from datetime import date, timedelta
from typing import Annotated

from amber_gable.core.state.others_work import OthersTurn, others_turns
from amber_gable.domain.errors import NotFound, Refused
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.site_record import OthersNoted
from amber_gable.domain.work.scope import MOST_COST, TURN_WORDS, OthersWork, Turn
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form
from amber_gable.services.forms.types import Day, number_from, one_of, text_of
from amber_gable.services.job.undo import job_step
from amber_gable.services.job.view import JobView
from amber_gable.store.job import specification as store
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.site_record import append
from amber_gable.store.job.survey import check_references

TURNS = tuple((turn.value, words) for turn, words in TURN_WORDS.items())
SOMEBODY = "office"
MOST_TASKS = 100
_SOON = timedelta(days=3)


class OthersForm(Form):
    """Who does what, where (`kind:id`, empty for the whole job), when in our work, by which day, at what cost."""

    who: Annotated[str, text_of("say who does it, such as Electrician", most=120)]
    what: Annotated[str, text_of("say what they do", most=120)]
    where: str = ""
    turn: Annotated[Turn, one_of(list(Turn), "choose when it comes")] = Turn.BEFORE_WORK
    day: Day | None = None
    cost: Annotated[float, number_from(0, MOST_COST, "an amount of money, such as 180")] | None = None


def places(bundle: JobBundle) -> list[tuple[str, str]]:
    """Where a task may be, as the form names it, with its words: the job, each face, and what is on it."""
    out = [("", "the whole job")]
    for face in bundle.property.faces:
        out.append((f"face:{face.id}", face.name))
        out += [(f"zone:{z.id}", f"{face.name}: {z.name}") for z in bundle.property.zones_of(face.id)]
        out += [(f"item:{i.id}", f"{face.name}: {i.name}") for i in bundle.property.items_of(face.id)]
    return out


def others_form(task: OthersWork) -> dict[str, str]:
    """A task as it would have been typed."""
    return {
        "who": task.who,
        "what": task.what,
        "where": "" if task.where is None else ":".join(task.where),
        "turn": task.turn.value,
        "day": task.day.isoformat() if task.day else "",
        "cost": "" if task.cost is None else f"{task.cost:g}",
    }


def keep_task(ctx: Context, job_id: str, form: Mapping[str, str], id_: str = "") -> None:
    """Agree a task of others, or change the one of that id. Raises Refused by field, and NotFound."""
    typed = OthersForm.read(form)
    with job_step(ctx, job_id, f"{typed.who}: {typed.what}"[:80]) as session:
        bundle = load_bundle(session, job_id)
        where = tuple(typed.where.split(":", 1)) if typed.where else None
        if typed.where and typed.where not in {value for value, _ in places(bundle)}:
            raise Refused({"where": "that place is gone from the survey: choose another"})
        if id_ and id_ not in {t.id for t in bundle.job.others}:
            raise NotFound("task of others", id_)
        if not id_ and len(bundle.job.others) >= MOST_TASKS:
            raise Refused({"": f"a job has at most {MOST_TASKS} tasks of others"})
        fields = typed.model_dump() | {"id": id_ or f"o-{uuid.uuid4().hex[:10]}", "where": where}
        store.put_others_task(session, job_id, OthersWork.model_validate(fields))
        check_references(session, job_id)


def drop_task(ctx: Context, job_id: str, id_: str) -> None:
    """Raises NotFound."""
    with job_step(ctx, job_id, "take out a task of others") as session:
        store.drop_others_task(session, job_id, id_)


def note_task(ctx: Context, job_id: str, id_: str, *, done: bool) -> None:
    """Note that others did their task, or that they did not after all; what is so already is not noted again. Raises
    NotFound."""
    with ctx.writing() as session:
        job = load_bundle(session, job_id).job
        if id_ not in {t.id for t in job.others}:
            raise NotFound("task of others", id_)
        latest = next((n.done for n in reversed(job.others_noted) if n.task == id_), False)
        if latest is done:
            return
        line = OthersNoted(
            id=uuid.uuid4().hex,
            touch=uuid.uuid4().hex,
            at=ctx.now,
            noted=ctx.now,
            by=ctx.actor.strip()[:80] or SOMEBODY,
            task=id_,
            done=done,
        )
        append(session, job_id, [line])


def told_others(view: JobView) -> list[OthersTurn]:
    """The tasks of others as they stand, by the plan that is kept, unless that is out of date."""
    kept = view.kept
    return others_turns(view.bundle, view.now, None if kept is None or kept.out_of_date else kept.plan)


def others_on(view: JobView, day: date) -> list[OthersTurn]:
    """Of them, what matters on a day: what is due by then or within three days, what may come by then, and what was
    noted as done that day."""
    zone = view.now.tzinfo
    done_then = {n.task for n in view.bundle.job.others_noted if n.at.astimezone(zone).date() == day}
    out = []
    for one in told_others(view):
        first = one.task.day or (one.from_.astimezone(zone).date() if one.from_ is not None else None)
        waits_for_us = one.task.turn is Turn.AFTER and first is None
        if one.task.id in done_then or (not one.done and not waits_for_us and (first is None or first <= day + _SOON)):
            out.append(one)
    return out
