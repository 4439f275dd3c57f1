"""What all requests of one running program share: database, clock, forecast provider, hand meter, and the caches of
computed results."""

import hashlib
import weakref
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np

from amber_gable.core.work.steps import steps_of
from amber_gable.domain.base import Record
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.weather.series import COLUMNS, WeatherSeries
from amber_gable.domain.work.mending import Mend
from amber_gable.exchange.meter import HandMeter
from amber_gable.exchange.weather.forecast import ForecastProvider
from amber_gable.services.clock import DemoClock, SystemClock
from amber_gable.services.computed import MIB, Computed
from amber_gable.services.runs.runner import Runner
from amber_gable.store.database import Database


@dataclass(frozen=True)
class LastAsked:
    """When the provider was last asked for a property's forecast (epoch s), and the trouble it had, if any."""

    at: float
    trouble: str | None


@dataclass
class Workspace:
    """`provider` is the forecast service named in the environment; a feed chosen in Settings takes precedence.
    `switched` is set when the provider was changed, since the stored forecast may then be of the former one. `samples`
    are answers of feeds, by name, that a mapping is being made from. `solve_seconds`: how long fewer days are looked
    for once a job is planned; 0: only when somebody asks. Rows that were read are cached with the database
    (store/kept.py). Computed results are cached here, each under a digest of everything it was computed from, so that
    none of them can be out of date."""

    database: Database
    clock: DemoClock | SystemClock
    provider: ForecastProvider | None
    meter: HandMeter | None = None
    computed: Computed = field(default_factory=lambda: Computed(192 * MIB))
    standing: Computed = field(default_factory=lambda: Computed(48 * MIB))
    parts: Computed = field(default_factory=lambda: Computed(48 * MIB))
    drawings: Computed = field(default_factory=lambda: Computed(32 * MIB))
    asked: dict[str, LastAsked] = field(default_factory=dict)
    switched: bool = False
    samples: dict[str, str] = field(default_factory=dict)
    solve_seconds: float = 0.0

    @cached_property
    def runner(self) -> Runner:
        """Runs long computations beside the requests."""
        return Runner(self)


_TELLS_NOTHING: Any = {
    "property": {"photos"},
    "job": {"record", "changes", "others_noted", "found_more", "spoiled", "rained", "cans_noted", "missing"},
}
"""Fields of a job that its digest leaves out. Photos change no result; what uses the site record adds it to its key.
What it brings in steps counts: those that mend a spoiled film or hide one in another colour."""
_Told = Record | WeatherSeries
_LATELY: dict[int, tuple[weakref.ref[_Told], bytes]] = {}
"""Digests of records and series by `id()`. An entry is removed when its object is freed."""


def _own_digest(told: _Told) -> bytes:
    """SHA-256 of the contents of a record or series, computed once for each object."""
    mine = id(told)
    found = _LATELY.get(mine)
    if found is not None and found[0]() is told:
        return found[1]
    made = _of_series(told) if isinstance(told, WeatherSeries) else _of_record(told)
    _LATELY[mine] = (weakref.ref(told, lambda gone: _forget(mine, gone)), made)
    return made


def _of_record(record: Record) -> bytes:
    left_out = _TELLS_NOTHING if isinstance(record, JobBundle) else None
    out = hashlib.sha256(record.model_dump_json(exclude=left_out).encode())
    if isinstance(record, JobBundle):
        mended = (o.id for f in record.job.finishes for o in steps_of(record, f) if isinstance(o, Mend))
        out.update("".join(mended).encode())
    return out.digest()


def _of_series(series: WeatherSeries) -> bytes:
    """Its notes tell nothing that is computed with."""
    where = (series.latitude, series.longitude, series.altitude_m, series.typical_year)
    how = (series.start, series.issued, series.source, series.state_at_h, series.light_offset_min, series.doubt)
    clock = (series.utc_offset_h, series.offset_changes)
    out = hashlib.sha256(repr((where, how, clock)).encode())
    for name, rows in (series.ensemble or {}).items():
        out.update(name.encode() + np.ascontiguousarray(rows).tobytes())
    for name in COLUMNS:
        column = getattr(series, name)
        out.update(b"-" if column is None else np.ascontiguousarray(column).tobytes())
    return out.digest()


def _forget(mine: int, gone: weakref.ref[_Told]) -> None:
    """Unless another record came to live in the same place meanwhile."""
    found = _LATELY.get(mine)
    if found is not None and found[0] is gone:
        _LATELY.pop(mine, None)


def digest(*parts: object) -> str:
    """A key for results computed from these parts."""
    out = hashlib.sha256()
    for part in parts:
        if isinstance(part, Record | WeatherSeries):
            out.update(_own_digest(part))
        elif isinstance(part, np.ndarray):
            out.update(np.ascontiguousarray(part).tobytes())
        else:
            out.update(repr(part).encode())
        out.update(b"|")
    return out.hexdigest()
