"""A job on the list: its front drawn small, what it is, and what comes next."""

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from enum import StrEnum

from amber_gable.domain.job.listed_job import Front, ListedJob
from amber_gable.domain.wording import dated, timed
from amber_gable.web.views.survey.elevation import Drawing, draw, drawing_scale
from amber_gable.web.views.units import Units


@dataclass(frozen=True)
class JobCard:
    job: ListedJob
    next_words: str
    next_when: str
    finish: str


class Attention(StrEnum):
    """What a job asks for, the most pressing first."""

    NOW = "Today and tomorrow"
    UNPLACED = "Planned, not all of it placed"
    COMING = "Coming"
    UNPLANNED = "To survey, specify or plan"
    PAST = "All planned work is past"


SOON = timedelta(days=2)


def attention(job: ListedJob, now: datetime) -> Attention:
    """By what of its plan lies ahead: work before the day after tomorrow begins, on the job's own clock, is now."""
    plan = job.coming
    if plan is None:
        return Attention.UNPLANNED
    if not plan.next_words:
        return Attention.UNPLACED if plan.unplaced else Attention.PAST
    here = now.astimezone(job.tz)
    end = (here + SOON).replace(hour=0, minute=0, second=0, microsecond=0)
    if plan.next_at < end.timestamp():
        return Attention.NOW
    return Attention.UNPLACED if plan.unplaced else Attention.COMING


def by_attention(jobs: list[ListedJob], now: datetime) -> list[tuple[Attention, list[ListedJob]]]:
    """Jobs in groups, the most pressing first; within a group what comes first in time, then by name."""
    groups: dict[Attention, list[ListedJob]] = {a: [] for a in Attention}
    for job in jobs:
        groups[attention(job, now)].append(job)
    for found in groups.values():
        found.sort(key=lambda j: (j.coming.next_at if j.coming else 0, j.name.casefold()))
    return [(a, found) for a, found in groups.items() if found]


def job_card(job: ListedJob) -> JobCard:
    words, when, finish = ("Not planned yet" if job.surveyed else "Survey the faces first"), "", ""
    plan = job.coming
    if plan is not None:
        words = plan.next_words or "All planned work is past"
        when = timed(datetime.fromtimestamp(plan.next_at, UTC).astimezone(job.tz)) if plan.next_words else ""
        if plan.finish_at and not plan.unplaced:
            end = datetime.fromtimestamp(plan.finish_at, UTC).astimezone(job.tz)
            finish = dated(end)
    return JobCard(job, words, when, finish)


def card_drawing(front: Front, units: Units) -> Drawing | None:
    """The first face as it will look; None before there is one."""
    if not front.faces:
        return None
    scale = drawing_scale(front.faces, 300.0, units=units)
    return draw(front.property, front.property.faces[0], scale, colours=front.colours, units=units)
