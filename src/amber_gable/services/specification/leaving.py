"""Leaving parts as they are, replaced by others, or taken away for good: they get no paint, and the job says so."""

from collections.abc import Mapping
from typing import Annotated

from pydantic import ValidationError

from amber_gable.core.survey.amounts.painted import Key, painted_part
from amber_gable.domain.errors import Refused, by_field
from amber_gable.domain.work.scope import Leaving, LeftPart
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form
from amber_gable.services.forms.types import one_of, text_of
from amber_gable.services.job.undo import job_step
from amber_gable.services.specification.customer_changes import CustomerWish, note_changes
from amber_gable.services.specification.specifying import called, face_follows
from amber_gable.store.job import journal
from amber_gable.store.job import specification as store
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.survey import check_references

_STEP = {
    Leaving.AS_IT_IS: "leave {} as it is",
    Leaving.REPLACED: "have {} replaced by others",
    Leaving.TAKEN_AWAY: "take {} away for good",
}


class LeaveForm(Form):
    """How a part is left, who replaces it and in which colour, and why."""

    leaving: Annotated[Leaving, one_of(list(Leaving), "choose what happens to it")] = Leaving.AS_IT_IS
    colour: str = ""
    colour_name: Annotated[str, text_of("", most=120)] = ""
    by: Annotated[str, text_of("", most=120)] = ""
    note: Annotated[str, text_of("", most=400)] = ""


def leave_part(
    ctx: Context, job_id: str, key: Key, version: int, form: Mapping[str, str], asked: CustomerWish | None = None
) -> None:
    """Take a part out of the work and keep how it is left. `version` is that of its finish, 0 where it has none. Raises
    NotFound, Refused or StaleEdit."""
    typed = LeaveForm.read(form)
    replaced = typed.leaving is Leaving.REPLACED
    kind, id_ = key
    try:
        left = LeftPart.model_validate(
            {
                kind: id_, "leaving": typed.leaving, "by": typed.by, "note": typed.note,
                "colour": (typed.colour or None) if replaced else None,
                "colour_name": typed.colour_name if replaced else "",
            }
        )  # fmt: skip
    except ValidationError as error:
        raise Refused(by_field(error)) from None
    with job_step(ctx, job_id, "leave a part") as session:
        bundle = load_bundle(session, job_id)
        part = painted_part(bundle.property, bundle.deduction, key)
        journal.call_step(session, _STEP[left.leaving].format(called(part)))
        # Tapped twice it is left already, and only what is said of it is kept anew.
        if bundle.finish_of(*key) is not None:
            store.drop_finish(session, job_id, key, version)
        store.put_left(session, job_id, left)
        face_follows(session, job_id, part.face.id)
        check_references(session, job_id)
        note_changes(ctx, session, bundle, asked)
