"""Forecasts that a logger found wrong are held less sure, and Settings says by how much."""

import re
from dataclasses import replace
from datetime import timedelta

import numpy as np
from fastapi.testclient import TestClient

from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.store.weather.series import save_series
from amber_gable.store.weather.versions import keep_version
from tests.weather_cases import steady

PLACE = "14-coopers-rise"


def _had(ctx: Context, days_ago: int) -> WeatherSeries:
    begin = (ctx.now - timedelta(days=days_ago)).replace(minute=0, second=0, microsecond=0)
    return replace(steady(begin, 240, air_c=16.0), issued=int(begin.timestamp()))


def test_what_a_logger_found_wrong_is_held_less_sure(ctx: Context, client: TestClient) -> None:
    assert 'id="spread"' not in client.get("/settings").text, "nobody measured"
    assert job_view(ctx, "coopers-rise", waits=True).weather.series.doubt == 1.0  # type: ignore[union-attr]
    with ctx.writing() as session:
        for days_ago in range(28, 0, -1):
            at = int((ctx.now - timedelta(days=days_ago)).timestamp())
            keep_version(session, PLACE, "forecast", _had(ctx, days_ago), at)
        begin = (ctx.now - timedelta(days=28)).replace(minute=0, second=0, microsecond=0)
        measured = steady(begin, 27 * 24, air_c=16.0)
        swing = 5.0 * np.sin(np.arange(len(measured)) / 29.0) - 1.0
        save_series(session, PLACE, "observed", replace(measured, air_c=measured.air_c + swing, source="Yard logger"))
    page = client.get("/settings").text
    told = re.search(r'id="spread".*?</section>', page, re.S)
    assert told is not None
    words = re.sub(r"<[^>]+>|\s+", " ", told[0])
    factor = re.search(r"futures *([\d.]+) ×", words)
    assert factor is not None and 1.2 < float(factor[1]) <= 2.0
    assert "3 to 24 h ahead" in words and "too warm on average" in words
    series = job_view(ctx, "coopers-rise", waits=True).weather.series
    assert series is not None and series.doubt == float(factor[1])
