"""Coatings as data sheets, and the operations and systems that use them."""

from decimal import Decimal
from enum import StrEnum
from typing import Annotated, Self

from pydantic import Field, model_validator

from amber_gable.domain.base import HexColour, Id, Name, Note, Percent, Record
from amber_gable.domain.schools import Method


class Base(StrEnum):
    """What carries the binder: decides which clock the film dries by."""

    WATERBORNE = "waterborne"
    ALKYD = "alkyd"
    HYBRID = "hybrid"


class Container(Record):
    """A size the product is sold in. Litres and price in the company's currency."""

    litres: Annotated[float, Field(gt=0, le=1000)]
    price: Annotated[Decimal, Field(ge=0, max_digits=9, decimal_places=2)]


class Product(Record):
    """A data sheet. Temperatures °C, times h at 25 °C and 50 % RH for the recommended dry film (µm)."""

    code: Id
    name: Name
    maker: Name
    family: Name
    base: Base
    sheen: Name
    volume_solids_pct: Annotated[float, Field(gt=0, le=100)]
    dry_film_um: Annotated[float, Field(gt=0, le=2000)]
    air_min_c: float
    air_max_c: float
    surface_min_c: float
    surface_max_c: float
    rh_max_pct: Percent = 85.0
    spread_min_c: Annotated[float, Field(ge=0, le=20)] = 3.0
    touch_h: Annotated[float, Field(gt=0)]
    rain_ready_h: Annotated[float, Field(gt=0)]
    recoat_h: Annotated[float, Field(gt=0)]
    max_recoat_h: float | None = None
    cure_d: Annotated[float, Field(gt=0)]
    primer: bool = False
    containers: Annotated[tuple[Container, ...], Field(min_length=1)]

    @model_validator(mode="after")
    def _consistent(self) -> Self:
        if self.air_min_c >= self.air_max_c or self.surface_min_c >= self.surface_max_c:
            raise ValueError(f"product '{self.code}': a minimum temperature is not below its maximum")
        if not self.touch_h <= self.rain_ready_h or self.recoat_h < self.touch_h:
            raise ValueError(f"product '{self.code}': dry to touch must come before rain-ready and recoat")
        if self.max_recoat_h is not None and self.max_recoat_h <= self.recoat_h:
            raise ValueError(f"product '{self.code}': longest recoat time must be after the shortest")
        sizes = [c.litres for c in self.containers]
        if len(set(sizes)) != len(sizes):
            raise ValueError(f"product '{self.code}': a container size is listed twice")
        return self


class OperationKind(StrEnum):
    """Kinds of step; the labour table and the rules that must hold hang on the kind."""

    WASH = "wash"
    SCRAPE = "scrape"
    SAND = "sand"
    REPAIR = "repair"
    CAULK = "caulk"
    MASK = "mask"
    PRIME = "prime"
    COAT = "coat"

    @property
    def lays_film(self) -> bool:
        return self in (OperationKind.PRIME, OperationKind.COAT)


class Operation(Record):
    """One step of a system. `share` is the part of the zone it acts on; `wait_h` the fixed wait before the next step
    where nothing is computed to dry (washed wood, caulk). A coat takes the zone's finish colour unless it has its own.
    """

    id: Id
    name: Name
    kind: OperationKind
    product: Id | None = None
    method: Method | None = None
    share: Annotated[float, Field(gt=0, le=1)] = 1.0
    bare: bool = False
    colour: HexColour | None = None
    wait_h: Annotated[float, Field(ge=0, le=24 * 120)] = 0.0
    note: Note = ""

    @model_validator(mode="after")
    def _film_needs_product(self) -> Self:
        if self.kind.lays_film and (self.product is None or self.method is None):
            raise ValueError(f"operation '{self.id}': a {self.kind.value} needs a product and a method")
        if not self.kind.lays_film and self.product is not None:
            raise ValueError(f"operation '{self.id}': a {self.kind.value} takes no product")
        return self


class CoatingSystem(Record):
    """An ordered list of operations from wash to last coat."""

    id: Id
    name: Name
    operations: Annotated[tuple[Operation, ...], Field(min_length=1)]
    note: Note = ""

    @model_validator(mode="after")
    def _operations_unique(self) -> Self:
        ids = [o.id for o in self.operations]
        if len(set(ids)) != len(ids):
            raise ValueError(f"system '{self.id}': an operation id is used twice")
        return self
