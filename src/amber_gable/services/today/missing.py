"""Who is missing of the crew on a day, in one tap: the plan is old then, and a new one does with who is there."""

import uuid
from collections.abc import Mapping
from datetime import date
from typing import Annotated

from amber_gable.domain.errors import Refused
from amber_gable.domain.job.site_record import Missing
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form
from amber_gable.services.forms.types import Day, whole_number
from amber_gable.services.today.noting import signed, touch_of
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.site_record import append


class MissingForm(Form):
    """`people` are missing in all `on` that day."""

    on: Day
    people: Annotated[int, whole_number(0, 40, "a number of people from 0 to 40")]


def note_missing(ctx: Context, job_id: str, form: Mapping[str, str], by: str) -> None:
    """Enter how many people are missing on a day. The same said again, or a touch that is sent again, is entered once.
    Raises NotFound, and Refused by field."""
    told, touch = MissingForm.read(form), touch_of(form)
    with ctx.writing() as session:
        bundle = load_bundle(session, job_id)
        crew = bundle.job.crew.people
        if not 0 <= told.people <= crew:
            raise Refused({"people": f"the crew is {crew}: say how many of them are missing"})
        known = touch in {m.touch for m in bundle.job.missing}
        if known or bundle.missing_on.get(told.on, 0) == told.people:
            return
        line = Missing(
            id=uuid.uuid4().hex, touch=touch, at=ctx.now, noted=ctx.now, by=signed(by), day=told.on, people=told.people
        )
        append(session, job_id, [line])


def missing_words(line: Missing) -> str:
    """Of a line, for the day's notes."""
    if not line.people:
        return f"All of the crew are there on {_day(line.day)}"
    return f"{line.people} of the crew {'is' if line.people == 1 else 'are'} missing on {_day(line.day)}"


def _day(day: date) -> str:
    return f"{day:%a} {day.day} {day:%b}"
