"""What two forecasts of one place say differently, in words: rain that comes earlier, a colder night, more wind.

Differences that forecasts show from run to run without meaning anything are left out: what is said is at least what a
painter would shift a day for. Spells of rain are matched by the nearest beginning.
"""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, timedelta, tzinfo

import numpy as np

from amber_gable.core.weather.outdoors.air import Array, Ints, dew_point, vapour_pressure
from amber_gable.domain.weather.series import HOUR, WeatherSeries

WET_MM, WET_PCT = 0.2, 50.0
"""An hour that counts as wet: by its depth, or by its chance where no depth is given."""
_DRY_BETWEEN = 2
"""Dry hours that do not part a spell."""
_SAME_WITHIN_H = 18.0
SHIFT_H, AMOUNT_MM = 2.0, 3.0
"""Least shift of a beginning or an end, and least difference of a depth that also doubles or halves."""
WARMER_K, WINDIER_MS, CLOUDIER = 2.5, 2.5, 0.35
DEWY_K, DRIER_K = 2.0, 1.5
"""Air this near its dew point under an open sky wets what faces it; and how much a night must change to be said."""
OPEN_SKY = 0.6
DAYS = 6
_DAY_H = (8, 18)


@dataclass(frozen=True)
class Spell:
    """Rain from `start` to `end` (epoch s), mm in all (None: only its chance is known)."""

    start: int
    end: int
    mm: float | None

    @property
    def name(self) -> str:
        hours = (self.end - self.start) / HOUR
        if hours >= 5 and (self.mm is None or self.mm >= 5):
            return "the front"
        return "a shower" if hours <= 2 else "rain"


@dataclass(frozen=True)
class ForecastChange:
    """at: when it matters, local; `words` a sentence without its point; rain goes before all else."""

    at: datetime
    rank: int
    words: str


def spells(series: WeatherSeries, begin: int, end: int) -> list[Spell]:
    """The rain between two moments; hours of which nothing is known count as dry."""
    hours = series.start + HOUR * np.arange(len(series))
    mm = None if series.rain_mm is None else np.nan_to_num(series.rain_mm)
    pct = np.zeros(len(series)) if series.rain_pct is None else np.nan_to_num(series.rain_pct)
    wet = (pct >= WET_PCT) if mm is None else (mm >= WET_MM)
    at = np.flatnonzero(wet & (hours >= begin) & (hours < end))
    out: list[Spell] = []
    for i in at.tolist():
        depth = None if mm is None else float(mm[i])
        if out and hours[i] - out[-1].end <= _DRY_BETWEEN * HOUR:
            last = out[-1]
            out[-1] = replace(last, end=int(hours[i]) + HOUR, mm=None if depth is None else (last.mm or 0) + depth)
        else:
            out.append(Spell(int(hours[i]), int(hours[i]) + HOUR, depth))
    return out


def changes(then: WeatherSeries, now: WeatherSeries, since: datetime, days: int = DAYS) -> list[ForecastChange]:
    """What `now` says otherwise than `then` of the days from `since` (aware, local) on, as far as both reach; the
    weightiest first, then by time."""
    begin = int(since.timestamp()) // HOUR * HOUR
    end = min(then.end, now.end, begin + days * 24 * HOUR)
    tz = since.tzinfo or UTC
    found = [*_rain(spells(then, begin, end), spells(now, begin, end), end, tz)]
    hours = np.arange(max(begin, then.start, now.start), end, HOUR)
    if hours.size:
        found += _air(_Hours(then, hours, tz), _Hours(now, hours, tz))
    return sorted(found, key=lambda c: (c.rank, c.at))


def _local(at: int, tz: tzinfo) -> datetime:
    return datetime.fromtimestamp(at, UTC).astimezone(tz)


def _from_to(spell: Spell, tz: tzinfo) -> str:
    begin, end = _local(spell.start, tz), _local(spell.end, tz)
    amount = "" if spell.mm is None else f" ({spell.mm:.0f} mm)" if spell.mm >= 1 else f" ({spell.mm:.1f} mm)"
    other = "" if begin.date() == end.date() else f"{end:%A} "
    return f"{begin:%A} {begin:%H:%M} to {other}{end:%H:%M}{amount}"


def _rain(then: list[Spell], now: list[Spell], end: int, tz: tzinfo) -> Iterable[ForecastChange]:
    pairs = sorted(
        ((abs(a.start - b.start), i, j) for i, a in enumerate(then) for j, b in enumerate(now)), key=lambda p: p[0]
    )
    matched: dict[int, int] = {}
    for apart, i, j in pairs:
        if apart <= _SAME_WITHIN_H * HOUR and i not in matched and j not in matched.values():
            matched[i] = j
    for i, spell in enumerate(then):
        if i in matched:
            yield from _moved(spell, now[matched[i]], end, tz)
        else:
            yield ForecastChange(
                _local(spell.start, tz), 0, f"{spell.name} of {_from_to(spell, tz)} is no longer expected"
            )
    for j, spell in enumerate(now):
        if j not in matched.values():
            yield ForecastChange(_local(spell.start, tz), 0, f"new: {spell.name} {_from_to(spell, tz)}")


def _moved(then: Spell, now: Spell, end: int, tz: tzinfo) -> Iterable[ForecastChange]:
    begins, was = _local(now.start, tz), _local(then.start, tz)
    shift, ends = (now.start - then.start) / HOUR, (now.end - then.end) / HOUR
    said = []
    if abs(shift) >= SHIFT_H:
        other = "" if was.date() == begins.date() else f"{was:%A} "
        sooner = "earlier" if shift < 0 else "later"
        said.append(f"of {begins:%A} comes {abs(shift):.0f} hours {sooner} (at {begins:%H:%M}, not {other}{was:%H:%M})")
    # A spell cut by the end of a forecast has no end of its own.
    if abs(ends - shift) >= SHIFT_H and max(then.end, now.end) < end:
        longer = "longer" if ends > shift else "less long"
        said.append(f"{'' if said else f'of {begins:%A} '}lasts {abs(ends - shift):.0f} hours {longer}")
    if then.mm is not None and now.mm is not None and abs(now.mm - then.mm) >= AMOUNT_MM:
        less, more = sorted((then.mm, now.mm))
        if more >= 2 * less:
            said.append(f"{'' if said else f'of {begins:%A} '}brings {now.mm:.0f} mm instead of {then.mm:.0f} mm")
    if said:
        *first, last = said
        yield ForecastChange(begins, 0, f"{now.name} {', '.join(first)}{' and ' if first else ''}{last}")


class _Hours:
    """A forecast cut to whole hours both have, with local dates and clocks."""

    def __init__(self, series: WeatherSeries, hours: Ints, tz: tzinfo) -> None:
        at = ((hours - series.start) // HOUR).astype(int)
        self.air, self.wind = series.air_c[at], series.wind_ms[at]
        self.cloud = None if series.cloud is None else series.cloud[at]
        self.spread = self.air - dew_point(vapour_pressure(self.air, series.rh_pct[at]))
        local = [_local(int(h), tz) for h in hours]
        self.tz = tz
        self.clock = np.array([t.hour for t in local])
        self.dates = np.array([t.date().toordinal() for t in local])
        # A night belongs to the day it ends on.
        self.nights = np.array([(t + timedelta(hours=6)).date().toordinal() for t in local])

    @property
    def light(self) -> Array:
        return np.asarray((self.clock >= _DAY_H[0]) & (self.clock < _DAY_H[1]))

    @property
    def dark(self) -> Array:
        return np.asarray((self.clock >= 20) | (self.clock < 8))


def _air(then: _Hours, now: _Hours) -> Iterable[ForecastChange]:
    for day in sorted(set(now.dates[now.light].tolist())):
        here = now.light & (now.dates == day)
        if here.sum() < _DAY_H[1] - _DAY_H[0]:
            continue
        noon = datetime.combine(date.fromordinal(day), datetime.min.time(), now.tz) + timedelta(hours=12)
        was, is_ = float(then.wind[here].max()), float(now.wind[here].max())
        if abs(is_ - was) >= WINDIER_MS:
            yield ForecastChange(
                noon,
                1,
                f"{noon:%A} {'windier' if is_ > was else 'calmer'}: up to {is_:.0f} m/s instead of {was:.0f} m/s",
            )
        was, is_ = float(then.air[here].max()), float(now.air[here].max())
        if abs(is_ - was) >= WARMER_K:
            colder = "warmer" if is_ > was else "colder"
            yield ForecastChange(noon, 2, f"{noon:%A} {colder}: up to {is_:.0f} °C instead of {was:.0f} °C")
        if then.cloud is not None and now.cloud is not None:
            was, is_ = float(then.cloud[here].mean()), float(now.cloud[here].mean())
            if abs(is_ - was) >= CLOUDIER:
                yield ForecastChange(noon, 4, f"{noon:%A} {'greyer' if is_ > was else 'sunnier'}")
    for day in sorted(set(now.nights[now.dark].tolist())):
        here = now.dark & (now.nights == day)
        if here.sum() < 8:
            continue
        morning = datetime.combine(date.fromordinal(day), datetime.min.time(), now.tz) + timedelta(hours=6)
        was, is_ = float(then.air[here].min()), float(now.air[here].min())
        if abs(is_ - was) >= WARMER_K:
            warmer = "warmer" if is_ > was else "colder"
            words = f"the night to {morning:%A} {warmer}: down to {is_:.0f} °C instead of {was:.0f} °C"
            yield ForecastChange(morning, 2, words)
        near_then, near_now = _nearest(then, here), _nearest(now, here)
        if abs(near_now - near_then) >= DRIER_K and (near_now <= DEWY_K) != (near_then <= DEWY_K):
            turned = "turns dewy" if near_now <= DEWY_K else "is no longer dewy"
            yield ForecastChange(morning, 3, f"the night to {morning:%A} {turned}")


def _nearest(hours: _Hours, here: Array) -> float:
    """How near the air comes to its dew point while the sky is open, K; far where it never is."""
    spread = hours.spread[here]
    if hours.cloud is not None:
        spread = spread[hours.cloud[here] <= OPEN_SKY]
    return float(spread.min()) if spread.size else 99.0
