"""A house blocked out from one form, as one step that can be undone."""

import re
from collections.abc import Callable, Mapping
from math import radians, tan
from typing import Annotated, Any

from pydantic import Field, ValidationError

from amber_gable.core.survey.amounts.measures import parse_length
from amber_gable.core.survey.blocks.block_faces import Made
from amber_gable.core.survey.blocks.block_out import blocked_out
from amber_gable.core.survey.blocks.walked_round import Leg, read_walk, walked_out
from amber_gable.core.survey.drawing.house_plan import house_plan
from amber_gable.domain.errors import Refused, by_field
from amber_gable.domain.house.block_out import BlockOut, Roof, Side, WingRoof, run_of, wing_run
from amber_gable.domain.house.survey import Face, Item, Part, PlanPlace
from amber_gable.domain.units import UnitSystem
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form, Reads, read_all
from amber_gable.services.forms.types import Bearing, Length, Tick, one_of
from amber_gable.services.survey.surveying import free_id, free_name, write_step
from amber_gable.store.job import survey
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.transaction import Transaction

STEEPEST_DEG = 80.0
STOREY_M = 2.8
"""From floor to floor, as houses are usually built; the drawing sets it right."""
BETWEEN_M = 3.6
"""Between two buildings whose distance nobody measured."""
_NO_SIZE = {"width_m": "1 m", "depth_m": "1 m"}
"""Of a footprint whose walls tell its size."""
WINGS = {"wing": "Wing", "wing2": "Second wing"}
"""What the fields of a wing begin with, and how it is called unless it is named."""


class BlockForm(Form):
    """A house as it is told: footprint, walls, roof, what it is made of. A roof that is not flat needs its `pitch`."""

    building: str | None = None
    width_m: Length
    depth_m: Length
    eaves_m: Annotated[float, Reads(lambda text, system: _height(text, system))]
    overhang_m: Length | None = None
    base_m: Length | None = None
    looks: Bearing
    roof: Annotated[Roof, one_of(list(Roof), "is not a roof known here", "is needed")]
    pitch: str = ""
    substrate: str
    gable_substrate: str | None = None
    base_substrate: str | None = None
    roof_substrate: str | None = None
    colour: str | None = None
    trim: Tick = False
    trim_colour: str | None = None
    roof_colour: str | None = None


class WingForm(Form):
    """A part that stands out from a side; `begins`: from the left corner, a length or left, middle, right."""

    name: str | None = None
    side: Annotated[Side, one_of(list(Side), "choose a side of the list")]
    roof: Annotated[WingRoof, one_of(list(WingRoof), "choose a roof of the list")]
    width_m: Length
    depth_m: Length
    eaves_m: Annotated[float, Reads(lambda text, system: _height(text, system))]
    begins: str = Field("", alias="from")
    pitch: str = ""


def read_block(form: Mapping[str, str], system: UnitSystem) -> BlockOut:
    """What the form tells of. Raises Refused with all that is wrong, by field."""
    typed = BlockForm.read(form, system)
    values = typed.model_dump(exclude={"looks", "pitch"}, exclude_none=True) | {"looks_deg": typed.looks}
    faults: dict[str, str] = {}
    if typed.roof is not Roof.FLAT:
        run = run_of(typed.roof, typed.width_m, typed.depth_m)
        values["rise_m"] = _told(lambda: _rise(typed.pitch, run, system), "pitch", faults)
    values["wings"] = []
    for field, name in WINGS.items():
        if form.get(f"{field}_side", "").strip():
            try:
                values["wings"].append(_wing(form, field, name, typed, system))
            except Refused as error:
                faults |= error.fields
    if faults:
        raise Refused(faults)
    try:
        return BlockOut.model_validate(values)
    except ValidationError as error:
        # What is wrong with a wing as a whole has no field of its own.
        raise Refused({k if k in form else "": words for k, words in by_field(error).items()}) from None


def _wing(form: Mapping[str, str], field: str, name: str, house: BlockForm, system: UnitSystem) -> dict[str, Any]:
    """The wing told in the fields that begin with `field`. Raises Refused by field."""
    typed, faults = WingForm.read(form, system, before=f"{field}_"), dict[str, str]()
    wing = typed.model_dump(exclude={"begins", "pitch"}) | {"name": typed.name or name}
    room = (house.width_m if typed.side in (Side.FRONT, Side.BACK) else house.depth_m) - typed.width_m
    wing["from_left_m"] = _told(lambda: _begins(typed.begins, room, system), f"{field}_from", faults)
    if typed.roof is not WingRoof.FLAT:
        run = wing_run(typed.roof, typed.width_m, typed.depth_m)
        wing["rise_m"] = _told(lambda: _rise(typed.pitch, run, system), f"{field}_pitch", faults)
    if faults:
        raise Refused(faults)
    return wing


def _told(reader: Callable[[], float], field: str, faults: dict[str, str]) -> float:
    """What a reader gives; where it cannot, its words go beside the field."""
    try:
        return reader()
    except ValueError as error:
        faults[field] = str(error)
        return 0.0


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


class WalkForm(Form):
    """The walls of a house in the order in which one walks past them."""

    walk: Annotated[tuple[Leg, ...], Reads(read_walk)]


def walk_tried(form: Mapping[str, str], system: UnitSystem) -> list[Made]:
    """The faces of a house that was walked round, as they would be. Its roof is flat, or drawn later. Raises Refused by
    field."""
    house = {**form, **_NO_SIZE, "roof": Roof.FLAT.value}
    walk, block = read_all(lambda: WalkForm.read(form, system), lambda: read_block(house, system))
    return _made(lambda: walked_out(block, walk.walk))


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
