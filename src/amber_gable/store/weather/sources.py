"""Feeds and loggers as they are kept."""

from dataclasses import dataclass

from pydantic import TypeAdapter
from sqlalchemy import select

from amber_gable.domain.weather.feed import Feed, Logger, Source
from amber_gable.store.tables import WeatherSourceRow
from amber_gable.store.transaction import Transaction

_ANY: TypeAdapter[Source] = TypeAdapter(Source)


@dataclass(frozen=True)
class KeptSource:
    source: Source
    in_use: bool


def list_sources(session: Transaction) -> list[KeptSource]:
    """By name; feeds first."""
    rows = session.scalars(select(WeatherSourceRow).order_by(WeatherSourceRow.kind, WeatherSourceRow.name))
    return [KeptSource(_ANY.validate_python(r.body), r.in_use) for r in rows]


def find_source(session: Transaction, source_id: str) -> KeptSource | None:
    row = session.get(WeatherSourceRow, source_id)
    return None if row is None else KeptSource(_ANY.validate_python(row.body), row.in_use)


def save_source(session: Transaction, source: Source) -> None:
    row = session.get(WeatherSourceRow, source.id)
    if row is None:
        row = WeatherSourceRow(id=source.id, in_use=False)
        session.add(row)
    row.kind, row.name, row.body = source.kind, source.name, source.model_dump(mode="json")


def drop_source(session: Transaction, source_id: str) -> None:
    row = session.get(WeatherSourceRow, source_id)
    if row is not None:
        session.delete(row)


def feed_in_use(session: Transaction) -> Feed | None:
    found = next((k.source for k in list_sources(session) if k.in_use), None)
    return found if isinstance(found, Feed) else None


def use_feed(session: Transaction, source_id: str | None) -> None:
    """That one, and no other; None for none."""
    for row in session.scalars(select(WeatherSourceRow)):
        row.in_use = row.id == source_id and row.kind == "feed"


def loggers(session: Transaction) -> list[Logger]:
    return [k.source for k in list_sources(session) if isinstance(k.source, Logger)]
