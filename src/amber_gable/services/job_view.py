"""A job as its pages see it: each part is worked out when it is first asked for, so that a page pays for what it
shows."""

from dataclasses import dataclass
from datetime import datetime
from functools import cached_property

import numpy as np

from amber_gable.core.climate.job_climate import SiteClimate, main_zone
from amber_gable.core.specification.stops import Stop
from amber_gable.domain.errors import NoClimate
from amber_gable.domain.job import JobBundle
from amber_gable.domain.plan import Task
from amber_gable.services.plan.planning import KeptPlan, job_climate, kept_plan, kept_stops, known_climate
from amber_gable.services.weather.forecasts import Weather, job_weather, known_weather
from amber_gable.services.workspace import Workspace
from amber_gable.store.jobs import load_bundle


@dataclass(frozen=True)
class LastStroke:
    """Last moment at which the scheduled coat may be laid today; `time` None when there is no such moment."""

    time: datetime | None
    face: str
    words: str


class JobView:
    """A job at one moment. `weather` asks the forecast service where it must, `site` computes the climate."""

    def __init__(self, space: Workspace, bundle: JobBundle, now: datetime) -> None:
        self.space, self.bundle, self.now = space, bundle, now

    @cached_property
    def weather(self) -> Weather:
        return job_weather(self.space, self.bundle.property)

    @cached_property
    def _climate(self) -> tuple[SiteClimate | None, str | None]:
        weather = self.weather
        if weather.series is None or not self.bundle.property.zones:
            return None, weather.trouble
        try:
            return job_climate(self.space, self.bundle, weather.series, self.now), weather.trouble
        except NoClimate as error:
            return None, str(error)

    @property
    def site(self) -> SiteClimate | None:
        """None without weather or without zones."""
        return self._climate[0]

    @property
    def trouble(self) -> str | None:
        """Why there is no climate, or why the weather is not the newest."""
        return self._climate[1]

    @cached_property
    def known_site(self) -> SiteClimate | None:
        """The climate if it need not be computed, and no forecast asked for, to have it."""
        weather = known_weather(self.space, self.bundle.property)
        if weather is None or weather.series is None:
            return None
        return known_climate(self.space, self.bundle, weather.series, self.now)

    @cached_property
    def kept(self) -> KeptPlan | None:
        """The plan held against the job and the climate."""
        return kept_plan(self.space, self.bundle, self.site, self.weather.series, self.now)

    @cached_property
    def kept_as_known(self) -> KeptPlan | None:
        """The same without computing a climate for it."""
        weather = known_weather(self.space, self.bundle.property)
        series = weather.series if weather is not None else None
        return kept_plan(self.space, self.bundle, self.known_site, series, self.now)

    @cached_property
    def stops(self) -> tuple[Stop, ...]:
        return kept_stops(self.space, self.bundle)

    @property
    def scheduled_coat(self) -> Task | None:
        """The film task under way, or the next one."""
        if self.kept is None:
            return None
        films = [t for t in self.kept.plan.tasks if t.kind.lays_film and t.end > self.now]
        return min(films, key=lambda t: t.start, default=None)

    @cached_property
    def last_stroke(self) -> LastStroke | None:
        task = self.scheduled_coat
        if task is None or self.site is None or task.product is None or task.method is None:
            return None
        starts = task.start.astimezone(self.now.tzinfo)
        if starts.date() != self.now.date():
            return LastStroke(None, task.face_name, f"next coat {starts:%a} {starts.day} {starts:%b %H:%M}")
        part = self.bundle.property.part(task.part)
        if part is None or task.product not in {p.code for p in self.bundle.products} or not self.site.knows(part):
            return None
        colour = task.colour or part.colour_now
        windows = self.site.for_coat(part, self.bundle.product(task.product), task.method, colour)
        open_ = np.flatnonzero(windows.ok[0] & (windows.slots.day == 0))
        if not open_.size:
            return LastStroke(None, task.face_name, "no window today")
        return LastStroke(windows.slots.time(int(open_[-1]) + 1), task.face_name, task.operation)


def job_view(space: Workspace, job_id: str) -> JobView:
    """Raises NotFound for an unknown job."""
    with space.database.reading() as session:
        bundle = load_bundle(session, job_id)
    return JobView(space, bundle, space.clock.now().astimezone(bundle.property.tz))


def lacking(view: JobView, *, weather: bool) -> dict[str, str]:
    """What each stage still lacks, in two or three words. `weather`: hold it against the climate, computing it."""
    property_, job = view.bundle.property, view.bundle.job
    without = len(property_.zones) + len(property_.items) - len(job.finishes)
    bare = [f for f in property_.faces if main_zone(view.bundle, f) is None]
    out = {}
    if not property_.faces:
        out["survey"] = "no faces"
    elif bare:
        out["survey"] = f"{len(bare)} without zone"
    if view.stops:
        out["specification"] = f"{len({s.part for s in view.stops})} stopped"
    elif without > 0 or not property_.zones:
        out["specification"] = f"{without} to choose" if without else "no zones"
    if not job.finishes:
        out["quantities"] = "no systems"
    if weather and view.weather.series is None:
        out["weather"] = "no weather"
    kept = view.kept if weather else view.kept_as_known
    if kept is None:
        out["plan"] = "not planned"
    elif kept.stale:
        out["plan"] = "out of date" if kept.job_changed else f"{len(kept.threatened)} threatened"
    elif kept.plan.unplaced:
        out["plan"] = f"{len(kept.plan.unplaced)} unplaced"
    return out
