"""What there is to paint on a face, in figures."""

from dataclasses import dataclass
from typing import Any

from amber_gable.core.survey.amounts.items import item_area, item_parts
from amber_gable.core.survey.amounts.takeoff import ZoneArea, face_areas
from amber_gable.core.survey.blocks.gutters import UsualGutter, usual_gutter
from amber_gable.core.survey.findings.essentials import missing_essentials
from amber_gable.domain.house.items import ITEM_NAMES
from amber_gable.domain.house.survey import Face
from amber_gable.domain.job.job import JobBundle

__all__ = ["missing_essentials"]


@dataclass(frozen=True)
class ItemLine:
    """An item with its parts and their surface, m²."""

    id: str
    name: str
    kind: str
    parts: tuple[Any, ...]
    area_m2: float


def item_lines(bundle: JobBundle, face: Face) -> list[ItemLine]:
    return [
        ItemLine(i.id, i.name, ITEM_NAMES[i.spec.kind], item_parts(i.spec), item_area(i.spec))
        for i in bundle.property.items_of(face.id)
    ]


def hanging_gutter(face: Face) -> UsualGutter:
    """Where a gutter usually hangs on a wall, and how long it is."""
    return usual_gutter(face)


def face_figures(bundle: JobBundle, face: Face) -> dict[str, Any]:
    """Zones and items of a face with their areas, and their sum."""
    areas: list[ZoneArea] = list(face_areas(bundle.property, face, bundle.deduction).values())
    items = item_lines(bundle, face)
    items_m2 = sum(i.area_m2 for i in items)
    total = sum(a.surface_m2 for a in areas) + items_m2
    return {"areas": areas, "items": items, "items_m2": items_m2, "total_m2": total}


def items_left(bundle: JobBundle) -> tuple[int, float]:
    """How many items nobody decided on yet, and their surface, m²."""
    open_ = set(bundle.undecided)
    left = [i for i in bundle.property.items if ("item", i.id) in open_]
    return len(left), sum(item_area(i.spec) for i in left)
