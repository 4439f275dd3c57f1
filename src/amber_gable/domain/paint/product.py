"""Coatings as data sheets (docs/trade.md §5)."""

from decimal import Decimal
from enum import StrEnum
from typing import Annotated, Self

from pydantic import Field, model_validator

from amber_gable.domain.base import Fraction, HexColour, Id, Name, Note, Percent, Record
from amber_gable.domain.paint.families import Family
from amber_gable.domain.paint.method import Method
from amber_gable.domain.units import Quantity

Hours = Annotated[float, Field(gt=0, le=24 * 400)]
Celsius = Annotated[float, Field(ge=-40, le=120)]


class Base(StrEnum):
    """What carries the binder: decides which clock the film dries by."""

    WATERBORNE = "waterborne"
    ALKYD = "alkyd"
    HYBRID = "hybrid"
    SOLVENT_ACRYLIC = "solvent-acrylic"
    SHELLAC = "shellac"
    SILICATE = "silicate"
    ELASTOMERIC = "elastomeric"
    CEMENT = "cement"


class Hazard(StrEnum):
    """What the sheet warns of; safety cards hang on it."""

    OILY_RAGS = "oily-rags"
    FLAMMABLE = "flammable"
    STRONG_FUMES = "strong-fumes"
    CAUSTIC = "caustic"
    IRRITANT = "irritant"


class Container(Record):
    """A size the product is sold in. Litres and price in the company's currency."""

    litres: Annotated[float, Field(gt=0, le=1000)]
    price: Annotated[Decimal, Field(ge=0, max_digits=9, decimal_places=2)]


class Product(Record):
    """A data sheet. Temperatures °C, times h at 25 °C and 50 % RH for the recommended dry film (µm), spread m²/L,
    density kg/L, VOC g/L. `substrates` are tags of surfaces it may go on (none: as its family usually does);
    `contrast` is the share of the old colour one coat hides at the recommended film, where the sheet gives it."""

    code: Id
    name: Name
    maker: Name
    family: Family
    base: Base
    sheen: Name
    volume_solids_pct: Annotated[float, Field(gt=0, le=100)]
    density_kg_l: Annotated[float, Field(gt=0.5, le=3)] | None = None
    dry_film_um: Annotated[float, Field(gt=0, le=2000)]
    spread_low_m2_l: Annotated[float, Field(gt=0, le=40)] | None = None
    spread_high_m2_l: Annotated[float, Field(gt=0, le=40)] | None = None
    coats: Annotated[int, Field(ge=1, le=6)] | None = None
    air_min_c: Celsius
    air_max_c: Celsius
    surface_min_c: Celsius
    surface_max_c: Celsius
    rh_max_pct: Percent = 85.0
    spread_min_c: Annotated[float, Field(ge=0, le=20)] = 3.0
    hold_h: Annotated[float, Field(ge=0, le=72)] | None = None
    moisture_max_pct: Annotated[float, Field(gt=0, le=40)] | None = None
    touch_h: Hours
    rain_ready_h: Hours
    recoat_h: Hours
    max_recoat_h: Hours | None = None
    foot_h: Hours | None = None
    cure_d: Annotated[float, Field(gt=0, le=400)]
    thinning_max_pct: Annotated[float, Field(ge=0, le=50)] = 0.0
    voc_g_l: Annotated[float, Field(ge=0, le=900)] | None = None
    tips: Annotated[str, Field(max_length=60)] = ""
    methods: tuple[Method, ...] = ()
    substrates: Annotated[tuple[str, ...], Field(max_length=40)] = ()
    primer: bool = False
    self_priming: bool = False
    vinyl_safe: bool = False
    vinyl_colours: Annotated[tuple[HexColour, ...], Field(max_length=200)] = ()
    contrast: Annotated[float, Field(gt=0, lt=1)] | None = None
    solar_reflectance: Fraction | None = None
    shelf_months: Annotated[int, Field(gt=0, le=240)] | None = None
    hazards: tuple[Hazard, ...] = ()
    note: Note = ""
    containers: Annotated[tuple[Container, ...], Field(min_length=1)]

    @model_validator(mode="after")
    def _consistent(self) -> Self:
        faults = (
            (self.air_min_c >= self.air_max_c, "the least air temperature is not below the greatest"),
            (self.surface_min_c >= self.surface_max_c, "the least surface temperature is not below the greatest"),
            (self.rain_ready_h < self.touch_h, "rain-ready comes before dry to touch"),
            (self.recoat_h < self.touch_h, "recoat comes before dry to touch"),
            (
                self.max_recoat_h is not None and self.max_recoat_h <= self.recoat_h,
                "longest recoat time must be after the shortest",
            ),
            (self.foot_h is not None and self.foot_h < self.touch_h, "foot traffic comes before dry to touch"),
            (self.cure_d * 24 < self.recoat_h, "full cure comes before recoat"),
            (
                (self.spread_low_m2_l or 0) > (self.spread_high_m2_l or 1e9),
                "the least spreading rate is above the greatest",
            ),
        )
        for wrong, words in faults:
            if wrong:
                raise ValueError(f"product '{self.code}': {words}")
        sizes = [c.litres for c in self.containers]
        if len(set(sizes)) != len(sizes):
            raise ValueError(f"product '{self.code}': a container size is listed twice")
        return self

    @property
    def wet_film_um(self) -> float:
        """Film to lay so that the recommended dry film is left, without thinning."""
        return self.dry_film_um / self.volume_solids_pct * 100

    @property
    def clear(self) -> bool:
        """Whether what lies beneath shows through it as it is."""
        return self.family in (Family.DECK_CLEAR, Family.FLOOR_SEALER) or self.sheen == "clear"

    @property
    def price_per_litre(self) -> Decimal:
        """Of the container that gives most for the money."""
        return min(c.price / Decimal(str(c.litres)) for c in self.containers)


SHEET_UNITS: dict[str, Quantity] = {
    "density_kg_l": Quantity.DENSITY,
    "dry_film_um": Quantity.FILM,
    "spread_low_m2_l": Quantity.COVERAGE,
    "spread_high_m2_l": Quantity.COVERAGE,
    "air_min_c": Quantity.TEMPERATURE,
    "air_max_c": Quantity.TEMPERATURE,
    "surface_min_c": Quantity.TEMPERATURE,
    "surface_max_c": Quantity.TEMPERATURE,
    "spread_min_c": Quantity.TEMPERATURE_DIFFERENCE,
}
"""Fields of a sheet that read otherwise in another system of units."""
