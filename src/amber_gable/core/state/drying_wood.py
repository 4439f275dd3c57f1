"""Wood that reads wet because it was washed or rained on, and is drying: no sign of water from behind (docs/trade.md
§3, §11)."""

from collections.abc import Sequence
from datetime import datetime, timedelta, tzinfo

import numpy as np

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.survey.findings.moisture import daily_readings
from amber_gable.core.weather.judged.rules import RAIN_ON_FACE
from amber_gable.core.work.waits import dampens
from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.grid import STEP_S
from amber_gable.domain.house.survey import Item, Zone
from amber_gable.domain.job.site_record import SiteEntry
from amber_gable.domain.work.operation import Operation

WET_WOOD = "wet-wood"
"""The stop of wood that is wet before anybody washed it (core/specification/rules/wood.py)."""
RAIN_DRIES = timedelta(hours=48)
"""Siding that rain wetted is dry again in about so long, as after a wash (docs/trade.md §11)."""


def drying(
    part: Zone | Item, noted: Sequence[tuple[Operation, SiteEntry]], site: SiteClimate | None, tz: tzinfo
) -> bool:
    """Whether the last reading was taken while the wood had reason to be wet: within the wait behind a wash that was
    `noted`, or within two days of rain on it, where the weather is known."""
    read = last_read(part.condition, tz)
    if read is None:
        return False
    washed = any(
        dampens(o) and e.at <= read <= e.at + timedelta(hours=max(o.wait_h, RAIN_DRIES.total_seconds() / 3600))
        for o, e in noted
    )
    return washed or (site is not None and _rained(site, part, read - RAIN_DRIES, read))


def last_read(condition: Condition, tz: tzinfo) -> datetime | None:
    """When the last dated reading was taken."""
    days = daily_readings(condition.moisture, tz)
    return days[-1][0] if days else None


def _rained(site: SiteClimate, part: Zone | Item, since: datetime, until: datetime) -> bool:
    climate = site.surface_of(part, part.colour_now).climate
    first, end = (
        int(np.clip((t.timestamp() - climate.steps.start) // STEP_S, 0, len(climate.steps))) for t in (since, until)
    )
    return bool((climate.wall_rain[0, first:end] >= RAIN_ON_FACE).any())
