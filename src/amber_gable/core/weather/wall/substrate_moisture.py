"""How wet a board or a wall is through the weather (docs/physics.md §6): what a meter would read, % .

Wood goes towards the moisture of its own air over the last day, that of the vapour around it at its own temperature,
half-way between its face and the air; quicker when it is warm (Arrhenius, 30 kJ/mol, an assumption among published
figures for bound water). Rain that reaches it counts as a washing by as much as it brings, and soaks on slowly.
Masonry dries as a wet surface does at first, then ever more slowly. Both are taken as they stand when prepared for
a coat: no film keeps water out. Figures in % of dry mass for wood, in % of what its outer zone holds for masonry.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from amber_gable.core.weather.film.drying import arrhenius
from amber_gable.core.weather.film.limits import Limit
from amber_gable.core.weather.outdoors.air import KELVIN, Array, saturation_pressure, vapour_density
from amber_gable.core.weather.outdoors.sky import STEFAN_BOLTZMANN
from amber_gable.core.weather.wall.balance import AIR_HEAT_CAPACITY, LATENT_HEAT, LEWIS_TERM
from amber_gable.core.weather.wall.moisture_loop import STEADY_UNTIL, MasonryDrive, masonry_steps, wood_steps
from amber_gable.core.weather.wall.surface import Climate, surface_climate
from amber_gable.core.weather.wall.wood import equilibrium_moisture
from amber_gable.domain.findings.moisture_figures import MasonryFigures, WoodFigures, moisture_figures
from amber_gable.domain.grid import STEP_S
from amber_gable.domain.house.substrates import Substrate

BOUND_WATER_J_MOL = 30e3
SOAKS_H = 40.0
"""Hours of rain in which bare wood that has drunk as after a washing comes to 1/e of the way to fibre saturation: with
what it drank at once that is the 12 to 20 h of docs/physics.md §6 for the first half day, and slower after it."""
SHOWER_MM, SOAKING_MM, SOAKING_H = 0.5, 1.0, 6
"""Rain on the face within so many hours up to which wood is only wet on its face, and from which on it drinks all: an
assumption; a shower is wiped off or blown dry, and what a meter's pins feel is rain that goes on."""
MOST_RH = 98.0
DRY_MASONRY_PCT = 10.0
"""Of what its outer zone holds: about what is left when a taped plastic sheet shows no more dew. An assumption."""
IN_SATURATED_AIR, SORPTION = 0.1, 4.0
"""Saturation of masonry in air that is saturated, by the day's mean humidity to a power: what a taped sheet shows no
dew of. An assumption; published sorption of brick and render lies on both sides of it."""
METER_PCT, UNREAD_PCT, OF_CHANGE = 1.0, 2.5, 0.25
"""Half the band: of a reading, of wood nobody read, and the share of what was computed since the reading that is added.
"""
DAY_STEPS = 24 * 3600 // STEP_S
_KELVIN_20 = float(arrhenius(20.0, BOUND_WATER_J_MOL))


@dataclass(frozen=True)
class MoistureEvent:
    """At an epoch second the surface was washed, or a meter showed `reading` %."""

    at: float
    reading: float | None = None


@dataclass(frozen=True)
class Moisture:
    """(R, T) % at the end of each step; `half_band` (R, T): how far it may be off either way; `wetted` (R, T): what of
    it washing and rain have left; `start_doubt` (1, T): how much wetter it would be had it been soaked before the
    weather that is known. `factor`: what its time constant was tuned by; `misses`: what was predicted, and
    read, at each reading but the first."""

    pct: Array
    half_band: Array
    wetted: Array
    start_doubt: Array
    factor: float = 1.0
    misses: tuple[tuple[float, float, float], ...] = ()


def dry_masonry(substrate: Substrate) -> Limit | None:
    """How wet masonry and cement may be under a film; None for what is neither."""
    if not isinstance(moisture_figures(substrate), MasonryFigures):
        return None
    return Limit(DRY_MASONRY_PCT, "%", "of what it holds: dry under a taped plastic sheet")


def through(
    climate: Climate,
    events: Sequence[MoistureEvent] = (),
    *,
    open_below: bool = False,
    bare: bool = True,
    factor: float | None = None,
) -> Moisture | None:
    """The first face of a climate, in each of its members; None for what holds no water.

    Events outside the weather, with the weeks before it that are known, are left out, but for the last reading before
    it, which counts at its beginning. It begins as it is in the long run of those weeks. With two readings or more the
    time constant is tuned to them, within a factor of 2.5. What is not bare takes up no rain.
    """
    figures = moisture_figures(climate.faces[0].substrate, open_below=open_below)
    if figures is None:
        return None
    lead = _lead(climate)
    known = _inside(climate, lead, events)
    whole = _Run(climate, figures, known, bare=bare, lead=lead)
    readings = [(whole.step_of(e), e) for e in known if e.reading is not None]
    misses = tuple((e.at, whole.before(step, 1.0), e.reading or 0.0) for step, e in readings[1:])
    if factor is None:
        factor = _tuned(whole, readings) if misses else 1.0
    read = [e for _, e in readings]
    sheltered = _Run(climate, figures, known, bare=False, lead=lead)
    likely, alone = whole.pct(known, factor), sheltered.pct(read, factor)
    doubt = np.zeros_like(likely)
    if isinstance(figures, MasonryFigures):
        doubt = np.maximum(whole.pct(known, factor, soaked=True) - likely, 0.0)
    band = whole.half_band(likely, [step for step, _ in readings])
    n = whole.count - len(climate.steps)
    pct, air_alone, half_band, start_doubt = likely[:, n:], alone[:, n:], band[:, n:], doubt[:, n:]
    if climate.surface[0].size > len(climate.steps):
        members = [
            _Run(climate, figures, known, bare=open_to_rain, rows=None, begins=float(before[0, n - 1]) if n else None)
            for open_to_rain, before in ((bare, likely), (False, alone))
        ]
        since = climate.steps.start
        pct = members[0].pct([e for e in known if e.at >= since], factor)
        air_alone = members[1].pct([e for e in read if e.at >= since], factor)
        half_band = np.broadcast_to(half_band, pct.shape)
    return Moisture(pct, half_band, np.maximum(pct - air_alone, 0.0), start_doubt, factor, misses)


def _lead(climate: Climate) -> Climate | None:
    """The first face through the weeks before its weather, computed once for that weather."""
    lead, face = climate.steps.lead, climate.faces[0]
    if lead is None:
        return None
    if face not in lead.climates:
        lead.climates[face] = surface_climate(lead, (face,))
    found: Climate = lead.climates[face]
    return found


def _inside(climate: Climate, lead: Climate | None, events: Sequence[MoistureEvent]) -> list[MoistureEvent]:
    start, end = (lead or climate).steps.start, climate.steps.start + STEP_S * len(climate.steps)
    ordered = sorted(events, key=lambda e: e.at)
    before = [e for e in ordered if e.at < start]
    kept = [e for e in ordered if start <= e.at < end]
    if before and before[-1].reading is not None:
        kept.insert(0, MoistureEvent(float(start), before[-1].reading))
    return kept


class _Run:
    """One surface through its weather, with events or without: the likely one with the weeks before it, or all members
    from the state that those leave it in."""

    def __init__(
        self,
        climate: Climate,
        figures: WoodFigures | MasonryFigures,
        events: Sequence[MoistureEvent],
        *,
        bare: bool,
        lead: Climate | None = None,
        rows: int | None = 1,
        begins: float | None = None,
    ) -> None:
        """rows: of the members so many, the first being the likely one (None: all); begins: % (None: its long run)."""
        self.figures, self.begins = figures, begins
        self.start = (lead or climate).steps.start
        self.known = len(lead.steps) if lead is not None else 0
        self.count = self.known + len(climate.steps)
        self.events = [e for e in events if e.at >= self.start]

        def of(name: str, *, air: bool = False) -> Array:
            def rows_of(one: Climate) -> Array:
                values = getattr(one.steps, name) if air else getattr(one, name)[0]
                return np.broadcast_to(values, one.surface[0].shape).reshape(-1, len(one.steps))[:rows]

            return rows_of(climate) if lead is None else np.concatenate([rows_of(lead), rows_of(climate)], axis=1)

        self.surface, self.convection = of("surface"), of("convection")
        self.rain = of("wall_rain") * (STEP_S / 3600 if bare else 0.0)
        self.air, self.vapour = of("air", air=True), of("vapour", air=True)
        substrate = climate.faces[0].substrate
        self.emissivity, self.u = substrate.emissivity, substrate.u_behind

    def step_of(self, event: MoistureEvent) -> int:
        return int((event.at - self.start) // STEP_S)

    def before(self, step: int, factor: float) -> float:
        """What all that happened before `step` lets expect there."""
        known = [e for e in self.events if self.step_of(e) < step]
        return float(self.pct(known, factor)[0, max(step - 1, 0)])

    def pct(self, events: Sequence[MoistureEvent], factor: float, *, soaked: bool = False) -> Array:
        """% at the end of each step; `soaked`: masonry begins as wet as it is as long as water stands at its face."""
        scale = 100.0 if isinstance(self.figures, MasonryFigures) else 1.0
        read, washed = np.full(self.count, np.nan), np.full(self.count, -np.inf)
        for event in events:
            if event.reading is not None:
                read[self.step_of(event)] = event.reading / scale
            elif isinstance(self.figures, WoodFigures):
                washed[self.step_of(event)] = self.figures.washed_pct
            else:
                washed[self.step_of(event)] = self.figures.washed
        if isinstance(self.figures, MasonryFigures):
            drive = self._masonry(self.figures, factor)
            return scale * masonry_steps(drive, (read, washed), self._masonry_begins(drive, soaked=soaked))
        return self._wood(self.figures, factor, (read, washed))

    def _masonry_begins(self, drive: MasonryDrive, *, soaked: bool) -> Array:
        """(R,): as it is in the long run of the weeks before, from the moisture of its air."""
        rows = len(self.surface)
        if soaked:
            return np.full(rows, STEADY_UNTIL)
        if self.begins is not None:
            return np.full(rows, self.begins / 100)
        nothing = (np.full(self.count, np.nan), np.full(self.count, -np.inf))
        if not self.known:
            return np.ascontiguousarray(drive.air[:, 0])
        return np.asarray(masonry_steps(drive, nothing, drive.air[:, 0])[:, : self.known].mean(axis=1))

    def _masonry(self, figures: MasonryFigures, factor: float) -> MasonryDrive:
        """What it would lose as a wet surface; of the heat that its face is given for every kelvin that it is cooled,
        by the air, the sky and what lies behind it, how much that takes (Penman 1948); and the moisture of its air."""
        held = vapour_density(saturation_pressure(self.surface), self.surface)
        around = vapour_density(self.vapour, self.air)
        exchange = self.convection / (AIR_HEAT_CAPACITY * LEWIS_TERM)
        lost = np.maximum(exchange * (held - around), 0.0) * STEP_S / (figures.holds_kg * factor)
        kelvin = self.surface + KELVIN
        steeper = vapour_density(saturation_pressure(self.surface + 0.5), self.surface + 0.5)
        slope = steeper - vapour_density(saturation_pressure(self.surface - 0.5), self.surface - 0.5)
        given = self.convection + 4 * self.emissivity * STEFAN_BOLTZMANN * kelvin**3 + self.u
        humid = np.clip(self.vapour / saturation_pressure(self.surface), 0.0, MOST_RH / 100)
        air = IN_SATURATED_AIR * _over_a_day(humid) ** SORPTION
        return MasonryDrive(lost, LATENT_HEAT * exchange * slope / given, self.rain / figures.holds_kg, air)

    def _wood(self, figures: WoodFigures, factor: float, events: tuple[Array, Array]) -> Array:
        board = (self.surface + self.air) / 2
        humid = np.clip(100 * self.vapour / saturation_pressure(board), 0.0, MOST_RH)
        target = equilibrium_moisture(_over_a_day(board), _over_a_day(humid))
        quicker = arrhenius(board, BOUND_WATER_J_MOL) / _KELVIN_20
        share = 1 - np.exp(-STEP_S / 3600 / (figures.time_h * factor) * quicker)
        soaks = float(1 - np.exp(-STEP_S / 3600 / SOAKS_H))
        supply = self.rain * _drunk(self.rain) / figures.water_per_pct
        begins = target[:, : max(self.known, 1)].mean(axis=1)
        if self.begins is not None:
            begins = np.full(len(target), self.begins)
        return wood_steps(share, target, supply, (*events, begins), soaks, figures.washed_pct)

    def half_band(self, pct: Array, readings: Sequence[int]) -> Array:
        """The meter's where it was read, more by what was computed since; before the first, that of none."""
        wide = UNREAD_PCT if isinstance(self.figures, WoodFigures) else 5.0
        out = np.full(pct.shape, wide)
        for step, end in pairwise([*readings, self.count]):
            moved = np.abs(np.diff(pct[:, step:end], axis=1, prepend=pct[:, step : step + 1])).cumsum(axis=1)
            out[:, step:end] = np.minimum(METER_PCT + OF_CHANGE * moved, wide + METER_PCT)
        return out


def _drunk(rain: Array) -> Array:
    """Share of each step's rain, mm (R, T), that wood drinks, by how much has fallen on it lately."""
    fallen = np.cumsum(rain, axis=1)
    before = np.zeros_like(fallen)
    back = SOAKING_H * 3600 // STEP_S
    before[:, back:] = fallen[:, :-back]
    return np.asarray(np.clip((fallen - before - SHOWER_MM) / (SOAKING_MM - SHOWER_MM), 0.0, 1.0))


def _over_a_day(values: Array) -> Array:
    """Mean over the last 24 hours, (R, T): what the meter's pins feel of the day's swing."""
    day = min(DAY_STEPS, values.shape[1])
    total = np.concatenate([np.zeros((len(values), 1)), np.cumsum(values, axis=1)], axis=1)
    means = (total[:, day:] - total[:, :-day]) / day
    return np.concatenate([np.repeat(means[:, :1], day - 1, axis=1), means], axis=1)


def _tuned(run: _Run, readings: Sequence[tuple[int, MoistureEvent]]) -> float:
    """Factor on the time constant that brings the predictions nearest to the readings, held towards 1."""
    tried = np.exp(np.linspace(-np.log(2.5), np.log(2.5), 25))

    def cost(factor: float) -> float:
        misses = [run.before(step, factor) - (e.reading or 0.0) for step, e in readings[1:]]
        return float(np.sum(np.square(misses)) / METER_PCT**2 + (np.log(factor) / 0.4) ** 2)

    return float(min(tried, key=cost))
