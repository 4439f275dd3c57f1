"""A job on the list: its front drawn small, what it is, and what comes next."""

from dataclasses import dataclass

from amber_gable.domain.job import JobBundle
from amber_gable.web.pages import JobView
from amber_gable.web.views.elevation import Drawing, draw, drawing_scale


@dataclass(frozen=True)
class JobCard:
    bundle: JobBundle
    drawing: Drawing | None
    next_words: str
    next_when: str
    finish: str


def job_card(view: JobView) -> JobCard:
    faces = view.bundle.property.faces
    drawing = draw(view.bundle, faces[0], drawing_scale(faces, 300.0), finished=True) if faces else None
    words, when, finish = "Not planned yet", "", ""
    if view.kept is not None:
        tz = view.now.tzinfo
        coming = [t for t in view.kept.plan.tasks if t.end > view.now]
        if coming:
            task = coming[0]
            local = task.start.astimezone(tz)
            words = f"{task.operation}, {task.face_name}"
            when = f"{local:%a} {local.day} {local:%b %H:%M}"
        else:
            words = "All planned work is past"
        if view.kept.plan.finish is not None and not view.kept.plan.unplaced:
            end = view.kept.plan.finish.astimezone(tz)
            finish = f"{end:%a} {end.day} {end:%b}"
    elif not faces:
        words = "Survey the faces first"
    return JobCard(view.bundle, drawing, words, when, finish)
