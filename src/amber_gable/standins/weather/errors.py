"""How a forecast errs: from run to run of the service's model, a new one every six hours that keeps most of what the
last one held."""

from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache
from hashlib import sha256
from itertools import accumulate

import numpy as np

from amber_gable.core.weather.outdoors.air import Array

RUN_S = 6 * 3600
KEPT = 0.9
"""How much of its error a run takes over from the one before."""
_RUNS_BACK = 24
_HOUR_TO_HOUR = 0.97


def drawn(*key: object) -> np.random.Generator:
    """Chance that is the same whenever it is asked for."""
    digest = sha256("/".join(map(str, key)).encode()).digest()
    return np.random.default_rng(int.from_bytes(digest[:8], "big"))


@dataclass(frozen=True)
class Errors:
    """Of unit spread: of shape (H,) for each quantity, and the shift of fronts in time."""

    air: Array
    dew: Array
    cloud: Array
    wind: Array
    shift: float


def errors(seed: str, latitude: float, longitude: float, issued: datetime, before_h: int, ahead_h: int) -> Errors:
    """Of the run in use at `issued`, for the hours from `before_h` before it to `ahead_h` after."""
    run, hour = int(issued.timestamp()) // RUN_S, int(issued.timestamp()) // 3600
    first, count = hour - before_h, before_h + ahead_h
    # Old runs fade; what is left is brought back to unit spread.
    weights = KEPT ** np.arange(_RUNS_BACK)
    weights /= np.sqrt((weights**2).sum())
    total = np.zeros((4, count))
    shift = 0.0
    for back, weight in enumerate(weights):
        own = _of_run(seed, round(latitude, 2), round(longitude, 2), run - back, before_h, ahead_h)
        at = first - own.first
        total += weight * own.series[:, at : at + count]
        shift += weight * own.shift
    air, dew, cloud, wind = total
    return Errors(air, dew, cloud, wind, shift)


@dataclass(frozen=True)
class _Own:
    """What a run brings that is its own: series (4, H) from hour `first` since 1970."""

    first: int
    series: Array
    shift: float


@lru_cache(maxsize=512)
def _of_run(seed: str, latitude: float, longitude: float, run: int, before_h: int, ahead_h: int) -> _Own:
    chance = drawn(seed, latitude, longitude, "run", run)
    hours = RUN_S // 3600
    # Later runs lean on it for hours it did not itself reach.
    kicks = chance.normal(size=(4, before_h + ahead_h + hours * (_RUNS_BACK + 1)))
    kicks[:, 1:] *= np.sqrt(1 - _HOUR_TO_HOUR**2)
    # An hour's error is most of the last one's, and a kick.
    series = [list(accumulate(row, lambda last, kick: kick + _HOUR_TO_HOUR * last)) for row in kicks.tolist()]
    return _Own(run * hours - before_h, np.array(series), float(chance.normal()))
