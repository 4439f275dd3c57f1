"""Wood moisture from several readings (docs/trade.md §3). Values % of dry mass."""

from dataclasses import dataclass
from datetime import date, datetime, tzinfo
from statistics import fmean, stdev

from amber_gable.domain.findings.condition import Condition, MoistureReading


@dataclass(frozen=True)
class MoistureStatistics:
    """All readings, and `judged`: the wettest of the latest day, for one wet board spoils a coat as well as many."""

    count: int
    mean: float
    spread: float
    least: float
    most: float
    judged: float


def latest_day(readings: tuple[MoistureReading, ...], tz: tzinfo) -> tuple[MoistureReading, ...]:
    """The readings of the last day, in the house's own time, on which any was taken; undated ones count only when none
    is dated. A time without an offset is the house's."""
    dated = [r for r in readings if r.at is not None]
    if not dated:
        return readings
    days = [_local(r.at, tz) for r in dated if r.at is not None]
    return tuple(r for r, day in zip(dated, days, strict=True) if day == max(days))


def daily_readings(readings: tuple[MoistureReading, ...], tz: tzinfo) -> tuple[tuple[datetime, float], ...]:
    """Of each day with dated readings, in the house's own time: when the last was taken, and the wettest."""
    days: dict[date, tuple[datetime, float]] = {}
    for r in readings:
        if r.at is not None:
            at = r.at if r.at.tzinfo is not None else r.at.replace(tzinfo=tz)
            last, most = days.get(_local(at, tz), (at, r.pct))
            days[_local(at, tz)] = (max(last, at), max(most, r.pct))
    return tuple(days[day] for day in sorted(days))


def _local(at: datetime, tz: tzinfo) -> date:
    return (at if at.tzinfo is None else at.astimezone(tz)).date()


def moisture_statistics(readings: tuple[MoistureReading, ...], tz: tzinfo) -> MoistureStatistics | None:
    """None without readings. `spread` is the sample standard deviation, 0 for a single one."""
    if not readings:
        return None
    values = [r.pct for r in readings]
    return MoistureStatistics(
        count=len(values),
        mean=fmean(values),
        spread=stdev(values) if len(values) > 1 else 0.0,
        least=min(values),
        most=max(values),
        judged=max(r.pct for r in latest_day(readings, tz)),
    )


def judged_moisture(condition: Condition, tz: tzinfo) -> float | None:
    """The figure to hold against a product's limit; None when the wood was not metered."""
    return max((r.pct for r in latest_day(condition.moisture, tz)), default=None)
