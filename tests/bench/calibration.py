"""Are the probabilities true? Members drawn around forecasts of the simulated service, held against what its hidden
weather then did (physics.md §10). The service's weather and its errors are code of its own (standins/weather): it moves
fronts, fog, dew and showers by days, the members know only the forecast.

`python -m tests.bench.calibration` writes the picture in docs.
"""

import sys
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.futures.ensemble import draw_members
from amber_gable.core.weather.futures.members import Coat, odds
from amber_gable.core.weather.judged.slots import mean
from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.weather.wall.slot_climate import Place, place_weather, surfaces_through
from amber_gable.core.weather.wall.surface import FaceSurface
from amber_gable.domain.house.substrates import substrate
from amber_gable.domain.paint.generic_products import generic_product
from amber_gable.domain.paint.method import Method
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.work.working import CrewDay, Policy
from amber_gable.standins.weather.truth import AHEAD_H, HISTORY_H, Hourly, forecast, humidity, truth
from tests.bench.other_errors import measured_like

LATITUDE, LONGITUDE = 45.25, -62.1
PLACE = Place(LATITUDE, LONGITUDE, 12.0, UTC)
SEED, FIRST, SEASON_D = "calibration", datetime(2026, 4, 10, 6, tzinfo=UTC), 200
ISSUES, MEMBERS, DAYS = 300, 50, 10
COAT_FACES = tuple(FaceSurface(a, 90.0, substrate("wood-lap"), 0.6) for a in (0.0, 90.0, 180.0, 270.0))
ALL_DAY = CrewDay(start_h=0, end_h=24, setup_h=0, cleanup_h=0)
EVERY = 8
"""Of the slots in daylight one in so many is a case: neighbours share their fate."""
PICTURE = Path(__file__).parents[2] / "docs" / "reliability.svg"


@dataclass(frozen=True)
class Cases:
    """(N,): the probability given, whether the slot then held, what the single forecast and the trade's rule of thumb
    (10 to 29 °C in the air and no rain) had said, hours after the issue."""

    given: Array
    held: npt.NDArray[np.bool_]
    single: npt.NDArray[np.bool_]
    thumb: npt.NDArray[np.bool_]
    lead_h: Array

    def brier(self, said: npt.NDArray[np.generic]) -> float:
        return float(np.mean((said.astype(float) - self.held) ** 2))

    def deciles(self) -> Iterator[tuple[float, int, float, float]]:
        """From where, how many, given and held on average."""
        at = np.minimum((self.given * 10).astype(int), 9)
        for n in range(10):
            here = at == n
            if here.any():
                yield n / 10, int(here.sum()), float(self.given[here].mean()), float(self.held[here].mean())

    def band(self, low: float, high: float) -> tuple[int, float]:
        """How many were given a probability between, and the share of them that held."""
        here = (self.given >= low) & (self.given <= high)
        return int(here.sum()), float(self.held[here].mean()) if here.any() else float("nan")


Told = Callable[[datetime, Hourly], tuple[Hourly, Array]]
"""What a source says, issued at a moment, of the weather that comes, and its chance of rain, %."""


def simulated(at: datetime, real: Hourly) -> tuple[Hourly, Array]:
    """The simulated service's own."""
    return forecast(SEED, LATITUDE, LONGITUDE, at)


def measured(scale: float) -> Told:
    """Errors of another shape than the members', `scale` times their size (tests/bench/other_errors.py)."""
    return lambda at, real: measured_like(real, at, scale)


SOURCES: dict[str, Told] = {
    "the simulated service": simulated,
    "errors of another shape": measured(1.0),
    "errors of another shape, 1.6 times as large": measured(1.6),
}


def cases(issues: int = ISSUES, members: int = MEMBERS, told: Told = simulated) -> Cases:
    """Of forecasts issued through a season, four walls, ten days ahead."""
    apart = SEASON_D * 24 / issues
    times = [FIRST + timedelta(hours=int(k * apart) // 6 * 6) for k in range(issues)]
    with ThreadPoolExecutor(2) as pool:
        found = list(pool.map(lambda at: _of_issue(at, members, told), times))
    return Cases(*(np.concatenate(columns) for columns in zip(*(f for one in found for f in one), strict=True)))


def _of_issue(at: datetime, members: int, source: Told) -> list[tuple[Array, ...]]:
    issued, product = int(at.timestamp()), generic_product("exterior-acrylic-standard")
    comes = truth(SEED, LATITUDE, LONGITUDE, at - timedelta(hours=HISTORY_H), HISTORY_H + AHEAD_H)
    hours, chance = source(at, comes)
    told, real = _series(hours, issued, chance), _series(comes, issued)
    drawn = place_weather(PLACE, draw_members(told, members, issued), at, DAYS)
    given = odds(drawn, [Coat(f, product, Method.BRUSH) for f in COAT_FACES], Policy(), ALL_DAY)
    single, then = place_weather(PLACE, told, at, DAYS), place_weather(PLACE, real, at, DAYS)
    slots = then.slots
    lead_h = (slots.start + slots.length_s * np.arange(len(slots)) - issued) / 3600
    use = (lead_h >= 0) & (slots.daylight > 0.5) & (np.arange(len(slots)) % EVERY == 0)
    air, rain = mean(single.steps.air, slots), single.steps.rain
    assert rain is not None
    thumb = (air >= 10) & (air <= 29) & (mean(rain, slots) < 0.1)
    out = []
    for share, was, said in zip(
        given, surfaces_through(then, COAT_FACES), surfaces_through(single, COAT_FACES), strict=True
    ):
        held, yes = (s.coat(product, Method.BRUSH, Policy(), ALL_DAY).ok[0] for s in (was, said))
        out.append((share.share[use], held[use], yes[use], thumb[use], lead_h[use]))
    return out


def _series(hours: Hourly, issued: int, chance: Array | None = None) -> WeatherSeries:
    return WeatherSeries(
        start=hours.start,
        air_c=hours.air,
        rh_pct=humidity(hours.air, hours.dew),
        wind_ms=hours.wind,
        wind_from_deg=hours.wind_from % 360,
        cloud=hours.cloud,
        rain_mm=hours.rain,
        rain_pct=chance,
        latitude=LATITUDE,
        longitude=LONGITUDE,
        issued=issued,
    )


def table(found: Cases, source: str = "the simulated service") -> str:
    """What `make bench` prints."""
    count, held = found.band(0.7, 0.9)
    lines = [
        f"probabilities held against what then happened, {source}: {len(found.given)} cases",
        f"  given 70 to 90 %: {count} cases, {100 * held:.0f} % held (wanted 65 to 95)",
        f"  Brier score {found.brier(found.given):.3f}; the single forecast's yes or no "
        f"{found.brier(found.single):.3f}; rule of thumb {found.brier(found.thumb):.3f}",
        "  given      cases   mean   held",
    ]
    lines += [f"  {100 * a:3.0f} % on  {n:7d}   {100 * g:3.0f} %  {100 * h:3.0f} %" for a, n, g, h in found.deciles()]
    for low, high in ((0, 24), (24, 72), (72, 240)):
        part = (found.lead_h >= low) & (found.lead_h < high)
        score = np.mean((found.given[part] - found.held[part]) ** 2)
        lines.append(f"  {low} to {high} h ahead: Brier {score:.3f}, yes or no "
                     f"{np.mean((found.single[part].astype(float) - found.held[part]) ** 2):.3f}")  # fmt: skip
    return "\n".join(lines)


def draw(found: Cases) -> str:
    """The reliability diagram as SVG: given against held, the dots as large as their cases are many."""
    size, edge = 300, 40

    def at(share: float) -> float:
        return edge + size * share

    most = max(n for _, n, _, _ in found.deciles())
    dots = "".join(
        f'<circle cx="{at(g):.1f}" cy="{at(1 - h):.1f}" r="{3 + 9 * (n / most) ** 0.5:.1f}" fill="#b4632b" '
        f'fill-opacity="0.75"><title>given {100 * g:.0f} %, held {100 * h:.0f} % of {n}</title></circle>'
        for _, n, g, h in found.deciles()
    )
    marks = "".join(
        f'<text x="{at(s):.0f}" y="{at(1) + 16:.0f}" text-anchor="middle">{100 * s:.0f}</text>'
        f'<text x="{edge - 8}" y="{at(1 - s) + 4:.0f}" text-anchor="end">{100 * s:.0f}</text>'
        for s in (0, 0.25, 0.5, 0.75, 1)
    )
    whole = size + 2 * edge
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {whole} {whole}" '
        f'font-family="sans-serif" font-size="11">'
        f'<rect width="{whole}" height="{whole}" fill="#fbf8f1"/>'
        f'<path d="M{edge} {edge}V{at(1)}H{at(1)}" fill="none" stroke="#3b3a36"/>'
        f'<path d="M{edge} {at(1)}L{at(1)} {edge}" stroke="#8a877d" stroke-dasharray="4 3"/>{dots}{marks}'
        f'<text x="{at(0.5):.0f}" y="{whole - 6}" text-anchor="middle">probability given, %</text>'
        f'<text x="{edge}" y="{edge - 14}">slots that held, %</text></svg>\n'
    )


if __name__ == "__main__":
    many = int(sys.argv[1]) if len(sys.argv) > 1 else ISSUES
    for name, source in SOURCES.items():
        judged = cases(many, told=source)
        if source is simulated and many == ISSUES:
            PICTURE.write_text(draw(judged), encoding="utf-8")
        sys.stdout.write(table(judged, name) + "\n\n")
