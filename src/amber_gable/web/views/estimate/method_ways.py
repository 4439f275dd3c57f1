"""Ways to lay the coats of a part, as they are read."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from amber_gable.domain.paint.method import METHOD_RISKS, Method

if TYPE_CHECKING:
    from amber_gable.core.estimate.methods import MethodWay

_NAMES = {
    (Method.BRUSH, False): "brush",
    (Method.ROLLER, False): "roller",
    (Method.AIRLESS, False): "airless sprayer",
    (Method.AIRLESS, True): "airless, back-rolled",
    (Method.TURBINE, False): "turbine gun",
}


@dataclass(frozen=True)
class ToldMethod:
    """`fit`: hours of the coming fortnight in which a coat laid so holds, None where no weather is worked out."""

    code: str
    name: str
    way: MethodWay
    fit: float | None
    risk: str


def told_method_ways(ways: Iterable[tuple[MethodWay, float | None]]) -> list[ToldMethod]:
    out = []
    for way, fit in ways:
        key = (way.method, way.back_roll)
        code = f"{way.method.value}{'+' if way.back_roll else ''}"
        out.append(ToldMethod(code, _NAMES[key], way, fit, METHOD_RISKS[key]))
    return out
