"""When a coat could begin on a small thing that is wiped dry as the day begins (docs/trade.md §11, dry surface)."""

from dataclasses import dataclass, replace
from datetime import datetime, timedelta

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.futures.members import Coat, wetness
from amber_gable.core.weather.judged.helps import SMALL
from amber_gable.core.weather.judged.slots import Slots
from amber_gable.core.weather.judged.windows import film_windows
from amber_gable.core.weather.wall.steps import Steps
from amber_gable.core.weather.wall.surface import WaterEvent, surface_climate
from amber_gable.domain.work.working import CrewDay, Policy


@dataclass(frozen=True)
class WipedStart:
    """Wiped `at`, the coat may begin `then`; untouched it may begin at `else_at`, None where not that day."""

    at: datetime
    then: datetime
    else_at: datetime | None

    @property
    def gain(self) -> timedelta | None:
        return None if self.else_at is None else self.else_at - self.then


def wiped_start(
    steps: Steps,
    slots: Slots,
    coat: Coat,
    policy: Policy,
    crew: CrewDay,
    day: int,
    ok: npt.NDArray[np.bool_],
    ready: float = -np.inf,
) -> WipedStart | None:
    """On the slots' day `day`, for a coat that is open untouched in the slots `ok` (S,) and whose part is ready from
    epoch second `ready` on. None where it is too large to be wiped, or nothing is won by it."""
    if not coat.surface.substrate.tags & SMALL:
        return None
    midnight = datetime.fromisoformat(slots.dates[day]).replace(tzinfo=slots.tz)
    at = midnight + timedelta(hours=crew.first_h)
    events = tuple(sorted((*coat.water, WaterEvent(at.timestamp(), towel=True)), key=lambda e: e.at))
    wiped = replace(coat, water=events)
    climate = surface_climate(steps, (coat.surface,), events)
    limit = None if coat.damp is None else coat.damp.limit
    moisture = wetness(wiped, {coat.surface: climate})
    opened = film_windows(climate, slots, coat.product, coat.method, policy, crew, moisture, limit).ok[0]
    ends = slots.start + slots.length_s * (np.arange(len(slots)) + 1.0)
    then, else_ = (_first(open_ & (slots.day == day) & (ends > ready), slots) for open_ in (opened, ok))
    if then is None or (else_ is not None and else_ <= then):
        return None
    return WipedStart(at, then, else_)


def _first(open_: npt.NDArray[np.bool_], slots: Slots) -> datetime | None:
    return slots.time(int(np.argmax(open_))) if open_.any() else None
