"""Edits to a job: typed text in, a saved record or a list of faults by field out."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, TypeVar

from pydantic import BaseModel, ValidationError

from amber_gable.domain.errors import InputError
from amber_gable.domain.survey import Face, Opening, Zone
from amber_gable.services.workspace import Workspace
from amber_gable.store import survey
from amber_gable.store.jobs import live_job, load_bundle
from amber_gable.store.tables import FaceRow, OpeningRow, ZoneRow

M = TypeVar("M", bound=BaseModel)
_TABLES: dict[str, Any] = {"face": FaceRow, "opening": OpeningRow, "zone": ZoneRow}
_NUMBERS = {
    "azimuth_deg", "tilt_deg", "width_m", "eave_height_m", "gable_rise_m", "rain_exposure", "height_m", "x_m", "y_m",
    "area_m2", "loose_pct", "mildew_pct", "wood_moisture_pct",
}  # fmt: skip


@dataclass
class Faults(Exception):
    """What is wrong with a form, by field; '' holds what concerns it as a whole."""

    fields: dict[str, str] = field(default_factory=dict)


def plain_number(text: str) -> float | None:
    """A number as people type it: decimal point or comma. None for an empty field. Raises ValueError."""
    text = text.strip().replace(",", ".")
    return float(text) if text else None


def _values(form: Mapping[str, str]) -> dict[str, Any]:
    out: dict[str, Any] = {}
    faults: dict[str, str] = {}
    for key, text in form.items():
        if key not in _NUMBERS:
            out[key] = text.strip()
            continue
        try:
            number = plain_number(text)
        except ValueError:
            faults[key] = f"“{text.strip()[:30]}” is not a number; write metres or degrees such as 2.4"
            continue
        if number is not None:
            out[key] = number
    if faults:
        raise Faults(faults)
    return out


def _validated(model: type[M], values: dict[str, Any]) -> M:
    try:
        return model.model_validate(values)
    except ValidationError as error:
        raise Faults({_field(e["loc"]): _words(e) for e in error.errors(include_url=False)}) from None


def _field(loc: tuple[int | str, ...]) -> str:
    return str(loc[-1]) if loc else ""


def _words(error: Any) -> str:
    if error["type"] == "missing":
        return "is needed"
    return str(error["msg"]).removeprefix("Value error, ").replace("Input should be", "must be")


def _new_id(space: Workspace, job_id: str, kind: str, name: str) -> str:
    """An id from the name that no record of the property has, deleted ones included."""
    base = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:48] or kind
    with space.database.reading() as session:
        property_id = live_job(session, job_id).property_id
        for number in range(1, 10_000):
            id_ = base if number == 1 else f"{base}-{number}"
            if session.get(_TABLES[kind], (property_id, id_)) is None:
                return id_
    raise InputError(name, "no free id is left for this name", "choose another name")


def save_part(space: Workspace, job_id: str, kind: str, form: Mapping[str, str], id_: str | None) -> str:
    """Add (`id_` None) or change a face, opening or zone from its form. Returns its id.

    Raises Faults with what to mend, StaleEdit when it changed meanwhile, KeyError when it is gone.
    """
    values = _values({k: v for k, v in form.items() if k not in ("version", "face")})
    version = int(form["version"]) if id_ is not None and form.get("version", "").isdigit() else None
    if id_ is not None and version is None:
        raise Faults({"": "the form has lost its version; open it again"})
    if not values.get("name"):
        raise Faults({"name": "is needed"})
    values["id"] = id_ or _new_id(space, job_id, kind, values["name"])
    part: Face | Opening | Zone
    if kind == "face":
        kept: dict[str, Any] = {}
        if id_ is not None:
            with space.database.reading() as session:
                kept = {"horizon": survey.part_row(session, job_id, kind, id_).horizon}
        part = _validated(Face, kept | values)
    elif kind == "opening":
        part = _validated(Opening, values)
    else:
        part = _validated(Zone, _zone_values(values, form["face"]))
    try:
        with space.database.writing() as session:
            survey.put_part(session, job_id, part, form.get("face", ""), version)
    except InputError as error:
        raise Faults({"": error.why}) from None
    return part.id


def _zone_values(values: dict[str, Any], face: str) -> dict[str, Any]:
    names = ("loose_pct", "mildew_pct", "chalking", "gloss", "wood_moisture_pct")
    condition = {n: values.pop(n) for n in names if values.get(n) not in (None, "")}
    condition["bare"] = values.pop("bare", "") == "on"
    own = values.pop("area_m2", None)
    wants_own = values.pop("area_kind", "face") == "own"
    if wants_own and own is None:
        raise Faults({"area_m2": "is needed for a zone with its own size"})
    area = {"kind": "own", "area_m2": own} if wants_own else {"kind": "face"}
    colour = str(values.get("colour_now", "")).lower()
    return values | {"face": face, "area": area, "condition": condition, "colour_now": colour}


def remove_part(space: Workspace, job_id: str, kind: str, id_: str) -> None:
    with space.database.writing() as session:
        survey.delete_part(session, job_id, kind, id_)


def undo_remove(space: Workspace, job_id: str, kind: str, id_: str) -> None:
    """Raises InputError when the record no longer fits."""
    with space.database.writing() as session:
        survey.restore_part(session, job_id, kind, id_)


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
