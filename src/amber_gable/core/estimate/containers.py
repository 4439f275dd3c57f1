"""The cheapest set of containers that holds what is needed."""

from dataclasses import dataclass
from decimal import Decimal
from functools import lru_cache

import numpy as np

from amber_gable.domain.product import Container


@dataclass(frozen=True)
class Purchase:
    """Containers bought: (container, count) for each size taken, largest first."""

    items: tuple[tuple[Container, int], ...]

    @property
    def litres(self) -> float:
        return sum(c.litres * n for c, n in self.items)

    @property
    def cost(self) -> Decimal:
        return sum((c.price * n for c, n in self.items), Decimal(0))


@lru_cache(maxsize=2048)
def least_cost(needed_l: float, sizes: tuple[Container, ...]) -> Purchase:
    """Whole containers holding at least `needed_l` at the least price; of equal prices the one with least left over.

    An integer program solved exactly (HiGHS through SciPy). Raises ValueError for a need that is not positive.
    """
    # Loaded when it is first needed: the program starts without it.
    from scipy.optimize import Bounds, LinearConstraint, milp

    if not needed_l > 0:
        raise ValueError(f"needed litres must be more than 0, not {needed_l}")
    litres = np.array([c.litres for c in sizes])
    # A tenth of a cent per litre breaks ties without ever outweighing a price.
    price = np.array([float(c.price) for c in sizes]) + 1e-5 * litres
    result = milp(
        price,
        integrality=np.ones(len(sizes)),
        bounds=Bounds(0, np.ceil(needed_l / litres)),
        constraints=LinearConstraint(litres, lb=needed_l - 1e-9),
        options={"mip_rel_gap": 0},
    )
    counts = np.round(result.x).astype(int)
    order = np.argsort(-litres)
    return Purchase(items=tuple((sizes[i], int(counts[i])) for i in order if counts[i]))
