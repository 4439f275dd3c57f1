"""The slots in which work is judged, laid over the steps of a climate."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta, tzinfo
from functools import reduce

import numpy as np

from amber_gable.core.weather.outdoors.air import Array, Ints
from amber_gable.core.weather.outdoors.sun import RISEN
from amber_gable.core.weather.wall.steps import Steps
from amber_gable.domain.errors import NoClimate
from amber_gable.domain.grid import SLOT_S, STEP_S


@dataclass(frozen=True)
class Slots:
    """S consecutive slots. `first` (S,) is each slot's first step, `end` the boundary of its last stroke.

    hours (S,) local clock hour at which the slot begins; weekday (S,) Monday 0; day (S,) counts local dates from 0;
    daylight (S,) hours the slot lies inside sunrise-sunset (negative: outside by that much). length_s: of a slot, s.
    """

    start: int
    first: Ints
    hours: Array
    weekday: Ints
    day: Ints
    daylight: Array
    tz: tzinfo
    length_s: int = SLOT_S

    def __len__(self) -> int:
        return len(self.first)

    @property
    def end(self) -> Ints:
        return self.first + self.length_s // STEP_S

    @property
    def length_h(self) -> float:
        return self.length_s / 3600

    def time(self, index: int) -> datetime:
        """Local time at which slot `index` begins."""
        return datetime.fromtimestamp(self.start + index * self.length_s, UTC).astimezone(self.tz)

    def moment(self, seconds: float) -> datetime | None:
        """An epoch time as local time to the minute; None where it is not known."""
        if not np.isfinite(seconds):
            return None
        return datetime.fromtimestamp(round(seconds / 60) * 60, UTC).astimezone(self.tz)

    @property
    def dates(self) -> list[str]:
        """ISO date of each local day the slots touch, by day number."""
        begins = np.flatnonzero(np.diff(self.day, prepend=-1))
        return [self.time(int(i)).date().isoformat() for i in begins]


def make_slots(steps: Steps, begin: datetime, days: int, tz: tzinfo, length_s: int = SLOT_S) -> Slots:
    """Slots of `days` local days from the local midnight of `begin`, cut to the weather there is.

    Raises NoClimate when the weather holds none of them.
    """
    midnight = begin.astimezone(tz).replace(hour=0, minute=0, second=0, microsecond=0, fold=0)
    last_midnight = midnight + timedelta(days=days)
    start = int(midnight.timestamp())
    # Where the local midnight lies inside a step (UTC+5:45), the slots begin with the next.
    offset = -((steps.start - start) // STEP_S)
    count, per_slot = int(last_midnight.timestamp() - start) // length_s, length_s // STEP_S
    first = offset + per_slot * np.arange(count)
    keep = (first >= 0) & (first + per_slot <= len(steps))
    if not keep.any():
        span = [datetime.fromtimestamp(t, UTC).astimezone(tz).date() for t in (steps.start, steps.times[-1])]
        raise NoClimate(
            f"the weather covers {span[0]} to {span[1]}, none of the {days} days from {midnight.date()}; "
            "choose a start inside it or bring another file"
        )
    first = first[keep]
    start = int(steps.start + first[0] * STEP_S)
    local = [datetime.fromtimestamp(start + length_s * n, tz) for n in range(len(first))]
    ordinal = np.array([t.toordinal() for t in local], dtype=np.int64)
    return Slots(
        start=start,
        first=first.astype(np.int64),
        hours=np.array([t.hour + t.minute / 60.0 for t in local]),
        weekday=np.array([t.weekday() for t in local], dtype=np.int64),
        day=ordinal - ordinal[0],
        daylight=_daylight(steps, first, per_slot),
        tz=tz,
        length_s=length_s,
    )


def _daylight(steps: Steps, first: Ints, per_slot: int) -> Array:
    """Hours by which each slot lies inside daylight; negative outside. Shape (S,)."""
    high = steps.sun.elevation - RISEN
    crossing = np.flatnonzero(np.sign(high[:-1]) * np.sign(high[1:]) < 0)
    at = crossing + 0.5 + high[crossing] / (high[crossing] - high[crossing + 1])
    rising = high[crossing + 1] > 0
    # Beyond the ends of the weather the sun is taken to stay as it is.
    bounds = np.concatenate([[-1e9], at, [1e9]])
    lit_first = bool(high[0] > 0) if len(at) == 0 else not bool(rising[0])
    lit = np.arange(len(bounds) - 1) % 2 == (0 if lit_first else 1)
    middle = first + per_slot / 2
    span = np.searchsorted(bounds, middle) - 1
    inside = np.minimum(first - bounds[span], bounds[span + 1] - (first + per_slot))
    outside = -np.minimum(middle - bounds[span], bounds[span + 1] - middle)
    hours = np.where(lit[span], inside, outside) * STEP_S / 3600.0
    return np.asarray(np.clip(hours, -24.0, 24.0))


def _in_slots(values: Array, slots: Slots, join: Callable[[Array, Array], Array]) -> Array:
    """The steps of each slot joined, (..., S), from values (..., T). Slots follow each other without a gap."""
    per_slot = slots.length_s // STEP_S
    held = values[..., slots.first[0] : slots.first[-1] + per_slot]
    return reduce(join, (held[..., k::per_slot] for k in range(per_slot)))


def least(values: Array, slots: Slots) -> Array:
    """The least of each slot."""
    return _in_slots(values, slots, np.minimum)


def greatest(values: Array, slots: Slots) -> Array:
    """The greatest of each slot."""
    return _in_slots(values, slots, np.maximum)


def mean(values: Array, slots: Slots) -> Array:
    """Mean over each slot."""
    return _in_slots(values, slots, np.add) / (slots.length_s // STEP_S)
