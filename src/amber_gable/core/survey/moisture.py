"""Wood moisture from several readings (handbook §3). Values % of dry mass."""

from dataclasses import dataclass
from statistics import fmean, stdev

from amber_gable.domain.condition import Condition, MoistureReading


@dataclass(frozen=True)
class MoistureStatistics:
    """All readings, and `judged`: the wettest of the latest day, for one wet board spoils a coat as well as many."""

    count: int
    mean: float
    spread: float
    least: float
    most: float
    judged: float


def latest_day(readings: tuple[MoistureReading, ...]) -> tuple[MoistureReading, ...]:
    """The readings of the last day on which any was taken; undated ones count only when none is dated."""
    dated = [r for r in readings if r.at is not None]
    if not dated:
        return readings
    last = max(r.at.date() for r in dated if r.at is not None)
    return tuple(r for r in dated if r.at is not None and r.at.date() == last)


def moisture_statistics(readings: tuple[MoistureReading, ...]) -> MoistureStatistics | None:
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
        judged=max(r.pct for r in latest_day(readings)),
    )


def judged_moisture(condition: Condition) -> float | None:
    """The figure to hold against a product's limit; None when the wood was not metered."""
    found = moisture_statistics(condition.moisture)
    return found.judged if found else None
