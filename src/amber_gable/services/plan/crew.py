"""The crew of a job and the day its work begins, as they are typed on the plan."""

from collections.abc import Mapping
from datetime import date

from pydantic import ValidationError

from amber_gable.domain.errors import Refused
from amber_gable.domain.fault_words import by_field
from amber_gable.domain.working import CrewDay
from amber_gable.services.workspace import Workspace
from amber_gable.store.jobs import live_job


def set_crew(space: Workspace, job_id: str, form: Mapping[str, str]) -> date | None:
    """Keep people and hours with the job; returns the day it is to begin, None for now. Raises Refused by field."""
    faults: dict[str, str] = {}
    begins = _date(form.get("begins", ""), faults)
    hours = {
        name: _hour(form.get(field, ""), field, faults) for name, field in (("start_h", "start"), ("end_h", "end"))
    }
    people = form.get("people", "").strip()
    if not people.isdigit():
        faults["people"] = f"“{people[:20]}” is not a number of people"
    if faults:
        raise Refused(faults)
    with space.database.writing() as session:
        row = live_job(session, job_id)
        days = {"work_saturday": bool(form.get("saturday")), "work_sunday": bool(form.get("sunday"))}
        try:
            crew = CrewDay.model_validate(row.crew | {"people": int(people)} | hours | days)
        except ValidationError as error:
            raise Refused(by_field(error)) from None
        if row.crew != crew.model_dump(mode="json"):
            row.crew = crew.model_dump(mode="json")
    return begins


def _date(typed: str, faults: dict[str, str]) -> date | None:
    try:
        return date.fromisoformat(typed.strip()) if typed.strip() else None
    except ValueError:
        faults["begins"] = f"“{typed.strip()[:20]}” is not a day; write it such as 2026-09-15"
        return None


def _hour(typed: str, field: str, faults: dict[str, str]) -> float:
    """'07:30' as 7.5."""
    hours, _, minutes = typed.strip().partition(":")
    if not hours.isdigit() or not (minutes or "0").isdigit():
        faults[field] = f"“{typed.strip()[:20]}” is no time of the day; write it such as 07:30"
        return 0.0
    return int(hours) + int(minutes or 0) / 60
