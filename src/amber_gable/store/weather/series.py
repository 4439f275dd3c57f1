"""Weather series kept with a property."""

import io
from dataclasses import fields
from typing import Any

import numpy as np

from amber_gable.domain.weather.series import COLUMNS, WeatherSeries
from amber_gable.store.tables import WeatherRow
from amber_gable.store.transaction import Transaction

_ABOUT = [f.name for f in fields(WeatherSeries) if f.name not in (*COLUMNS, "ensemble")]
_OF_MEMBERS = "members/"


def pack(series: WeatherSeries) -> tuple[dict[str, Any], bytes]:
    """What is said about a series, and its columns."""
    packed = io.BytesIO()
    held: dict[str, Any] = {n: column for n in COLUMNS if (column := getattr(series, n)) is not None}
    # Members need no more than the hundredth of a unit.
    futures: dict[str, Any] = {
        f"{_OF_MEMBERS}{n}": rows.astype(np.float32) for n, rows in (series.ensemble or {}).items()
    }
    np.savez_compressed(packed, **held, **futures)
    return {name: getattr(series, name) for name in _ABOUT} | {"notes": list(series.notes)}, packed.getvalue()


def unpack(about: dict[str, Any], packed: bytes) -> WeatherSeries:
    with np.load(io.BytesIO(packed), allow_pickle=False) as columns:
        held = {name: columns[name] for name in columns.files if not name.startswith(_OF_MEMBERS)}
        futures = {n.removeprefix(_OF_MEMBERS): columns[n].astype(float) for n in columns.files if n not in held}
    told = {"notes": tuple(about["notes"]), "offset_changes": tuple((a, h) for a, h in about.get("offset_changes", ()))}
    return WeatherSeries(**(about | told), **held, ensemble=futures or None)


def save_series(
    session: Transaction, property_id: str, kind: str, series: WeatherSeries, given: dict[str, Any] | None = None
) -> None:
    """Keep the series, in place of the last of its kind, and what it was made from."""
    about, packed = pack(series)
    row = session.get(WeatherRow, (property_id, kind))
    if row is None:
        row = WeatherRow(property_id=property_id, kind=kind)
        session.add(row)
    row.source, row.issued, row.about, row.columns = series.source, series.issued, about, packed
    row.given = given


def load_series(session: Transaction, property_id: str, kind: str) -> WeatherSeries | None:
    kept, key = session.kept, (kind, property_id)
    found: tuple[WeatherSeries | None] | None = kept.find(session, key)
    if found is None:
        scopes = (f"weather:{property_id}",)
        found = kept.read(session, key, scopes, lambda: (_read_series(session, property_id, kind),))
    return found[0]


def _read_series(session: Transaction, property_id: str, kind: str) -> WeatherSeries | None:
    row = session.get(WeatherRow, (property_id, kind))
    if row is None:
        return None
    return unpack(row.about, row.columns)


def given_of(session: Transaction, property_id: str, kind: str) -> dict[str, Any] | None:
    """What a series was made from."""
    row = session.get(WeatherRow, (property_id, kind))
    return None if row is None else row.given


def drop_series(session: Transaction, property_id: str, kind: str) -> None:
    row = session.get(WeatherRow, (property_id, kind))
    if row is not None:
        session.delete(row)
