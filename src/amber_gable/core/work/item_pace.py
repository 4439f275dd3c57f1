"""Items as the trade counts them: by the leaf, the window, the pair, the door, the metre (docs/trade.md §17)."""

from typing import NamedTuple

from amber_gable.core.work.pace import Factor
from amber_gable.domain.house.items import (
    Casement,
    DoorItem,
    GarageDoor,
    GutterRun,
    ItemSpec,
    Railing,
    SashWindow,
    ShutterPair,
)
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.operation import OperationKind, Technique
from amber_gable.domain.work.rates import PACE_FACTORS, RATES

_K, _T = OperationKind, Technique
SINGLE_GARAGE_M = 2.5
_DOORS = {"panelled-door": "door-panelled", "flush-door": "door-flush", "glazed-door": "door-glazed"}


class Counted(NamedTuple):
    """So many of what a rate counts, what part of it is meant, and by its code what makes it slower."""

    code: str
    amount: float
    part: Factor | None = None
    slower: str = ""


def coat_of(spec: ItemSpec, method: Method) -> Counted | None:
    """One coat; None for an item that is measured by its surface."""
    spray = method.sprays
    if isinstance(spec, DoorItem):
        return Counted("door-spray" if spray else _DOORS[spec.kind], spec.sides)
    if isinstance(spec, SashWindow | Casement):
        return Counted(f"sash-{_panes(spec)}", windows(spec))
    if isinstance(spec, ShutterPair):
        if spray:
            return Counted("shutter-spray", 2)
        return Counted("shutter-brush", 2, slower="louvred" if spec.louvred else "")
    if isinstance(spec, GarageDoor):
        return Counted("garage-spray" if spray else "garage-roller", garage_doors(spec) * spec.sides)
    if isinstance(spec, GutterRun):
        return Counted("gutter-spray" if spray else "gutter-brush", gutter_m(spec))
    if isinstance(spec, Railing):
        return Counted("railing-spray" if spray else "railing-brush", spec.length_m)
    return None


def coat_hours(spec: ItemSpec, method: Method) -> float:
    """Hours for one coat by the trade's rates, from the ground; 0 for an item that is measured by its surface."""
    counted = coat_of(spec, method)
    if counted is None:
        return 0.0
    slower = PACE_FACTORS[counted.slower].value if counted.slower else 1.0
    return counted.amount / RATES[counted.code].per_hour * (counted.part.value if counted.part else 1.0) * slower


def fitting_of(spec: ItemSpec, technique: Technique | None, kind: OperationKind, *, high: bool) -> Counted | None:
    """Taking off, freeing, moving and putting back, in the figures the trade has for it; None where it has none."""
    if technique is _T.TAKE_OUT:
        return _taken_out(spec)
    if isinstance(spec, SashWindow | Casement):
        return _window_step(spec, technique, kind)
    if isinstance(spec, GarageDoor) and kind is _K.WASH:
        return Counted("garage-ready", _garage_ready(spec), Factor("a third of it: washing", 1 / 3, part=True))
    if technique is not _T.FIT:
        return None
    if isinstance(spec, ShutterPair):
        return Counted(
            "shutter-hang-high" if high else "shutter-hang", 1, Factor("half of it: one way", 0.5, part=True)
        )
    if isinstance(spec, GarageDoor):
        return Counted("garage-ready", _garage_ready(spec), Factor("a third of it: one way", 1 / 3, part=True))
    if isinstance(spec, GutterRun):
        return Counted("fitting", max(spec.downspouts, 1))
    return None


def _taken_out(spec: ItemSpec) -> Counted | None:
    if isinstance(spec, DoorItem):
        return Counted("leaf-off", 1)
    if isinstance(spec, SashWindow | Casement):
        return Counted("sash-out", 1)
    return Counted("shutter-carry", 1) if isinstance(spec, ShutterPair) else None


def _window_step(spec: SashWindow | Casement, technique: Technique | None, kind: OperationKind) -> Counted | None:
    if technique is _T.MOVE:
        return Counted("sash-move", 1)
    prep = f"sash-prep-{_panes(spec)}"
    if kind is _K.SCRAPE and technique in (_T.CUT_OUT, _T.WET_CUT_OUT):
        return Counted(prep, windows(spec), Factor("45 % of it: freeing and scraping", 0.45, part=True))
    if technique is _T.DENIB:
        return Counted(prep, windows(spec), Factor("10 % of it: de-nibbing", 0.1, part=True))
    if kind is _K.SAND:
        return Counted(prep, windows(spec), Factor("30 % of it: dulling", 0.3, part=True))
    if kind is _K.DUST:
        return Counted(prep, windows(spec), Factor("10 % of it: dusting", 0.1, part=True))
    if kind is _K.WASH:
        return Counted(prep, windows(spec), Factor("15 % of it: washing", 0.15, part=True))
    return None


def _panes(spec: SashWindow | Casement) -> int:
    panes = spec.panes_across * spec.panes_down
    return 1 if panes == 1 else 4 if panes <= 4 else 6


def windows(spec: SashWindow | Casement) -> float:
    """Windows of two sashes and a frame that it comes to: a casement's frame counts as a leaf."""
    leaves = 1.0 if isinstance(spec, SashWindow) else (spec.leaves + 1) / 3
    return leaves * spec.sides


def garage_doors(spec: GarageDoor) -> float:
    """Single doors that it is as wide as; none is less than one."""
    return max(spec.width_m / SINGLE_GARAGE_M, 1.0)


def _garage_ready(spec: GarageDoor) -> float:
    """1.5 h for a single door, 2 h for a double one, in single doors."""
    return 1 + (garage_doors(spec) - 1) / 3


def gutter_m(spec: GutterRun) -> float:
    """Gutter and downspouts, m."""
    return spec.length_m + spec.downspouts * spec.downspout_m
