"""A crew and its day as they are typed: on the plan, with a job's details, and for the company."""

from collections.abc import Mapping
from typing import Annotated, Any

from pydantic import ValidationError

from amber_gable.domain.errors import Refused, by_field
from amber_gable.domain.work.working import CrewDay
from amber_gable.services.forms.form import Form
from amber_gable.services.forms.types import Tick, TimeOfDay, whole_number


class CrewForm(Form):
    """People and their day; the days of the weekend on which they work."""

    people: Annotated[int, whole_number(0, 9999, "a number of people")]
    start: TimeOfDay
    end: TimeOfDay
    saturday: Tick = False
    sunday: Tick = False


def typed_crew(form: Mapping[str, str], held: Mapping[str, Any]) -> CrewDay:
    """People, hours and days of the form over what is held of the rest. Raises Refused by field."""
    typed = CrewForm.read(form)
    day = {"start_h": typed.start, "end_h": typed.end, "work_saturday": typed.saturday, "work_sunday": typed.sunday}
    try:
        return CrewDay.model_validate({**held, "people": typed.people, **day})
    except ValidationError as error:
        raise Refused(by_field(error)) from None


def crew_form(crew: CrewDay) -> dict[str, str]:
    """As it would have been typed."""
    ticked = {"saturday": crew.work_saturday, "sunday": crew.work_sunday}
    out = {"people": str(crew.people), "start": _clock(crew.start_h), "end": _clock(crew.end_h)}
    return out | {name: "1" for name, on in ticked.items() if on}


def _clock(hour: float) -> str:
    minutes = round(hour * 60)
    return f"{minutes // 60:02d}:{minutes % 60:02d}"
