"""A house blocked out from one form, as one step that can be undone."""

import re
from collections.abc import Callable, Mapping
from math import radians, tan
from typing import Any

from pydantic import ValidationError

from amber_gable.core.survey.amounts.measures import parse_length
from amber_gable.core.survey.blocks.block_faces import Made
from amber_gable.core.survey.blocks.block_out import blocked_out
from amber_gable.core.survey.blocks.walked_round import Leg, read_walk, walked_out
from amber_gable.core.survey.drawing.compass import parse_bearing
from amber_gable.core.survey.drawing.house_plan import house_plan
from amber_gable.domain.errors import Refused
from amber_gable.domain.fault_words import by_field
from amber_gable.domain.house.block_out import BlockOut, Roof, Side, WingRoof, run_of, wing_run
from amber_gable.domain.house.survey import Face, Item, Part, PlanPlace
from amber_gable.domain.units import UnitSystem
from amber_gable.services.context import Context
from amber_gable.services.survey.surveying import free_id, free_name, write_step
from amber_gable.store.job import survey
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.transaction import Transaction

_LENGTHS = ("width_m", "depth_m", "eaves_m", "overhang_m", "base_m")
_NEEDED = ("width_m", "depth_m", "eaves_m", "looks", "roof", "substrate")
STEEPEST_DEG = 80.0
STOREY_M = 2.8
"""From floor to floor, as houses are usually built; the drawing sets it right."""
BETWEEN_M = 3.6
"""Between two buildings whose distance nobody measured."""
_NO_SIZE = {"width_m": "1 m", "depth_m": "1 m"}
"""Of a footprint whose walls tell its size."""
WINGS = {"wing": "Wing", "wing2": "Second wing"}
"""What the fields of a wing begin with, and how it is called unless it is named."""


def read_block(form: Mapping[str, str], system: UnitSystem) -> BlockOut:
    """What the form tells of. Raises Refused with all that is wrong, by field."""
    values: dict[str, Any] = {}
    faults = {name: "is needed" for name in _NEEDED if not form.get(name, "").strip()}
    for name in _LENGTHS:
        text = form.get(name, "").strip()
        try:
            if text:
                values[name] = _height(text, system) if name == "eaves_m" else parse_length(text, system)
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
            if values["roof"] is not Roof.FLAT:
                run = run_of(values["roof"], values["width_m"], values["depth_m"])
                values["rise_m"] = _rise(form.get("pitch", ""), run, system)
        except ValueError as error:
            faults["pitch"] = str(error)
        values["wings"] = [
            _wing(form, field, name, values, faults, system)
            for field, name in WINGS.items()
            if form.get(f"{field}_side", "").strip()
        ]
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
        # What is wrong with a wing as a whole has no field of its own.
        raise Refused({k if k in form else "": words for k, words in by_field(error).items()}) from None


def _wing(
    form: Mapping[str, str],
    field: str,
    name: str,
    house: Mapping[str, Any],
    faults: dict[str, str],
    system: UnitSystem,
) -> dict[str, Any]:
    """The wing told in the fields that begin with `field`; what is wrong goes into `faults`."""
    side, roof = form.get(f"{field}_side", ""), form.get(f"{field}_roof", "")
    if side not in set(Side) or roof not in set(WingRoof):
        faults[f"{field}_side"] = "choose a side and a roof of the lists"
        return {}
    wing: dict[str, Any] = {"name": form.get(f"{field}_name", "").strip() or name, "side": side, "roof": roof}
    for length in ("width_m", "depth_m", "eaves_m"):
        try:
            read = _height if length == "eaves_m" else parse_length
            wing[length] = read(form.get(f"{field}_{length}", ""), system)
        except ValueError as error:
            faults[f"{field}_{length}"] = str(error) if form.get(f"{field}_{length}", "").strip() else "is needed"
    if not {"width_m", "depth_m", "eaves_m"} <= set(wing):
        return {}
    along = house["width_m"] if side in (Side.FRONT, Side.BACK) else house["depth_m"]
    try:
        wing["from_left_m"] = _begins(form.get(f"{field}_from", ""), along - wing["width_m"], system)
    except ValueError as error:
        faults[f"{field}_from"] = str(error)
    try:
        if roof != WingRoof.FLAT:
            run = wing_run(WingRoof(roof), wing["width_m"], wing["depth_m"])
            wing["rise_m"] = _rise(form.get(f"{field}_pitch", ""), run, system)
    except ValueError as error:
        faults[f"{field}_pitch"] = str(error)
    return wing


def _height(text: str, system: UnitSystem) -> float:
    """Of walls, m: a length, or told in storeys (`2 storeys`, `1.5 storeys`). Raises ValueError."""
    found = re.fullmatch(
        r"(\d+(?:[.,]\d+)?)\s*(?:storeys?|stories|story|floors?)", text.strip(), re.IGNORECASE | re.ASCII
    )
    if found is None:
        return parse_length(text, system)
    storeys = float(found[1].replace(",", "."))
    if not 0.5 <= storeys <= 10:
        raise ValueError(f"{storeys:g} storeys are no house’s: write 1 to 10")
    return storeys * STOREY_M


def _begins(text: str, room: float, system: UnitSystem) -> float:
    """How far from the left corner of its side a wing begins, m: typed, or left, middle, right. Raises ValueError."""
    said = text.strip().lower()
    if said in ("", "left", "middle", "right"):
        return max(room, 0.0) * {"middle": 0.5, "right": 1.0}.get(said, 0.0)
    return parse_length(text, system)


def _rise(text: str, run: float, system: UnitSystem) -> float:
    """A roof's rise over its run, m, typed as a pitch in degrees (`35°`), as a ratio (`8/12`, `8 in 12`) or as a
    height. Raises ValueError."""
    text = text.strip()
    if not text:
        raise ValueError("is needed: write 35°, 8/12 or the rise as a height")
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
    return _made(lambda: blocked_out(block))


def _made(build: Callable[[], list[Made]]) -> list[Made]:
    """Raises Refused where what was told makes no house."""
    try:
        return build()
    except ValidationError as error:
        raise Refused({"": next(iter(by_field(error).values()))}) from None
    except ValueError as error:
        raise Refused({"": str(error)}) from None


def _beside(made: list[Made], there: tuple[Face, ...]) -> list[Made]:
    """Faces with places on the plan stand east of the buildings that are there."""
    walls, mine = house_plan(there), house_plan(tuple(face for face, _ in made))
    if not walls:
        return made
    east = max(max(w.start[0], w.end[0]) for w in walls) + BETWEEN_M
    east -= min(min(w.start[0], w.end[0]) for w in mine)
    return [
        (f.model_copy(update={"plan": PlanPlace(east_m=f.plan.east_m + east, north_m=f.plan.north_m)}), zones)
        if f.plan
        else (f, zones)
        for f, zones in made
    ]


def walk_tried(form: Mapping[str, str], system: UnitSystem) -> list[Made]:
    """The faces of a house that was walked round, as they would be. Its roof is flat, or drawn later. Raises Refused by
    field."""
    faults: dict[str, str] = {}
    legs: tuple[Leg, ...] = ()
    try:
        legs = read_walk(form.get("walk", ""), system)
    except ValueError as error:
        faults["walk"] = str(error) if form.get("walk", "").strip() else "is needed"
    try:
        block = read_block({**form, **_NO_SIZE, "roof": Roof.FLAT.value}, system)
    except Refused as error:
        raise Refused(faults | error.fields) from None
    if faults:
        raise Refused(faults)
    return _made(lambda: walked_out(block, legs))


def block_out(
    ctx: Context, job_id: str, form: Mapping[str, str], system: UnitSystem, *, walked: bool = False
) -> list[str]:
    """Add the house to the survey. Returns the ids of its faces. Raises Refused by field; nothing is saved then."""
    made = walk_tried(form, system) if walked else tried_out(form, system)
    with ctx.writing() as session:
        made = _beside(made, load_bundle(session, job_id).property.faces)
        return put_up(session, job_id, made, (), f"block out {made[0][0].building}")


def put_up(session: Transaction, job_id: str, made: list[Made], items: tuple[Item, ...], words: str) -> list[str]:
    """Save what was blocked out as one step, with names and ids that are free. Returns the faces' ids."""
    names, taken = set(survey.part_names(session, job_id)), set[tuple[str, str]]()
    changes: list[tuple[Part, str, int | None]] = []

    def free(kind: str, name: str) -> str:
        id_ = free_id(session, job_id, kind, name, taken)
        taken.add((kind, id_))
        return id_

    def named(name: str) -> str:
        name = name if name not in names else free_name(names, name)
        names.add(name)
        return name

    faces = []
    for face, zones in made:
        name = named(face.name)
        face_id = free("face", name)
        changes.append((face.model_copy(update={"id": face_id, "name": name}), face_id, None))
        faces.append(face_id)
        for zone in zones:
            zone_id = free("zone", f"{name} {zone.name}")
            changes.append((zone.model_copy(update={"id": zone_id, "face": face_id}), face_id, None))
        for item in (i for i in items if i.face == face.id):
            item_name = named(item.name)
            own = {"id": free("item", item_name), "face": face_id, "name": item_name}
            changes.append((item.model_copy(update=own), face_id, None))
    write_step(session, job_id, changes, words)
    return faces
