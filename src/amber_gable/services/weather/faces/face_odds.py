"""How sure the answers of the lanes are: every face's step in the members drawn around the forecast."""

from collections.abc import Hashable, Sequence
from dataclasses import dataclass, field, replace
from typing import ClassVar, Protocol

from amber_gable.core.climate.job_climate import place_of
from amber_gable.core.weather.futures.ensemble import drawn_weather
from amber_gable.core.weather.futures.members import Coat, Odds, Preparation, odds
from amber_gable.core.weather.wall.slot_climate import PlaceWeather
from amber_gable.domain.progress import Progress, unseen, within
from amber_gable.services.context import Context
from amber_gable.services.job.view import JobView, job_view
from amber_gable.services.plan.long_runs import JobWork
from amber_gable.services.weather.faces.judged_faces import LaneQuestion
from amber_gable.services.workspace import digest

MEMBERS, DAYS = 50, 10


class Judgeable(Protocol):
    """What is judged by the weather: a coat, or a step that lays no film."""

    @property
    def step(self) -> Coat | Preparation: ...


def futures(view: JobView) -> PlaceWeather:
    """The futures that all pages of a job speak of: the same ones, whatever is asked of them."""
    series = view.weather.series
    assert series is not None, "nobody asks for them without weather"
    drawn = drawn_weather(place_of(view.bundle.property), series, view.now, DAYS, MEMBERS)
    site = view.site
    if site is None or site.steps.start != drawn.steps.start:
        return drawn
    # What is over is the same in all of them, and its surfaces are computed already.
    return replace(drawn, steps=replace(drawn.steps, lead=site.steps.lead))


def known_odds(view: JobView, rows: Sequence[Judgeable]) -> list[Odds] | None:
    """Of each row where all are there; nothing is computed for it."""
    found = [o for o in (view.ctx.space.computed.known(key) for key in _keys(view, rows)) if o is not None]
    return found if len(found) == len(rows) else None


def face_odds(view: JobView, rows: Sequence[Judgeable], progress: Progress = unseen) -> list[Odds]:
    """Of each row for the first `DAYS` days of its slots, or as many as the weather reaches. Those that are missing are
    computed in one go. Raises Cancelled."""
    bundle = view.bundle

    def missing(which: list[int]) -> list[Odds]:
        progress(0.0, f"drawing {MEMBERS} futures")
        weather, steps = futures(view), [rows[n].step for n in which]
        return odds(weather, steps, bundle.policy, bundle.job.crew, within(progress, 0.3, 1.0))

    return view.ctx.space.computed.get_all(_keys(view, rows), missing)


def _keys(view: JobView, rows: Sequence[Judgeable]) -> list[Hashable]:
    """What the odds of a step are worked out from: the weather of the place, the step, how it is judged, the day."""
    bundle, day = view.bundle, view.now.date()
    weather = digest(place_of(bundle.property), view.weather.series, day, DAYS, MEMBERS)
    return [("odds", weather, row.step, bundle.policy, bundle.job.crew) for row in rows]


@dataclass(frozen=True)
class OddsWork(JobWork):
    """Work out how sure a question's answers are, so that the page finds it."""

    kind, page = "odds", "weather"
    when_stopped: ClassVar[str] = "/runs"
    question: LaneQuestion = field(default_factory=LaneQuestion)

    def title(self, ctx: Context) -> str:
        return f"How sure the weather of {job_view(ctx, self.job_id).bundle.job.name} is"

    def do(self, ctx: Context, progress: Progress) -> None:
        view = job_view(ctx, self.job_id, waits=True)
        rows = self.question.rows(view)
        if rows:
            face_odds(view, rows, progress)
