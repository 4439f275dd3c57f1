"""Edits to a job: typed text in, a saved record or a list of faults by field out."""

from collections.abc import Mapping

from amber_gable.domain.errors import InputError, Refused
from amber_gable.services.workspace import Workspace
from amber_gable.store.jobs import load_bundle
from amber_gable.store.specification import put_weather_schools


def plain_number(text: str) -> float | None:
    """A number as people type it: decimal point or comma. None for an empty field. Raises ValueError."""
    text = text.strip().replace(",", ".")
    return float(text) if text else None


def set_schools(space: Workspace, job_id: str, form: Mapping[str, str]) -> None:
    """Change deduction, sun, hold and dew schools. Raises Refused."""
    with space.database.reading() as session:
        policy = load_bundle(session, job_id).job.policy.model_dump(mode="json")
    policy |= {k: form[k] for k in ("sun", "hold", "dew") if k in form}
    try:
        with space.database.writing() as session:
            put_weather_schools(session, job_id, form.get("deduction", ""), policy)
    except InputError as error:
        raise Refused({"": error.why}) from None
