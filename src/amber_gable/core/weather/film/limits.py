"""What limits laying a coat in the weather, each as value and source: sheet, school or policy (docs/trade.md §10)."""

from dataclasses import dataclass

from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.schools import TOPICS
from amber_gable.domain.work.working import Policy

HOLD_LEAST = {"touch-dry": 2.0, "four-hours": 4.0, "overnight": 14.0}
"""Hours that each school of 'hold' keeps the surface warm at least."""


@dataclass(frozen=True)
class Limit:
    """A figure, its unit, and in words where it comes from."""

    value: float
    unit: str
    source: str

    @property
    def words(self) -> str:
        return f"{self.value:g} {self.unit}, {self.source}"


def coat_limits(
    product: Product, policy: Policy, moisture: Limit | None = None, *, sprays: bool = False
) -> dict[str, Limit]:
    """Every limit of laying `product`, by name, as the weather rules, the ranking and the pages use them."""
    sheet = f"sheet of {product.name}"
    hold, hold_from = HOLD_LEAST[policy.hold], f"school: {TOPICS['hold'].school(policy.hold).name.lower()}"
    if product.hold_h is not None and product.hold_h > hold:
        hold, hold_from = product.hold_h, sheet
    dew = TOPICS["dew"].school(policy.dew).name.lower()
    wind, wind_from = policy.ladder_wind_max, "policy: ladders"
    if sprays and policy.spray_wind_max < wind:
        wind, wind_from = policy.spray_wind_max, "policy: spraying"
    found = {
        "air_min": Limit(product.air_min_c, "°C", sheet),
        "air_max": Limit(product.air_max_c, "°C", sheet),
        "surface_min": Limit(product.surface_min_c, "°C", sheet),
        "surface_max": Limit(product.surface_max_c, "°C", sheet),
        "humidity": Limit(product.rh_max_pct, "%", sheet),
        "dew_margin": Limit(product.spread_min_c, "K", f"{sheet}; dew kept off {dew}"),
        "hold": Limit(hold, "h", hold_from),
        "rain_ready": Limit(product.rain_ready_h, "h at 25 °C, 50 %", sheet),
        "rain_probability": Limit(policy.rain_probability_max_pct, "%", "policy"),
        "wind": Limit(wind, "m/s", wind_from),
    }
    if product.max_recoat_h is not None:
        found["max_recoat"] = Limit(product.max_recoat_h, "h", sheet)
    if product.foot_h is not None:
        found["foot"] = Limit(product.foot_h, "h", sheet)
    return found | ({"moisture": moisture} if moisture is not None else {})
