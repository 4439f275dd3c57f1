"""The film story drawn: air, surface and dew point over two days, the stroke, its stages as flags with their ranges,
and what spoils it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import TYPE_CHECKING, Any

import numpy as np

from amber_gable.domain.weather.letters import LETTERS
from amber_gable.domain.weather.severity import Severity
from amber_gable.domain.wording import dated, timed
from amber_gable.services.weather.told.film_story import HOURS, FilmMoment, FilmStory, StoryStage
from amber_gable.web.views.units import Units
from amber_gable.web.views.weather.timescale import between, script_json

if TYPE_CHECKING:
    from amber_gable.core.weather.film.film_events import FilmEvent
    from amber_gable.core.weather.outdoors.air import Array

HOUR_W = 21.5
WIDTH, TOP, HEIGHT = HOURS * HOUR_W, 64.0, 190.0
CAUSES = {"rain": "Rain", "dew": "Dew", "cold": "Cold", "frost": "Frost", "heat": "Heat", "dust": "Wind"}
BEAM_FULL = 800.0
GRID_K = 5.0
RAIN_SHOWN = 0.05
MOST_TOLD = 3
NAME_W = 76.0


@dataclass(frozen=True)
class FilmChart:
    """Paths in px; `moments` for the script, a JSON list of what it shows for each quarter hour; `shown` that of the
    one asked about."""

    width: float
    height: float
    full_height: float
    hours: list[tuple[float, str]]
    days: list[tuple[float, str]]
    levels: list[tuple[float, str]]
    nights: list[tuple[float, float]]
    sun: str
    rain: list[tuple[float, float, float]]
    air: str
    surface: str
    dew: str
    surface_band: str
    dew_band: str
    wet: str
    limits: list[tuple[float, str]]
    moments: str
    shown: dict[str, Any]
    chosen: int
    now_x: float | None


def draw_film(story: FilmStory, at: datetime, now: datetime, units: Units) -> FilmChart:
    kept = [a for a in (story.surface, story.dew, story.air, *story.surface_band) if len(a)]
    low = np.floor(min(float(a.min()) for a in kept) / GRID_K) * GRID_K
    high = np.ceil(max(float(a.max()) for a in kept) / GRID_K) * GRID_K
    begin = story.begin.timestamp()

    def x(t: float) -> float:
        return (t - begin) / 3600 * HOUR_W

    def y(value: Array | float) -> Any:
        return TOP + HEIGHT * (high - np.clip(value, low, high)) / (high - low)

    xs = np.array([x(t) for t in story.times])

    def line(values: Array) -> str:
        return "M" + " ".join(f"{a:.1f},{b:.1f}" for a, b in zip(xs, y(values), strict=True))

    def band(lower: Array, upper: Array) -> str:
        count = len(lower)
        there = " ".join(f"{a:.1f},{b:.1f}" for a, b in zip(xs[:count], y(upper), strict=True))
        back = " ".join(f"{a:.1f},{b:.1f}" for a, b in zip(xs[:count][::-1], y(lower)[::-1], strict=True))
        return f"M{there} L{back}Z"

    limits = [
        (float(y(story.limits[name].value)), words)
        for name, words in (("surface_min", "least surface"), ("surface_max", "greatest surface"))
        if low <= story.limits[name].value <= high
    ]
    moments = [_told(m, x, units) for m in story.moments]
    chosen = next((i for i, m in enumerate(story.moments) if m.laid > at), len(story.moments) - 1)
    beam = np.clip(story.beam / BEAM_FULL, 0, 1) * 14
    base = TOP + HEIGHT + 16
    local = [datetime.fromtimestamp(t, story.begin.tzinfo) for t in story.times[::4]]
    sun = " ".join(f"{a:.1f},{base - b:.1f}" for a, b in zip(xs, beam, strict=True))
    foot = TOP + HEIGHT
    return FilmChart(
        width=WIDTH,
        height=foot,
        full_height=foot + 46,
        hours=[(x(t.timestamp()), f"{t:%H}") for t in local if t.hour % 3 == 0],
        days=[(max(x(t.timestamp()), 0.0), dated(t)) for t in _days(local)],
        levels=[(float(y(v)), units.figure(float(v), "temperature", 0)) for v in np.arange(low, high + 0.1, GRID_K)],
        nights=_nights(story, x),
        sun=f"M{sun} L{xs[-1]:.1f},{base}L0,{base}Z",
        rain=[
            (float(a), float(min(3 + 6 * r, 20)), HOUR_W / 4)
            for a, r in zip(xs, story.rain, strict=True)
            if r >= RAIN_SHOWN
        ],
        air=line(story.air),
        surface=line(story.surface),
        dew=line(story.dew),
        surface_band=band(*story.surface_band),
        dew_band=band(*story.dew_band),
        wet=band(np.minimum(story.surface, story.dew), story.dew),
        limits=limits,
        moments=script_json(moments),
        shown=moments[chosen],
        chosen=chosen,
        now_x=x(now.timestamp()) if 0 <= x(now.timestamp()) <= WIDTH else None,
    )


def _days(times: list[datetime]) -> list[datetime]:
    return [t for n, t in enumerate(times) if n == 0 or t.date() != times[n - 1].date()]


def _nights(story: FilmStory, x: Any) -> list[tuple[float, float]]:
    """Where no sun is up: x and width."""
    elevation = story.row.climate.steps.sun.elevation
    first = int((story.times[0] - story.row.climate.steps.start) // (story.times[1] - story.times[0]) * 2)
    dark = elevation[first : first + 2 * len(story.times) : 2][: len(story.times)] < 0
    edges = np.flatnonzero(np.diff(np.concatenate([[0], dark.astype(int), [0]])))
    ends = [*story.times, story.times[-1] + 900]
    return [(x(ends[a]), x(ends[b]) - x(ends[a])) for a, b in zip(edges[::2], edges[1::2], strict=True)]


def _told(m: FilmMoment, x: Any, units: Units) -> dict[str, Any]:
    """What is shown of a film laid then: where its stroke and flags stand, and the words."""
    open_ = not m.letter
    told = sorted(m.events, key=lambda e: (_GRAVITY.index(e.severity), e.at))[:MOST_TOLD]
    worst = told[0] if told else None
    sure = "" if m.sure is None else f"{m.sure * 100:.0f} % sure"
    return {
        "at": m.start.isoformat(),
        "title": f"{timed(m.start)}–{m.laid:%H:%M}",
        "ok": open_ and (worst is None or worst.severity is Severity.MARKS),
        "head": (f"It may be laid{', ' + sure if sure else ''}" if open_ else f"Not then: {LETTERS[m.letter]}"),
        "told": units.told(" ".join(_sentence(e, m) for e in told) or "Nothing spoils it in the weather known."),
        "x": round(x(m.laid.timestamp()), 1),
        "flags": [_flag(s, x) for s in m.stages],
        "events": [[round(x(e.at), 1), round(x(e.until), 1)] for e in told],
    }


def _flag(stage: StoryStage, x: Any) -> dict[str, Any]:
    def at(t: datetime | None) -> float | None:
        return None if t is None else round(min(x(t.timestamp()), WIDTH), 1)

    when = "beyond the weather known" if stage.likely is None else f"{stage.likely:%a %H:%M}"
    span = ""
    if stage.likely and stage.early and stage.early != stage.late:
        span = f" ({between(stage.early, stage.late, stage.likely)})"
    here = at(stage.likely)
    # What stands near the right edge has its name before it.
    turned = here is not None and here > WIDTH - NAME_W
    return {
        "name": stage.name,
        "x": here,
        "name_x": None if here is None else here - 5 if turned else here + 5,
        "anchor": "end" if turned else "start",
        "early": at(stage.early),
        "late": at(stage.late) if stage.late else (WIDTH if stage.early else None),
        "when": when + span,
    }


_GRAVITY = (Severity.SPOILS, Severity.HARMS, Severity.MARKS)


def _sentence(event: FilmEvent, m: FilmMoment) -> str:
    tz = m.start.tzinfo
    begin, end = (datetime.fromtimestamp(t, tz) for t in (event.at, event.until))
    until = f"{end:%H:%M}" if end.date() == begin.date() else f"{end:%a %H:%M}"
    return f"{CAUSES[event.kind]} {event.words}: {begin:%a %H:%M} to {until}, {event.value:.2g} {event.unit}."
