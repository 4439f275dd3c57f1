"""A house blocked out from one form, as one step that can be undone."""

import re
from collections.abc import Mapping
from math import radians, tan
from typing import Any

from pydantic import ValidationError

from amber_gable.core.survey.block_out import Made, blocked_out
from amber_gable.core.survey.compass import parse_bearing
from amber_gable.core.survey.measures import parse_length
from amber_gable.domain.block_out import BlockOut, Roof, run_of
from amber_gable.domain.errors import Refused
from amber_gable.domain.fault_words import by_field
from amber_gable.domain.survey import Part
from amber_gable.domain.units import UnitSystem
from amber_gable.services.survey.surveying import free_id, free_name, write_step
from amber_gable.services.workspace import Workspace
from amber_gable.store import survey

_LENGTHS = ("width_m", "depth_m", "eaves_m", "overhang_m", "base_m")
_NEEDED = ("width_m", "depth_m", "eaves_m", "looks", "roof", "substrate")
STEEPEST_DEG = 80.0


def read_block(form: Mapping[str, str], system: UnitSystem) -> BlockOut:
    """What the form tells of. Raises Refused with all that is wrong, by field."""
    values: dict[str, Any] = {}
    faults = {name: "is needed" for name in _NEEDED if not form.get(name, "").strip()}
    for name in _LENGTHS:
        text = form.get(name, "").strip()
        try:
            if text:
                values[name] = parse_length(text, system)
        except ValueError as error:
            faults[name] = str(error)
    try:
        if form.get("looks", "").strip():
            values["looks_deg"] = parse_bearing(form["looks"])
    except ValueError as error:
        faults["looks"] = str(error)
    if form.get("roof", "") in set(Roof):
        values["roof"] = Roof(form["roof"])
    elif "roof" not in faults:
        faults["roof"] = "is not a roof known here"
    if not faults:
        try:
            values["rise_m"] = _rise(form.get("pitch", ""), values, system)
        except ValueError as error:
            faults["pitch"] = str(error)
    if faults:
        raise Refused(faults)
    for name in ("building", "substrate", "gable_substrate", "base_substrate", "roof_substrate", "colour"):
        if form.get(name, "").strip():
            values[name] = form[name].strip()
    for name in ("trim_colour", "roof_colour"):
        if form.get(name):
            values[name] = form[name]
    values["trim"] = form.get("trim") == "on"
    try:
        return BlockOut.model_validate(values)
    except ValidationError as error:
        raise Refused(by_field(error)) from None


def _rise(text: str, values: Mapping[str, Any], system: UnitSystem) -> float:
    """The roof's rise, m, typed as a pitch in degrees (`35°`), as a ratio (`8/12`, `8 in 12`) or as a height. Raises
    ValueError."""
    text, roof = text.strip(), values["roof"]
    if roof is Roof.FLAT:
        return 0.0
    if not text:
        raise ValueError("is needed: write 35°, 8/12 or the rise as a height")
    run = run_of(roof, values["width_m"], values["depth_m"])
    if found := re.fullmatch(r"([\d.,]+)\s*(?:°|deg\w*)", text):
        pitch = float(found[1].replace(",", "."))
        if not 0 < pitch <= STEEPEST_DEG:
            raise ValueError(f"{pitch:g}° is no roof’s pitch: write 5° to {STEEPEST_DEG:g}°")
        return run * tan(radians(pitch))
    if found := re.fullmatch(r"([\d.,]+)\s*(?:/|:|in)\s*12", text):
        return run * float(found[1].replace(",", ".")) / 12
    return parse_length(text, system)


def tried_out(form: Mapping[str, str], system: UnitSystem) -> list[Made]:
    """The faces as they would be. Raises Refused."""
    block = read_block(form, system)
    try:
        return blocked_out(block)
    except ValidationError as error:
        raise Refused({"": next(iter(by_field(error).values()))}) from None


def block_out(space: Workspace, job_id: str, form: Mapping[str, str], system: UnitSystem) -> list[str]:
    """Add the house to the survey. Returns the ids of its faces. Raises Refused by field; nothing is saved then."""
    made = tried_out(form, system)
    with space.database.writing() as session:
        names = set(survey.part_names(session, job_id))
        taken: set[tuple[str, str]] = set()
        changes: list[tuple[Part, str, int | None]] = []
        faces = []
        for face, zones in made:
            name = face.name if face.name not in names else free_name(names, face.name)
            names.add(name)
            face_id = free_id(session, job_id, "face", name, taken)
            taken.add(("face", face_id))
            changes.append((face.model_copy(update={"id": face_id, "name": name}), face_id, None))
            faces.append(face_id)
            for zone in zones:
                zone_id = free_id(session, job_id, "zone", f"{name} {zone.name}", taken)
                taken.add(("zone", zone_id))
                changes.append((zone.model_copy(update={"id": zone_id, "face": face_id}), face_id, None))
        write_step(session, job_id, changes, f"block out {made[0][0].building}")
    return faces
