"""Forecasts that err as measured ones do, and not as the members are drawn: nights told too warm, fronts that come
later than told, showers missed or made up, winds too weak, and now and then a forecast that is wrong altogether.

Nothing here is taken from the ensemble: errors lie at knots of a day with heavy tails and are never autoregressive, the
hour of fronts is late and not symmetric, and the chance of rain is the source's own round figure.
"""

from dataclasses import replace
from datetime import datetime

import numpy as np

from amber_gable.core.weather.outdoors.air import Array
from amber_gable.standins.weather.truth import AHEAD_H, HISTORY_H, Hourly

BUST = 0.07
"""One forecast in fourteen goes wrong altogether from some day on."""
NIGHT_K, DAY_K = 0.9, -0.3
LATE_H = 0.035
"""Hours that a front is late for each hour ahead, on average."""
MISSED, MADE_UP = 0.25, 0.02


def measured_like(real: Hourly, at: datetime, scale: float) -> tuple[Hourly, Array]:
    """What such a source tells of `real` at `at`, and its chance of rain, %. `scale`: the size of all errors."""
    dice = np.random.default_rng([int(at.timestamp()) // 3600, round(100 * scale)])
    lead = np.maximum(np.arange(HISTORY_H + AHEAD_H) - HISTORY_H, 0)
    days = lead / 24
    local = ((real.start // 3600 + np.arange(len(lead))) - 4) % 24
    night = (local < 7) | (local > 20)
    base = _busted(real, lead, dice) if dice.random() < BUST * scale else real
    air_off = _knots(dice, days, 0.35, 0.55) + np.where(lead > 0, np.where(night, NIGHT_K, DAY_K), 0.0)
    dew_off = _knots(dice, days, 0.35, 0.5) - np.where(lead > 0, 0.3, 0.0)
    late = np.minimum(lead, scale * LATE_H * lead * dice.gamma(2.0, 0.5))
    moved = np.maximum(np.arange(len(lead)) - np.round(late).astype(int), 0)
    fronts, showers = base.rain[moved] - base.shower[moved], base.shower.copy()
    ahead = lead > 1
    showers[ahead & (dice.random(len(lead)) < min(MISSED * scale, 0.9))] = 0.0
    made = ahead & (dice.random(len(lead)) < MADE_UP * scale)
    rain = np.where(lead == 0, real.rain, fronts + showers + np.where(made, 0.8, 0.0))
    told = replace(
        base,
        air=base.air + scale * air_off,
        dew=np.minimum(base.dew + scale * dew_off, base.air + scale * air_off),
        wind=base.wind * np.where(lead > 0, 0.9 * np.exp(scale * _knots(dice, days, 0.05, 0.08)), 1.0),
        wind_from=base.wind_from + scale * 8 * _knots(dice, days, 0.5, 0.8),
        cloud=np.clip(base.cloud + scale * 0.12 * _knots(dice, days, 0.4, 0.6), 0, 1),
        rain=rain,
    )
    sure = np.interp(lead, [0, 24, 120, 240], [95.0, 80.0, 60.0, 45.0])
    doubt = np.interp(lead, [0, 24, 120, 240], [0.0, 5.0, 10.0, 15.0])
    near = np.convolve(rain >= 0.1, np.ones(5), "same") > 0
    chance = np.where(rain >= 0.1, sure, np.where(near, (sure + 2 * doubt) / 3, doubt))
    return told, np.round(chance / 5) * 5


def _knots(dice: np.random.Generator, days: Array, first: float, more: float) -> Array:
    """Errors at the days ahead, wider the further, with heavy tails, run straight between."""
    at = np.arange(np.ceil(days.max()) + 2)
    size = first + more * np.sqrt(at)
    return np.asarray(np.interp(days, at, np.where(at > 0, 0.7 * dice.standard_t(4, len(at)) * size, 0.0)))


def _busted(real: Hourly, lead: Array, dice: np.random.Generator) -> Hourly:
    """From a day between the second and the fifth on the weather of two days before or after."""
    shift = int(dice.choice([-48, 48]))
    gone = lead >= 24 * int(dice.integers(2, 6))
    at = np.clip(np.arange(len(lead)) + np.where(gone, shift, 0), 0, len(lead) - 1)
    names = ("air", "dew", "wind", "wind_from", "cloud", "rain", "shower", "shower_chance")
    return replace(real, **{n: getattr(real, n)[at] for n in names})
