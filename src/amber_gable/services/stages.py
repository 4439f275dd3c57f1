"""The stages of a job, and which of them matter now: what a phone's bar has room for."""

from datetime import timedelta

from amber_gable.services.job_view import JobView

STAGES = (
    # key, path, name: the numbers leave room for the stages still to come
    (1, "survey", "Survey"),
    (2, "specification", "Specification"),
    (3, "quantities", "Quantities"),
    (4, "estimate", "Estimate"),
    (5, "weather", "Weather"),
    (6, "plan", "Plan"),
    (7, "today", "Today"),
)
BEFOREHAND = timedelta(days=2)
"""So long before the first work the eyes are on the weather and the day rather than on the plan's making."""


def stages_that_matter(view: JobView) -> tuple[str, str, str]:
    """Three of them, in the order of the work: by how far the job is, and once it is planned by the clock."""
    house, job, kept = view.bundle.property, view.bundle.job, view.kept
    parts = len(house.zones) + len(house.items)
    if not parts:
        return "survey", "specification", "quantities"
    if len(job.finishes) < parts:
        return "survey", "specification", "weather"
    if kept is None or not kept.plan.tasks:
        return "quantities", "weather", "plan"
    begins = min(t.start for t in kept.plan.tasks)
    if view.now < begins - BEFOREHAND:
        return "quantities", "weather", "plan"
    return "weather", "plan", "today"
