"""A job on the list: its front drawn small, what it is, and what comes next."""

from dataclasses import dataclass
from datetime import datetime

from amber_gable.core.plan.explain import clock
from amber_gable.domain.job import JobBundle
from amber_gable.domain.plan import Plan
from amber_gable.web.views.elevation import Drawing, draw, drawing_scale, finish_colours


@dataclass(frozen=True)
class JobCard:
    bundle: JobBundle
    drawing: Drawing | None
    next_words: str
    next_when: str
    finish: str


def job_card(bundle: JobBundle, plan: Plan | None, now: datetime) -> JobCard:
    """From what is stored alone, so that a long list opens at once."""
    faces, tz = bundle.property.faces, bundle.property.tz
    drawing = draw(bundle, faces[0], drawing_scale(faces, 300.0), colours=finish_colours(bundle)) if faces else None
    words, when, finish = ("Not planned yet" if faces else "Survey the faces first"), "", ""
    if plan is not None:
        coming = [t for t in plan.tasks if t.end > now]
        words = f"{coming[0].operation}, {coming[0].face_name}" if coming else "All planned work is past"
        when = clock(coming[0].start.astimezone(tz)) if coming else ""
        if plan.finish is not None and not plan.unplaced:
            end = plan.finish.astimezone(tz)
            finish = f"{end:%a} {end.day} {end:%b}"
    return JobCard(bundle, drawing, words, when, finish)
