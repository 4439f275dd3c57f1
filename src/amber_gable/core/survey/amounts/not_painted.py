"""What the items of a face that are not painted ask of the wall beside and behind them."""

from collections.abc import Iterable, Mapping
from math import ceil
from typing import NamedTuple

from amber_gable.core.survey.drawing.geometry import item_size
from amber_gable.domain.house.items import GutterRun, ShutterPair, SignBand
from amber_gable.domain.house.survey import Face, Item
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.scope import Leaving

_BRACKETS_M = 0.75
"""From one bracket of a gutter to the next."""
_ANCHORS = {"shutter-pair": 6, "sign-band": 6}
_USUAL_ANCHORS = 4
"""Fixings of a thing that is taken away; of a shutter three a leaf (docs/trade.md §19)."""
_BEHIND_GUTTER_M = 0.1
_ROUND_FIXINGS_M2 = 0.01


class Beside(NamedTuple):
    """Of a face: metres of edge along, and number and names of, what stays as it is; the same of what is taken away:
    its names, the holes it leaves, and the bare wall behind it, m²."""

    left_edge_m: float = 0.0
    left_count: int = 0
    left_names: str = ""
    gone_names: str = ""
    gone_holes: int = 0
    gone_m2: float = 0.0

    @property
    def facts(self) -> Mapping[str, object]:
        """Those that tell something, for the rules."""
        return {name: value for name, value in self._asdict().items() if value}


def beside(bundle: JobBundle, face: Face) -> Beside:
    """What lies in an opening is covered with it, and has its fixings in the frame."""
    if not bundle.job.left:
        return Beside()
    how = {x.item: x.leaving for x in bundle.job.left}
    items = [i for i in bundle.property.items_of(face.id) if i.id in how and not _in_opening(i, face)]
    left = [i for i in items if how.get(i.id) is Leaving.AS_IT_IS]
    gone = [i for i in items if how.get(i.id) is Leaving.TAKEN_AWAY]
    return Beside(
        left_edge_m=round(sum(_edge(i) for i in left), 1),
        left_count=len(left),
        left_names=_names(left),
        gone_names=_names(gone),
        gone_holes=sum(_holes(i) for i in gone),
        gone_m2=round(sum(_behind(i) for i in gone), 2),
    )


def _names(items: Iterable[Item]) -> str:
    return ", ".join(i.name for i in items)


def _edge(item: Item) -> float:
    width, height = item_size(item)
    return 2 * (width + height)


def _in_opening(item: Item, face: Face) -> bool:
    width, height = item_size(item)
    x, y = item.x_m + width / 2, item.y_m + height / 2
    return any(o.x_m <= x <= o.x_m + o.width_m and o.y_m <= y <= o.y_m + o.height_m for o in face.openings)


def _holes(item: Item) -> int:
    if isinstance(item.spec, GutterRun):
        return ceil(item.spec.length_m / _BRACKETS_M) + 2 * item.spec.downspouts
    return _ANCHORS.get(item.spec.kind, _USUAL_ANCHORS)


def _behind(item: Item) -> float:
    """What was covered and never saw paint or weather; round the fixings of what stood off the wall."""
    spec = item.spec
    if isinstance(spec, SignBand):
        return spec.width_m * spec.height_m
    if isinstance(spec, ShutterPair):
        return 2 * spec.leaf_width_m * spec.height_m
    if isinstance(spec, GutterRun):
        return spec.length_m * _BEHIND_GUTTER_M
    return _holes(item) * _ROUND_FIXINGS_M2
