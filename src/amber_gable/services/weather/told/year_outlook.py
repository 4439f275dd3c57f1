"""The outlook of the command line: what a year's weather holds for a coat, by the face's bearing."""

from datetime import UTC, date, datetime
from typing import Annotated, Any

from pydantic import Field

from amber_gable.core.weather.judged.outlook import FaceOutlook, outlook
from amber_gable.core.weather.wall.slot_climate import place_weather, surfaces_through
from amber_gable.domain.base import Azimuth
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.services.weather.faces.face_windows import CoatQuestion, framed, there

EIGHT_WINDS = (0.0, 45.0, 90.0, 135.0, 180.0, 225.0, 270.0, 315.0)
COMMON_YEAR = date(2025, 1, 1)
"""A typical year is of no year: it is read as one without a leap day."""


class YearQuestion(CoatQuestion):
    azimuths: Annotated[tuple[Azimuth, ...], Field(min_length=1, max_length=72)] = EIGHT_WINDS


def answer_outlook(question: YearQuestion, series: WeatherSeries) -> dict[str, Any]:
    """docs/formats.md, `outlook --json`. Raises InputError and NoClimate in words."""
    series = there(question, series)
    start, days = _span(series)
    zone = series.zone
    begin = datetime(start.year, start.month, start.day, tzinfo=zone)
    asked = [framed(question, azimuth, series, begin) for azimuth in question.azimuths]
    weather = place_weather(asked[0].place, series, begin, days)
    surfaces = surfaces_through(weather, [a.face for a in asked])
    faces = []
    for one, surface in zip(asked, surfaces, strict=True):
        windows = surface.coat(one.product, question.method, question.policy, one.crew, one.damp)
        faces.append({"azimuth_deg": one.face.azimuth_deg, **_face(outlook(windows, 0), series.typical_year)})
    return {"faces": faces, "notes": list(series.notes)}


def _span(series: WeatherSeries) -> tuple[date, int]:
    """First day and number of days: the typical year's, or the whole days of a measured series."""
    if series.typical_year:
        return COMMON_YEAR, 365
    zone = series.zone
    first = datetime.fromtimestamp(series.start, UTC).astimezone(zone)
    last = datetime.fromtimestamp(series.end, UTC).astimezone(zone)
    return first.date(), max((last.date() - first.date()).days, 1)


def _face(found: FaceOutlook, typical: bool) -> dict[str, Any]:
    def day(of: date) -> str:
        return f"{of:%m-%d}" if typical else of.isoformat()

    return {
        "months": [{"month": m.month, "workable_h": m.workable_h, "coats": m.coats} for m in found.months],
        "workable_h": found.workable_h,
        "best_weeks": [{"from": day(w.first), "to": day(w.last), "workable_h": w.workable_h} for w in found.best_weeks],
    }
