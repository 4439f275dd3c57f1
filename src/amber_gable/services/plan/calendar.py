"""A plan as it stands: its visits in their order, and what of it the present forecast would move."""

from amber_gable.core.plan.threats import unsettled
from amber_gable.core.plan.visits import Visit, visits
from amber_gable.services.job.view import JobView
from amber_gable.services.today.standing import tasks_by_record


def planned_visits(view: JobView) -> list[Visit]:
    """As the record and the weather have them; by the record alone where no weather is at hand."""
    if view.board is not None:
        return visits(view.board.tasks)
    return visits(tasks_by_record(view.bundle, view.kept.plan, view.now)) if view.kept else []


def unsettled_tasks(view: JobView) -> int:
    """The number of tasks some days ahead which the present forecast would stop."""
    return 0 if view.board is None else unsettled(view.board, view.now)
