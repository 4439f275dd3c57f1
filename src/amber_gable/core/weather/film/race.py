"""A coat against the rain: until when it may go on, and what of it gets wet if it goes on."""

from dataclasses import dataclass

import numpy as np

from amber_gable.core.weather.film.drying import DryingStage, not_sooner, reached, stage_rates
from amber_gable.core.weather.judged.rules import RAIN_ON_FACE
from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.weather.wall.surface import Climate
from amber_gable.domain.grid import STEP_S
from amber_gable.domain.paint.product import Product

SURE = 0.7
"""Share of the futures that a last stroke is to survive in, unless another is asked for."""


@dataclass(frozen=True)
class Race:
    """Of a coat that begins at epoch second `begins` and goes on for `takes_h`.

    last_stroke: until when a stroke is rain-ready before rain reaches it in the share of the futures asked for; the end
    of the coat where all of it is; None where not even the first stroke is. unhurt: the share of the futures in which
    no stroke gets wet. wet_share: what share of the coat rain catches soft, in the middle of the futures and in the
    unlucky tenth; `rain_at`: when it first reaches the face, in the same two (inf: not in the weather known).
    """

    begins: float
    takes_h: float
    sure: float
    last_stroke: float | None
    unhurt: float
    wet_share: tuple[float, float]
    rain_at: tuple[float, float]

    @property
    def ends(self) -> float:
        return self.begins + 3600 * self.takes_h

    @property
    def worth_it(self) -> bool:
        """Whether all of the coat is sure enough."""
        return self.last_stroke is not None and self.last_stroke >= self.ends - 1


def race(
    climate: Climate, product: Product, begins: float, takes_h: float, sure: float = SURE, *, by_film: bool = False
) -> Race:
    """The first face of a climate, in each of its members.

    A stroke is caught where rain reaches the face before it is rain-ready. The work is judged stroke by stroke, at the
    ends of the steps it covers; what lies beyond the weather known counts as caught.
    """
    steps = climate.steps
    first = int(np.floor((begins - steps.start) / STEP_S))
    count = max(int(np.ceil(takes_h * 3600 / STEP_S)), 1)
    if not 0 <= first < len(steps):
        raise ValueError("the coat begins outside the weather")
    strokes = np.minimum(first + 1 + np.arange(count), len(steps))
    rates = stage_rates(climate, product)
    clock = np.broadcast_to(rates.clock(DryingStage.RAIN_READY)[0], (*climate.surface[0].shape[:-1], len(steps) + 1))
    rows = np.ascontiguousarray(clock.reshape(-1, len(steps) + 1))
    stage, laid_at = DryingStage.RAIN_READY, strokes.astype(np.int64)
    hours = stage.hours(product)
    ready = not_sooner(reached(rows, laid_at, hours), laid_at, stage, hours, by_film=by_film)
    falls = climate.wall_rain[0].reshape(-1, len(steps)) >= RAIN_ON_FACE
    next_rain = _next(falls)[:, np.minimum(strokes, len(steps) - 1)]
    fine = (ready <= next_rain) & np.isfinite(ready)
    kept = np.minimum.accumulate(fine, axis=1)
    share = kept.mean(axis=0)
    good = int((share >= sure).sum())
    ends = begins + 3600 * takes_h
    wet = 1 - fine.mean(axis=1)
    rain_at = _next(falls)[:, first]
    return Race(
        begins=begins,
        takes_h=takes_h,
        sure=sure,
        last_stroke=None if good == 0 else min(ends, float(steps.start + STEP_S * strokes[good - 1])),
        unhurt=float(share[-1]),
        wet_share=(_at(wet, 0.5), _at(wet, 0.9)),
        rain_at=(_time(_at(rain_at, 0.5), steps.start), _time(_at(rain_at, 0.1), steps.start)),
    )


def _next(falls: np.ndarray) -> Array:
    """The first step from each on in which it rains, (R, T); inf where none does."""
    at = np.where(falls, np.arange(falls.shape[1], dtype=float), np.inf)
    return np.asarray(np.minimum.accumulate(at[:, ::-1], axis=1)[:, ::-1])


def _at(values: Array, quantile: float) -> float:
    """One of the values, none between two of them."""
    return float(np.sort(values)[max(0, int(np.ceil(quantile * len(values))) - 1)])


def _time(step: float, start: int) -> float:
    return start + STEP_S * step
