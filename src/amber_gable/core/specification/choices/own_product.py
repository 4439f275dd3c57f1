"""A data sheet made from its family's usual one and the few figures that are read off a can."""

from amber_gable.core.work.coverage import PENETRATING
from amber_gable.domain.base import Record
from amber_gable.domain.paint.families import FAMILY_NAMES, Family
from amber_gable.domain.paint.generic_products import GENERIC_PRODUCTS
from amber_gable.domain.paint.product import Base, Container, Hazard, Product

FAMILY_SHEETS: dict[Family, Product] = {}
for _sheet in GENERIC_PRODUCTS.values():
    FAMILY_SHEETS.setdefault(_sheet.family, _sheet)
"""The generic sheet of each family that has one."""


_WARNS = {
    Base.ALKYD: (Hazard.OILY_RAGS, Hazard.STRONG_FUMES),
    Base.SOLVENT_ACRYLIC: (Hazard.FLAMMABLE, Hazard.STRONG_FUMES),
    Base.SHELLAC: (Hazard.FLAMMABLE, Hazard.STRONG_FUMES),
    Base.CEMENT: (Hazard.CAUSTIC,),
    Base.SILICATE: (Hazard.CAUSTIC,),
}
"""What a base asks to beware of, whatever family it stands in: safety cards hang on it."""


class CanFigures(Record):
    """What a can says; None: as the family usually has it. Coverage m²/L, least and most; temperature °C; recoat h."""

    name: str
    maker: str = "own"
    volume_solids_pct: float | None = None
    coverage_m2_l: tuple[float, float] | None = None
    containers: tuple[Container, ...]
    coats: int | None = None
    lowest_c: float | None = None
    recoat_h: float | None = None
    base: Base | None = None


def own_product(family: Family, can: CanFigures, code: str) -> Product:
    """The family's sheet with the can's figures in it. Where only the coverage is told, the film follows from it and
    the family's solids; where only the solids are, the coverage does from the family's film. Drying times that the can
    does not tell stay the family's, but it is dry to touch by the recoat. Its base brings its hazards along.

    Raises ValueError (pydantic's) where the figures contradict each other.
    """
    usual = FAMILY_SHEETS[family]
    solids = can.volume_solids_pct or usual.volume_solids_pct
    values = usual.model_dump() | {
        "code": code,
        "name": can.name,
        "maker": can.maker,
        "base": can.base or usual.base,
        "hazards": sorted({*usual.hazards, *_WARNS.get(can.base or usual.base, ())}),
        "volume_solids_pct": solids,
        "containers": [c.model_dump() for c in can.containers],
        "coats": can.coats or usual.coats,
        "note": _note(family, can),
    }
    if can.coverage_m2_l is not None:
        low, high = can.coverage_m2_l
        values |= {"spread_low_m2_l": low, "spread_high_m2_l": high}
        if family not in PENETRATING:
            values["dry_film_um"] = round(10.0 * solids / ((low + high) / 2), 3)
    if can.lowest_c is not None:
        values |= {"air_min_c": can.lowest_c, "surface_min_c": can.lowest_c}
    if can.recoat_h is not None:
        values |= {
            "recoat_h": can.recoat_h,
            "touch_h": min(usual.touch_h, can.recoat_h),
            "cure_d": max(usual.cure_d, can.recoat_h / 24),
        }
    return Product.model_validate(values)


def taken_from_family(product: Product, can: CanFigures) -> list[str]:
    """Names of the sheet's fields that nobody read off the can."""
    told = {"code", "name", "maker", "family", "containers", "note"}
    told |= {"volume_solids_pct"} if can.volume_solids_pct else set()
    told |= {"spread_low_m2_l", "spread_high_m2_l", "dry_film_um"} if can.coverage_m2_l else set()
    told |= {"air_min_c", "surface_min_c"} if can.lowest_c is not None else set()
    told |= {name for name in ("coats", "recoat_h", "base") if getattr(can, name) is not None}
    return [name for name in type(product).model_fields if name not in told]


def _note(family: Family, can: CanFigures) -> str:
    told = [
        words
        for words, given in (
            ("solids", can.volume_solids_pct),
            ("coverage", can.coverage_m2_l),
            ("coats", can.coats),
            ("lowest temperature", can.lowest_c is not None),
            ("recoat", can.recoat_h),
            ("base", can.base),
        )
        if given
    ]
    read = f"; read off the can: {', '.join(told)}" if told else ""
    return f"Made from the usual sheet of {FAMILY_NAMES[family].lower()}{read}. Hold it against the maker’s sheet."
