"""A job on the list: its front drawn small, what it is, and what comes next."""

from dataclasses import dataclass
from datetime import UTC, datetime

from amber_gable.core.plan.explain import clock
from amber_gable.domain.listed_job import Front, ListedJob
from amber_gable.web.views.elevation import Drawing, draw, drawing_scale
from amber_gable.web.views.units import Units


@dataclass(frozen=True)
class JobCard:
    job: ListedJob
    next_words: str
    next_when: str
    finish: str


def job_card(job: ListedJob) -> JobCard:
    words, when, finish = ("Not planned yet" if job.front.faces else "Survey the faces first"), "", ""
    plan = job.coming
    if plan is not None:
        words = plan.next_words or "All planned work is past"
        when = clock(datetime.fromtimestamp(plan.next_at, UTC).astimezone(job.tz)) if plan.next_words else ""
        if plan.finish_at and not plan.unplaced:
            end = datetime.fromtimestamp(plan.finish_at, UTC).astimezone(job.tz)
            finish = f"{end:%a} {end.day} {end:%b}"
    return JobCard(job, words, when, finish)


def card_drawing(front: Front, units: Units) -> Drawing | None:
    """The first face as it will look; None before there is one."""
    if not front.faces:
        return None
    scale = drawing_scale(front.faces, 300.0, units=units)
    return draw(front.property, front.property.faces[0], scale, colours=front.colours, units=units)
