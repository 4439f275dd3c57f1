"""What a case of the decision table is, and how its facts are made."""

from dataclasses import dataclass, field
from typing import Any

from amber_gable.core.specification.derived.diagnosis import Derivation, derive
from amber_gable.core.specification.derived.facts import Facts, facts_of
from amber_gable.core.specification.derived.planned import USUAL_WAY, PlannedStep
from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.work.aims import Aim
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.schools import resolved

SOUND = {"coating": "waterborne", "gloss": "dull", "chalking": "none", "loose_pct": 0, "mildew_pct": 0, "moisture": 12}
WALL = {"coating": "waterborne", "gloss": "dull", "chalking": "none", "loose_pct": 0, "masonry": "normal"}


@dataclass(frozen=True)
class Case:
    name: str
    surface: str
    found: dict[str, Any]
    steps: str
    finish: str
    item: str = ""
    aim: str = ""
    schools: dict[str, str] = field(default_factory=dict)
    lead: bool = False
    openings: int = 0
    first: bool = False
    dusty_days: int = 1
    old_sheet: bool = False
    old_treated: bool = False
    near: str = ""
    fixing: str = ""
    beside: dict[str, Any] = field(default_factory=dict)
    old: str = "#8a8f86"
    new: str = "#a9ada3"
    stops: str = ""
    checks: str = ""
    notes: str = ""
    says: str = ""

    @property
    def facts(self) -> Facts:
        found = facts_of(
            self.surface,
            condition(**self.found),
            surface_m2=40.0,
            item_kind=self.item,
            old_colour=self.old,
            new_colour=self.new,
            aim=Aim(self.aim) if self.aim else None,
            schools=resolved(self.schools),
            lead=self.lead,
            openings=self.openings,
            first_on_face=self.first,
            old_sheet=self.old_sheet,
            old_treated=self.old_treated,
            wires="wires" in self.near,
            obstacles=self.near.split(),
            beside=self.beside,
            fixing=self.fixing,
        )
        if self.dusty_days == 1:
            return found
        return found.protecting(first=self.first, contains=bool(found.get("contains")), dusty_days=self.dusty_days)

    def derived(self) -> Derivation:
        return derive(self.facts)


def case(name: str, surface: str, found: dict[str, Any], steps: str, finish: str, **more: Any) -> Case:
    return Case(name, surface, found, steps, finish, **more)


def condition(**found: Any) -> Condition:
    """A condition with one moisture figure, and zeros that were looked for."""
    moisture = found.pop("moisture", None)
    tests = [
        {"test": t}
        for t, f in (("scrape", "loose_pct"), ("bleach", "mildew_pct"), ("lead", "lead_found"))
        if f in found
    ]
    readings = [] if moisture is None else [{"pct": moisture}]
    return Condition.model_validate({**found, "tests": tests, "moisture": readings})


def told(steps: tuple[PlannedStep, ...]) -> str:
    """Steps as the table writes them."""
    return " ".join(_told(s) for s in steps if s.role not in ("dust", "unmask"))


def _told(s: PlannedStep) -> str:
    primer = f"={s.families[0].value}" if s.families and not s.role.startswith("coat-") else ""
    sprayed = f"@{s.method.value}" if s.method is not None and s.method.sprays and s.families else ""
    plain = s.kind.lays_film or s.technique is USUAL_WAY.get(s.kind)
    technique = f"/{s.technique.value}" if s.technique and not plain else ""
    wait = f"~{s.wait_h:g}" if s.wait_h else ""
    return f"{s.role}{technique}{primer}{sprayed}{'+back-rolled' if s.back_roll else ''}{wait}"


def levels(derivation: Derivation, level: Alert, *, disclosed: bool = False) -> str:
    """Ids of the findings of a level; what is only to be said to the customer stands by itself."""
    return " ".join(f.rule for f in derivation.findings if f.level is level and f.disclosure is disclosed)
