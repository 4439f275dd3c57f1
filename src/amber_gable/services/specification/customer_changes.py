"""What the customer changed once the work was planned or begun: kept in the record with who noted it and in what
words."""

import uuid
from dataclasses import dataclass

from amber_gable.core.survey.amounts.painted import Key
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.site_record import CustomerChange
from amber_gable.domain.work.finish import Finish
from amber_gable.services.context import Context
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.plans import load_plan
from amber_gable.store.job.site_record import append
from amber_gable.store.transaction import Transaction

OFFICE = "office"


@dataclass(frozen=True)
class CustomerWish:
    """Who noted the change, and in what words it was asked for."""

    by: str = ""
    words: str = ""


def note_changes(ctx: Context, session: Transaction, before: JobBundle, asked: CustomerWish | None = None) -> None:
    """Hold the finishes against those of `before`, in the transaction that changed them: other colours, parts left out
    and parts added. Nothing is noted of a job that was neither planned nor begun."""
    job_id = before.job.id
    if not before.job.record and load_plan(session, job_id) is None:
        return
    session.flush()
    after = load_bundle(session, job_id)
    found = _differences(before, after)
    if not found:
        return
    asked, now = asked or CustomerWish(), ctx.now
    common = {"at": now, "noted": now, "by": asked.by.strip()[:80] or OFFICE, "words": asked.words.strip()[:400]}
    append(
        session,
        job_id,
        [
            CustomerChange.model_validate({"id": uuid.uuid4().hex, "parts": parts, **dict(fields), **common})
            for fields, parts in found.items()
        ],
    )


def _differences(before: JobBundle, after: JobBundle) -> dict[tuple[tuple[str, str | None], ...], list[Key]]:
    """Like changes of several parts together: the fields of the record, and the parts."""
    old, new = ({f.part: f for f in b.job.finishes} for b in (before, after))
    out: dict[tuple[tuple[str, str | None], ...], list[Key]] = {}
    for key in dict.fromkeys((*old, *new)):
        fields = _change(before, after, key, old.get(key), new.get(key))
        if fields:
            out.setdefault(tuple(fields.items()), []).append(key)
    return out


def _change(
    before: JobBundle, after: JobBundle, key: Key, old: Finish | None, new: Finish | None
) -> dict[str, str | None] | None:
    if old is not None and new is not None:
        if old.colour == new.colour:
            return None
        return {
            "what": "colour", "old": old.colour_name, "new": new.colour_name, "old_colour": old.colour,
            "new_colour": new.colour,
        }  # fmt: skip
    part = before.property.part(key)
    name = part.name if part is not None else key[1]
    if new is None:
        return {"what": "scope", "old": f"{name} painted", "new": _left(after, key)}
    return {"what": "scope", "old": f"{name} {_left(before, key)}", "new": "painted"}


def _left(bundle: JobBundle, key: Key) -> str:
    left = bundle.left_of(*key)
    return left.leaving.words if left is not None else "not in the job"
