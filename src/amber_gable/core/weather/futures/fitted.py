"""How far a source's forecasts of the air were really off, against what was measured where they were for
(docs/physics.md §10): the factor on the spread of the futures that are drawn around them."""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from amber_gable.core.weather.futures.ensemble import spread
from amber_gable.domain.weather.series import HOUR, WeatherSeries

LEADS = ((3, 24), (24, 72), (72, 240))
"""Hours ahead that are told apart."""
TOGETHER_H = 12.0
"""Errors of so many hours count as one case: an error lasts (core/weather/futures/ensemble.py)."""
BELIEVED = 15.0
"""So many cases weigh as much as what is assumed of a source nobody measured."""
LEAST, MOST = 0.6, 2.0
LEAST_CASES = 4.0


@dataclass(frozen=True)
class LeadError:
    """From `first` to `end` hours ahead: the root mean square of the air's errors, K, what was assumed, the mean error
    (forecast less measured), and how many cases it is of."""

    first: int
    end: int
    found_k: float
    assumed_k: float
    bias_k: float
    cases: float


@dataclass(frozen=True)
class SpreadFit:
    """`factor`: on the spread that is assumed of any service, held towards 1 where little was measured."""

    factor: float
    cases: float
    leads: tuple[LeadError, ...]


def fitted_spread(forecasts: Iterable[WeatherSeries], observed: WeatherSeries) -> SpreadFit | None:
    """Of forecasts as they were had, with their time of issue, against what was measured (NaN: not). None where too
    little of them was measured."""
    leads, errors = [], []
    for told in forecasts:
        if told.issued is None:
            continue
        hours = told.start + HOUR * np.arange(len(told))
        at = (hours - observed.start) // HOUR
        inside = (at >= 0) & (at < len(observed))
        lead = (hours[inside] - told.issued) / HOUR
        off = told.air_c[inside] - observed.air_c[at[inside]]
        known = np.isfinite(off) & (lead >= LEADS[0][0]) & (lead < LEADS[-1][1])
        leads.append(lead[known])
        errors.append(off[known])
    if not leads:
        return None
    lead, off = np.concatenate(leads), np.concatenate(errors)
    cases = len(off) / TOGETHER_H
    if cases < LEAST_CASES:
        return None
    assumed = spread("state", lead)
    square = float(np.mean((off / assumed) ** 2))
    factor = float(np.sqrt((BELIEVED + cases * square) / (BELIEVED + cases)))
    found = []
    for first, end in LEADS:
        here = (lead >= first) & (lead < end)
        if here.any():
            found.append(
                LeadError(
                    first,
                    end,
                    float(np.sqrt(np.mean(off[here] ** 2))),
                    float(np.sqrt(np.mean(assumed[here] ** 2))),
                    float(off[here].mean()),
                    float(here.sum() / TOGETHER_H),
                )
            )
    return SpreadFit(float(np.clip(factor, LEAST, MOST)), cases, tuple(found))
