"""The cheapest set of containers that holds what is needed, cans in stock first; and which containers of one colour are
poured together, so that one can looks like the next (docs/trade.md §8)."""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from functools import lru_cache

import numpy as np

from amber_gable.core.weather.outdoors.air import Array
from amber_gable.domain.paint.product import Container


@dataclass(frozen=True)
class Purchase:
    """Containers bought: (container, count) for each size taken, largest first. `taken`: places of the cans in the
    stock that are used, `stock_l` what is in them."""

    items: tuple[tuple[Container, int], ...]
    taken: tuple[int, ...] = ()
    stock_l: float = 0.0

    @property
    def litres(self) -> float:
        """Bought."""
        return sum(c.litres * n for c, n in self.items)

    @property
    def held_l(self) -> float:
        """Bought and taken from the stock."""
        return self.litres + self.stock_l

    @property
    def cost(self) -> Decimal:
        return sum((c.price * n for c, n in self.items), Decimal(0))


_LEFT = 1e-5
"""Price of a litre left over: breaks ties, and never outweighs a cent."""
_ONE_MORE_BATCH = 1e-4
"""Price of opening another can of the stock: of equal prices the fewest batches win."""
_ENOUGH_L = 1e-9
"""As good as nothing short."""
MANY = 20_000
"""Sets that are tried one and all in a millisecond; of more the solver finds the best, and takes twenty."""


@lru_cache(maxsize=2048)
def least_cost(needed_l: float, sizes: tuple[Container, ...], stock: tuple[float, ...] = ()) -> Purchase:
    """Whole containers, with cans of the stock (litres in each) that cost nothing, holding at least `needed_l` at the
    least price; of equal prices the one with the fewest cans of the stock and then least left over. Exact.

    Raises ValueError for a need that is not positive.
    """
    if not needed_l > 0:
        raise ValueError(f"needed litres must be more than 0, not {needed_l}")
    litres = np.array([*(c.litres for c in sizes), *stock])
    price = np.array([*(float(c.price) for c in sizes), *(_ONE_MORE_BATCH for _ in stock)]) + _LEFT * litres
    most = np.array([*np.ceil(needed_l / litres[: len(sizes)]), *np.ones(len(stock))])
    filler = int(litres[: len(sizes)].argmin())
    few = np.delete(most + 1, filler).prod() <= MANY
    counts = (
        _counted(needed_l, litres, price, most, filler) if few else _solved(needed_l, litres, price, most)
    ).astype(int)
    bought, used = counts[: len(sizes)], np.flatnonzero(counts[len(sizes) :])
    order = np.argsort(-litres[: len(sizes)])
    return Purchase(
        items=tuple((sizes[i], int(bought[i])) for i in order if bought[i]),
        taken=tuple(int(i) for i in used),
        stock_l=float(sum(stock[i] for i in used)),
    )


MANY_SMALL = 3
"""So many of one size are a nuisance to open, box and carry …"""
HANDY = Decimal("1.10")
"""… and one larger container that costs no more than a tenth above them is taken instead."""


def handier(bought: Purchase, sizes: Sequence[Container]) -> Purchase:
    """The same with one larger container in the place of three or more of a size, where it holds as much and costs
    hardly more."""
    counts = dict(bought.items)
    for small, count in bought.items:
        larger = [c for c in sizes if c.litres >= small.litres * count and c.price <= small.price * count * HANDY]
        if count >= MANY_SMALL and larger:
            del counts[small]
            one = min(larger, key=lambda c: (c.price, c.litres))
            counts[one] = counts.get(one, 0) + 1
    items = sorted(counts.items(), key=lambda item: -item[0].litres)
    return Purchase(tuple(items), bought.taken, bought.stock_l)


def _counted(needed_l: float, litres: Array, price: Array, most: Array, filler: int) -> Array:
    """How many of each (N,), every set tried: what the others leave short, the filler fills."""
    others = [int(n) + 1 for n in most]
    others[filler] = 1
    sets = np.indices(others).reshape(len(litres), -1).astype(float)
    sets[filler] = np.ceil(np.maximum(needed_l - _ENOUGH_L - litres @ sets, 0) / litres[filler])
    best: Array = sets[:, (price @ sets).argmin()]
    return best


def _solved(needed_l: float, litres: Array, price: Array, most: Array) -> Array:
    """How many of each (N,): an integer program (HiGHS through SciPy)."""
    # Loaded when it is first needed: the program starts without it.
    from scipy.optimize import Bounds, LinearConstraint, milp

    result = milp(
        price,
        integrality=np.ones(len(litres)),
        bounds=Bounds(0, most),
        constraints=LinearConstraint(litres, lb=needed_l - _ENOUGH_L),
        options={"mip_rel_gap": 0},
    )
    return np.round(np.asarray(result.x))


MOST_L = 40.0
"""Two five-gallon pails: what two people still pour to and fro. An assumption."""
CARRIED = 1 / 3
"""Of a box, kept to be stirred into the next."""


@dataclass(frozen=True)
class Box:
    """Containers poured together, by their places in the order they are opened in, and what they hold."""

    first: int
    last: int
    litres: float


def boxes(sizes: Sequence[float], most_l: float = MOST_L) -> list[Box]:
    """Containers in the order they are opened in, litres each; boxed as many at a time as can be poured. One container
    by itself, and a larger one than can be poured, is a box of its own."""
    out: list[Box] = []
    for place, litres in enumerate(sizes):
        before = out[-1] if out else None
        if before is not None and before.litres + litres <= most_l + 1e-9:
            out[-1] = Box(before.first, place, before.litres + litres)
        else:
            out.append(Box(place, place, litres))
    return out
