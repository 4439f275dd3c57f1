"""What has a lane of weather: each face by its main part, and items whose weather is another than their wall's."""

from dataclasses import dataclass

from amber_gable.core.climate.job_climate import main_part, painted_where
from amber_gable.core.survey.amounts.items import item_area
from amber_gable.core.survey.amounts.painted import Key, part_key
from amber_gable.domain.house.items import ITEM_NAMES
from amber_gable.domain.house.survey import Face, Item, Zone
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.plan import Task
from amber_gable.domain.work.operation import Where


@dataclass(frozen=True)
class LanePart:
    """`part` stands for all of `keys`, which are alike; these are empty for a face, whose lane is for whatever has
    none of its own. `face`: with the id and the name of the lane, where it is one of items. `where`: of what does not
    stay on its wall."""

    face: Face
    part: Zone | Item
    where: Where | None = None
    keys: frozenset[Key] = frozenset()

    def takes(self, task: Task, own: frozenset[Key]) -> bool:
        """Whether a planned task is drawn in this lane; `own`: the parts with lanes of their own."""
        parts = frozenset(task.extent.parts if task.extent is not None else ())
        if self.keys:
            return bool(parts & self.keys)
        return task.face == self.face.id and not parts & own


def lane_parts(bundle: JobBundle) -> list[LanePart]:
    """Face by face: the face, then its items that are painted elsewhere, and, where no zone of it is worked on, those
    that are not like its main part; like items are put together."""
    out: list[LanePart] = []
    for face in bundle.property.faces:
        main = main_part(bundle, face)
        if main is None:
            continue
        out.append(LanePart(face, main, None if isinstance(main, Zone) else painted_where(bundle, main)))
        out += _of_items(bundle, face, main)
    return out


def _of_items(bundle: JobBundle, face: Face, main: Zone | Item) -> list[LanePart]:
    alike: dict[tuple[str, str, str, Where | None], list[Item]] = {}
    for item in bundle.property.items_of(face.id):
        finish = bundle.finish_of(*part_key(item))
        if finish is not None and item is not main:
            like = (item.spec.kind, item.substrate, finish.colour, painted_where(bundle, item))
            alike.setdefault(like, []).append(item)
    out = []
    for (kind, substrate, _, where), items in alike.items():
        like_main = isinstance(main, Item) and (main.spec.kind, main.substrate) == (kind, substrate)
        if (where is None and isinstance(main, Zone)) or (like_main and where is painted_where(bundle, main)):
            continue
        largest = max(items, key=lambda i: item_area(i.spec))
        name = largest.name if len(items) == 1 else f"{len(items)} × {ITEM_NAMES[kind].lower()}"
        named = f"{name}, {where.words}" if where is not None else name
        lane = face.model_copy(update={"id": f"item.{largest.id}", "name": named})
        out.append(LanePart(lane, largest, where, frozenset(part_key(i) for i in items)))
    return out
