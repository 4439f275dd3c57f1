"""Person-hours of one operation from the trade's median rates (handbook §17), itemised: amount, rate, factors."""

from dataclasses import dataclass

from amber_gable.domain.method import Method
from amber_gable.domain.operation import AmountUnit, Operation, OperationKind, Technique

_K, _T = OperationKind, Technique
# m² of the acted-on surface per person and hour.
_PREPARATION_RATE = {
    _K.FIT: 60.0,
    _K.WASH: 70.0,
    _K.STRIP: 10.0,
    _K.SCRAPE: 5.0,
    _K.SAND: 20.0,
    _K.REPAIR: 10.0,
    _K.DUST: 150.0,
    _K.PUTTY: 60.0,
    _K.CAULK: 60.0,
    _K.MASK: 60.0,
    _K.PROTECT: 60.0,
    _K.CLEAN: 60.0,
}
_WAY_RATE = {
    # m² per person and hour where the way of working decides
    _T.HOSE_WASH: 30.0,
    _T.PRESSURE_WASH: 70.0,
    _T.BLEACH: 40.0,
    _T.FUNGICIDE: 40.0,
    _T.BRIGHTENER: 40.0,
    _T.DEGREASE: 30.0,
    _T.HEPA_VACUUM: 25.0,
    _T.DAMP_WIPE: 25.0,
    _T.DRY_BRUSH: 25.0,
    _T.BLOW_OFF: 120.0,
}
_LEVEL_WASH_RATE = 40.0
_TO_BARE_RATE = 1.5
_CAREFUL = {_T.WET_SCRAPE, _T.WET_SAND, _T.HEPA_SAND, _T.WET_WIRE_BRUSH, _T.WET_CUT_OUT}
_CARE = 1.5
"""Wet or shrouded work takes half as long again (handbook §17, lead-safe work)."""
_WAY_PIECE_HOURS = {
    # hours for one face and day, one opening, one piece
    _T.CONTAIN: 0.75,
    _T.DAILY_CLEAN: 0.5,
    _T.FINAL_CHECK: 0.25,
    _T.COVER: 0.375,
    _T.CUT_BACK: 0.5,
    _T.UNMASK: 0.025,
    _T.GRIND_METAL: 0.15,
    _T.CUT_OUT: 0.4,
    _T.WET_CUT_OUT: 0.4,
    _T.WIRE_BRUSH: 1 / 30,
    _T.WET_WIRE_BRUSH: 1 / 30,
    _T.FILL: 1 / 20,
}
_WAY_METRES = {
    # metres per person and hour: out and in again together come to the handbook's 25 m of caulk, 6 m of putty
    (_K.SCRAPE, _T.CUT_OUT): 40.0,
    (_K.SCRAPE, _T.WET_CUT_OUT): 40.0,
    (_K.CAULK, _T.BEAD): 66.0,
    (_K.PUTTY, _T.GLAZE): 7.0,
    (_K.REPAIR, _T.WET_RAKE_OUT): 20.0,
    (_K.REPAIR, _T.FILL): 20.0,
}
_UNIT_RATE = {
    # metres, pieces or m² of their own per person and hour
    (_K.CAULK, AmountUnit.M): 25.0,
    (_K.PUTTY, AmountUnit.M): 6.0,
    (_K.REPAIR, AmountUnit.M): 10.0,
    (_K.REPAIR, AmountUnit.M2): 0.5,
    (_K.REPAIR, AmountUnit.PIECES): 12.0,
    (_K.MASK, AmountUnit.PIECES): 12.0,
    (_K.FIT, AmountUnit.PIECES): 4.0,
}
_MASK_FOR_SPRAY_RATE = 6.0
_FILM_RATE = {Method.BRUSH: 11.0, Method.ROLLER: 28.0, Method.AIRLESS: 90.0, Method.TURBINE: 45.0}
_BACK_ROLLED_RATE = 40.0
_LEVEL_RATE = {Method.BRUSH: 22.0, Method.ROLLER: 20.0}
_PIECE_HOURS = {
    # hours for one coat on one piece, by hand and sprayed
    "panelled-door": (0.75, 0.35),
    "flush-door": (0.45, 0.25),
    "glazed-door": (0.70, 0.50),
    "sash-window": (1.25, 1.25),
    "casement": (1.0, 1.0),
    "shutter-pair": (1.1, 0.30),
    "garage-door": (1.0, 0.15),
}
_PATCHED = 0.5
"""Share of a zone below which a primer goes on in spots, at 10 m²/h whatever the method."""
_SPOT_RATE = 10.0


SOURCE = "handbook §17"


@dataclass(frozen=True)
class Factor:
    """What makes an hour's work more or less than usual, by name."""

    name: str
    value: float


@dataclass(frozen=True)
class Rate:
    """What one person does in an hour: m², m or pieces, and where the figure comes from."""

    per_hour: float
    unit: AmountUnit
    source: str


@dataclass(frozen=True)
class Labour:
    """The work of one operation: so much of a unit at a rate, and the factors on its time."""

    amount: float
    rate: Rate
    factors: tuple[Factor, ...] = ()

    @property
    def unit(self) -> AmountUnit:
        return self.rate.unit

    @property
    def hours(self) -> float:
        """Of one person."""
        out = self.amount / self.rate.per_hour
        for factor in self.factors:
            out *= factor.value
        return out


def piece_hours(item_kind: str, *, sprayed: bool) -> float:
    """Hours for one coat on one piece of an item that is counted; KeyError for one measured by surface."""
    by_hand, by_spray = _PIECE_HOURS[item_kind]
    return by_spray if sprayed else by_hand


def height_factor(height_m: float) -> tuple[Factor, ...]:
    """Slower above 3 m and 6 m from a ladder."""
    if height_m > 6:
        return (Factor("above 6 m", 1.35),)
    return (Factor("above 3 m", 1.15),) if height_m > 3 else ()


def texture_factor(texture: str, profile_factor: float) -> tuple[Factor, ...]:
    """Heavy texture takes longer: 1.3 from a profile factor of 1.3, up to 1.8 at 1.8; nothing on the rest."""
    heavy = texture == "stucco" and profile_factor >= 1.3
    return (Factor("heavy texture", min(profile_factor, 1.8)),) if heavy else ()


def _care(operation: Operation) -> tuple[Factor, ...]:
    return (Factor("wet or shrouded", _CARE),) if operation.technique in _CAREFUL else ()


def labour(
    operation: Operation,
    surface_m2: float,
    height_m: float,
    texture: tuple[Factor, ...] = (),
    *,
    level: bool = False,
    item_kind: str = "",
    pieces: int = 1,
) -> Labour:
    """The work of an operation on a surface of m² (its share is taken of it), height in m; on `pieces` of an item where
    the trade counts them. `level`: a deck or floor."""
    high = height_factor(height_m)
    if operation.amount is not None and operation.unit is not None:
        rate, care = _unit_rate(operation, operation.unit)
        return Labour(operation.amount, rate, (*care, *high))
    if operation.kind.lays_film and operation.method is not None and item_kind in _PIECE_HOURS:
        sprayed = operation.method.sprays
        hours, how = piece_hours(item_kind, sprayed=sprayed), "sprayed" if sprayed else "by hand"
        rate = Rate(1 / hours, AmountUnit.PIECES, f"{SOURCE}, {item_kind.replace('-', ' ')} {how}")
        return Labour(pieces * operation.share, rate, high)
    rate, care = _surface_rate(operation, level=level)
    return Labour(surface_m2 * operation.share, rate, (*care, *high, *texture))


def _of(per_hour: float, unit: AmountUnit, what: str) -> Rate:
    return Rate(per_hour, unit, f"{SOURCE}, {what.replace('-', ' ')}")


def _surface_rate(operation: Operation, *, level: bool) -> tuple[Rate, tuple[Factor, ...]]:
    """Acted-on m² one person does in an hour; `level` for decks and floors."""
    kind, way, method = operation.kind, operation.technique, operation.method
    if not kind.lays_film or method is None:
        if kind is _K.WASH and level:
            return _of(_LEVEL_WASH_RATE, AmountUnit.M2, "washing a deck"), ()
        if kind is _K.SCRAPE and way in (_T.POWER_SAND, _T.HEPA_SAND):
            return _of(_TO_BARE_RATE, AmountUnit.M2, "sanding to bare"), ()
        if way in _WAY_RATE:
            return _of(_WAY_RATE[way], AmountUnit.M2, way.value), ()
        return _of(_PREPARATION_RATE[kind], AmountUnit.M2, kind.value), _care(operation)
    if operation.share < _PATCHED:
        return _of(_SPOT_RATE, AmountUnit.M2, "spots"), ()
    if operation.back_roll:
        return _of(_BACK_ROLLED_RATE, AmountUnit.M2, "sprayed and back-rolled"), ()
    if level and method in _LEVEL_RATE:
        return _of(_LEVEL_RATE[method], AmountUnit.M2, f"{method.value} on the level"), ()
    return _of(_FILM_RATE[method], AmountUnit.M2, method.value), ()


def _unit_rate(operation: Operation, unit: AmountUnit) -> tuple[Rate, tuple[Factor, ...]]:
    """Units of its own one person does in an hour."""
    kind, way, care = operation.kind, operation.technique, _care(operation)
    if kind is _K.MASK and operation.method is Method.AIRLESS:
        return _of(_MASK_FOR_SPRAY_RATE, unit, "masking for the sprayer"), ()
    if unit is AmountUnit.PIECES and way in _WAY_PIECE_HOURS:
        return _of(1 / _WAY_PIECE_HOURS[way], unit, way.value), care
    if unit is AmountUnit.M and way is not None and (kind, way) in _WAY_METRES:
        return _of(_WAY_METRES[kind, way], unit, way.value), care
    return _of(_UNIT_RATE.get((kind, unit), _PREPARATION_RATE.get(kind, 10.0)), unit, kind.value), care
