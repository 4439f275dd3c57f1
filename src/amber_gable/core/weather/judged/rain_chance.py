"""The chance that it rains at all while a film waits: from the source's own futures where it has some, else from the
chance of each hour (docs/physics.md §10)."""

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.outdoors.air import Array, Ints
from amber_gable.domain.grid import STEPS_PER_HOUR

SHARED = 0.6
"""Of its chance, how much an hour shares with the one before it: what rains goes on raining, what is dry stays so.
An assumption; hours that shared nothing would make 67 % of five hours of 20 %, hours alike 20 %, these 43 %."""
_SURE = 1 - 1e-9


def chance_over(pct: Array, begin: Ints, end: Ints) -> Array:
    """% that it rains at all from step `begin` (S,) up to step `end` (..., S); each hour has a chance (..., T), %.

    After an hour that stayed dry the next rains with p_i - SHARED x min(p_i, p_i-1): about as sure as the surest
    hour at the least, never surer than hours that know nothing of each other. Steps begin on a full hour.
    """
    p = np.clip(pct / 100.0, 0.0, _SURE)
    hourly = p[..., ::STEPS_PER_HOUR]
    before = np.concatenate([hourly[..., :1], hourly[..., :-1]], axis=-1)
    stays_dry = np.zeros(p.shape)
    stays_dry[..., ::STEPS_PER_HOUR] = np.log1p(-(hourly - SHARED * np.minimum(hourly, before)))
    until = np.concatenate([np.zeros((*p.shape[:-1], 1)), np.cumsum(stays_dry, axis=-1)], axis=-1)
    last = p.shape[-1]
    start = np.minimum(begin, last - 1)
    ends = np.minimum(np.maximum(end, start + 1), last)
    each = np.broadcast_to(until, (*np.broadcast_shapes(until.shape[:-1], ends.shape[:-1]), last + 1))
    to_end = np.take_along_axis(each, np.broadcast_to(ends, (*each.shape[:-1], ends.shape[-1])), axis=-1)
    dry = np.log1p(-p[..., start]) + to_end - until[..., start + 1]
    return np.asarray(100.0 * -np.expm1(dry))


def chance_in(wet: npt.NDArray[np.bool_], begin: Ints, end: Ints) -> Array:
    """% of the futures (M, ..., T) that are wet at any step from `begin` (S,) up to `end` (..., S), and in the step
    of `begin` at the least."""
    last = wet.shape[-1]
    at = np.where(wet, np.arange(last), last)
    next_wet = np.minimum.accumulate(at[..., ::-1], axis=-1)[..., ::-1]
    start = np.minimum(begin, last - 1)
    ends = np.minimum(np.maximum(end, start + 1), last)
    return np.asarray(100.0 * np.mean(next_wet[..., start] < ends, axis=0))
