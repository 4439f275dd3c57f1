"""A survey as its pages read it: the job whole or cut down to a face, with versions, names and what undo would do."""

from dataclasses import dataclass

from amber_gable.domain.job.job import JobBundle
from amber_gable.services.context import Context
from amber_gable.store.job import journal, survey
from amber_gable.store.job.jobs import load_bundle, load_face
from amber_gable.store.transaction import Transaction


@dataclass(frozen=True)
class SurveySheet:
    """A job as the store holds it, whole or cut down to one face, with the version of its parts; and the names that are
    there all over the property."""

    bundle: JobBundle
    versions: dict[tuple[str, str], int]
    steps: journal.Undoable
    faces: list[tuple[str, str]]
    names: set[str]


def whole_sheet(ctx: Context, job_id: str) -> SurveySheet:
    """Raises NotFound for an unknown job."""
    with ctx.reading() as session:
        return _sheet(session, job_id, load_bundle(session, job_id), None)


def face_sheet(ctx: Context, job_id: str, kind: str, id_: str | None, face_id: str = "") -> SurveySheet:
    """The job cut down to the face that a part is on, or to a face for a part still to come; whole for a new face.

    Raises NotFound.
    """
    with ctx.reading() as session:
        if id_ is not None:
            face_id = survey.face_of(session, job_id, kind, id_)
        elif kind == "face":
            return _sheet(session, job_id, load_bundle(session, job_id), None)
        return _sheet(session, job_id, load_face(session, job_id, face_id), face_id)


def _sheet(session: Transaction, job_id: str, bundle: JobBundle, face_id: str | None) -> SurveySheet:
    return SurveySheet(
        bundle,
        survey.versions(session, job_id, face_id),
        journal.steps(session, bundle.property.id),
        survey.face_names(session, job_id),
        survey.part_names(session, job_id),
    )


def face_under(ctx: Context, job_id: str, kind: str, id_: str) -> str:
    """Id of the face a part is on. Raises NotFound."""
    with ctx.reading() as session:
        return survey.face_of(session, job_id, kind, id_)
