"""Person-hours of one operation on one part, itemised: amount, rate, factors. Which rate an operation goes by, and in
what it is counted; the figures are domain/work/rates.py."""

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from amber_gable.core.survey.amounts.painted import PaintedPart
from amber_gable.core.work.item_pace import Counted, coat_of, fitting_of
from amber_gable.core.work.pace import USUAL_PACE, Factor, Pace
from amber_gable.core.work.waits import WHOLE
from amber_gable.domain.house.items import ShutterPair
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Item
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.access import REACHES
from amber_gable.domain.work.operation import AmountUnit, Operation, OperationKind, Technique
from amber_gable.domain.work.rates import Rate

_K, _T = OperationKind, Technique
_ON_THE_GROUND = (_T.CONTAIN, _T.LAY_AGAIN, _T.DAILY_CLEAN, _T.FINAL_CHECK, _T.COVER, _T.CUT_BACK, _T.INSPECT)
_FROM_THE_GROUND = (_K.WASH, _K.PROTECT, _K.CLEAN)
"""Reached with a brush or lance on a pole, or round the foot of the wall: no ladder is moved for it."""
_WET = (_T.WET_SCRAPE, _T.WET_SAND, _T.HEPA_SAND, _T.WET_WIRE_BRUSH, _T.WET_RAKE_OUT)
_BY_WAY = {
    _T.HOSE_WASH: "wash-hose",
    _T.PRESSURE_WASH: "wash-pressure",
    _T.BLEACH: "growth",
    _T.FUNGICIDE: "growth",
    _T.BRIGHTENER: "brighten",
    _T.DEGREASE: "degrease",
    _T.ACID_ETCH: "degrease",
    _T.HEPA_VACUUM: "hepa-wipe",
    _T.DAMP_WIPE: "damp-wipe",
    _T.DRY_BRUSH: "dry-brush",
    _T.BLOW_OFF: "blow",
    _T.STRIPPER: "strip",
    _T.SOLVENT_STRIPPER: "strip",
    _T.MILD_STRIPPER: "strip",
    _T.POULTICE: "strip",
    _T.RESTORER: "strip",
    _T.DEGLOSSER: "deglosser",
    _T.WIRE_BRUSH: "wire-brush",
    _T.WET_WIRE_BRUSH: "wire-brush",
    _T.COVER: "cover",
    _T.CONTAIN: "contain",
    _T.LAY_AGAIN: "sheets-again",
    _T.DAILY_CLEAN: "daily-hepa",
    _T.FINAL_CHECK: "final-check",
    _T.CUT_BACK: "cut-back",
    _T.UNMASK: "unmask",
    _T.GRIND_METAL: "stub",
    _T.MOVE: "sash-move",
    _T.SEAL: "roof-seams",
    _T.DENIB: "denib",
    _T.INSPECT: "look",
    _T.LOOK_OVER: "look-near",
}
_BY_KIND = {
    _K.FIT: "fitting",
    _K.WASH: "wash-pressure",
    _K.STRIP: "strip",
    _K.SCRAPE: "scrape",
    _K.SAND: "sand",
    _K.REPAIR: "render",
    _K.DUST: "blow",
}
_COUNTED = {
    (_K.SCRAPE, AmountUnit.M): "caulk-out",
    (_K.CAULK, AmountUnit.M): "caulk-in",
    (_K.PUTTY, AmountUnit.M): "putty-in",
    (_K.REPAIR, AmountUnit.M): "crack-fill",
    (_K.REPAIR, AmountUnit.M2): "rot",
    (_K.REPAIR, AmountUnit.PIECES): "spot-fill",
    (_K.DUST, AmountUnit.M): "crack-dust",
    (_K.FIT, AmountUnit.PIECES): "fitting",
    (_K.MASK, AmountUnit.PIECES): "mask-brush",
    (_K.MASK, AmountUnit.M): "edge-tape",
    (_K.CLEAN, AmountUnit.M): "edge-untape",
}
_COUNTED_BY_WAY = {
    (_T.RAKE_OUT, AmountUnit.M): "crack-open",
    (_T.WET_RAKE_OUT, AmountUnit.M): "crack-open",
    (_T.WIRE_BRUSH, AmountUnit.PIECES): "nail-head",
    (_T.DRILL, AmountUnit.PIECES): "anchor",
    (_T.WET_WIRE_BRUSH, AmountUnit.PIECES): "nail-head",
}
_FILM = {Method.BRUSH: "brush", Method.ROLLER: "roller", Method.AIRLESS: "airless", Method.TURBINE: "turbine"}
_TRIM = {
    Method.BRUSH: "trim-brush", Method.ROLLER: "trim-roller", Method.AIRLESS: "trim-spray", Method.TURBINE: "trim-spray"
}  # fmt: skip
_LEVEL = {Method.BRUSH: "pole-brush", Method.ROLLER: "floor-roller"}
_PATCHED = 0.5
"""Share of a part below which a primer goes on in spots, whatever the method."""
TRIM_GIRTH_M = 0.3
"""Wider boards (a soffit) are worked by their surface."""
LEVEL_DEG = 10.0
_SCATTERED = 2.0
"""Patches lie about: a step on a quarter of a wall takes the ladder along half of it."""
_FACE_M = 10.0
"""Width of a face that covering takes the usual time for: a quarter of an hour for a small one, half for a long one."""


@dataclass(frozen=True)
class Labour:
    """The work of one operation: so much of a unit at a rate, and the factors on its time."""

    amount: float
    rate: Rate
    factors: tuple[Factor, ...] = ()

    @property
    def unit(self) -> AmountUnit:
        return self.rate.unit

    @cached_property
    def hours(self) -> float:
        """Of one person."""
        out = self.amount / self.rate.per_hour
        for factor in self.factors:
            out *= factor.value
        return out


def part_labour(part: PaintedPart, operation: Operation, pace: Pace = USUAL_PACE) -> Labour:
    """The work of an operation on a part, wherever the trade counts it: by the piece, the metre or the surface."""
    counted = _counted(part, operation)
    by_surface = counted is None
    if counted is None:
        # What fails is a share of what is there; what is done all over is done round the openings too.
        surface = part.worked_m2 if operation.share >= WHOLE else part.surface_m2
        counted = Counted(_surface_code(part, operation), surface * operation.share)
    return Labour(
        counted.amount,
        pace.rates[counted.code],
        (
            *((counted.part,) if counted.part else ()),
            *((pace.factor(counted.slower),) if counted.slower else ()),
            *((pace.factor("wet"),) if operation.technique in _WET else ()),
            *((pace.factor("misted"),) if operation.technique is _T.WET_CUT_OUT else ()),
            *((pace.factor("stippled"),) if operation.technique is _T.STIPPLE else ()),
            *(_high(part, operation, pace)),
            *(_texture(part.substrate, pace) if by_surface else ()),
            *_pitch(part, operation, pace),
            *pace.on_everything(),
        ),
    )


def moves(part: PaintedPart, operations: tuple[Operation, ...], pace: Pace = USUAL_PACE) -> Labour | None:
    """Moves of ladder, tower or lift in one round of a part, for operations done in one go; None where none is
    needed."""
    up = [o for o in operations if at_height(part, o) and o.kind not in _FROM_THE_GROUND]
    if not up:
        return None
    sprayed = all(o.method is not None and o.method.sprays for o in up)
    round_ = pace.places(part.heights, part.face.id, sprayed=sprayed)
    places = max(_places(part, o, round_) for o in up)
    rate = pace.rates[REACHES[pace.way_up(part.face.id)].move]
    return Labour(places, rate, pace.on_everything()) if places > 0 else None


def _places(part: PaintedPart, operation: Operation, round_: float) -> float:
    """Places that one step takes of a whole round: patches lie about, and a few spots are a few places."""
    if part.item_kind:
        return round_
    if operation.amount is not None:
        return min(round_, operation.amount * part.heights.above_3)
    return round_ * min(1.0, _SCATTERED * operation.share)


def at_height(part: PaintedPart, operation: Operation) -> bool:
    """Whether the step is done up on the wall. What was taken down is worked on the ground, as shutters always are; the
    time to take them off upstairs and hang them again has the ladder in it."""
    shutters = isinstance(part.part, Item) and isinstance(part.part.spec, ShutterPair)
    down = shutters or operation.where is not None
    return part.heights.high and operation.technique not in _ON_THE_GROUND and not down


def _counted(part: PaintedPart, operation: Operation) -> Counted | None:
    """What is not measured by surface."""
    kind, way, method = operation.kind, operation.technique, operation.method
    if isinstance(part.part, Item):
        spec = part.part.spec
        if kind.lays_film and method is not None:
            coat = coat_of(spec, method)
            if coat is not None:
                return coat._replace(amount=coat.amount * part.pieces * operation.share)
        elif operation.unit in (None, AmountUnit.PIECES):
            fitting = fitting_of(spec, way, kind, high=part.heights.high)
            if fitting is not None:
                return fitting._replace(amount=fitting.amount * part.pieces * operation.share)
    if operation.amount is not None and operation.unit is not None:
        return Counted(_unit_code(part, operation, operation.unit), operation.amount, _face_width(part, operation))
    narrow = part.trim_m > 0 and part.surface_m2 <= part.trim_m * TRIM_GIRTH_M
    if narrow and kind.lays_film and method is not None and operation.share >= _PATCHED:
        return Counted(_TRIM[method], part.trim_m * operation.share)
    return None


def _unit_code(part: PaintedPart, operation: Operation, unit: AmountUnit) -> str:
    kind, way = operation.kind, operation.technique
    if kind is _K.MASK and not part.face.is_wall:
        return "floor-edge"
    if kind is _K.MASK and operation.method is Method.AIRLESS and unit is AmountUnit.PIECES:
        return "mask-spray"
    if kind is _K.SCRAPE and unit is AmountUnit.M and isinstance(part.part, Item) and "putty" in operation.id:
        return "putty-out"
    if way is not None and (way, unit) in _COUNTED_BY_WAY:
        return _COUNTED_BY_WAY[way, unit]
    if unit is AmountUnit.PIECES and way is not None and way in _BY_WAY:
        return _BY_WAY[way]
    return _COUNTED.get((kind, unit), "fitting")


def _surface_code(part: PaintedPart, operation: Operation) -> str:
    kind, way, method = operation.kind, operation.technique, operation.method
    level = _is_level(part)
    if not kind.lays_film or method is None:
        if kind is _K.WASH and level:
            return "wash-deck"
        if kind is _K.SCRAPE and way in (_T.POWER_SAND, _T.HEPA_SAND):
            return "to-bare"
        if operation.id == "feather":
            return "feather"
        return _BY_WAY[way] if way is not None and way in _BY_WAY else _BY_KIND.get(kind, "general")
    if operation.share < _PATCHED:
        return "spot-prime"
    if operation.back_roll:
        return "back-rolled"
    if "roof" in SUBSTRATES[part.substrate].tags and method.sprays:
        return "roof-spray"
    return _LEVEL.get(method, _FILM[method]) if level else _FILM[method]


def _is_level(part: PaintedPart) -> bool:
    """A deck or floor."""
    return part.face.tilt_deg < LEVEL_DEG and not part.item_kind and "roof" not in SUBSTRATES[part.substrate].tags


def _high(part: PaintedPart, operation: Operation, pace: Pace) -> tuple[Factor, ...]:
    return pace.high(part.heights, part.face.id) if at_height(part, operation) else ()


def _texture(substrate: str, pace: Pace) -> tuple[Factor, ...]:
    """Nothing up to a medium texture, 1.3 at a profile factor of 1.5, 1.8 at 1.8; masonry and render."""
    kind = SUBSTRATES[substrate]
    if kind.texture not in ("stucco", "brick"):
        return ()
    heavy, heaviest = pace.factors["heavy-texture"].value, pace.factors["heaviest-texture"].value
    value = float(np.interp(kind.profile_factor, (1.3, 1.5, 1.8), (1.0, heavy, heaviest)))
    return (Factor("heavy texture", value),) if value > 1 else ()


def _pitch(part: PaintedPart, operation: Operation, pace: Pace) -> tuple[Factor, ...]:
    """On a roof one works the slower the steeper it is."""
    stands_on_it = LEVEL_DEG <= part.face.tilt_deg < 85 and operation.technique not in _ON_THE_GROUND
    if part.item_kind or not stands_on_it:
        return ()
    for code, least in (("pitch-35", 35.0), ("pitch-20", 20.0)):
        if part.face.tilt_deg >= least:
            return (pace.factor(code),)
    return ()


def _face_width(part: PaintedPart, operation: Operation) -> Factor | None:
    if operation.technique is not _T.COVER:
        return None
    value = min(max(part.face.width_m / _FACE_M, 2 / 3), 4 / 3)
    return Factor(f"a face {part.face.width_m:.1f} m long", value)
