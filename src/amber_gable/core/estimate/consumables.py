"""What is used up beside paint: from the amounts of the work record."""

import re
from collections.abc import Iterable
from dataclasses import dataclass
from math import ceil

import numpy as np

from amber_gable.core.estimate.draw import Draw
from amber_gable.core.estimate.hours import HourLine, Hours
from amber_gable.core.estimate.masking import masked
from amber_gable.core.estimate.paint_needs import PaintNeed
from amber_gable.core.weather.outdoors.air import Array
from amber_gable.domain.paint.product import Base
from amber_gable.domain.work.consumables import (
    ABRASIVE_PER_M2,
    ADDITIVES,
    CONSUMABLES,
    DUST_MASK_H,
    FILTER_L,
    TAPE_ROLL_M,
    TIP_L,
    VAPOUR_MASK_H,
    Consumable,
)
from amber_gable.domain.work.operation import OperationKind, Technique

_GRIT = re.compile(r"(\d{2,3})(?: to \d{2,3})? grit")
_GRITS = ("80", "120", "150")
_T = Technique
_DUSTY = (_T.WET_SCRAPE, _T.DRY_SCRAPE, _T.HEPA_SAND, _T.POWER_SAND, _T.HAND_SAND, _T.WIRE_BRUSH, _T.HEPA_VACUUM)
_LEAST = 0.02


@dataclass(frozen=True)
class Supply:
    """One thing to have at hand: `amount` by the medians, the range of what it may come to, and what to buy in whole
    packs. `because` says what it is reckoned from."""

    code: str
    words: str
    unit: str
    amount: float
    p10: float
    p50: float
    p90: float
    buy: float
    because: str


def supplies(hours: Hours, litres_sprayed: float, level: float) -> list[Supply]:
    """Everything a job uses up beside paint; `litres_sprayed` go through tips and filters, `level` is the percent of
    jobs that what is bought is enough in."""
    draw, lines = hours.draw, hours.lines
    masking = _masking(hours)
    out = [_supply(item, _used(item, lines) | masking.get(item.code, {}), draw, level) for item in CONSUMABLES.values()]
    out += [_supply(*_abrasive(grit, lines), draw, level) for grit in _GRITS]
    worn = [
        (Consumable("tips", "Spray tips", "", 1, {}), {"litres through them": litres_sprayed / TIP_L}),
        (Consumable("filters", "Gun and pump filters", "", 1, {}), {"litres through them": litres_sprayed / FILTER_L}),
        *_worn(hours),
    ]
    out += [_supply(item, used, draw, level) for item, used in worn]
    return [s for s in out if s.amount > _LEAST]


def _used(item: Consumable, lines: Iterable[HourLine]) -> dict[str, float]:
    """Units by what they are used for."""
    out: dict[str, float] = {}
    for line in lines:
        way = line.operation.technique if line.operation is not None else None
        per = item.per.get(way, 0.0) if way is not None else 0.0
        per = per or item.per.get(line.labour.rate.code, 0.0)
        if per:
            name = line.labour.rate.words
            out[name] = out.get(name, 0.0) + per * line.labour.amount * _part(line)
    return out


def _masking(hours: Hours) -> dict[str, dict[str, float]]:
    """Rolls of tape and square metres of film for what is masked, by what it is; one masking does for all coats."""
    out: dict[str, dict[str, float]] = {"tape": {}, "film": {}}
    for line in hours.lines:
        o = line.operation
        if o is None or line.part is None or o.kind is not OperationKind.MASK or o.unit is None:
            continue
        found, words = masked(hours.parts[line.part], o), line.labour.rate.words
        for code, used in (("tape", found.tape_m / TAPE_ROLL_M), ("film", found.film_m2)):
            if used:
                out[code][words] = out[code].get(words, 0.0) + used
    return out


def _part(line: HourLine) -> float:
    """Where one figure of the trade is shared by several steps, each takes its part of what is used."""
    return next((f.value for f in line.labour.factors if f.part), 1.0)


def _abrasive(grit: str, lines: Iterable[HourLine]) -> tuple[Consumable, dict[str, float]]:
    """Sheets and discs of about one grit: what the step's name says, else the middle one."""
    used: dict[str, float] = {}
    for line in lines:
        per = ABRASIVE_PER_M2.get(line.labour.rate.code, 0.0)
        o = line.operation
        if not per or o is None or o.kind not in (OperationKind.SAND, OperationKind.SCRAPE):
            continue
        if _nearest(o.name) == grit:
            used[o.name] = used.get(o.name, 0.0) + per * line.labour.amount * _part(line)
    return Consumable(f"abrasive-{grit}", f"Abrasive, about {grit} grit, sheets or discs", "", 10, {}), used


def _nearest(name: str) -> str:
    found = _GRIT.search(name)
    grit = float(found[1]) if found else 120.0
    return min(_GRITS, key=lambda g: abs(float(g) - grit))


def _worn(hours: Hours) -> list[tuple[Consumable, dict[str, float]]]:
    """What people wear out."""
    days = float(hours.days.person_days)
    dusty = sum(line.hours for line in hours.lines if line.operation and line.operation.technique in _DUSTY)
    sprayed = sum(
        line.hours
        for line in hours.lines
        if line.operation and line.operation.kind.lays_film and line.operation.method and line.operation.method.sprays
    )
    dusty_days = sum(line.labour.amount for line in hours.lines if line.labour.rate.code == "daily-hepa")
    faces = sum(line.labour.amount for line in hours.lines if line.labour.rate.code == "contain")
    return [
        (Consumable("gloves", "Gloves, pairs", "pairs", 10, {}, 1.2), {"people and days": days}),
        (
            Consumable("dust-filters", "Respirator filters for dust, pairs", "pairs", 1, {}),
            {"dusty work": dusty / DUST_MASK_H},
        ),
        (
            Consumable("vapour-filters", "Respirator filters for mist and vapour, pairs", "pairs", 1, {}),
            {"spraying": sprayed / VAPOUR_MASK_H},
        ),
        (
            Consumable("coveralls", "Throw-away coveralls, lead work", "", 1, {}, 1.2),
            {"people and dusty days": dusty_days * hours.days.people},
        ),
        (Consumable("signs", "Warning signs, lead work", "", 1, {}, 1.2), {"contained faces": 2 * faces}),
    ]


def _supply(item: Consumable, used: dict[str, float], draw: Draw, level: float) -> Supply:
    amount = sum(used.values())
    samples: Array = amount * draw.of(f"supply {item.code}", item.spread) * draw.area
    p10, p50, p90, wanted = (float(v) for v in np.quantile(samples, (0.1, 0.5, 0.9, level / 100)))
    buy = ceil(wanted / item.pack - 1e-9) * item.pack
    most = max(used, key=lambda k: used[k], default="")
    return Supply(item.code, item.words, item.unit, amount, p10, p50, p90, buy, most)


def additives(codes: Iterable[str], needs: Iterable[PaintNeed], draw: Draw, level: float) -> list[Supply]:
    """What is stirred into the finish coats, by their litres; an extender for waterborne paint only."""
    finishes = [n for n in needs if n.finish]
    out = []
    for additive in (ADDITIVES[code] for code in codes):
        into = [n for n in finishes if additive.code != "extender" or n.product.base is Base.WATERBORNE]
        used = {
            f"finish coats, {additive.ml_per_l:g} mL a litre": sum(n.litres for n in into) * additive.ml_per_l / 1000
        }
        out.append(_supply(Consumable(additive.code, additive.words, "L", 0.1, {}, 1.2), used, draw, level))
    return [s for s in out if s.amount > 0]
