"""A crew and its day as they are typed: on the plan, with a job's details, and for the company."""

import re
from collections.abc import Mapping
from typing import Any

from pydantic import ValidationError

from amber_gable.domain.errors import Refused
from amber_gable.domain.fault_words import by_field
from amber_gable.domain.work.working import CrewDay


def typed_crew(form: Mapping[str, str], held: Mapping[str, Any]) -> CrewDay:
    """People, hours and days of the form over what is held of the rest. Raises Refused by field."""
    faults: dict[str, str] = {}
    hours = {
        name: _hour(form.get(field, ""), field, faults) for name, field in (("start_h", "start"), ("end_h", "end"))
    }
    people = form.get("people", "").strip()
    if not re.fullmatch(r"\d{1,4}", people, re.ASCII):
        faults["people"] = f"“{people[:20]}” is not a number of people"
    if faults:
        raise Refused(faults)
    days = {"work_saturday": bool(form.get("saturday")), "work_sunday": bool(form.get("sunday"))}
    try:
        return CrewDay.model_validate({**held, "people": int(people), **hours, **days})
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


def _hour(typed: str, field: str, faults: dict[str, str]) -> float:
    """'07:30' as 7.5."""
    found = re.fullmatch(r"(\d{1,2})(?::(\d{2})(?::00)?)?", typed.strip(), re.ASCII)
    if found is None:
        faults[field] = f"“{typed.strip()[:20]}” is no time of the day; write it such as 07:30"
        return 0.0
    return int(found[1]) + int(found[2] or 0) / 60
