"""A wall filled from one line: its openings, what is painted in them, and their shutters, as one step."""

from typing import Any

from amber_gable.core.survey.blocks.gutters import usual_gutter
from amber_gable.core.survey.blocks.wall_line import ToldOpening, placed, read_line, told_gutters
from amber_gable.core.survey.drawing.geometry import outline_polygon
from amber_gable.domain.errors import Refused
from amber_gable.domain.house.survey import Item, Opening, Part
from amber_gable.domain.units import UnitSystem
from amber_gable.services.context import Context
from amber_gable.services.survey.face_copies import MADE_OF
from amber_gable.services.survey.forms import choices, made_part
from amber_gable.services.survey.same_wall import fill_like, other_wall
from amber_gable.services.survey.surveying import box_of, free_id, free_name, write_step
from amber_gable.store.job import survey
from amber_gable.store.job.jobs import load_face

SHUTTER = "#2f3b37"


def fill_wall(ctx: Context, job_id: str, face_id: str, text: str, system: UnitSystem) -> int:
    """Put what the line tells of on a wall. Returns how many parts it made. Raises Refused under `line`, and saves
    nothing then."""
    with ctx.writing() as session:
        other = other_wall(text)
        if other is not None:
            return fill_like(session, job_id, face_id, other)
        property_ = load_face(session, job_id, face_id).property
        face = property_.face(face_id)
        boxes = [box_of(o) for o in face.openings]
        taken = [(b["x_m"], b["y_m"], b["width_m"], b["height_m"]) for b in boxes]
        try:
            rest, gutters = told_gutters(text)
            told = placed(read_line(rest, system), outline_polygon(face), taken) if rest.strip() or not gutters else []
        except ValueError as error:
            raise Refused({"line": str(error)}) from None
        names, ids = survey.part_names(session, job_id), set[tuple[str, str]]()
        trim = next((z.colour_now for z in property_.zones_of(face_id) if z.substrate == "wood-trim"), "#e9e4d8")
        changes: list[tuple[Part, str, int | None]] = []

        def put(kind: str, name: str, values: dict[str, Any]) -> None:
            id_ = free_id(session, job_id, kind, name, ids)
            ids.add((kind, id_))
            part = made_part(kind, None, values | {"id": id_, "name": name})
            assert isinstance(part, Opening | Item)
            changes.append((part, face_id, None))

        for one in told:
            name = free_name(names, one.usual.name)
            names.add(name)
            place = {"x_m": one.x_m, "y_m": one.sill_m}
            put("opening", name, place | {"kind": one.usual.kind, "width_m": one.width_m, "height_m": one.height_m})
            if one.usual.item and one.painted:
                made_of = MADE_OF.get(one.usual.item, "wood-trim")
                put("item", name, _item(face_id, place, _spec(one), made_of, trim))
            if one.shutters:
                shutters = free_name(names, "Shutters")
                names.add(shutters)
                beside = {"x_m": max(round(one.x_m - one.leaf_m, 4), 0.0), "y_m": one.sill_m}
                pair = {"kind": "shutter-pair", "leaf_width_m": one.leaf_m, "height_m": one.height_m}
                pair["apart_m"] = one.width_m
                put("item", shutters, _item(face_id, beside, pair, "wood-trim", SHUTTER))
        for downspouts in gutters:
            name = free_name(names, "Gutter")
            names.add(name)
            hangs = usual_gutter(face)
            spec = {"kind": "gutter", "length_m": hangs.length_m, "downspouts": downspouts}
            spec["downspout_m"] = hangs.downspout_m
            put("item", name, _item(face_id, {"x_m": 0.0, "y_m": hangs.y_m}, spec, "aluminium-trim", trim))
        write_step(session, job_id, changes, f"fill {face.name}")
    return len(changes)


def _item(face_id: str, place: dict[str, float], spec: dict[str, Any], made_of: str, colour: str) -> dict[str, Any]:
    return {"face": face_id, **place, "spec": spec, "substrate": made_of, "colour_now": colour}


def _spec(one: ToldOpening) -> dict[str, Any]:
    """What is painted in the opening, with the panes that were told where it is divided by them."""
    spec: dict[str, Any] = {"kind": one.usual.item, "width_m": one.width_m, "height_m": one.height_m}
    fields = choices("spec")[one.usual.item].model_fields
    if one.panes is not None and "panes_across" in fields:
        spec["panes_across"], spec["panes_down"] = one.panes
    if one.usual.item == "panelled-door":
        spec["panels"] = 4
    if one.usual.item == "glazed-door":
        spec["glazed"] = 0.5
    return spec
