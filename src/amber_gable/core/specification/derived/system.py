"""From derived steps to a system ready to work with: products chosen, overrides put on, conflicts told."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

from amber_gable.core.specification.choices.candidates import COLD_C, RankedProduct, candidates, coldest
from amber_gable.core.specification.derived.diagnosis import Derivation
from amber_gable.core.specification.derived.overrides import Conflict, conflicts, overridden
from amber_gable.core.specification.derived.planned import PlannedStep
from amber_gable.domain.errors import NoSteps
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.finish import Override
from amber_gable.domain.work.operation import Operation

PICK_COATS = "coat"


@dataclass(frozen=True)
class Specified:
    """The operations of one part and what contradicts in them."""

    derivation: Derivation
    operations: tuple[Operation, ...]
    conflicts: tuple[Conflict, ...]

    @property
    def stops(self) -> tuple[Conflict, ...]:
        """Conflicts that must not be saved."""
        return tuple(c for c in self.conflicts if c.level is Alert.STOP)


def pick_of(role: str) -> str:
    """Under which key the product of a step is picked: all finish coats take one product."""
    return PICK_COATS if role.startswith("coat-") else role


def candidates_for(step: PlannedStep, derivation: Derivation, products: Iterable[Product]) -> list[RankedProduct]:
    """Products that serve a film, best first; finish coats want the sheen that suits. Empty for other steps."""
    if not step.families or step.method is None:
        return []
    sheen = derivation.coats.sheen if pick_of(step.role) == PICK_COATS else ""
    facts = replace(derivation.facts, tags=frozenset(step.ground)) if step.ground else derivation.facts
    return candidates(step.families, facts, step.method, products, bare=step.bare, sheen=sheen)


def specify(
    derivation: Derivation,
    products: Iterable[Product],
    picks: Mapping[str, str] | None = None,
    overrides: Sequence[Override] = (),
) -> Specified:
    """Choose a product for each film (the picked one where it still fits, else the best), put the overrides on.

    Raises NoSteps naming the families when no product on the shelf serves a step.
    """
    shelf = list(products)
    operations = [_operation(s, derivation, shelf, picks or {}) for s in derivation.steps]
    done, lost = overridden(operations, overrides)
    found = conflicts(done, derivation.facts, derivation.forbidden)
    return Specified(derivation, done, lost + found)


def finish_product(derivation: Derivation, products: Iterable[Product], picks: Mapping[str, str]) -> Product | None:
    """The product of the finish coats, None where none is laid. Raises NoSteps when none on the shelf serves."""
    coat = next((s for s in derivation.steps if s.role == "coat-1"), None)
    return None if coat is None else _chosen(coat, derivation, list(products), picks)


def _chosen(step: PlannedStep, derivation: Derivation, shelf: list[Product], picks: Mapping[str, str]) -> Product:
    ranked = candidates_for(step, derivation, shelf)
    if not ranked:
        names = " or ".join(f.value for f in step.families)
        raise NoSteps(f"no product in Stores serves '{step.name}': add a {names} that may go on this surface")
    wanted = picks.get(pick_of(step.role))
    return next((c.product for c in ranked if c.product.code == wanted), ranked[0].product)


def _operation(step: PlannedStep, derivation: Derivation, shelf: list[Product], picks: Mapping[str, str]) -> Operation:
    product, because = None, step.because
    if step.families and step.method is not None:
        product = _chosen(step, derivation, shelf, picks)
        picked = picks.get(pick_of(step.role)) == product.code
        because = f"{because}; {product.name} {'was picked' if picked else 'ranks first of what serves'}"
        if derivation.facts.schools["season"] == "cold" and coldest(product) > COLD_C:
            because += f", though it is laid only from {coldest(product):g} °C up"
    return Operation(
        id=step.role,
        name=step.name,
        kind=step.kind,
        technique=step.technique,
        product=product.code if product else None,
        method=step.method,
        back_roll=step.back_roll,
        share=step.share,
        amount=step.amount,
        unit=step.unit,
        bare=step.bare,
        where=step.where,
        possible=step.possible,
        colour=step.colour,
        wait_h=step.wait_h,
        wait_until=step.wait_until,
        note=step.note,
        because=because,
    )
