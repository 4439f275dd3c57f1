"""How sure a place's forecasts are, fitted to what loggers measured there."""

from dataclasses import replace
from datetime import datetime

from amber_gable.core.weather.futures.fitted import SpreadFit, fitted_spread
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.services.context import Context
from amber_gable.services.workspace import digest
from amber_gable.store.weather.series import load_series
from amber_gable.store.weather.versions import list_versions, load_version

APART_S = 12 * 3600
"""Forecasts nearer to each other than this say about the same."""
MOST = 60


def spread_fit(ctx: Context, property_id: str, now: datetime) -> SpreadFit | None:
    """Of the forecasts that were kept for a place; None where nobody measured, or too little."""
    with ctx.reading() as session:
        observed = load_series(session, property_id, "observed")
        kept = [] if observed is None else list_versions(session, property_id, int(now.timestamp()))
    if observed is None:
        return None
    picked: list[int] = []
    for version in kept:
        if version.kind == "forecast" and (not picked or picked[-1] - version.kept_at >= APART_S):
            picked.append(version.kept_at)

    def fit() -> SpreadFit | None:
        with ctx.reading() as session:
            told = [load_version(session, property_id, at) for at in picked[:MOST]]
        return fitted_spread([t for t in told if t is not None], observed)

    return ctx.space.computed.get("spread" + digest(property_id, observed, picked), fit)


def as_sure_as_measured(ctx: Context, property_id: str, series: WeatherSeries, now: datetime) -> WeatherSeries:
    """A forecast whose futures are drawn as wide as its source's errors were; to a tenth, so that odds stay what they
    were until it matters."""
    fit = spread_fit(ctx, property_id, now)
    return series if fit is None else replace(series, doubt=round(series.doubt * fit.factor, 1))
