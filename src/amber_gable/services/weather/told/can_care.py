"""Where cans and the working pot are kept: tonight for the films of the next working day, and while films are laid."""

from dataclasses import dataclass
from datetime import date, datetime

import numpy as np

from amber_gable.core.weather.judged.can_care import (
    POT_COOLS_C,
    POT_SKINS_C,
    ColdNight,
    cold_night,
)
from amber_gable.core.weather.judged.slots import mean
from amber_gable.domain.job.plan import Task
from amber_gable.domain.paint.product import Base
from amber_gable.services.job.view import JobView


@dataclass(frozen=True)
class CanCare:
    """`night`: before the films of `films_on`, with the paint that wants it warmest; `spoils`: frost spoils that;
    `cold_pot` and `hot_pot`: the coldest and hottest air of the day's films, where the pot is to be kept from it."""

    night: ColdNight | None
    films_on: date | None
    paint: str
    spoils: bool
    cold_pot: float | None
    hot_pot: float | None

    def __bool__(self) -> bool:
        return self.night is not None or self.cold_pot is not None or self.hot_pot is not None


NOTHING = CanCare(None, None, "", False, None, None)


def can_care(view: JobView, day: date) -> CanCare:
    """Of a planned job whose weather is known; nothing else is said."""
    site, kept = view.site, view.kept
    if site is None or kept is None:
        return NOTHING
    zone = view.now.tzinfo
    films = [t for t in kept.plan.tasks if t.kind.lays_film]
    of_day = [t for t in films if t.start.astimezone(zone).date() == day]
    cold, hot = _pot(view, of_day)
    later = [t for t in films if t.start.astimezone(zone).date() > day]
    first = min((t.start for t in later), default=None)
    # What is laid days from now is told on its eve.
    if first is None or (first.astimezone(zone).date() - day).days > 1:
        return CanCare(None, None, "", False, cold, hot)
    films_on = first.astimezone(zone).date()
    wanted = max(
        ((p.surface_min_c, p) for p in view.bundle.products if p.code in _laid_on(later, films_on, view)),
        key=lambda w: w[0],
        default=None,
    )
    low = _night_low(view, day, first)
    if wanted is None or low is None:
        return CanCare(None, None, "", False, cold, hot)
    litres = max(c.litres for c in wanted[1].containers)
    night = cold_night(low, wanted[0], litres)
    spoils = night is not None and night.freezes and wanted[1].base is not Base.ALKYD
    return CanCare(night, films_on, wanted[1].name, spoils, cold, hot)


def _laid_on(tasks: list[Task], day: date, view: JobView) -> set[str]:
    zone = view.now.tzinfo
    return {t.product for t in tasks if t.product is not None and t.start.astimezone(zone).date() == day}


def _night_low(view: JobView, day: date, until: datetime) -> float | None:
    """Coldest air from the end of that day's work until the first film; None where the forecast does not reach."""
    site = view.site
    assert site is not None
    slots, air = site.slots, mean(site.steps.air, site.slots)
    times = [slots.time(i) for i in range(len(slots))]
    end = view.bundle.job.crew.end_h
    inside = [
        i for i, t in enumerate(times) if t < until and (t.date() > day or (t.date() == day and slots.hours[i] >= end))
    ]
    return float(np.min(air[inside])) if inside else None


def _pot(view: JobView, films: list[Task]) -> tuple[float | None, float | None]:
    """The coldest and hottest air while the day's films are laid, where it asks something of the pot."""
    site = view.site
    if site is None or not films:
        return None, None
    air, slots = mean(site.steps.air, site.slots), site.slots
    at = [
        i
        for t in films
        for i in range(len(slots))
        if t.start.timestamp() <= slots.start + i * slots.length_s < t.end.timestamp()
    ]
    if not at:
        return None, None
    low, high = float(air[at].min()), float(air[at].max())
    return (low if low < POT_COOLS_C else None), (high if high >= POT_SKINS_C else None)
