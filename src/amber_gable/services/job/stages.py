"""The stages of a job. Each is registered here once: rail, jumps, the yard, pages and tests read this table, and its
routes are those of `web/routes/<path>`, its page `templates/<path>.html`."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from datetime import timedelta

from amber_gable.core.survey.findings.essentials import missing_essentials
from amber_gable.services.job.view import JobView

Lacks = Callable[[JobView, bool], str | None]
"""What a stage still lacks, in two or three words. The flag: hold it against the climate, computing it."""


@dataclass(frozen=True)
class Notice:
    """What a page says after a change that led back to it; `undo`: with a button that takes the change back."""

    words: str
    undo: bool = False


_ALWAYS = {"saved": Notice("Saved.", undo=True), "deleted": Notice("Deleted.", undo=True)}


@dataclass(frozen=True)
class Stage:
    """`key` jumps to it, 0 the tenth; `shows_weather`: its pages show the weather, so that the strip of sky is worked
    out with them; `notices` by the word that an address carries as `said`."""

    key: int
    path: str
    name: str
    lacks: Lacks = lambda _view, _weather: None
    shows_weather: bool = False
    notices: Mapping[str, Notice] = field(default_factory=dict)

    def notice(self, said: str | None) -> Notice | None:
        return (_ALWAYS | dict(self.notices)).get(said or "")


def _survey(view: JobView, _: bool) -> str | None:
    house = view.bundle.property
    if not house.faces:
        return "no faces"
    if bare := [f for f in house.faces if not house.zones_of(f.id) and not house.items_of(f.id)]:
        return f"{len(bare)} with nothing to paint"
    gaps = missing_essentials(view.bundle)
    return f"{len(gaps)} missing" if gaps else None


def _specification(view: JobView, _: bool) -> str | None:
    house = view.bundle.property
    without = len(view.bundle.undecided)
    if view.stops:
        return f"{len({s.part for s in view.stops})} stopped"
    if without > 0 or not house.parts:
        return f"{without} to choose" if without else "nothing to paint"
    return None


def _quantities(view: JobView, _: bool) -> str | None:
    return None if view.bundle.job.finishes else "no systems"


def _weather(view: JobView, weather: bool) -> str | None:
    return "no weather" if weather and view.weather.series is None else None


def _plan(view: JobView, weather: bool) -> str | None:
    kept = view.kept
    if kept is None:
        return "not planned"
    if kept.out_of_date:
        return "out of date"
    if (weather or view.known_site is not None) and view.threats:
        return f"{len(view.threats)} threatened"
    return f"{len(kept.plan.unplaced)} unplaced" if kept.plan.unplaced else None


def _today(view: JobView, weather: bool) -> str | None:
    return f"{len(view.board.late)} late" if weather and view.board is not None and view.board.late else None


STAGES: tuple[Stage, ...] = (
    # The keys leave room for the stages still to come.
    Stage(1, "survey", "Survey", _survey,
          notices={"filled": Notice("Put up.", undo=True), "blocked": Notice("Built.", undo=True)}),
    Stage(2, "specification", "Specification", _specification),
    Stage(3, "quantities", "Quantities", _quantities),
    Stage(4, "estimate", "Estimate"),
    Stage(5, "weather", "Weather", _weather, shows_weather=True,
          notices={"imported": Notice("Weather file in use."), "measured": Notice("What was measured is in use."),
                   "typed": Notice("The typed forecast is in use.")}),
    Stage(6, "plan", "Plan", _plan, shows_weather=True),
    Stage(7, "today", "Today", _today, shows_weather=True),
)  # fmt: skip


def stage_of(path: str) -> Stage:
    return next(s for s in STAGES if s.path == path)


def lacking(view: JobView, *, weather: bool) -> dict[str, str]:
    """What each stage still lacks, by its path. `weather`: hold it against the climate, computing it."""
    found = {s.path: s.lacks(view, weather) for s in STAGES}
    return {path: words for path, words in found.items() if words is not None}


BEFOREHAND = timedelta(days=2)
"""So long before the first work the eyes are on the weather and the day rather than on the plan's making."""


def stages_that_matter(view: JobView) -> tuple[str, str, str]:
    """Three of them, in the order of the work: by how far the job is, and once it is planned by the clock."""
    house, kept = view.bundle.property, view.kept
    parts = len(house.zones) + len(house.items)
    if not parts:
        return "survey", "specification", "quantities"
    if view.bundle.undecided:
        return "survey", "specification", "weather"
    if kept is None or not kept.plan.tasks:
        return "quantities", "weather", "plan"
    begins = min(t.start for t in kept.plan.tasks)
    if view.now < begins - BEFOREHAND:
        return "quantities", "weather", "plan"
    return "weather", "plan", "today"
