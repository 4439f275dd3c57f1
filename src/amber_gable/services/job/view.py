"""A job at one moment with everything that its pages show of it. Each value is computed when it is first read, so
that a page computes only what it shows."""

from datetime import datetime
from functools import cached_property

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.plan.threats import Threat
from amber_gable.core.specification.cautions.stops import Stop
from amber_gable.core.state.answers import LastStroke, last_stroke
from amber_gable.core.state.drying_wood import WET_WOOD, drying
from amber_gable.core.state.job_state import Board, JobState, TaskState
from amber_gable.core.state.surroundings import part_noted
from amber_gable.core.survey.amounts.painted import Key, PaintedPart
from amber_gable.domain.errors import NoClimate
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.site_record import CustomerChange
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.services.context import Context
from amber_gable.services.plan.long_runs import page_climate
from amber_gable.services.plan.planning import KeptPlan, kept_plan
from amber_gable.services.state.climate import job_climate, known_climate
from amber_gable.services.state.under_weather import JobUnderWeather, kept_parts, kept_stops
from amber_gable.services.weather.held.asking import job_weather
from amber_gable.services.weather.held.forecasts import Weather, known_weather
from amber_gable.store.job.jobs import load_bundle


class JobView:
    """A job at the moment `now`. Reading `weather` may ask the forecast service; reading `site` may compute the climate
    of the house. With `waits` the climate is computed at once however long it takes, which is meant for fragments that
    a page fetches after it is shown; without, the climate of a large house is handed to a run beside the page.
    `under` is a weather to use instead of the job's own."""

    def __init__(
        self,
        ctx: Context,
        bundle: JobBundle,
        now: datetime,
        *,
        waits: bool = False,
        under: WeatherSeries | None = None,
    ) -> None:
        self.ctx, self.bundle, self.now, self.waits, self.under = ctx, bundle, now, waits, under

    @cached_property
    def weather(self) -> Weather:
        if self.under is not None:
            return Weather(self.under, False, None, None)
        return job_weather(self.ctx, self.bundle.property)

    def believing(self, series: WeatherSeries) -> "JobView":
        """The same job at the same moment, under another weather."""
        return JobView(self.ctx, self.bundle, self.now, waits=True, under=series)

    @cached_property
    def _climate(self) -> tuple[SiteClimate | None, str | None]:
        weather = self.weather
        if weather.series is None or not self.bundle.property.parts:
            return None, weather.trouble
        try:
            made = job_climate if self.waits else page_climate
            return made(self.ctx, self.bundle, weather.series, self.now), weather.trouble
        except NoClimate as error:
            return None, str(error)

    @property
    def site(self) -> SiteClimate | None:
        """None without weather or with nothing to paint."""
        return self._climate[0]

    @property
    def trouble(self) -> str | None:
        """Why there is no climate, or why the weather is not the newest."""
        return self._climate[1]

    @cached_property
    def known_site(self) -> SiteClimate | None:
        """The climate if it need not be computed, and no forecast asked for, to have it."""
        weather = self.weather if self.under is not None else known_weather(self.ctx, self.bundle.property)
        if weather is None or weather.series is None:
            return None
        return known_climate(self.ctx, self.bundle, weather.series, self.now).site

    @cached_property
    def kept(self) -> KeptPlan | None:
        """The plan the crew works to."""
        return kept_plan(self.ctx, self.bundle)

    @cached_property
    def stops(self) -> tuple[Stop, ...]:
        """Without that of wood that reads wet because it was washed or rained on, and dries."""
        found = kept_stops(self.ctx, self.bundle)
        if all(s.rule != WET_WOOD for s in found):
            return found
        return tuple(s for s in found if s.rule != WET_WOOD or not self._dries(s.part))

    def _dries(self, key: Key) -> bool:
        part = self.bundle.property.part(key)
        return part is not None and drying(part, part_noted(self.bundle, key), self.known_site, self.bundle.property.tz)

    @cached_property
    def parts(self) -> dict[Key, PaintedPart]:
        return kept_parts(self.ctx, self.bundle)

    @cached_property
    def _under(self) -> JobUnderWeather | None:
        site, series = self.site, self.weather.series
        return (
            None
            if site is None or series is None
            else JobUnderWeather(self.ctx, self.bundle, site, series, self.now, self.kept)
        )

    @property
    def state(self) -> JobState | None:
        """Every part as it stands; None without a climate."""
        return None if self._under is None else self._under.state

    @property
    def board(self) -> Board | None:
        """The plan as it stands; None without a plan or without a climate."""
        return None if self._under is None else self._under.board

    @cached_property
    def threats(self) -> tuple[Threat, ...]:
        """What threatens the plan; nothing without a plan or without a climate. Looking at it keeps nothing: what a
        plan is warned of is kept when another forecast comes (services/weather/held/asking.py)."""
        return () if self._under is None else self._under.threats

    @property
    def recent_changes(self) -> list[CustomerChange]:
        """What the customer changed since the plan was made, and in the last two days; the latest first."""
        planned = self.kept.planned_at if self.kept is not None else 0
        since = min(self.now.timestamp() - 48 * 3600, planned) if planned else self.now.timestamp() - 48 * 3600
        found = [c for c in self.bundle.job.changes if c.noted.timestamp() >= since]
        return sorted(found, key=lambda c: c.noted, reverse=True)

    def asked_task(self, id_: str, face: str = "") -> TaskState | None:
        """A task of the plan by its id; without one, what is done now or next, on `face` where one is named."""
        if self.board is None:
            return None
        if id_:
            return next((t for t in self.board.open if t.task.id == id_), None)
        here = [t for t in (self.board.now, self.board.next) if t is not None and t.task.face == (face or t.task.face)]
        return next(iter(here), None)

    @cached_property
    def last_stroke(self) -> LastStroke | None:
        names = {p.code: p.name for p in self.bundle.products}
        return None if self.board is None else last_stroke(self.board, self.now, names)


def job_view(ctx: Context, job_id: str, *, waits: bool = False) -> JobView:
    """Raises NotFound for an unknown job."""
    with ctx.reading() as session:
        bundle = load_bundle(session, job_id)
    return JobView(ctx, bundle, ctx.now.astimezone(bundle.property.tz), waits=waits)
