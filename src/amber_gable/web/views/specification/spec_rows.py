"""Lines of the specification: every part with what it gets and what is still to be answered."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING

from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.scope import Leaving
from amber_gable.services.today.standing import Standing
from amber_gable.web.views.specification.build_up import BuildUp, build_up

if TYPE_CHECKING:
    from amber_gable.core.specification.colour.heat_check import HeatCheck
    from amber_gable.core.specification.derived.part_spec import PartSpec
    from amber_gable.core.survey.amounts.painted import Key


@dataclass(frozen=True)
class PartLine:
    """One part. `state` is 'open' (nothing chosen), 'left' (not painted: `left` says how), 'stop', 'check',
    'changed' or 'done'; `matter` says what is to be answered, `tests` how many essential tests have no reading."""

    key: Key
    name: str
    what: str
    surface_m2: float
    old: str
    new: str
    colour_name: str
    state: str
    matter: str
    system: str
    build: BuildUp
    hours: float
    litres: float
    version: int
    tests: int
    behind: str = ""
    left: str = ""
    gone: bool = False

    @property
    def worked(self) -> bool:
        """Whether it gets anything."""
        return self.state not in ("open", "left")


@dataclass(frozen=True)
class SharedMatter:
    """One thing to decide, and the parts that ask for it."""

    state: str
    words: str
    parts: list[PartLine]


def shared_matters(lines: list[PartLine]) -> list[SharedMatter]:
    """Parts that ask the same are told of once, in the order in which the first of them comes; stops first."""
    out: dict[tuple[str, str], SharedMatter] = {}
    for one in lines:
        out.setdefault((one.state, one.matter), SharedMatter(one.state, one.matter, [])).parts.append(one)
    return sorted(out.values(), key=lambda m: m.state != "stop")


STATE_WORDS = {
    "open": "nothing chosen yet",
    "left": "not painted",
    "stop": "stops",
    "check": "to decide",
    "changed": "out of date",
    "done": "settled",
}


def line(
    spec: PartSpec,
    what: str,
    version: int,
    products: Mapping[str, Product],
    systems: Mapping[str, str],
    heat: HeatCheck | None,
    standing: Standing | None = None,
    tests: int = 0,
) -> PartLine:
    """The line of a part; `systems` names of the company's systems by id, `tests` how many are open."""
    state, matter = state_of(spec, heat)
    finish, left = spec.finish, spec.left
    colour = finish.colour if finish else (left and left.colour) or spec.part.colour_now
    return PartLine(
        key=spec.part.key,
        name=spec.part.name,
        what=what,
        surface_m2=spec.part.surface_m2,
        old=spec.part.colour_now,
        new=colour,
        colour_name=finish.colour_name if finish else left.colour_name if left else "",
        state=state,
        matter=matter,
        system=systems.get(finish.system or "", "") if finish else "",
        build=build_up(spec.operations, colour, products),
        hours=0.0 if left else spec.sums.hours,
        litres=0.0 if left else spec.sums.litres,
        version=version,
        tests=tests,
        behind=_behind(standing),
        left=left.leaving.words if left else "",
        gone=left is not None and left.leaving is Leaving.TAKEN_AWAY,
    )


def _behind(standing: Standing | None) -> str:
    """How far the work is, in words; nothing where it was not begun."""
    if standing is None or not standing.share:
        return ""
    return "finished" if standing.share > 0.999 else f"{100 * standing.share:.0f} % of the steps done"


def state_of(spec: PartSpec, heat: HeatCheck | None) -> tuple[str, str]:
    """How far a part is, and the gravest matter in words. `heat` is the check of its colour, where it has one."""
    if spec.left is not None:
        return "left", ""
    stops = [f.words for f in spec.derivation.stops] + [c.words for c in spec.conflicts if c.level is Alert.STOP]
    checks = [f.words for f in spec.derivation.findings if f.level is Alert.CHECK and f.rule != "lead"]
    checks += [c.words for c in spec.conflicts if c.level is Alert.CHECK]
    checks += [f"{r.wish} was wished, and cannot be" for r in spec.refused]
    if heat is not None and spec.finish is not None:
        stops += [heat.words] if heat.level is Alert.STOP else []
        checks += [heat.words] if heat.level is Alert.CHECK else []
    if stops:
        return "stop", stops[0]
    if spec.finish is None:
        return "open", ""
    if spec.changed:
        return "changed", "the survey, stores or schools changed since"
    if checks:
        return "check", checks[0]
    return "done", ""
