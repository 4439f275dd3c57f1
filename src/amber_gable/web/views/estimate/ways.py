"""Beside the hours: the days they take, the ways up a face, what was assumed."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from amber_gable.domain.house.survey import ObstacleKind
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.method import METHOD_RISKS, Method
from amber_gable.domain.work.access import ACCESS_RISKS, Access
from amber_gable.domain.work.working import CrewDay

if TYPE_CHECKING:
    from amber_gable.core.estimate.hours import Hours
    from amber_gable.core.estimate.methods import MethodWay
    from amber_gable.core.estimate.ways_up import FaceWays, WayUp


SKILLS = [
    ("experienced", "experienced people"),
    ("mixed", "learners among them"),
    ("learning", "most of them learning"),
]
NAMES = {Access.LADDER: "Ladder", Access.TOWER: "Tower", Access.LIFT: "Lift"}
_WORTH_H = 0.25
"""Less than a quarter of an hour is no difference."""


def told_days(hours: Hours, crew: CrewDay) -> str:
    """How many days, and what makes them so many."""
    days = hours.days
    people = "one person" if days.people == 1 else f"{days.people} people"
    shift = crew.last_h - crew.first_h
    whole = f"{days.days} {'day' if days.days == 1 else 'days'} of {people}"
    if days.longest is not None and days.visits == days.days > hours.hours / (shift * days.people):
        part = hours.parts[days.longest]
        return f"{whole}: {part.face.name}, {part.name} is worked on that often, with nights to dry between"
    return f"{whole}, each working {shift:.3g} h between setting up and clearing up"


@dataclass(frozen=True)
class ToldWay:
    """One way up a face: what it takes against the ladder, and what to mind."""

    access: Access
    name: str
    hours: float
    moves: str
    against: str
    risk: str
    chosen: bool
    least: bool


@dataclass(frozen=True)
class ToldFace:
    id: str
    name: str
    reason: str
    wires: bool
    ways: tuple[ToldWay, ...]


def told_ways(faces: Sequence[FaceWays], bundle: JobBundle) -> list[ToldFace]:
    chosen = bundle.job.estimating.access
    return [
        ToldFace(
            f.face.id,
            f.face.name,
            chosen[f.face.id].reason if f.face.id in chosen else "",
            any(o.kind is ObstacleKind.WIRES for o in f.face.obstacles),
            tuple(_told(w, w is f.least) for w in f.ways),
        )
        for f in faces
    ]


def _told(way: WayUp, least: bool) -> ToldWay:
    moves = f"{way.moves:.0f} moves, {way.moves_h:.1f} h" if way.moves >= 1 else "no moves to speak of"
    return ToldWay(
        way.access, NAMES[way.access], way.hours, moves, _against(way), ACCESS_RISKS[way.access], way.chosen, least
    )


def _against(way: WayUp) -> str:
    """Where a hire breaks even, told in hours as long as nothing has a price."""
    if way.access is Access.LADDER:
        return "nothing to hire"
    days = max(1, round(way.days + 0.49))
    if abs(way.saves_h) < _WORTH_H:
        return "as quick as the ladder"
    if way.saves_h < 0:
        return f"{-way.saves_h:.1f} h slower than the ladder"
    for_days = "a day’s hire" if days == 1 else f"{days} days’ hire"
    return f"saves {way.saves_h:.1f} h: worth it where {for_days} costs less than that"


_NAMES = {
    (Method.BRUSH, False): "brush",
    (Method.ROLLER, False): "roller",
    (Method.AIRLESS, False): "airless sprayer",
    (Method.AIRLESS, True): "airless, back-rolled",
    (Method.TURBINE, False): "turbine gun",
}


@dataclass(frozen=True)
class ToldMethod:
    """`fit`: hours of the coming fortnight in which a coat laid so holds, None where no weather is worked out."""

    code: str
    name: str
    way: MethodWay
    fit: float | None
    risk: str


def told_method_ways(ways: Iterable[tuple[MethodWay, float | None]]) -> list[ToldMethod]:
    out = []
    for way, fit in ways:
        key = (way.method, way.back_roll)
        code = f"{way.method.value}{'+' if way.back_roll else ''}"
        out.append(ToldMethod(code, _NAMES[key], way, fit, METHOD_RISKS[key]))
    return out
