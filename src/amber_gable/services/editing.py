"""Edits to a job: typed text in, a saved record or a list of faults by field out."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, field

from amber_gable.domain.errors import InputError
from amber_gable.services.workspace import Workspace
from amber_gable.store import survey
from amber_gable.store.jobs import load_bundle


@dataclass
class Faults(Exception):
    """What is wrong with a form, by field; '' holds what concerns it as a whole."""

    fields: dict[str, str] = field(default_factory=dict)


def plain_number(text: str) -> float | None:
    """A number as people type it: decimal point or comma. None for an empty field. Raises ValueError."""
    text = text.strip().replace(",", ".")
    return float(text) if text else None


def set_finish(space: Workspace, job_id: str, zone: str, form: Mapping[str, str]) -> None:
    """Give a zone a system and a colour. Raises Faults or StaleEdit."""
    colour, name = form.get("colour", "").strip().lower(), form.get("colour_name", "").strip()
    if not re.fullmatch(r"#[0-9a-f]{6}", colour):
        raise Faults({"colour": "must be a colour such as #e9dcc1"})
    if not 1 <= len(name) <= 120:
        raise Faults({"colour_name": "is needed: the name on the label"})
    version = form.get("version", "0")
    try:
        with space.database.writing() as session:
            bundle = load_bundle(session, job_id)
            if zone not in {z.id for z in bundle.property.zones}:
                raise KeyError(zone)
            survey.shelve_system(session, job_id, form.get("system", ""))
            survey.put_finish(
                session, job_id, zone, form.get("system", ""), colour, name, int(version) if version.isdigit() else 0
            )
    except InputError as error:
        raise Faults({"system": error.why}) from None


def set_schools(space: Workspace, job_id: str, form: Mapping[str, str]) -> None:
    """Change deduction, sun, hold and dew schools. Raises Faults."""
    with space.database.reading() as session:
        policy = load_bundle(session, job_id).job.policy.model_dump(mode="json")
    policy |= {k: form[k] for k in ("sun", "hold", "dew") if k in form}
    try:
        with space.database.writing() as session:
            survey.put_schools(session, job_id, form.get("deduction", ""), policy)
    except InputError as error:
        raise Faults({"": error.why}) from None
