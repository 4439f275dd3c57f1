"""The weeks before a forecast that tells little of them, from the forecasts that were kept."""

from datetime import datetime

from amber_gable.core.weather.outdoors.earlier import run_back
from amber_gable.core.weather.outdoors.typical import PAST_DAYS
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.services.context import Context
from amber_gable.services.workspace import digest
from amber_gable.store.weather.versions import list_versions, load_version

DAY_S = 86400


def with_weeks_before(ctx: Context, property_id: str, series: WeatherSeries, now: datetime) -> WeatherSeries:
    """The forecast, run back for as long as walls remember: of each day before it by the newest forecast that was had
    by then, so that what it says of that day was near."""
    until = now.timestamp() - (PAST_DAYS + 1) * DAY_S
    if series.start <= until:
        return series
    with ctx.reading() as session:
        kept = [v.kept_at for v in list_versions(session, property_id, int(now.timestamp()))]

    def run() -> WeatherSeries:
        found = series
        with ctx.reading() as session:
            while found.start > until:
                # Had a day before the hours that are missing it tells of them, and of some before; else what was had
                # just before.
                wanted = (next((t for t in kept if t <= found.start - back), None) for back in (DAY_S, 1))
                told = (load_version(session, property_id, had) for had in wanted if had is not None)
                longer = next((one for t in told if t is not None and (one := run_back(found, t)) is not found), None)
                if longer is None:
                    break
                found = longer
        return found

    return ctx.space.computed.get(("weeks-before", property_id, digest(series, kept)), run) if kept else series
