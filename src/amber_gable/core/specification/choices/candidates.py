"""Which products serve a step on a surface, how well, and what they cost there."""

from collections.abc import Iterable
from dataclasses import dataclass
from decimal import Decimal

from amber_gable.core.specification.cautions.limits import moisture_limit
from amber_gable.core.specification.derived.facts import Facts
from amber_gable.core.work.coverage import LOSS_PCT, theoretical_coverage
from amber_gable.domain.paint.families import Family, usual_surfaces
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Base, Product


@dataclass(frozen=True)
class RankedProduct:
    """A product for a step: points out of 100 with what took or gave them, and its cost in the company's currency
    per m² of surface and coat."""

    product: Product
    points: int
    reasons: tuple[str, ...]
    cost_m2: float


def goes_on(product: Product, tags: frozenset[str]) -> bool:
    """Whether the sheet allows such a surface: by its own list, or as its family usually does."""
    allowed = frozenset(product.substrates) or usual_surfaces(product.family)
    return not allowed or bool(allowed & tags)


def holds_on(product: Product, facts: Facts) -> bool:
    """Never an alkyd straight on zinc (it turns to soap; sheet roofs are taken as zinc-coated), nor silicate on
    anything but mineral ground."""
    if product.base is Base.ALKYD and (facts.tags >= {"metal", "roof"} or "galvanised" in facts.tags):
        return False
    return product.base is not Base.SILICATE or facts.get("coating") in ("bare", "lime-wash")


COLD_C, PER_DEGREE = 2.0, 5
"""In cold weeks a paint is best that may be laid at this temperature (°C); each degree more costs it points."""


def coldest(product: Product) -> float:
    """°C of air and surface from which on the sheet lets it be laid."""
    return max(product.air_min_c, product.surface_min_c)


def cost_per_m2(product: Product, method: Method, thirst: float = 1.0) -> float:
    """Paint for one coat on one m², at the best price per litre, loss and thirst included."""
    litres = thirst / (theoretical_coverage(product) * (1 - LOSS_PCT[method] / 100))
    return float(product.price_per_litre * Decimal(str(litres)))


def candidates(
    families: tuple[Family, ...],
    facts: Facts,
    method: Method,
    products: Iterable[Product],
    *,
    bare: bool = False,
    sheen: str = "",
) -> list[RankedProduct]:
    """Products of these families that may go on the surface, best first: by points, then by cost. `sheen`: the words
    of what suits, for finish coats."""
    found = [p for p in products if p.family in families and goes_on(p, facts.tags) and holds_on(p, facts)]
    judged = [_judged(p, families, facts, method, bare=bare, sheen=sheen) for p in found]
    return sorted(judged, key=lambda c: (-c.points, c.cost_m2, c.product.code))


def _judged(
    product: Product, families: tuple[Family, ...], facts: Facts, method: Method, *, bare: bool, sheen: str
) -> RankedProduct:
    points, reasons = 100, []
    place = families.index(product.family)
    if place:
        points -= 12 * place
        reasons.append(f"choice {place + 1} of {len(families)} families for this surface")
    if product.methods and method not in product.methods:
        points -= 40
        reasons.append(f"its sheet does not name {method.value}")
    if sheen and not _sheen_suits(product.sheen, sheen):
        points -= 8
        reasons.append(f"{product.sheen}, where {sheen} suits")
    if bare and product.self_priming:
        points += 6
        reasons.append("primes itself")
    moisture = facts.get("moisture")
    damp = moisture_limit(facts.tags, facts.get("aim"), facts.schools, product.moisture_max_pct)
    if moisture is not None and damp is not None and moisture > damp.value:
        points -= 60
        reasons.append(f"wood at {moisture:.0f} %, at most {damp.words}")
    if facts.schools["season"] == "cold" and coldest(product) > COLD_C:
        points -= round(PER_DEGREE * (coldest(product) - COLD_C))
        reasons.append(f"only from {coldest(product):g} °C up, and cold weeks are meant")
    if "vinyl" in facts.tags and product.vinyl_safe:
        points += 4
        reasons.append("rated vinyl-safe")
    if product.maker == "generic":
        points -= 20
        reasons.append("a generic sheet, not a maker's")
    return RankedProduct(product, max(points, 0), tuple(reasons), cost_per_m2(product, method))


_SHEENS = ("flat", "matt", "low lustre", "satin", "soft gloss", "semi-gloss", "gloss")
"""From dull to bright; flat and matt are one step apart at most."""


def _sheen_suits(sheen: str, wanted: str) -> bool:
    """Whether a sheen is one of those named ('low lustre or satin') or lies in the range ('satin to semi-gloss')."""
    if sheen not in _SHEENS:
        return True
    at = _SHEENS.index(sheen)
    if " to " in wanted:
        low, high = (_SHEENS.index(w) for w in wanted.split(" to "))
        return low <= at <= high
    return any(abs(at - _SHEENS.index(w)) <= (1 if w in ("flat", "matt") else 0) for w in wanted.split(" or "))
