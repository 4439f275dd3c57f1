"""What a litre covers (handbook §8)."""

from amber_gable.domain.product import Product
from amber_gable.domain.schools import Method

LOSS_PCT = {Method.BRUSH: 4.0, Method.ROLLER: 8.0, Method.AIRLESS: 20.0, Method.TURBINE: 30.0}


def theoretical_spread(product: Product) -> float:
    """m² a litre covers at the recommended dry film before any loss: 10 × volume solids % / dry film µm."""
    return 10.0 * product.volume_solids_pct / product.dry_film_um
