"""Noting work on site: started, done, part done or not done, one touch each, and taking a touch back."""

import re
import uuid
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from math import floor
from typing import Annotated

from amber_gable.core.state.progress import Progress, left_to_note, progress
from amber_gable.core.work.steps import steps_of
from amber_gable.domain.errors import NotFound, Refused
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.plan import Task
from amber_gable.domain.job.site_record import Extent, Said, SiteEntry, standing
from amber_gable.domain.work.finish import coat_colour
from amber_gable.domain.work.operation import Technique
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form, Reads
from amber_gable.services.forms.types import moment, number, one_of, text_of
from amber_gable.services.job.view import job_view
from amber_gable.services.today.doubts import Doubted, doubts
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.plans import load_plan
from amber_gable.store.job.site_record import append
from amber_gable.store.transaction import Transaction

AHEAD = timedelta(minutes=5)
"""Clocks of phones may go before ours by so much."""
WAITED = timedelta(days=7)
"""A touch may have waited so long on a device before it could be sent."""
SOMEBODY = "crew"
_TOUCH = re.compile(r"[a-z0-9][a-z0-9-]{15,63}")


@dataclass(frozen=True)
class Named:
    """Work that an entry speaks of; `looks`: it is a look, which is answered."""

    words: str
    extent: Extent
    steps: tuple[str, ...]
    product: str | None = None
    method: str | None = None
    colour: str | None = None
    looks: bool = False


_LOOKED = (Said.ENOUGH, Said.ONE_MORE)
_SAID = [Said.STARTED, Said.DONE, Said.PART_DONE, Said.NOT_DONE, Said.TESTED, Said.NOT_READY, *_LOOKED]
_OF_WHAT_IS_DONE = (Said.NOT_DONE, Said.TESTED, Said.NOT_READY)
_HOW_FAR = "say how far it is done, between 1 and 99 %"


def _pct(text: str) -> float:
    """Raises ValueError."""
    try:
        pct = number(text.rstrip("% "))
    except ValueError:
        pct = 0.0
    if not 0 < pct < 100:
        raise ValueError(_HOW_FAR)
    return pct


class Note(Form):
    """What somebody says of the work: `at`, on the house's clock unless it says otherwise, or left out for when it was
    made, `how_far` in %. `touch` and `made` (ISO time) come from the device that it was made on; without them they are
    given here."""

    said: Annotated[Said, one_of(_SAID, "choose started, done, part done or not done")]
    by: str = ""
    at: Annotated[datetime, Reads(lambda text, _: moment(text))] | None = None
    how_far: Annotated[float, Reads(lambda text, _: _pct(text))] | None = None
    why: Annotated[str, text_of("", most=400)] = ""
    touch: str = ""
    made: str = ""


def touch_of(form: Mapping[str, str]) -> str:
    """The name that a touch was given where it was made; a new one where it has none. Sent again it is the same."""
    touch = form.get("touch", "")
    return touch if _TOUCH.fullmatch(touch) else uuid.uuid4().hex


def signed(by: str) -> str:
    """Who is said to have done it."""
    return by.strip()[:80] or SOMEBODY


def note_of(form: Mapping[str, str], by: str) -> Note:
    """Raises Refused by field."""
    # How far it is done is asked of what is done in part, whatever the field holds.
    asked = form if form.get("said") == Said.PART_DONE else {k: v for k, v in form.items() if k != "how_far"}
    return Note.read({**asked, "by": by})


@dataclass(frozen=True)
class Noted:
    """The touch under which work stands, and whether somebody had noted it `before`."""

    touch: str
    before: bool = False


def note_tasks(ctx: Context, job_id: str, tasks: Sequence[str], note: Note, only: str = "") -> Noted:
    """Enter what is said of tasks of the plan. Nothing is entered twice: what was noted as done stays as it was noted.
    Raises Refused with words by field, for a task that the plan no longer has too, and Doubted for a
    coat that can hardly have been laid then. `only` narrows it to one step (`step/wash`) or one part (`zone/front`,
    `item/sash-3`) of them."""

    def named(session: Transaction) -> list[Named]:
        stored = load_plan(session, job_id)
        held = {t.id: t for t in stored.plan.tasks} if stored is not None else {}
        if not tasks or any(t not in held for t in tasks):
            raise Refused(
                {"task": "the plan was made anew meanwhile, nothing was noted: look at what is now, then note it"}
            )
        return [one for t in tasks if (one := _cut(_of_task(held[t]), only)) is not None]

    with ctx.reading() as session:
        work = named(session)
    _ask(ctx, job_id, work, note)
    with ctx.writing() as session:
        bundle = load_bundle(session, job_id)
        entries = _entries(ctx, bundle, named(session), note)
        append(session, job_id, entries)
    if entries:
        return Noted(entries[0].touch)
    held = _held(bundle, work)
    return Noted(note.touch) if held is None or held.touch == note.touch else Noted(held.touch, before=True)


def _held(bundle: JobBundle, work: Sequence[Named]) -> SiteEntry | None:
    """The last entry that says that some of the work is done."""
    steps = {step for one in work for step in one.steps}
    parts = {part for one in work for part in one.extent.parts}
    found = (
        e
        for e in reversed(standing(bundle.job.record))
        if e.said in (Said.DONE, Said.PART_DONE, *_LOOKED)
        and steps & set(e.steps)
        and e.extent is not None
        and parts & set(e.extent.parts)
    )
    return next(found, None)


def note_step(ctx: Context, job_id: str, kind: str, id_: str, step: str, note: Note) -> None:
    """Enter what is said of one step of a part, planned or not. Raises NotFound, Refused, and Doubted for a coat that
    can hardly have been laid then."""
    with ctx.reading() as session:
        work = _of_step(load_bundle(session, job_id), (kind, id_), step)
    _ask(ctx, job_id, [work], note)
    with ctx.writing() as session:
        bundle = load_bundle(session, job_id)
        work = _of_step(bundle, (kind, id_), step)
        append(session, job_id, _entries(ctx, bundle, [work], note))


def _ask(ctx: Context, job_id: str, work: Sequence[Named], note: Note) -> None:
    """Ask about a coat that is said to be done and can hardly be, unless a reason is given. Raises Doubted."""
    films = [(w.words, w.extent, w.steps) for w in work if w.product is not None]
    if note.said not in (Said.DONE, Said.PART_DONE) or note.why or not films:
        return
    view = job_view(ctx, job_id)
    if note.touch in {e.touch for e in view.bundle.job.record}:
        return
    at = _when(ctx, view.bundle, note)
    found = doubts(view, films, at) if at <= ctx.now + AHEAD else []
    if found:
        raise Doubted(found, at)


def _when(ctx: Context, bundle: JobBundle, note: Note) -> datetime:
    """When it was so."""
    at = note.at or _made(note.made, ctx.now)
    return at if at.tzinfo is not None else at.replace(tzinfo=bundle.property.tz)


def _of_task(task: Task) -> Named:
    if task.extent is None:
        raise Refused({"task": "this plan was made by an older version: plan again, then note the work"})
    section = f", {task.section}" if task.section else ""
    words = f"{task.operation}: {task.face_name}, {task.zone_name}{section}"
    method = task.method.value if task.method else None
    looks = Technique.INSPECT in task.techniques
    return Named(words[:400], task.extent, task.steps, task.product, method, task.colour, looks)


def _cut(work: Named, only: str) -> Named | None:
    """What of the work is meant; None where nothing of it is."""
    if not only:
        return work
    sort, _, id_ = only.partition("/")
    if sort == "step":
        return replace(work, steps=(id_,)) if id_ in work.steps else None
    parts = tuple(p for p in work.extent.parts if p == (sort, id_))
    return replace(work, extent=work.extent.model_copy(update={"parts": parts})) if parts else None


def _of_step(bundle: JobBundle, key: tuple[str, str], step: str) -> Named:
    finish, part = bundle.finish_of(*key), bundle.property.part(key)
    if finish is None or part is None:
        raise NotFound(*key)
    operation = next((o for o in steps_of(bundle, finish) if o.id == step), None)
    if operation is None:
        raise NotFound("step", step)
    face = bundle.property.face(part.face)
    colour = None
    if operation.product is not None:
        colour = coat_colour(operation, bundle.product(operation.product), finish.colour)
    method = operation.method.value if operation.kind.lays_film and operation.method else None
    extent = Extent.model_validate({"parts": [key]})
    words, looks = f"{operation.name}: {face.name}, {part.name}"[:400], operation.technique is Technique.INSPECT
    return Named(words, extent, (step,), operation.product, method, colour, looks)


def _entries(ctx: Context, bundle: JobBundle, work: Iterable[Named], note: Note) -> list[SiteEntry]:
    """One entry for each stretch that is spoken of, all of one touch."""
    if note.touch in {e.touch for e in bundle.job.record}:
        # Sent again, because no answer came the first time.
        return []
    now, at = _made(note.made, ctx.now), _when(ctx, bundle, note)
    faults: dict[str, str] = {}
    if at > ctx.now + AHEAD:
        faults["at"] = "that is still to come: give the time at which it was so"
    if note.said is Said.PART_DONE and note.how_far is None:
        faults["how_far"] = _HOW_FAR
    if note.said is Said.NOT_DONE and not note.why:
        faults["why"] = "say in a few words why it is not done"
    if any(one.looks for one in work) and note.said in (Said.DONE, Said.PART_DONE):
        faults["said"] = "say how the look came out: enough, or one more coat"
    if note.said in _LOOKED and not all(one.looks for one in work):
        faults["said"] = "enough, and one more coat, answer a look: this is other work"
    if faults:
        raise Refused(faults)
    said, share = note.said, None if note.how_far is None else note.how_far / 100
    found = progress(bundle.job.record)
    touch = touch_of({"touch": note.touch})
    out = []
    for one in work:
        for extent, steps, how_far in _spoken(bundle, found, one, said, share):
            out.append(
                SiteEntry.model_validate(
                    {
                        "id": uuid.uuid4().hex, "touch": touch, "at": at, "noted": now, "said": said, "why": note.why,
                        "by": signed(note.by), "work": one.words, "extent": extent, "steps": steps,
                        "how_far": how_far, "product": one.product, "method": one.method, "colour": one.colour,
                    }
                )
            )  # fmt: skip
    return out


_Spoken = list[tuple[Extent, tuple[str, ...], float | None]]


def _spoken(bundle: JobBundle, found: Progress, work: Named, said: Said, share: float | None) -> _Spoken:
    if said in _OF_WHAT_IS_DONE:
        return [(work.extent, work.steps, None)]
    operations = {f.part: steps_of(bundle, f) for f in bundle.job.finishes}
    left = left_to_note(work.extent, work.steps, operations, found)
    if share is None:
        return [(extent, steps, None) for extent, steps in left]
    return [(e, steps, far) for e, steps in left if (far := _further(work.extent, e, share)) is not None]


def _further(whole: Extent, left: Extent, share: float) -> float | None:
    """How far that share of the whole reaches into what is left of it; None where it does not."""
    if len(whole.parts) > 1:
        behind = len(whole.parts) - len(left.parts)
        more = floor(share * len(whole.parts) + 1e-6) - behind
        # All that is left is done by another word.
        return more / len(left.parts) if 0 < more < len(left.parts) else None
    reach = whole.left + share * (whole.right - whole.left)
    far = (reach - left.left) / (left.right - left.left)
    return far if 0 < far < 1 else None


def _made(typed: str, now: datetime) -> datetime:
    """When a touch was made by the device's clock; now where that tells nothing, or cannot be."""
    try:
        made = datetime.fromisoformat(typed.strip())
    except ValueError:
        return now
    return made if made.tzinfo is not None and now - WAITED < made <= now else now
