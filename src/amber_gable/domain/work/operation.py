"""Steps of a coating system: what is done, how, on how much, and with which product."""

from enum import StrEnum
from typing import Annotated, Self

from pydantic import Field, model_validator

from amber_gable.domain.base import HexColour, Id, Name, Note, Record
from amber_gable.domain.paint.method import Method
from amber_gable.domain.units import Quantity


class OperationKind(StrEnum):
    """Kinds of step; the labour table and the rules that must hold hang on the kind."""

    FIT = "fit"
    PROTECT = "protect"
    WASH = "wash"
    STRIP = "strip"
    SCRAPE = "scrape"
    SAND = "sand"
    REPAIR = "repair"
    DUST = "dust"
    PUTTY = "putty"
    CAULK = "caulk"
    MASK = "mask"
    PRIME = "prime"
    COAT = "coat"
    CLEAN = "clean"

    @property
    def lays_film(self) -> bool:
        return self in (OperationKind.PRIME, OperationKind.COAT)

    @property
    def wets(self) -> bool:
        """Leaves the surface wet, so that what follows must wait for it to dry."""
        return self in (OperationKind.WASH, OperationKind.STRIP)


class Where(StrEnum):
    """Where a step is done that is not done in place, on what was taken down."""

    STANDS = "stands"
    UNDER_COVER = "under-cover"
    SHOP = "shop"

    @property
    def words(self) -> str:
        return {Where.STANDS: "on stands", Where.UNDER_COVER: "under cover", Where.SHOP: "in the shop"}[self]


class Technique(StrEnum):
    """How a step is done. Safety cards forbid techniques, not steps; core/specification/cautions/dangers.py says
    what each one does."""

    # round about the work
    FIT = "take-down-and-refit"
    TAKE_OUT = "take-out-and-hang"
    CUT_BACK = "cut-back-planting"
    COVER = "cover"
    CONTAIN = "contain"
    MASK = "tape-and-film"
    TAPE = "tape-an-edge"
    UNMASK = "unmask"
    MOVE = "move-while-fresh"
    DENIB = "de-nib"
    LAY_AGAIN = "lay-sheets-again"
    DAILY_CLEAN = "daily-hepa-clean-up"
    FINAL_CHECK = "final-check"
    INSPECT = "look-and-wait"
    LOOK_OVER = "look-over"
    # wet
    HOSE_WASH = "hose-wash"
    DAMP_WIPE = "damp-wipe"
    PRESSURE_WASH = "pressure-wash"
    BLEACH = "bleach"
    FUNGICIDE = "fungicide"
    STRIPPER = "caustic-stripper"
    SOLVENT_STRIPPER = "solvent-stripper"
    MILD_STRIPPER = "mild-stripper"
    POULTICE = "poultice-stripper"
    RESTORER = "deck-restorer"
    BRIGHTENER = "acid-brightener"
    DEGREASE = "degrease"
    ACID_ETCH = "acid-etch"
    # taking off
    ROTARY_NOZZLE = "rotary-nozzle"
    WET_SCRAPE = "wet-scrape"
    DRY_SCRAPE = "dry-scrape"
    WIRE_BRUSH = "wire-brush"
    WET_WIRE_BRUSH = "wet-wire-brush"
    CUT_OUT = "cut-out"
    WET_CUT_OUT = "wet-cut-out"
    RAKE_OUT = "rake-out"
    WET_RAKE_OUT = "wet-rake-out"
    DRILL = "drill"
    GRIND = "grind"
    HEPA_GRIND = "extracted-grind"
    GRIND_METAL = "grind-metal"
    HEAT_GUN = "heat-gun"
    OPEN_FLAME = "open-flame"
    # dulling and dusting
    WET_SAND = "wet-sand"
    HAND_SAND = "hand-sand"
    POWER_SAND = "power-sand"
    HEPA_SAND = "hepa-sand"
    DEGLOSSER = "deglosser"
    DRY_BRUSH = "brush-and-vacuum"
    BLOW_OFF = "blow-off"
    HEPA_VACUUM = "hepa-vacuum"
    # putting in and on
    FILL = "fill"
    GLAZE = "glaze"
    BEAD = "caulk-bead"
    SEAL = "seal-seams"
    BRUSH_ON = "brush-on"
    STIPPLE = "stippled-in"
    ROLL_ON = "roll-on"
    SPRAY_ON = "spray-on"
    AIR_SPRAY_ON = "air-spray-on"


LAYING = {
    Method.BRUSH: Technique.BRUSH_ON,
    Method.ROLLER: Technique.ROLL_ON,
    Method.AIRLESS: Technique.SPRAY_ON,
    Method.TURBINE: Technique.AIR_SPRAY_ON,
}
"""The technique of laying a film by each method."""


EARLY_FILMS = ("prime-stubs", "prime-nails")
"""Roles of primers on what was just bared, before the surface round it is dulled, so that it does not rust
and filler goes in early."""


class AmountUnit(StrEnum):
    """What an amount of its own is counted in."""

    M2 = "m2"
    M = "m"
    PIECES = "pieces"


UNIT_QUANTITY = {AmountUnit.M2: Quantity.AREA, AmountUnit.M: Quantity.RUN}
"""What an amount of its own is of, where it reads otherwise in another system of units."""


class Operation(Record):
    """One step of a system. `share` is the part of the surface it acts on; `amount` a figure of its own in `unit`
    (metres of caulk, holes to fill) where the step is not measured by surface. `wait_h` is the fixed wait before the
    next step where nothing is computed to dry (washed wood, caulk), `wait_until` the test that ends the wait. A coat
    takes the finish colour unless it has its own. `where` is not in place. A `possible` step is only done where the
    look before it asks for it, and is told apart. `because` says in words which findings asked for the step.
    """

    id: Id
    name: Name
    kind: OperationKind
    technique: Technique | None = None
    product: Id | None = None
    method: Method | None = None
    back_roll: bool = False
    share: Annotated[float, Field(gt=0, le=1)] = 1.0
    amount: Annotated[float, Field(gt=0, le=100_000)] | None = None
    unit: AmountUnit | None = None
    bare: bool = False
    where: Where | None = None
    possible: bool = False
    colour: HexColour | None = None
    wait_h: Annotated[float, Field(ge=0, le=24 * 120)] = 0.0
    wait_until: Annotated[str, Field(max_length=200)] = ""
    note: Note = ""
    because: Note = ""

    @model_validator(mode="after")
    def _film_needs_product(self) -> Self:
        if self.kind.lays_film and (self.product is None or self.method is None):
            raise ValueError(f"operation '{self.id}': a {self.kind.value} needs a product and a method")
        if not self.kind.lays_film and self.product is not None:
            raise ValueError(f"operation '{self.id}': a {self.kind.value} takes no product")
        if (self.amount is None) != (self.unit is None):
            raise ValueError(f"operation '{self.id}': an amount needs its unit, and a unit its amount")
        if self.amount is not None and self.kind.lays_film:
            raise ValueError(f"operation '{self.id}': a {self.kind.value} is measured by its share of the surface")
        return self


class CoatingSystem(Record):
    """An ordered list of operations from wash to last coat."""

    id: Id
    name: Name
    operations: Annotated[tuple[Operation, ...], Field(min_length=1)]
    note: Note = ""

    @model_validator(mode="after")
    def _operations_unique(self) -> Self:
        unique_operations(self.operations, f"system '{self.id}'")
        return self


def unique_operations(operations: tuple[Operation, ...], where: str) -> None:
    """Raises ValueError when two steps share an id."""
    ids = [o.id for o in operations]
    if len(set(ids)) != len(ids):
        raise ValueError(f"{where}: an operation id is used twice")
