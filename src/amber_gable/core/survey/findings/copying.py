"""Faces mirrored and copied, with everything on them. Ids of copies are given by the caller."""

from collections.abc import Callable
from typing import Any

from amber_gable.core.survey.drawing.geometry import item_size
from amber_gable.domain.findings.condition import CELL_M, Condition, Mark
from amber_gable.domain.house.outline import OutlineSide, RoofEdge
from amber_gable.domain.house.survey import Face, Item, Zone
from amber_gable.domain.house.zone_area import Region

Parts = tuple[Face, tuple[Zone, ...], tuple[Item, ...]]


def mirrored(face: Face, zones: tuple[Zone, ...], items: tuple[Item, ...]) -> Parts:
    """The face turned left for right; areas and lengths stay what they were."""
    width = face.width_m
    return (
        face.model_copy(
            update={
                "outline": _mirrored_outline(face.outline, width),
                "openings": tuple(o.model_copy(update={"x_m": _flip(width, o.x_m, o.width_m)}) for o in face.openings),
                "obstacles": tuple(
                    o.model_copy(update={"x_m": _flip(width, o.x_m, o.width_m)}) for o in face.obstacles
                ),
            }
        ),
        tuple(_mirrored_zone(z, width) for z in zones),
        tuple(i.model_copy(update={"x_m": _flip(width, i.x_m, item_size(i)[0])}) for i in items),
    )


def copied(parts: Parts, new_id: Callable[[str, str], str], **changes: Any) -> Parts:
    """The face under a new id with copies of all parts. `new_id(kind, old)` gives ids; `changes` go to the face.

    Conditions stay behind: nobody has tested the other wall yet.
    """
    face, zones, items = parts
    id_ = new_id("face", face.id)
    untested = {"condition": Condition()}
    copy = face.model_copy(
        update={
            "id": id_,
            "openings": tuple(o.model_copy(update={"id": new_id("opening", o.id)}) for o in face.openings),
            "obstacles": tuple(o.model_copy(update={"id": new_id("obstacle", o.id)}) for o in face.obstacles),
            "plan": None,
            **changes,
        }
    )
    return (
        copy,
        tuple(z.model_copy(update={"id": new_id("zone", z.id), "face": id_, **untested}) for z in zones),
        tuple(i.model_copy(update={"id": new_id("item", i.id), "face": id_, **untested}) for i in items),
    )


def _flip(width: float, x: float, own: float) -> float:
    return max(0.0, round(width - x - own, 9))


def _mirrored_zone(zone: Zone, width: float) -> Zone:
    marks = tuple(_mirrored_mark(m, width) for m in zone.condition.marks)
    zone = zone.model_copy(update={"condition": zone.condition.model_copy(update={"marks": marks})})
    if not isinstance(zone.area, Region):
        return zone
    corners = tuple((_flip(width, x, 0.0), y) for x, y in reversed(zone.area.corners))
    return zone.model_copy(update={"area": Region(corners=corners)})


def _mirrored_mark(mark: Mark, width: float) -> Mark:
    """Squares counted from the other side; where the width is no whole number of squares, the nearest ones."""
    last = round(width / CELL_M) - 1
    runs = sorted((row, max(last - end, 0), max(last - begin, 0)) for row, begin, end in mark.runs)
    return mark.model_copy(update={"runs": tuple(runs)})


def _mirrored_outline(outline: Any, width: float) -> Any:
    if outline.kind == "gable" and outline.peak_m is not None:
        return outline.model_copy(update={"peak_m": _flip(width, outline.peak_m, 0.0)})
    if outline.kind == "lean-to":
        return outline.model_copy(update={"left_m": outline.right_m, "right_m": outline.left_m})
    if outline.kind == "dormer-cheek":
        return outline.model_copy(
            update={"front": OutlineSide.RIGHT if outline.front is OutlineSide.LEFT else OutlineSide.LEFT}
        )
    if outline.kind == "roof-slope":
        left: RoofEdge = outline.right
        return outline.model_copy(update={"left": left, "right": outline.left})
    if outline.kind == "free":
        right = max(x for x, _ in outline.corners)
        return outline.model_copy(update={"corners": tuple((right - x, y) for x, y in outline.corners)})
    return outline
