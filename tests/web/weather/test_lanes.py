"""The lanes with how sure they are: worked out beside the page, the same as the command's, and said when it fails."""

import re
from dataclasses import replace
from datetime import datetime, timedelta

import numpy as np
import pytest
from fastapi.testclient import TestClient

from amber_gable.core.weather.futures.members import Odds
from amber_gable.domain.job.site_record import Said
from amber_gable.domain.units import UnitSystem
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from amber_gable.services.job.view import JobView, job_view
from amber_gable.services.today.noting import Note, note_tasks
from amber_gable.services.weather.faces import face_odds as face_odds_module
from amber_gable.services.weather.faces.face_day import face_days
from amber_gable.services.weather.faces.face_odds import face_odds
from amber_gable.services.weather.faces.judged_faces import JudgedFace, LaneQuestion
from amber_gable.services.weather.held.asking import job_weather
from amber_gable.web.drawn_lanes import lanes_of
from amber_gable.web.views.units import Units
from amber_gable.web.views.weather.day_faces import lane_sentence
from amber_gable.web.views.weather.lanes import lane_of, lane_scale
from amber_gable.web.views.weather.why import why_panel
from tests.clients import submit
from tests.fixtures import StandIn

RISE = "/jobs/coopers-rise/weather"
PANEL = {"hx-request": "true"}
NOON = datetime.fromisoformat("2026-09-16T13:00-03:00")


@pytest.fixture(scope="module")
def judged(untouched: Context) -> tuple[JobView, list[JudgedFace], list[Odds]]:
    view = job_view(untouched, "coopers-rise", waits=True)
    rows = LaneQuestion("coat").rows(view)
    return view, rows, face_odds(view, rows)


def test_the_first_future_is_the_forecast_itself(untouched: Context, monkeypatch: pytest.MonkeyPatch) -> None:
    """With one member the odds are what the lanes say: damp, colours, schools and crew are the same in both."""
    monkeypatch.setattr(face_odds_module, "MEMBERS", 1)
    for job in ("coopers-rise", "net-loft", "heron-deck"):
        view = job_view(untouched, job, waits=True)
        for question in (LaneQuestion("coat"), LaneQuestion("next"), LaneQuestion("last")):
            rows = question.rows(view)
            for row, odds in zip(rows, face_odds(view, rows), strict=True):
                known = len(odds.share) - 96
                differ = (odds.share == 1.0)[:known] != row.windows.ok[0][:known]
                # A chance of rain is none in a future: there it rains or it does not.
                chance = np.any([c.stops[0, :known] for c in row.windows.checks if c.rule.id == "rain"], axis=0)
                assert not (differ & ~chance).any(), (job, question, row.what)


def test_a_part_that_waits_for_something_else_is_sure_of_nothing(
    judged: tuple[JobView, list[JudgedFace], list[Odds]],
) -> None:
    _, rows, odds = judged
    for row, one in zip(rows, odds, strict=True):
        share = row.share(one)
        waits = row.letters[: len(share)] == "B"
        assert waits.any() and (share[waits][:-1] == 0).all()
        assert ((share >= 0) & (share <= 1)).all()


def test_lanes_shade_what_is_open_by_how_sure_it_is_and_say_so_in_words(
    judged: tuple[JobView, list[JudgedFace], list[Odds]],
) -> None:
    _, rows, odds = judged
    # Which faces are open in the three days that are drawn hangs on the plan: what is done before their coats.
    open_ = [i for i, r in enumerate(rows) if (r.ok & (r.windows.slots.day <= 2)).any()]
    strengths = set()
    for i in open_:
        (lane,) = lanes_of([rows[i]], [odds[i]])
        drawn = lane_of(0, lane, (), lane_scale(lane.slots, 3, 14.0), lambda face, t: f"{face}{t}")
        open_px = sum(s.width for s in drawn.segments if not s.letter)
        assert sum(s.width for s in drawn.sure if s.open) == pytest.approx(open_px)
        strengths |= {s.strength for s in drawn.sure}
    assert strengths <= {1, 2, 3, 4} and len(strengths) > 1
    said = lane_sentence(lane, 0, 3)
    workable = r"^\w+day 1[4-6] September: .*workable \d\d:\d\d to \d\d:\d\d, \d+ % sure"
    assert len(said) == 3 and any(re.search(workable, day) for day in said), said
    assert said[0].startswith("Monday 14 September: ")


def test_a_day_says_last_stroke_and_when_it_is_dry(judged: tuple[JobView, list[JudgedFace], list[Odds]]) -> None:
    view, rows, odds = judged
    days = {d.row.face.id: d for d in face_days(rows, odds, NOON, view.bundle.job.crew)}
    for day in days.values():
        open_ = day.row.ok & (day.row.windows.slots.day == 2)
        assert (day.last is not None) == bool(open_.any())
        if day.last is not None:
            assert day.sure is not None and day.last.date() == NOON.date()
    east, back = days["east-gable"].dry, days["back"].dry
    assert east is not None and back is not None and east.at and back.at
    assert east.at <= back.at, "the sun is on the east gable first"
    assert back.half_min is not None and 0 < back.half_min <= 240
    assert back.towel is None, "nobody wipes a wall dry"
    plain = face_days(rows, [None] * len(rows), NOON, view.bundle.job.crew)
    assert all(d.sure is None and (d.dry is None or d.dry.half_min is None) for d in plain)


def test_the_panel_tells_ranges_of_the_stages_and_what_is_at_risk(
    judged: tuple[JobView, list[JudgedFace], list[Odds]],
) -> None:
    _, rows, odds = judged
    at = next(i for i, r in enumerate(rows) if r.face.id == "back")
    why = why_panel(rows[at], NOON, Units(UnitSystem.METRIC), odds[at])
    assert why.ok and why.sure is not None
    likely, between = next((when, span) for stage, when, span in why.stages if stage == "Dry to touch")
    early, late = between.split("–")
    assert early <= likely.removeprefix("Wed ") <= late
    assert (why.sure == 1.0) == (why.risk == "")


def test_the_page_does_not_wait_for_the_futures_and_the_fragment_brings_them(visitor: TestClient) -> None:
    page = visitor.get(RISE, params={"product": "last", "method": "roller"})
    assert 'id="sureness"' in page.text and "% sure" not in page.text
    brought = visitor.get(f"{RISE}/sure", params={"product": "last", "method": "roller"}, headers=PANEL)
    assert 'id="lane-drawing" hx-swap-oob="true"' in brought.text
    assert re.search(r">\d+ %</tspan>", brought.text)
    again = visitor.get(RISE, params={"product": "last", "method": "roller"}).text
    assert 'id="sureness"' not in again and "how sure (<b>%</b> on average)" in again


def test_what_cannot_be_worked_out_is_said_with_a_way_to_try_again(
    visitor: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    def broken(*_: object) -> None:
        raise RuntimeError("no luck")

    monkeypatch.setattr(face_odds_module, "drawn_weather", broken)
    asked = {"product": "last", "method": "airless"}
    answer = visitor.get(f"{RISE}/sure", params=asked, headers=PANEL).text
    assert "was not worked out" in answer and "Try again" in answer and "no luck" not in answer


@pytest.mark.parametrize("days", ["1", "3", "10", "7", "x"])
def test_the_days_on_the_screen_hold_the_moment_that_is_asked_about(visitor: TestClient, days: str) -> None:
    page = visitor.get(RISE, params={"days": days, "face": "back", "at": "2026-09-19T15:00:00Z"}).text
    assert re.search(r'class="day-name"[^>]*>Sat 19', page)
    assert "All faces, Sat 19 Sep 12:00" in page
    shown = len(re.findall(r'class="day-name"', page))
    assert shown == (int(days) if days in ("1", "3", "10") else 3)


def test_a_coat_that_rain_may_catch_is_told_of_on_weather_and_today_and_no_other(
    client: TestClient, ctx: Context
) -> None:
    """The service says nothing of rain while a coat is laid; then that each of the next hours has a chance of it: over
    the wait more than the coat is laid by, and who goes all the same is told the odds."""
    assert isinstance(ctx.space.clock, DemoClock)
    kept = job_view(ctx, "coopers-rise").kept
    assert kept is not None
    coat = next(t for t in kept.plan.tasks if t.kind.lays_film)
    ctx.space.clock.set(coat.start)
    # All that comes before it is done: the coat is next.
    for task in sorted((t for t in kept.plan.tasks if t.end <= coat.start), key=lambda t: t.end):
        note_tasks(ctx, "coopers-rise", [task.id], Note(said=Said.DONE, by="Ina", at=task.end))
    for wet in (None, coat.start + timedelta(hours=1)):
        ctx.space.provider = RainFrom(wet)
        submit(client, "/jobs/coopers-rise/weather/refresh")
        for stage in ("weather", "today"):
            page = client.get(f"/jobs/coopers-rise/{stage}").text
            assert ("Rain race" in page) == (wet is not None), (wet, stage)
    found = re.search(r"No stroke gets wet in <b>(\d+) %</b> of the futures", page)
    # Eight hours of 18 % that come together: rain in about a third to a half of the futures, some of it after the coat.
    assert found is not None and 40 < int(found[1]) < 95


class TwoMinds(StandIn):
    """A service with four futures of its own: in one of them it rains from Tuesday on."""

    def forecast(self, latitude: float, longitude: float, at: datetime) -> WeatherSeries:
        series = super().forecast(latitude, longitude, at)
        hours = series.start + 3600 * np.arange(len(series))
        tuesday = datetime.fromisoformat("2026-09-15T00:00-03:00").timestamp()
        rain = np.where(hours >= tuesday, 3.0, 0.0) * np.array([[0.0], [0.0], [0.0], [1.0]])
        return replace(series, ensemble={"rain_mm": rain, "air_c": np.tile(series.air_c, (4, 1))})


def test_a_services_own_futures_are_the_odds(ctx: Context) -> None:
    """What rains in one of four futures is workable in three of four at best, by the pages too."""
    ctx.space.provider = TwoMinds()
    view = job_view(ctx, "coopers-rise", waits=True)
    job_weather(ctx, view.bundle.property, insist=True)
    view = job_view(ctx, "coopers-rise", waits=True)
    rows = LaneQuestion("coat").rows(view)
    noon = datetime.fromisoformat("2026-09-16T11:00-03:00")
    shares = [float(o.share[r.slot_of(noon)]) for r, o in zip(rows, face_odds(view, rows), strict=True)]
    # Of fifty the first is the forecast, then the four are taken in turn: twelve are wet.
    assert 0.6 < max(shares) <= 38 / 50, "in some of the dry ones the boards are too damp of the weeks before"


class RainFrom(StandIn):
    """The simulated service in dry weather, or with eight hours that may be wet from a moment on."""

    def __init__(self, wet: datetime | None) -> None:
        super().__init__()
        self.wet = wet

    def forecast(self, latitude: float, longitude: float, at: datetime) -> WeatherSeries:
        series = super().forecast(latitude, longitude, at)
        hours = series.start + 3600 * np.arange(len(series))
        begins = self.wet.timestamp() if self.wet is not None else series.end
        wet = (hours >= begins) & (hours < begins + 8 * 3600)
        return replace(series, rain_mm=np.zeros(len(series)), rain_pct=np.where(wet, 18.0, 0.0))


def test_what_would_help_is_told_in_hours_as_a_page_and_as_a_fragment(visitor: TestClient) -> None:
    asked = {"product": "coat", "face": "back", "at": "2026-09-16T13:00:00-03:00"}
    part = visitor.get(f"{RISE}/helps", params=asked, headers=PANEL).text
    gains = [float(h) for h in re.findall(r">\+([\d.]+) h<", part)]
    assert gains and gains == sorted(gains, reverse=True) and "<html" not in part
    assert f">+{gains[0]:g} h<" in visitor.get(RISE, params=asked | {"helps": "1"}).text


def test_a_morning_that_may_be_dry_or_wet_all_along_claims_no_minutes(
    judged: tuple[JobView, list[JudgedFace], list[Odds]],
) -> None:
    view, rows, odds = judged
    at = float(odds[0].dry_from[1][np.isfinite(odds[0].dry_from[1])][0])
    open_ended = replace(odds[0], dry_from=np.array([[-np.inf], [at], [np.inf]]).repeat(10, axis=1))
    (day,) = face_days(rows[:1], [open_ended], NOON, view.bundle.job.crew)
    assert day.dry is not None and day.dry.at is not None and day.dry.half_min is None
