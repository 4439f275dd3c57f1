"""The day sheet: what the crew does that day, until when each coat may be laid, and what it must keep to."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, tzinfo
from functools import cached_property

from amber_gable.core.climate.job_climate import part_moisture_limit
from amber_gable.core.plan.left_over import LeftOver, left_over
from amber_gable.core.plan.visits import Visit, visits
from amber_gable.core.specification.cautions.safety import Card, day_cards
from amber_gable.core.state.answers import AnswerWords, told
from amber_gable.core.state.film import Film
from amber_gable.core.state.job_state import TaskState
from amber_gable.core.state.judgement import frees_lead
from amber_gable.core.state.surroundings import film_noted, laid_in
from amber_gable.core.state.task_status import Status
from amber_gable.core.weather.film.limits import coat_limits
from amber_gable.core.work.steps import steps_of
from amber_gable.domain.house.survey import Item, Zone
from amber_gable.domain.job.plan import Task
from amber_gable.domain.job.site_record import Said, SiteEntry, standing
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.finish import CLEAR_COLOUR
from amber_gable.domain.work.operation import Technique
from amber_gable.services.job.view import JobView
from amber_gable.services.today.cans import Cans
from amber_gable.services.today.found_more import FINDS
from amber_gable.services.today.standing import tasks_by_record


@dataclass(frozen=True)
class SheetLine:
    """One task as the crew needs it: what to use, which can, what to keep to, and whether it may be done. `kinds` and
    `parts`: what of it may be ticked by itself, as `noting.note_tasks` takes it, and its name; a single one is none.
    `film`: what was laid, with its own clocks; `left`: what is left of work that is begun."""

    state: TaskState
    product: Product | None
    colour_name: str
    can: str
    keep_to: str
    cautions: tuple[Card, ...]
    told: AnswerWords | None
    metered: bool
    film: Film | None = None
    kinds: tuple[tuple[str, str], ...] = ()
    parts: tuple[tuple[str, str], ...] = ()
    left: LeftOver | None = None

    @property
    def task(self) -> Task:
        return self.state.task

    @property
    def status(self) -> str:
        return self.state.status.value

    @property
    def finds(self) -> bool:
        """Whether such work brings to light what no survey sees."""
        return self.task.kind in FINDS and self.state.open

    @property
    def looks(self) -> bool:
        """Whether it is answered with enough, or one more coat."""
        return Technique.INSPECT in self.task.techniques


@dataclass(frozen=True)
class SheetVisit:
    visit: Visit
    lines: tuple[SheetLine, ...]

    @property
    def first(self) -> SheetLine:
        return self.lines[0]

    @property
    def ids(self) -> list[str]:
        return [line.task.id for line in self.lines if line.state.open]


@dataclass(frozen=True)
class Touch:
    """What was noted in one touch: its entries say the same of different stretches."""

    id: str
    at: datetime
    by: str
    said: Said
    work: tuple[str, ...]
    how_far: float | None
    why: str


class DaySheet:
    """The plan as it stands on one day. Without weather the tasks are shown and nothing is said of them."""

    def __init__(self, view: JobView, day: date) -> None:
        self.view, self.day = view, day
        self.cans = Cans(view)
        board, kept = view.board, view.kept
        self.states: Sequence[TaskState] = ()
        if board is not None:
            self.states = board.tasks
        elif kept is not None:
            self.states = tasks_by_record(view.bundle, kept.plan, view.now)
        self._lines: dict[str, SheetLine] = {}

    @property
    def tasks(self) -> list[Task]:
        return [s.task for s in self.states if self._day(s) == self.day and s.status is not Status.GONE]

    def _day(self, state: TaskState) -> date:
        return state.task.start.astimezone(self.view.now.tzinfo).date()

    @property
    def to_clean(self) -> list[str]:
        """Faces on which presumed lead paint comes off that day: what must be cleaned there before the crew leaves."""
        bundle = self.view.bundle
        dusty = {}
        for task in self.tasks:
            part = bundle.property.part(task.part)
            if isinstance(part, Zone | Item) and frees_lead(bundle, part, task.kind, task.techniques):
                dusty[task.face_name] = True
        return list(dusty)

    @property
    def is_today(self) -> bool:
        return self.day == self.view.now.date()

    def line(self, state: TaskState) -> SheetLine:
        """A task as it is shown, worked out once for all places that show it."""
        if state.task.id not in self._lines:
            self._lines[state.task.id] = self._line(state)
        return self._lines[state.task.id]

    def _line(self, state: TaskState) -> SheetLine:
        view, task = self.view, state.task
        product = next((p for p in view.bundle.products if p.code == task.product), None)
        part = view.bundle.property.part(task.part)
        metered = isinstance(part, Zone | Item) and part_moisture_limit(view.bundle, part, product) is not None
        said = told(state.answer, view.bundle.property.tz) if state.answer is not None and state.open else None
        return SheetLine(
            state=state,
            product=product,
            colour_name=self._colour_name(task, product),
            can=self.cans.of(task),
            keep_to=_keep_to(view, task, product) if product else "",
            cautions=tuple(day_cards(view.bundle, view.parts, [task])),
            told=said,
            metered=metered,
            film=self._film(state),
            kinds=self._kinds(state),
            parts=self._parts(state),
            left=left_over(view.state, task) if view.state is not None and state.open else None,
        )

    def _film(self, state: TaskState) -> Film | None:
        """Of a coat that is done: as it was laid, not as it was planned."""
        job, task = self.view.state, state.task
        part = job.parts.get(task.part) if job is not None else None
        if job is None or part is None or state.status is not Status.DONE or not task.kind.lays_film:
            return None
        laid = (pair for cell in part.cells for pair in laid_in(cell.cell) if pair[0].id in task.steps)
        found = next(laid, None)
        return None if found is None else film_noted(job.around, part.part, part.finish, *found)

    def _kinds(self, state: TaskState) -> tuple[tuple[str, str], ...]:
        finish = self.view.bundle.finish_of(*state.task.part)
        if finish is None or len(state.steps) < 2:
            return ()
        names = {o.id: o.name for o in steps_of(self.view.bundle, finish)}
        return tuple((f"step/{id_}", names[id_]) for id_ in state.steps if id_ in names)

    def _parts(self, state: TaskState) -> tuple[tuple[str, str], ...]:
        extent = state.task.extent
        found = [(key, self.view.bundle.property.part(key)) for key in (extent.parts if extent else ())]
        named = tuple((f"{key[0]}/{key[1]}", part.name) for key, part in found if part is not None)
        return named if len(named) > 1 else ()

    def _colour_name(self, task: Task, product: Product | None) -> str:
        finish = self.view.bundle.finish_of(*task.part)
        if product is not None and product.clear and task.colour == CLEAR_COLOUR:
            return "clear"
        if finish is not None and task.colour == finish.colour:
            return finish.colour_name
        return "tinted toward the finish" if product is not None and product.primer else ""

    @property
    def rows(self) -> list[SheetVisit]:
        """All of the day's work, done and open: what is printed."""
        mine = [s for s in self.states if s.status is not Status.GONE and self._day(s) == self.day]
        return [self._visit(v) for v in visits(mine)]

    @property
    def visits(self) -> list[SheetVisit]:
        """What is open of the day's work."""
        mine = [s for s in self.states if s.open and self._day(s) == self.day]
        return [self._visit(v) for v in visits(mine)]

    def _visit(self, visit: Visit) -> SheetVisit:
        return SheetVisit(visit, tuple(self.line(s) for s in visit.tasks))

    @property
    def now(self) -> SheetVisit | None:
        """What the crew is at or should be at, with the small steps that go along with it."""
        board = self.view.board
        return None if board is None or board.now is None else self._bundled(board.now)

    @property
    def next(self) -> SheetVisit | None:
        board = self.view.board
        return None if board is None or board.next is None else self._bundled(board.next)

    def _bundled(self, state: TaskState) -> SheetVisit:
        """With those of its visit that stand as it does."""
        # Only its face and day can be of its visit: whether the others may be done need not be worked out.
        day, face = self._day(state), state.task.face
        near = [s for s in self.states if s.open and s.task.face == face and self._day(s) == day]
        alike = [s for s in near if s.workable == state.workable and s.stopped == state.stopped]
        found = next(v for v in visits(alike if state in alike else [state]) if state in v.tasks)
        later = found.tasks[found.tasks.index(state) :]
        return self._visit(Visit(tuple(later)))

    @property
    def late(self) -> list[SheetVisit]:
        """What should have been done before this day."""
        if not self.is_today:
            return []
        mine = [s for s in self.states if s.status is Status.LATE and self._day(s) < self.day]
        return [self._visit(v) for v in visits(mine)]

    @property
    def zone(self) -> tzinfo | None:
        return self.view.now.tzinfo

    @property
    def touches(self) -> list[Touch]:
        """What was noted of that day, the latest first."""
        return [t for t in self.touches_of_any_day if t.at.date() == self.day]

    @cached_property
    def touches_of_any_day(self) -> list[Touch]:
        """Those that hold, the latest first."""
        zone = self.zone
        found: dict[str, list[SiteEntry]] = {}
        for entry in standing(self.view.bundle.job.record):
            found.setdefault(entry.touch, []).append(entry)
        out = [
            Touch(
                id=touch,
                at=entries[0].at.astimezone(zone),
                by=entries[0].by,
                said=entries[0].said,
                work=tuple(dict.fromkeys(e.work for e in entries)),
                how_far=entries[0].how_far,
                why=entries[0].why,
            )
            for touch, entries in found.items()
        ]
        return sorted(out, key=lambda t: t.at, reverse=True)


def _keep_to(view: JobView, task: Task, product: Product) -> str:
    """What limits the coat, as every other stage takes it."""
    part = view.bundle.property.part(task.part)
    damp = part_moisture_limit(view.bundle, part, product) if isinstance(part, Zone | Item) else None
    sprays = task.method is not None and task.method.sprays
    at = {k: v.value for k, v in coat_limits(product, view.bundle.policy, damp, sprays=sprays).items()}
    words = (
        f"surface {at['surface_min']:g}–{at['surface_max']:g} °C, air {at['air_min']:g}–{at['air_max']:g} °C, "
        f"{at['dew_margin']:g} K over dew point, RH ≤ {at['humidity']:g} %, wind ≤ {at['wind']:g} m/s"
    )
    return words + (f", wood ≤ {at['moisture']:g} %" if "moisture" in at else "")
