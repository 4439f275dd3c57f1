"""Films that are still fresh, what became of them when something happened, and rain that somebody sees."""

import uuid
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Annotated

from amber_gable.core.state.film import Film
from amber_gable.core.state.part_state import CellState, PartState
from amber_gable.core.state.surroundings import laid_in
from amber_gable.core.survey.amounts.painted import Key
from amber_gable.domain.errors import Refused
from amber_gable.domain.job.site_record import CanNoted, Effect, Extent, Mishap, Rained, Spoiled
from amber_gable.domain.units import UnitSystem, in_units
from amber_gable.domain.work.mending import EFFECTS, MISHAPS, likely_effect
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form, Reads
from amber_gable.services.forms.types import Length, moment, number, one_of, text_of
from amber_gable.services.job.view import JobView
from amber_gable.services.today.missing import missing_words
from amber_gable.services.today.noting import AHEAD, signed, touch_of
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.site_record import append

_NEAR_M = 0.05
"""As near as a tape on a wall tells a place."""
SHOWN_FOR = timedelta(hours=36)
"""A film that was laid so long ago at the most is shown as one that may have been spoiled, ready or not."""


@dataclass(frozen=True)
class FreshFilm:
    """A film on like stretches of parts that were noted together, `parts` by name. `width_m` is that of the face, None
    where one of them is an item, which has no metres along a wall. `rain` is when it rained on it, as far as nobody
    said yet what became of it; `likely` what that rain usually leaves."""

    key: str
    face: str
    width_m: float | None
    parts: Mapping[Key, str]
    name: str
    extent: Extent
    step: str
    film: Film
    rain: datetime | None
    likely: Effect

    @property
    def ready(self) -> bool:
        return self.rain is None and self.film.rain_ready_at is not None

    @property
    def ends_m(self) -> tuple[float, float] | None:
        """Its stretch in metres from the left corner of the face; None for items."""
        return None if self.width_m is None else (self.width_m * self.extent.left, self.width_m * self.extent.right)


def fresh_films(view: JobView) -> list[FreshFilm]:
    """The films that rain or a hand may still spoil, and those it may have; the latest first. Nothing without weather:
    no clock of theirs is known then."""
    state = view.state
    if state is None:
        return []
    found: dict[tuple[str, str, float, float, str], list[tuple[PartState, CellState, Film]]] = {}
    for part in state.parts.values():
        for cell in part.cells:
            laid = laid_in(cell.cell)
            if laid and cell.film is not None and _may_be_spoiled(cell.film, view.now):
                operation, entry = laid[-1]
                key = (entry.touch, operation.id, cell.cell.left, cell.cell.right, part.part.face.id)
                found.setdefault(key, []).append((part, cell, cell.film))
    out = [_fresh(view, key, group) for key, group in found.items()]
    return sorted(out, key=lambda f: f.film.laid_at, reverse=True)


def _may_be_spoiled(film: Film, now: datetime) -> bool:
    return film.known and (film.rain_ready_at is None or film.rain_ready_at > now or film.laid_at > now - SHOWN_FOR)


def _fresh(
    view: JobView,
    key: tuple[str, str, float, float, str],
    group: list[tuple[PartState, CellState, Film]],
) -> FreshFilm:
    touch, step, left, right, _ = key
    (part, cell, film), tz = group[0], view.bundle.property.tz
    name = next(o.name for o in cell.cell.operations if o.id == step)
    extent = Extent(parts=tuple(p.part.key for p, _, _ in group), left=left, right=right)
    rain = _rain_on(view, film)
    if rain is not None and _answered(view, extent, step, rain):
        rain = None
    return FreshFilm(
        key=f"{touch[:16]}-{step}-{left:.3f}",
        face=part.part.face.name,
        width_m=None if any(p.part.item_kind for p, _, _ in group) else part.part.face.width_m,
        parts={p.part.key: p.part.name for p, _, _ in group},
        name=name,
        extent=extent,
        step=step,
        film=film,
        rain=None if rain is None else rain.astimezone(tz),
        likely=likely_effect(Mishap.RAIN, film.product, _dried(film, rain or view.now)),
    )


def _rain_on(view: JobView, film: Film) -> datetime | None:
    """The first rain on a film that was not ready for it: that somebody saw, else that the weather tells of."""
    seen = [
        r.at
        for r in view.bundle.rains
        if r.at >= film.laid_at and (film.rain_ready_at is None or r.at < film.rain_ready_at)
    ]
    told = [film.rained_at] if film.rained_at is not None and film.rained_at <= view.now else []
    return min([*seen, *told], default=None)


def _answered(view: JobView, extent: Extent, step: str, rain: datetime) -> bool:
    return any(
        s.what is Mishap.RAIN and s.step == step and s.at >= rain and s.extent.meets(extent) for s in view.bundle.spoils
    )


def _dried(film: Film, at: datetime) -> float:
    """How far it had come on its way to rain-ready, 0 to 1."""
    if film.rain_ready_at is None:
        return 0.0
    return (at - film.laid_at) / (film.rain_ready_at - film.laid_at)


def _pct(text: str) -> float:
    """Raises ValueError."""
    value = number(text.rstrip("% "))
    if not 0 < value <= 100:
        raise ValueError("say how much of it, between 1 and 100 %")
    return value


class SpoiledForm(Form):
    """What became of a film: `only` of one of its parts, `from_m` and `to_m` from the left corner of the face where it
    was not all of its stretch, `share` of that in %, `at` when it happened, on the house's clock unless it says
    otherwise, or left out for now."""

    what: Annotated[Mishap, one_of(list(Mishap), "say what happened to it")]
    effect: Annotated[Effect, one_of(list(Effect), "say whether it shows, or came off")]
    only: str = ""
    from_m: Length | None = None
    to_m: Length | None = None
    share: Annotated[float, Reads(lambda text, _: _pct(text))] = 100.0
    at: Annotated[datetime, Reads(lambda text, _: moment(text))] | None = None
    words: Annotated[str, text_of("", most=400)] = ""


def _where(film: FreshFilm, told: SpoiledForm, system: UnitSystem) -> tuple[Extent, str]:
    """The stretch that is spoken of, and its words. Raises Refused."""
    parts = {key: name for key, name in film.parts.items() if told.only in ("", "/".join(key))}
    if not parts:
        raise Refused({"only": "that part has no such film any more: choose again"})
    extent, words = film.extent.model_copy(update={"parts": tuple(parts)}), ", ".join(dict.fromkeys(parts.values()))
    if told.from_m is None and told.to_m is None:
        return extent, words
    if film.ends_m is None or film.width_m is None:
        raise Refused({"from_m": "metres along the wall are for walls: of an item give the share"})
    left, right = film.ends_m
    a, b = left if told.from_m is None else told.from_m, right if told.to_m is None else told.to_m
    if not left - _NEAR_M <= a < b <= right + _NEAR_M:
        reach = in_units(f"{left:.2f} m to {right:.2f} m", system)
        raise Refused({"from_m": f"the film reaches from {reach} from the left corner: give two places in that"})
    a, b = max(a, left), min(b, right)
    within = {"left": a / film.width_m, "right": b / film.width_m}
    return extent.model_copy(update=within), f"{words}, {a:.2f} m to {b:.2f} m from the left"


def note_spoiled(ctx: Context, view: JobView, form: Mapping[str, str], by: str, system: UnitSystem) -> None:
    """Enter what became of a fresh film, `form["film"]` by its key, lengths in the writer's units. What follows from it
    is derived; the record keeps the film. A touch that is sent again is entered once. Raises Refused by field."""
    touch = touch_of(form)
    if touch in {s.touch for s in view.bundle.job.spoiled}:
        return
    film = next((f for f in fresh_films(view) if f.key == form.get("film", "")), None)
    if film is None:
        raise Refused({"film": "that film is not there any more, nothing was noted: look at what is now"})
    told = SpoiledForm.read(form, system)
    extent, parts = _where(film, told, system)
    at = told.at or film.rain or ctx.now
    at = at if at.tzinfo is not None else at.replace(tzinfo=view.bundle.property.tz)
    if at > ctx.now + AHEAD:
        raise Refused({"at": "that is still to come: give the time at which it happened"})
    if at < film.film.laid_at:
        raise Refused({"at": "the film was laid after that: give the time at which it happened"})
    line = Spoiled(
        id=uuid.uuid4().hex,
        touch=touch,
        at=at,
        noted=ctx.now,
        by=signed(by),
        what=told.what,
        effect=told.effect,
        step=film.step,
        extent=extent,
        share=told.share / 100,
        work=f"{film.name}: {film.face}, {parts}"[:400],
        words=told.words,
    )
    with ctx.writing() as session:
        # The same said twice of one film is one thing that happened.
        before = load_bundle(session, view.bundle.job.id).spoils
        if not any(_same(line, s) for s in before):
            append(session, view.bundle.job.id, [line])


def _same(line: Spoiled, other: Spoiled) -> bool:
    alike = (line.what, line.effect, line.step, line.extent, line.share) == (
        other.what, other.effect, other.step, other.extent, other.share,
    )  # fmt: skip
    return alike and abs(line.at - other.at) < timedelta(minutes=2)


def note_rain(ctx: Context, job_id: str, by: str) -> None:
    """It rains now, somebody on site says; each fresh film is asked about. Said again within a quarter of an hour it is
    the same rain."""
    with ctx.writing() as session:
        before = load_bundle(session, job_id).rains
        if before and ctx.now - before[-1].at < timedelta(minutes=15):
            return
        line = Rained(id=uuid.uuid4().hex, touch=uuid.uuid4().hex, at=ctx.now, noted=ctx.now,
                      by=signed(by))  # fmt: skip
        append(session, job_id, [line])


@dataclass(frozen=True)
class Happened:
    """What was said to have happened on a day, to be read and taken back."""

    touch: str
    at: datetime
    by: str
    words: str


def happened(view: JobView, day: date) -> list[Happened]:
    """What became of films, and rain that was seen, the latest first."""
    tz = view.bundle.property.tz
    found = [
        Happened(s.touch, s.at.astimezone(tz), s.by, f"{s.work}. {MISHAPS[s.what].capitalize()}: {EFFECTS[s.effect]}")
        for s in view.bundle.spoils
    ]
    found += [Happened(r.touch, r.at.astimezone(tz), r.by, "It rained") for r in view.bundle.rains]
    found += [Happened(m.touch, m.at.astimezone(tz), m.by, missing_words(m)) for m in view.bundle.missing_lines]
    names = {p.code: p.name for p in view.bundle.products}
    found += [
        Happened(c.touch, c.at.astimezone(tz), c.by, f"Can {c.number} of {names.get(c.product, c.product)}: {_left(c)}")
        for c in view.bundle.cans
    ]
    return sorted((h for h in found if h.at.date() == day), key=lambda h: h.at, reverse=True)


def _left(can: CanNoted) -> str:
    return f"{can.left_l:.1f} L left" if can.left_l else "used up"
