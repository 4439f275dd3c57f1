"""Forecasts as they were first had, so that what was believed when something was decided can be seen again."""

from bisect import bisect_right
from collections.abc import Iterable
from dataclasses import dataclass, replace

from sqlalchemy import delete, select

from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.store.tables import ForecastVersionRow, JobRow, PlanRow
from amber_gable.store.transaction import Transaction
from amber_gable.store.weather.series import pack, unpack

ALL_S, SPAN_S, LONGEST_S = 2 * 86400, 6 * 3600, 30 * 86400
"""Every version of the last two days is kept, of older ones the last of each six hours, none for more than 30 days but
those that the plans of today were made by."""


@dataclass(frozen=True)
class KeptVersion:
    """When it was had and issued, epoch s."""

    kept_at: int
    kind: str
    source: str
    issued: int | None


def keep_version(session: Transaction, property_id: str, kind: str, series: WeatherSeries, now: int) -> None:
    """Keep a forecast had at `now`, unless it is the last one again, and let go of old ones."""
    # What it said is kept, its futures are not: fifty of each hour would fill the disk.
    about, packed = pack(replace(series, ensemble=None))
    before = list_versions(session, property_id, now)[:1]
    last = session.get(ForecastVersionRow, (property_id, before[0].kept_at)) if before else None
    if last is not None and (last.kind, last.issued, last.columns) == (kind, series.issued, packed):
        return
    row = session.get(ForecastVersionRow, (property_id, now))
    if row is None:
        row = ForecastVersionRow(property_id=property_id, kept_at=now)
        session.add(row)
    row.kind, row.source, row.issued, row.about, row.columns = kind, series.source, series.issued, about, packed
    session.flush()
    old = [v.kept_at for v in list_versions(session, property_id, now)][::-1]
    gone = sorted(set(old) - _wanted(old, now, _planned(session, property_id)))
    table = ForecastVersionRow
    session.execute(delete(table).where(table.property_id == property_id, table.kept_at.in_(gone)))


def _planned(session: Transaction, property_id: str) -> list[int]:
    """When the plans of the property's jobs were made."""
    found = (
        select(PlanRow.planned_at).join(JobRow, JobRow.id == PlanRow.job_id).where(JobRow.property_id == property_id)
    )
    return list(session.scalars(found))


def _wanted(kept: list[int], now: int, decided: Iterable[int]) -> set[int]:
    last_of_span = {t // SPAN_S: t for t in kept if now - t <= LONGEST_S}
    wanted = {t for t in kept if now - t <= ALL_S} | set(last_of_span.values())
    return wanted | {kept[at - 1] for t in decided if (at := bisect_right(kept, t))}


def list_versions(session: Transaction, property_id: str, until: int) -> list[KeptVersion]:
    """Those had up to then, the latest first."""
    row = ForecastVersionRow
    found = session.execute(
        select(row.kept_at, row.kind, row.source, row.issued)
        .where(row.property_id == property_id, row.kept_at <= until)
        .order_by(row.kept_at.desc())
    )
    return [KeptVersion(kept_at, kind, source, issued) for kept_at, kind, source, issued in found]


def load_version(session: Transaction, property_id: str, kept_at: int) -> WeatherSeries | None:
    row = session.get(ForecastVersionRow, (property_id, kept_at))
    return None if row is None else unpack(row.about, row.columns)
