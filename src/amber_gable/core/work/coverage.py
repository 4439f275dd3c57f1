"""What a litre covers (docs/trade.md §8)."""

from amber_gable.domain.paint.families import Family
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Product

LOSS_PCT = {Method.BRUSH: 4.0, Method.ROLLER: 8.0, Method.AIRLESS: 20.0, Method.TURBINE: 30.0}


PENETRATING = (Family.DECK_STAIN, Family.DECK_CLEAR)
"""Go in, not on: they have no film to reckon with, but their sheet's spreading rate."""


def theoretical_coverage(product: Product) -> float:
    """m² a litre covers before any loss: the middle of the sheet's range for a penetrating stain, else at the
    recommended dry film 10 × volume solids % / dry film µm."""
    low, high = product.spread_low_m2_l, product.spread_high_m2_l
    if product.family in PENETRATING and (low or high):
        return ((low or high or 0.0) + (high or low or 0.0)) / 2
    return 10.0 * product.volume_solids_pct / product.dry_film_um


def coverage_source(product: Product) -> str:
    """Where the figure comes from, in words."""
    if product.family in PENETRATING and (product.spread_low_m2_l or product.spread_high_m2_l):
        return f"spreading rate of the sheet of {product.name}"
    return f"10 × {product.volume_solids_pct:g} % solids ÷ {product.dry_film_um:g} µm, sheet of {product.name}"
