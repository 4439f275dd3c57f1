"""The crew of a job and the day its work begins, as they are typed on the plan."""

from collections.abc import Mapping
from datetime import date

from amber_gable.domain.errors import Refused
from amber_gable.services.company.crew_typed import typed_crew
from amber_gable.services.context import Context
from amber_gable.services.job.undo import job_step
from amber_gable.store.company.crews import crew_of
from amber_gable.store.company.crews import set_crew as set_crew_of
from amber_gable.store.job.jobs import live_job


def set_crew(ctx: Context, job_id: str, form: Mapping[str, str]) -> date | None:
    """Keep people and hours with the job; returns the day it is to begin, None for now. Raises Refused by field."""
    faults: dict[str, str] = {}
    begins = _date(form.get("begins", ""), faults)
    with job_step(ctx, job_id, "change the crew") as session:
        row = live_job(session, job_id)
        try:
            day = typed_crew(form, crew_of(session, row)[1].model_dump())
        except Refused as error:
            raise Refused(faults | error.fields) from None
        if faults:
            raise Refused(faults)
        set_crew_of(session, row, day)
    return begins


def _date(typed: str, faults: dict[str, str]) -> date | None:
    try:
        return date.fromisoformat(typed.strip()) if typed.strip() else None
    except ValueError:
        faults["begins"] = f"“{typed.strip()[:20]}” is not a day; write it such as 2026-09-15"
        return None
