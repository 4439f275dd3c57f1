"""Families of coatings (docs/trade.md §5): what a coating is for, whoever makes it."""

from enum import StrEnum


class Family(StrEnum):
    EXTERIOR_ACRYLIC = "exterior-acrylic"
    LOW_TEMPERATURE_ACRYLIC = "low-temperature-acrylic"
    TRIM_ACRYLIC = "trim-acrylic"
    HYBRID_UNDERCOAT = "hybrid-undercoat"
    HYBRID_SATIN = "hybrid-satin"
    ALKYD_GLOSS = "alkyd-gloss"
    ALKYD_WOOD_PRIMER = "alkyd-wood-primer"
    ACRYLIC_WOOD_PRIMER = "acrylic-wood-primer"
    PEEL_BONDING_PRIMER = "peel-bonding-primer"
    BONDING_PRIMER = "bonding-primer"
    STAIN_BLOCKER = "stain-blocker"
    METAL_PRIMER = "metal-primer"
    MASONRY_CONDITIONER = "masonry-conditioner"
    MASONRY_UNDERCOAT = "masonry-undercoat"
    MASONRY_PAINT = "masonry-paint"
    HIGH_BUILD_MASONRY = "high-build-masonry"
    ELASTOMERIC = "elastomeric"
    SILICATE_PAINT = "silicate-paint"
    DECK_STAIN = "deck-stain"
    SOLID_STAIN = "solid-stain"
    DECK_CLEAR = "deck-clear"
    FLOOR_WATERBORNE = "floor-waterborne"
    FLOOR_ALKYD = "floor-alkyd"
    FLOOR_ALL_IN_ONE = "floor-all-in-one"
    FLOOR_SEALER = "floor-sealer"
    ROOF_COAT = "roof-coat"
    OTHER = "other"


FAMILY_NAMES = {
    Family.EXTERIOR_ACRYLIC: "Exterior acrylic",
    Family.LOW_TEMPERATURE_ACRYLIC: "Exterior acrylic, low-temperature",
    Family.TRIM_ACRYLIC: "Soft-gloss acrylic trim",
    Family.HYBRID_UNDERCOAT: "Hybrid water-based undercoat",
    Family.HYBRID_SATIN: "Hybrid water-based satin",
    Family.ALKYD_GLOSS: "Alkyd gloss",
    Family.ALKYD_WOOD_PRIMER: "Alkyd wood primer",
    Family.ACRYLIC_WOOD_PRIMER: "Acrylic wood primer",
    Family.PEEL_BONDING_PRIMER: "Peel-bonding primer",
    Family.BONDING_PRIMER: "Acrylic bonding primer",
    Family.STAIN_BLOCKER: "Stain-blocking primer",
    Family.METAL_PRIMER: "Metal primer",
    Family.MASONRY_CONDITIONER: "Masonry conditioner",
    Family.MASONRY_UNDERCOAT: "Masonry stabilising undercoat",
    Family.MASONRY_PAINT: "Smooth masonry paint",
    Family.HIGH_BUILD_MASONRY: "High-build masonry",
    Family.ELASTOMERIC: "Elastomeric wall coating",
    Family.SILICATE_PAINT: "Silicate masonry paint",
    Family.DECK_STAIN: "Deck stain",
    Family.SOLID_STAIN: "Deck stain, solid",
    Family.DECK_CLEAR: "Deck clear coat",
    Family.FLOOR_WATERBORNE: "Floor and porch",
    Family.FLOOR_ALKYD: "Floor and porch, alkyd",
    Family.FLOOR_ALL_IN_ONE: "All-in-one porch coating",
    Family.FLOOR_SEALER: "Clear floor sealer",
    Family.ROOF_COAT: "Reflective roof coat",
    Family.OTHER: "Other",
}

_USUAL: dict[Family, frozenset[str]] = {
    family: frozenset(tags.split())
    for family, tags in (
        (Family.EXTERIOR_ACRYLIC, "siding trim door wood fibre-cement vinyl metal masonry shutter beam railing"),
        (Family.LOW_TEMPERATURE_ACRYLIC, "siding trim door wood fibre-cement vinyl metal masonry shutter beam railing"),
        (Family.TRIM_ACRYLIC, "glass-fibre trim door window shutter railing wood metal vinyl garage-door gutter"),
        (Family.HYBRID_UNDERCOAT, "trim door window shutter railing wood metal garage-door"),
        (Family.HYBRID_SATIN, "trim door window shutter railing wood metal garage-door"),
        (Family.ALKYD_GLOSS, "trim door window shutter railing wood metal garage-door gutter"),
        (Family.ALKYD_WOOD_PRIMER, "wood"),
        (Family.ACRYLIC_WOOD_PRIMER, "wood fibre-cement"),
        (Family.PEEL_BONDING_PRIMER, "wood fibre-cement masonry"),
        (Family.BONDING_PRIMER, "wood fibre-cement vinyl metal masonry glass-fibre"),
        (Family.STAIN_BLOCKER, "wood fibre-cement masonry vinyl metal glass-fibre"),
        (Family.METAL_PRIMER, "metal"),
        (Family.MASONRY_CONDITIONER, "masonry fibre-cement"),
        (Family.MASONRY_UNDERCOAT, "masonry fibre-cement"),
        (Family.MASONRY_PAINT, "masonry fibre-cement"),
        (Family.HIGH_BUILD_MASONRY, "masonry"),
        (Family.ELASTOMERIC, "masonry"),
        (Family.SILICATE_PAINT, "masonry"),
        (Family.DECK_STAIN, "deck railing wood"),
        (Family.SOLID_STAIN, "deck railing wood"),
        (Family.DECK_CLEAR, "deck railing wood"),
        (Family.FLOOR_WATERBORNE, "floor deck stair"),
        (Family.FLOOR_ALKYD, "floor deck stair"),
        (Family.FLOOR_ALL_IN_ONE, "floor"),
        (Family.FLOOR_SEALER, "floor"),
        (Family.ROOF_COAT, "roof"),
        (Family.OTHER, ""),
    )
}


def usual_surfaces(family: Family) -> frozenset[str]:
    """Tags of the surfaces coatings of the family are made for; empty where nothing is known."""
    return _USUAL[family]
