"""The products that could serve each film of a part, side by side."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from amber_gable.core.specification.choices.candidates import RankedProduct
from amber_gable.core.specification.derived.part_spec import PartSpec
from amber_gable.core.specification.derived.system import PICK_COATS, candidates_for, pick_of
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Product


@dataclass(frozen=True)
class PickRow:
    """A candidate; `hours` are workable hours of the coming days, None without weather; `cost_m2` of all
    its coats."""

    candidate: RankedProduct
    hours: float | None
    taken: bool
    cost_m2: float


@dataclass(frozen=True)
class Pick:
    """One film (all finish coats together), its candidates best first, and what a longer-working one would gain."""

    key: str
    name: str
    coats: int
    rows: tuple[PickRow, ...]
    gain: str


def picks(
    spec: PartSpec, products: Sequence[Product], hours_of: Callable[[Product, Method], float | None]
) -> list[Pick]:
    """One entry per film in the order of the steps."""
    used = {o.id: o.product for o in spec.operations}
    out: dict[str, Pick] = {}
    for step in spec.derivation.steps:
        key = pick_of(step.role)
        if not step.families or step.method is None or key in out:
            continue
        ranked = candidates_for(step, spec.derivation, products)
        finish = key == PICK_COATS
        coats = spec.derivation.coat_count if finish else 1
        rows = tuple(
            PickRow(
                candidate=c,
                hours=hours_of(c.product, step.method),
                taken=used.get(step.role) == c.product.code,
                cost_m2=c.cost_m2 * coats,
            )
            for c in ranked
        )
        out[key] = Pick(key, "Finish coats" if finish else step.name, coats, rows, _gain(rows))
    return list(out.values())


def _gain(rows: Sequence[PickRow]) -> str:
    """What the product with the most hours would open over the one taken, in words."""
    taken = next((r.hours for r in rows if r.taken), None)
    best = max(rows, key=lambda r: r.hours or 0.0, default=None)
    if taken is None or best is None or best.hours is None or best.hours <= taken:
        return ""
    return f"{best.candidate.product.name} opens {best.hours - taken:g} more hours in the coming week."
