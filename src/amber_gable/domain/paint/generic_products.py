"""Generic coatings (docs/trade.md §5) as data sheets, with invented prices.

They let a face be judged before a maker is chosen. A product's own sheet beats them.
"""

from decimal import Decimal

from amber_gable.domain.errors import UnknownCode
from amber_gable.domain.paint.families import Family
from amber_gable.domain.paint.product import Base, Container, Hazard, Product

_W, _A, _H = Base.WATERBORNE, Base.ALKYD, Base.HYBRID
_DAY = 24.0
_ROWS: list[tuple[str, str, Base, str, float, float, float, float, float, float | None, float, tuple[float, ...], str]] = [
    # code, name, base, sheen, VS %, DFT µm, touch h, rain h, recoat h, max recoat h, cure d,
    # (air min, surface min, air max, surface max), price per litre in a gallon can
    ("exterior-acrylic-standard", "Exterior acrylic, standard", _W, "low lustre", 38, 40, 1, 4, 4, None, 30, (10, 10, 32, 38), "14.80"),
    ("exterior-acrylic-low-temperature", "Exterior acrylic, low-temperature", _W, "low lustre", 40, 42, 1, 4, 4, None, 30, (2, 2, 32, 38), "18.20"),
    ("soft-gloss-acrylic-trim", "Soft-gloss acrylic trim", _W, "soft gloss", 36, 38, 1, 4, 4, None, 30, (2, 2, 32, 38), "19.60"),
    ("hybrid-satin", "Hybrid water-based satin", _H, "satin", 42, 40, 2, 6, 6, None, 14, (8, 8, 30, 35), "22.40"),
    ("hybrid-undercoat", "Hybrid water-based undercoat", _H, "matt", 42, 40, 2, 6, 6, None, 14, (8, 8, 30, 35), "20.10"),
    ("alkyd-gloss", "Alkyd gloss", _A, "gloss", 52, 35, 8, 16, 24, 14 * _DAY, 14, (7, 7, 32, 38), "21.00"),
    ("alkyd-wood-primer", "Alkyd wood primer", _A, "matt", 50, 40, 6, 16, 24, 14 * _DAY, 7, (7, 7, 32, 38), "16.50"),
    ("acrylic-wood-primer", "Acrylic wood primer", _W, "matt", 36, 38, 1, 4, 4, 14 * _DAY, 14, (10, 10, 32, 38), "12.90"),
    ("peel-bonding-primer", "Peel-bonding primer", _W, "matt", 48, 150, 3, 8, 24, 14 * _DAY, 14, (10, 10, 32, 38), "17.40"),
    ("acrylic-bonding-primer", "Acrylic bonding primer", _W, "matt", 38, 35, 1, 3, 4, 14 * _DAY, 7, (5, 5, 32, 38), "18.00"),
    ("stain-blocker", "Stain-blocking primer", _W, "matt", 40, 40, 1, 4, 6, 14 * _DAY, 7, (5, 5, 32, 38), "19.40"),
    ("metal-primer", "Metal primer, rust-inhibiting", _A, "matt", 45, 50, 3, 8, 12, 30 * _DAY, 7, (7, 7, 35, 45), "19.90"),
    ("masonry-conditioner", "Masonry conditioner", _W, "clear", 20, 15, 2, 6, 24, 14 * _DAY, 7, (8, 8, 30, 35), "11.20"),
    ("masonry-stabilising-undercoat", "Masonry stabilising undercoat", _W, "matt", 40, 60, 2, 8, 24, 30 * _DAY, 14, (10, 10, 25, 35), "12.60"),
    ("smooth-masonry-paint", "Smooth masonry paint", _W, "matt", 40, 60, 2, 6, 8, None, 28, (8, 8, 28, 35), "11.80"),
    ("high-build-masonry", "High-build masonry", _W, "matt", 48, 150, 3, 10, 18, None, 28, (8, 8, 30, 35), "13.70"),
    ("elastomeric-wall", "Elastomeric wall coating", _W, "matt", 50, 300, 6, 24, 24, None, 30, (10, 10, 32, 40), "15.30"),
    ("silicate-masonry", "Silicate masonry paint", Base.SILICATE, "matt", 42, 80, 3, 12, 12, None, 28, (8, 8, 30, 30), "16.40"),
    ("deck-stain-semi-transparent", "Deck stain, semi-transparent", _W, "matt", 22, 30, 1, 6, 4, 24, 7, (8, 8, 32, 35), "17.90"),
    ("deck-stain-solid", "Deck stain, solid", _W, "matt", 32, 45, 1, 6, 4, None, 14, (8, 8, 32, 35), "17.10"),
    ("deck-clear-coat", "Deck clear coat", _W, "satin", 28, 20, 1, 6, 4, None, 7, (8, 8, 32, 35), "18.80"),
    ("porch-waterborne", "Floor and porch, waterborne", _W, "satin", 38, 45, 1, 6, 6, None, 14, (10, 10, 32, 35), "16.20"),
    ("porch-alkyd", "Floor and porch, alkyd", _A, "gloss", 50, 45, 8, 18, 24, 7 * _DAY, 14, (10, 10, 32, 35), "17.50"),
    ("porch-all-in-one", "All-in-one porch coating", _W, "satin", 42, 60, 2, 12, 12, None, 21, (10, 10, 32, 35), "20.30"),
    ("porch-sealer", "Clear floor sealer", _W, "satin", 24, 20, 1, 8, 6, None, 14, (10, 10, 32, 35), "17.90"),
    ("roof-coat-reflective", "Reflective roof coat", _W, "matt", 52, 250, 3, 12, 24, None, 21, (10, 10, 35, 60), "12.40"),
]  # fmt: skip

_FAMILY = {
    "exterior-acrylic-standard": Family.EXTERIOR_ACRYLIC,
    "exterior-acrylic-low-temperature": Family.LOW_TEMPERATURE_ACRYLIC,
    "soft-gloss-acrylic-trim": Family.TRIM_ACRYLIC,
    "hybrid-satin": Family.HYBRID_SATIN,
    "alkyd-gloss": Family.ALKYD_GLOSS,
    "alkyd-wood-primer": Family.ALKYD_WOOD_PRIMER,
    "acrylic-wood-primer": Family.ACRYLIC_WOOD_PRIMER,
    "peel-bonding-primer": Family.PEEL_BONDING_PRIMER,
    "acrylic-bonding-primer": Family.BONDING_PRIMER,
    "stain-blocker": Family.STAIN_BLOCKER,
    "hybrid-undercoat": Family.HYBRID_UNDERCOAT,
    "metal-primer": Family.METAL_PRIMER,
    "masonry-conditioner": Family.MASONRY_CONDITIONER,
    "masonry-stabilising-undercoat": Family.MASONRY_UNDERCOAT,
    "smooth-masonry-paint": Family.MASONRY_PAINT,
    "high-build-masonry": Family.HIGH_BUILD_MASONRY,
    "elastomeric-wall": Family.ELASTOMERIC,
    "silicate-masonry": Family.SILICATE_PAINT,
    "deck-stain-semi-transparent": Family.DECK_STAIN,
    "deck-stain-solid": Family.SOLID_STAIN,
    "deck-clear-coat": Family.DECK_CLEAR,
    "porch-waterborne": Family.FLOOR_WATERBORNE,
    "porch-alkyd": Family.FLOOR_ALKYD,
    "porch-all-in-one": Family.FLOOR_ALL_IN_ONE,
    "porch-sealer": Family.FLOOR_SEALER,
    "roof-coat-reflective": Family.ROOF_COAT,
}

_HAZARDS = {_A: (Hazard.OILY_RAGS, Hazard.STRONG_FUMES), Base.SILICATE: (Hazard.CAUSTIC,)}

# Quart, gallon and five-gallon pail in litres, with the price per litre relative to the gallon can.
_SIZES = ((0.946, Decimal("1.30")), (3.785, Decimal("1.00")), (18.927, Decimal("0.88")))


def _product(row: tuple) -> Product:  # type: ignore[type-arg]
    code, name, base, sheen, solids, film, touch, rain, recoat, longest, cure, limits, price = row
    air_min, surface_min, air_max, surface_max = limits
    return Product(
        code=code,
        name=name,
        maker="generic",
        family=_FAMILY[code],
        base=base,
        sheen=sheen,
        volume_solids_pct=solids,
        dry_film_um=film,
        air_min_c=air_min,
        air_max_c=air_max,
        surface_min_c=surface_min,
        surface_max_c=surface_max,
        touch_h=touch,
        rain_ready_h=rain,
        recoat_h=recoat,
        max_recoat_h=longest,
        cure_d=cure,
        foot_h=24 if code.startswith("porch") else None,
        hazards=_HAZARDS.get(base, ()),
        self_priming=code in ("high-build-masonry", "porch-all-in-one", "porch-waterborne"),
        primer="primer" in code or "undercoat" in code or "conditioner" in code,
        containers=tuple(
            Container(litres=size, price=(Decimal(price) * Decimal(str(size)) * factor).quantize(Decimal("0.01")))
            for size, factor in _SIZES
        ),
    )


GENERIC_PRODUCTS: dict[str, Product] = {row[0]: _product(row) for row in _ROWS}


def generic_product(code: str) -> Product:
    """The generic data sheet of that code. Raises ValueError naming the known codes."""
    try:
        return GENERIC_PRODUCTS[code]
    except KeyError:
        raise UnknownCode(f"product '{code}' is not known; one of: {', '.join(GENERIC_PRODUCTS)}") from None
