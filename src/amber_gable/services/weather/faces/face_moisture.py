"""How wet the wood or masonry of each face is, was and will be, beside what was read of it."""

from dataclasses import dataclass
from datetime import datetime, timedelta

import numpy as np

from amber_gable.core.climate.job_climate import SiteClimate, main_part, part_water_limit
from amber_gable.core.survey.amounts.painted import Key, part_key
from amber_gable.core.weather.film.limits import Limit
from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.weather.wall.substrate_moisture import through
from amber_gable.domain.grid import STEP_S, STEPS_PER_HOUR
from amber_gable.domain.house.survey import Face, Item, Zone
from amber_gable.services.job.view import JobView

BACK, AHEAD = timedelta(days=2), timedelta(days=7)


@dataclass(frozen=True)
class ReadingCheck:
    """What was predicted for a reading, and what it read, %."""

    at: datetime
    said: float
    read: float


@dataclass(frozen=True)
class FaceMoisture:
    """Arrays of shape (N,) at `times` (epoch s, every hour): % and how far it may be off. `lasting`: a reading of no
    known day, that counts for ever. judged: what a coat is held against now; dry_from: when that is first at the limit
    (None: not in the days known, or it holds no day)."""

    face: Face
    part: Zone | Item
    limit: Limit
    times: Array
    pct: Array
    half_band: Array
    readings: tuple[tuple[datetime, float], ...]
    checks: tuple[ReadingCheck, ...]
    lasting: float | None
    judged: float | None
    dry_from: datetime | None

    @property
    def key(self) -> Key:
        return part_key(self.part)

    @property
    def fit(self) -> bool:
        judged = self.lasting if self.lasting is not None else self.judged
        return judged is not None and judged <= self.limit.value


def face_moistures(view: JobView) -> list[FaceMoisture]:
    """Of each face's main part that holds water; none without a climate."""
    site = view.site
    if site is None:
        return []
    found = []
    for face in view.bundle.property.faces:
        part = main_part(view.bundle, face)
        limit = None if part is None else part_water_limit(view.bundle, part)
        if part is not None and limit is not None:
            one = _of_part(site, face, part, limit, view.now)
            found += [] if one is None else [one]
    return found


def _of_part(site: SiteClimate, face: Face, part: Zone | Item, limit: Limit, now: datetime) -> FaceMoisture | None:
    damp = site.damp(part, limit)
    climate = site.surface_of(part, part.colour_now).climate
    if damp is None:
        return None
    moisture = through(climate, damp.events, open_below=damp.open_below, bare=damp.bare)
    if moisture is None:
        return None
    steps = climate.steps
    first, last = (
        int(np.clip((t.timestamp() - steps.start) // STEP_S, 0, len(steps) - 1)) for t in (now - BACK, now + AHEAD)
    )
    pick = np.arange(first, last + 1, STEPS_PER_HOUR)
    since = site.damp_since(part, limit, now)
    tz = site.slots.tz
    read = tuple((datetime.fromtimestamp(e.at, tz), e.reading) for e in damp.events if e.reading is not None)
    checks = [
        ReadingCheck(at, said, got) for t, said, got in moisture.misses if (at := site.slots.moment(t)) is not None
    ]
    return FaceMoisture(
        face=face,
        part=part,
        limit=limit,
        times=steps.times[pick],
        pct=moisture.pct[0, pick],
        half_band=moisture.half_band[0, pick],
        readings=read,
        checks=tuple(checks),
        lasting=damp.lasting,
        judged=None if since is None else since[0],
        dry_from=None if since is None else since[1],
    )
