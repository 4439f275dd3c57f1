"""The walk-round as its page shows it."""

from amber_gable.core.survey.findings.essentials import missing_essentials, open_tests
from amber_gable.core.survey.findings.walk import END, WalkPoint, stops
from amber_gable.services.context import Context
from amber_gable.store.job.ticks import set_tick, ticks

__all__ = ["END", "WalkPoint", "missing_essentials", "open_tests", "stops", "tick_step", "walk_ticks"]


def walk_ticks(ctx: Context, job_id: str) -> dict[tuple[str, str], str]:
    """Steps of the walk-round done or passed over, by (place, step)."""
    with ctx.reading() as session:
        return ticks(session, job_id)


def tick_step(ctx: Context, job_id: str, place: str, step: str, done: str) -> None:
    """Set a tick; an empty `done` takes it away."""
    with ctx.writing() as session:
        set_tick(session, job_id, place, step, done)
