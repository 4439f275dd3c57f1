"""Where cans and the working pot are kept: on the eve of a film, and while films are laid outside."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

import numpy as np

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.weather.judged.can_care import POT_COOLS_C, POT_SKINS_C, ColdNight, cold_night
from amber_gable.core.weather.judged.slots import mean
from amber_gable.core.weather.outdoors.air import Array, Ints
from amber_gable.domain.job.plan import Task
from amber_gable.domain.paint.product import Base
from amber_gable.domain.work.operation import Where
from amber_gable.services.job.view import JobView


@dataclass(frozen=True)
class Eve:
    """A night that is too cold for the paint of the films of `films_on`: the one that wants it warmest is named.
    `spoils`: frost spoils that paint."""

    night: ColdNight
    films_on: date
    paint: str
    spoils: bool


@dataclass(frozen=True)
class CanCare:
    """`cold_pot` and `hot_pot`: the coldest and hottest air of the day's films, where the pot is to be kept from it."""

    eve: Eve | None
    cold_pot: float | None
    hot_pot: float | None

    def __bool__(self) -> bool:
        return self.eve is not None or self.cold_pot is not None or self.hot_pot is not None


def can_care(view: JobView, day: date) -> CanCare:
    """Of a planned job whose weather is known; nothing else is said. In a heated shop neither can nor pot is cold."""
    site, kept = view.site, view.kept
    if site is None or kept is None:
        return CanCare(None, None, None)
    films = [t for t in kept.plan.tasks if t.kind.lays_film and not _in_the_shop(view, t)]
    air = np.asarray(mean(site.steps.air, site.slots))
    on_eve = _day(view, films, day + timedelta(days=1))
    return CanCare(_eve(view, site, day, on_eve, air), *_pot(site, _day(view, films, day), air))


def _in_the_shop(view: JobView, task: Task) -> bool:
    finish = view.bundle.finish_of(*task.part)
    operations = view.bundle.operations(finish) if finish is not None else ()
    return any(o.where is Where.SHOP for o in operations if o.id in task.steps)


def _day(view: JobView, tasks: Sequence[Task], day: date) -> list[Task]:
    return [t for t in tasks if t.start.astimezone(view.now.tzinfo).date() == day]


def _eve(view: JobView, site: SiteClimate, day: date, films: Sequence[Task], air: Array) -> Eve | None:
    """The night between that day's work and the first of the next day's films; None without any, where it is warm
    enough, or where the forecast does not reach."""
    laid = {t.product for t in films}
    paints = [p for p in view.bundle.products if p.code in laid]
    if not paints:
        return None
    wanted = max(paints, key=lambda p: p.surface_min_c)
    tz = site.slots.tz
    end = datetime.combine(day, datetime.min.time(), tz) + timedelta(hours=view.bundle.job.crew.end_h)
    night = _between(site, end, min(t.start for t in films))
    if not night.size:
        return None
    found = cold_night(float(air[night].min()), wanted.surface_min_c, max(c.litres for c in wanted.containers))
    if found is None:
        return None
    spoils = found.freezes and wanted.base is not Base.ALKYD
    return Eve(found, day + timedelta(days=1), wanted.name, spoils)


def _pot(site: SiteClimate, films: Sequence[Task], air: Array) -> tuple[float | None, float | None]:
    """The coldest and hottest air while the films are laid, where it asks something of the pot."""
    at = [i for t in films for i in _between(site, t.start, t.end)]
    if not at:
        return None, None
    low, high = float(air[at].min()), float(air[at].max())
    return (low if low < POT_COOLS_C else None), (high if high >= POT_SKINS_C else None)


def _between(site: SiteClimate, start: datetime, end: datetime) -> Ints:
    """The slots that begin from `start` on and before `end`."""
    begins = site.slots.start + site.slots.length_s * np.arange(len(site.slots))
    return np.flatnonzero((begins >= start.timestamp()) & (begins < end.timestamp()))
