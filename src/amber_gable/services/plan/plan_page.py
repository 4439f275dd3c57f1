"""What the plan's page does beside planning: the crew and first day as typed, the visits in their order, and what of
the plan the present forecast would move."""

from collections.abc import Mapping
from datetime import date

from amber_gable.core.plan.threats import unsettled
from amber_gable.core.plan.visits import Visit, visits
from amber_gable.services.company.crew_typed import typed_crew
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form, read_all
from amber_gable.services.forms.types import Day
from amber_gable.services.job.undo import job_step
from amber_gable.services.job.view import JobView
from amber_gable.services.today.standing import tasks_by_record
from amber_gable.store.company.crews import crew_of
from amber_gable.store.company.crews import set_crew as set_crew_of
from amber_gable.store.job.jobs import live_job


class BeginsForm(Form):
    """The day the work begins; left out: now."""

    begins: Day | None = None


def set_crew(ctx: Context, job_id: str, form: Mapping[str, str]) -> date | None:
    """Keep people and hours with the job; returns the day it is to begin, None for now. Raises Refused by field."""
    with job_step(ctx, job_id, "change the crew") as session:
        row = live_job(session, job_id)
        held = crew_of(session, row)[1].model_dump()
        typed, day = read_all(lambda: BeginsForm.read(form), lambda: typed_crew(form, held))
        set_crew_of(session, row, day)
    return typed.begins


def planned_visits(view: JobView) -> list[Visit]:
    """As the record and the weather have them; by the record alone where no weather is at hand."""
    if view.board is not None:
        return visits(view.board.tasks)
    return visits(tasks_by_record(view.bundle, view.kept.plan, view.now)) if view.kept else []


def unsettled_tasks(view: JobView) -> int:
    """The number of tasks some days ahead which the present forecast would stop."""
    return 0 if view.board is None else unsettled(view.board, view.now)
