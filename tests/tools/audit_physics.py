"""`make audit-physics EPW=file`: the climate against a second computation of it over any weather file, as a table.

What stands here shares no formula with the program: the sun after Spencer (1971) and Cooper's hour angle, Hay and
Davies (1980), a stiff solver of the heat balance with constants written out again, Magnus over water, the wall index of
ISO 15927-3, a Monte-Carlo of wet and dry hours, and film stories told by plain loops.
"""

import sys
from collections.abc import Iterator
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from itertools import pairwise
from pathlib import Path

import numpy as np
from scipy.integrate import solve_ivp

from amber_gable.core.weather.film.drying import stage_rates
from amber_gable.core.weather.judged.rain_chance import SHARED, chance_over
from amber_gable.core.weather.judged.slots import Slots, make_slots
from amber_gable.core.weather.judged.windows import film_windows
from amber_gable.core.weather.outdoors.typical import stretch
from amber_gable.core.weather.wall.slot_climate import Place, place_weather, surfaces_through
from amber_gable.core.weather.wall.steps import to_steps
from amber_gable.core.weather.wall.substrate_moisture import MoistureEvent, through
from amber_gable.core.weather.wall.surface import Climate, FaceSurface, surface_climate
from amber_gable.domain.findings.moisture_figures import MasonryFigures, moisture_figures
from amber_gable.domain.grid import STEP_S, STEPS_PER_HOUR
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.paint.generic_products import generic_product
from amber_gable.domain.paint.method import Method
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.work.working import CrewDay, Policy
from amber_gable.exchange.weather.any_file import read_weather

SIGMA, STEP, DAY = 5.670374e-8, float(STEP_S), 86400 // STEP_S
ALL_DAY = CrewDay(start_h=0, end_h=24, setup_h=0, cleanup_h=0)
Row = tuple[str, float, str, bool]
"""What was compared, the worst of it, its unit and limit in words, and whether that holds."""


def main(path: Path) -> int:
    """Prints the table; 1 where a line fails."""
    series = read_weather(path.read_text(encoding="utf-8", errors="replace"), path.name)
    rows = [row for part in (sun_and_light, temperatures, moisture, films, rain) for row in part(series)]
    print(f"{path.name}: {series.latitude:.2f}, {series.longitude:.2f}, {len(series)} h")
    for name, worst, words, good in rows:
        print(f"{'ok  ' if good else 'FAIL'}  {name:<58} {worst:8.2f}  {words}")
    return 0 if all(row[3] for row in rows) else 1


def _days(series: WeatherSeries) -> Iterator[date]:
    """A week in each season."""
    first = series.start_time.date()
    for month in (1, 4, 7, 10):
        day = date(2025, month, 8) if series.typical_year else first + timedelta(days=90 * (month // 3) + 3)
        if series.typical_year or day + timedelta(days=9) < first + timedelta(hours=len(series)):
            yield day


def _climate(series: WeatherSeries, day: date, *faces: FaceSurface) -> Climate:
    place = (series.latitude or 0.0, series.longitude or 0.0, series.altitude_m)
    return surface_climate(to_steps(stretch(series, day, 7), *place), faces)


def sun_and_light(series: WeatherSeries) -> Iterator[Row]:
    """Elevation by Spencer's series, and Hay and Davies' light on planes from the program's horizontal light."""
    off, beam_off = 0.0, 0.0
    faces = (
        FaceSurface(180.0, 90.0, SUBSTRATES["vinyl-siding"], 0.5),
        FaceSurface(90.0, 35.0, SUBSTRATES["brick"], 0.5),
    )
    for day in _days(series):
        climate = _climate(series, day, *faces)
        steps, light = climate.steps, climate.steps.light
        hours = (steps.times + STEP / 2) / 3600
        new_year = datetime(2025, 1, 1, tzinfo=UTC).timestamp()
        angle = 2 * np.pi * (((steps.times - new_year) / 86400) % 365) / 365
        one, two, three = (n * angle for n in (1, 2, 3))
        tilt = 0.006918 - 0.399912 * np.cos(one) + 0.070257 * np.sin(one) - 0.006758 * np.cos(two)
        tilt += 0.000907 * np.sin(two) - 0.002697 * np.cos(three) + 0.00148 * np.sin(three)
        late = 0.000075 + 0.001868 * np.cos(one) - 0.032077 * np.sin(one) - 0.014615 * np.cos(two)
        late = 229.18 * (late - 0.04089 * np.sin(two))
        hour = np.radians(15 * ((hours % 24) + (series.longitude or 0.0) / 15 + late / 60 - 12))
        lat = np.radians(series.latitude or 0.0)
        up = np.sin(lat) * np.sin(tilt) + np.cos(lat) * np.cos(tilt) * np.cos(hour)
        high = up > np.sin(np.radians(5.0))
        off = max(off, float(np.abs(np.degrees(np.arcsin(up)) - steps.sun.elevation)[high].max()))
        extra = 1361 * (1.00011 + 0.034221 * np.cos(angle) + 0.00128 * np.sin(angle))
        for n, face in enumerate(faces):
            slope, turn = np.radians(face.tilt_deg), np.radians(steps.sun.azimuth - face.azimuth_deg)
            sun = np.radians(steps.sun.elevation)
            meets = np.maximum(np.sin(sun) * np.cos(slope) + np.cos(sun) * np.sin(slope) * np.cos(turn), 0.0)
            round_sun = light.dni / extra
            level = np.maximum(np.sin(sun), 0.0175)
            sky = light.dhi * (round_sun * meets / level + (1 - round_sun) * (1 + np.cos(slope)) / 2)
            theirs = light.dni * meets + sky + 0.2 * light.ghi * (1 - np.cos(slope)) / 2
            beam_off = max(beam_off, float(np.abs(theirs - climate.poa_global[n])[high].max()))
    yield "sun's elevation, by Spencer", off, "degrees, at most 0.8", off < 0.8
    yield "light on planes, by Hay and Davies", beam_off, "W/m², at most 30", beam_off < 30


SURFACES = [("vinyl-siding", 90.0, 270.0, 0.7), ("metal-roof", 20.0, 180.0, 0.85), ("wood-lap", 90.0, 180.0, 0.6),
            ("brick", 90.0, 180.0, 0.7), ("concrete-slab", 0.0, 0.0, 0.6)]  # fmt: skip


def temperatures(series: WeatherSeries) -> Iterator[Row]:
    """A stiff solver of the same balance in air too dry for dew, without rain: root mean square of four weeks."""
    series = replace(series, rain_mm=None, rain_pct=None, rh_pct=np.minimum(series.rh_pct, 25.0))
    for code, tilt, azimuth, takes in SURFACES:
        square, count = 0.0, 0
        for day in _days(series):
            climate = _climate(series, day, FaceSurface(azimuth, tilt, SUBSTRATES[code], takes))
            ours, theirs = _solved(climate, tilt, takes)
            square, count = square + float(((ours - theirs) ** 2).sum()), count + len(ours)
        worst = float(np.sqrt(square / max(count, 1)))
        yield f"surface temperature of {code}, stiff solver", worst, "K r.m.s., at most 0.5", worst < 0.5


def _solved(climate: Climate, tilt: float, takes: float) -> tuple[np.ndarray, np.ndarray]:
    steps, kind = climate.steps, climate.faces[0].substrate
    across = np.cos(np.radians(tilt))
    cold = (1 + across) / 2 * np.sqrt((1 + across) / 2)
    around = kind.emissivity * (cold * steps.ir_down + (1 - cold) * SIGMA * (steps.air + 273.15) ** 4)
    middle = (np.arange(len(steps)) + 0.5) * STEP
    gain = takes * climate.poa_global[0] + around
    # What the wind carries away is compared elsewhere: the program's own exchange less its buoyancy.
    over = climate.surface[0] - steps.air
    lift = np.where(over > 0, 9.482 / (7.283 - across), 1.810 / (1.382 + across)) * np.cbrt(np.abs(over))
    forced = np.sqrt(np.maximum((climate.convection[0] - 0.5) ** 2 - lift**2, 0.0))

    def rate(t: float, temperature: np.ndarray) -> list[float]:
        air, gained, blown = (np.interp(t, middle, a) for a in (steps.air, gain, forced))
        warmer = float(temperature[0]) - air
        lifted = (9.482 / (7.283 - across) if warmer > 0 else 1.810 / (1.382 + across)) * np.cbrt(abs(warmer))
        flow = gained - kind.emissivity * SIGMA * (temperature[0] + 273.15) ** 4
        flow += kind.u_behind * (20.0 - temperature[0]) - (np.hypot(lifted, blown) + 0.5) * warmer
        return [float(flow / kind.heat_capacity)]

    begin, ends = DAY, (np.arange(len(steps)) + 1.0) * STEP
    start = [float(climate.surface[0, begin - 1])]
    solved = solve_ivp(
        rate, (ends[begin - 1], ends[-1]), start, "LSODA", ends[begin:], rtol=1e-7, atol=1e-7, max_step=STEP
    )
    return climate.surface[0, begin:], solved.y[0]


def moisture(series: WeatherSeries) -> Iterator[Row]:
    """The same day asked from four others; and the heat that drying masonry takes against what its face is given."""
    place = Place(series.latitude or 0.0, series.longitude or 0.0, series.altitude_m, series.start_time.tzinfo or None)  # type: ignore[arg-type]
    apart, takes = 0.0, 0.0
    days = list(_days(series))[1:]
    for code in ("brick", "stucco-smooth", "wood-lap"):
        for day in days:
            found = []
            for back in (0, 2, 4, 6):
                begin = series.start_time.replace(year=day.year, month=day.month, day=day.day) - timedelta(days=back)
                (wall,) = surfaces_through(
                    place_weather(place, series, begin, 8), [FaceSurface(0.0, 90.0, SUBSTRATES[code], 0.5)]
                )
                told = through(wall.climate)
                assert told is not None
                found.append(float(told.pct[0, (2 + back) * DAY + DAY // 2]))
            apart = max(apart, max(found) - min(found))
    yield "moisture of a day asked from four others", apart, "%, at most 1.5", apart < 1.5
    figures = moisture_figures(SUBSTRATES["brick"])
    assert isinstance(figures, MasonryFigures)
    for day in days:
        climate = _climate(series, day, FaceSurface(180.0, 90.0, SUBSTRATES["brick"], 0.6))
        wet = through(climate, [MoistureEvent(climate.steps.start + 3 * 86400.0)], bare=False)
        assert wet is not None
        lost = -np.diff(wet.pct[0])[3 * DAY + 1 : 4 * DAY] / 100 * figures.holds_kg * 2.45e6 / STEP
        given = 0.6 * climate.poa_global[0] + 8.0 * (climate.convection[0] + 5.5)
        takes = max(takes, float(lost.mean() / given[3 * DAY : 4 * DAY].mean()))
    yield "heat of drying brick, share of what its face is given", takes, "of a day's, at most 1", takes <= 1.0


def films(series: WeatherSeries) -> Iterator[Row]:
    """Of open slots, those whose film meets frost or its minimum before it is rain-ready, or boils while it is wet; and
    those told ready sooner than their sheet."""
    for code in ("exterior-acrylic-standard", "alkyd-gloss"):
        product, spoiled, soon, count = generic_product(code), 0, 0, 0
        for day in _days(series):
            climate = _climate(series, day, FaceSurface(180.0, 90.0, SUBSTRATES["wood-lap"], 0.7))
            slots = _slots(climate, day)
            for policy in (Policy(), Policy(sun="temperature", dew="touch-dry", rain="face")):
                windows = film_windows(climate, slots, product, Method.BRUSH, policy, ALL_DAY)
                open_ = np.flatnonzero(windows.ok[0])
                count += len(open_)
                spoiled += sum(_spoiled(climate, code, int(slots.end[i])) for i in open_.tolist())
                assert windows.recoat_at is not None and windows.rain_ready_at is not None
                ends = slots.start + slots.length_s * (np.arange(len(slots)) + 1.0)
                soon += int((windows.recoat_at[0] - ends < 3600 * product.recoat_h - 1).sum())
                soon += int((windows.rain_ready_at[0] - ends < 3600 * product.rain_ready_h - 1).sum())
        yield f"open slots of {code} that spoil, of {count}", float(spoiled), "none", spoiled == 0
        yield f"slots of {code} ready before the sheet says", float(soon), "none", soon == 0


def _slots(climate: Climate, day: date) -> Slots:
    zone = climate.steps.start
    begin = datetime.fromtimestamp(zone + 2 * 86400, UTC)
    return make_slots(climate.steps, begin, 7, UTC)


def _spoiled(climate: Climate, code: str, at: int) -> bool:
    """The film's story step by step: ready by its own clock, spoiled by an hour of cold, frost or heat before it."""
    product, surface = generic_product(code), climate.surface[0]
    oil, rates = code.startswith("alkyd"), stage_rates(climate, product)
    clock = rates.touch[0] if oil else rates.through[0]
    needs, ran, cold = product.touch_h if oil else product.rain_ready_h, 0.0, 0
    for k in range(at, len(surface)):
        if ran >= needs:
            return False
        if oil and surface[k] > product.surface_max_c:
            return True
        cold += not oil and bool(surface[k] < product.surface_min_c)
        if cold >= STEPS_PER_HOUR or (not oil and surface[k] < 0.0):
            return True
        ran += float(clock[k]) / STEPS_PER_HOUR
    return False


def rain(series: WeatherSeries) -> Iterator[Row]:
    """What walls catch in the year against the standard; and chances over a wait against dice."""
    if series.rain_mm is not None:
        worst, fell = 0.0, np.nan_to_num(series.rain_mm)
        for azimuth in (0.0, 90.0, 180.0, 270.0):
            square_on = np.maximum(np.cos(np.radians(series.wind_from_deg - azimuth)), 0.0)
            index = 2 / 9 * series.wind_ms * fell ** (8 / 9) * square_on * 0.22 * np.log(8 / 0.3) * 0.9 * 0.4
            worst = max(worst, float(index.sum() / max(fell.sum(), 1e-9)))
        yield "rain on the wettest wall, share of level rain, by ISO", worst, "at most 0.25", worst < 0.25
    dice, worst = np.random.default_rng(5), 0.0
    for hours in ([20.0] * 5, [5.0, 30.0, 10.0], [0.0, 60.0, 60.0, 0.0]):
        p = np.array(hours) / 100
        wet = dice.random(40_000) < p[0]
        ever = wet.copy()
        for before, now in pairwise(p):
            # Of a wet hour's chance what it shares with the one before goes on; the rest is new.
            wet = np.where(~ever, dice.random(40_000) < now - SHARED * min(now, before), True)
            ever |= wet
        ours = chance_over(np.repeat(hours, STEPS_PER_HOUR), np.array([0]), np.array([STEPS_PER_HOUR * len(hours)]))[0]
        worst = max(worst, abs(float(ours) - 100 * float(ever.mean())))
    yield "chance of rain over a wait, by dice", worst, "%, at most 1", worst < 1.0


if __name__ == "__main__":
    sys.exit(main(Path(sys.argv[1])))
