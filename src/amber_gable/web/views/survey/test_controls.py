"""How the reading of a guided test is given: by choice where there are few answers, else typed with its unit."""

from dataclasses import dataclass, replace
from typing import Any

from amber_gable.domain.findings.condition import Condition, Tested
from amber_gable.domain.findings.guided_tests import GuidedTest, quantity_of_test
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Item, Zone
from amber_gable.domain.units import typed
from amber_gable.services.survey.conditions import AskedTest
from amber_gable.web.views.units import Units


@dataclass(frozen=True)
class TestControl:
    """`options` (value, words) make it a choice; else `value` is typed, in `unit`."""

    value: str
    unit: str = ""
    options: tuple[tuple[str, str], ...] = ()

    def typed(self, value: str) -> "TestControl":
        return replace(self, value=value)


@dataclass(frozen=True)
class TestRow:
    """A test as one line of a form that saves itself. `here` is the condition it belongs to."""

    id: str
    here: str
    test: GuidedTest
    control: TestControl
    done: Tested | None
    answered: bool
    essential: bool
    extent: str = ""
    fault: str = ""


def row_of_test(asked: AskedTest, part: Zone | Item, here: str, units: Units, area_m2: float = 0.0) -> TestRow:
    """`area_m2` is the zone's plan area, of which shares are told."""
    test, condition = asked.test, part.condition
    share = getattr(condition, test.field) if test.field.endswith("_pct") else 0.0
    return TestRow(
        id=f"{part.id}-{test.code}",
        here=here,
        test=test,
        control=control_of_test(test, condition, units, SUBSTRATES[part.substrate].family),
        done=next((t for t in condition.tests if t.test == test.code), None),
        answered=asked.answered,
        essential=asked.essential,
        extent=f"= {units.area(area_m2 * share / 100, 1)} {units.area_unit}" if area_m2 and share else "",
    )


def control_of_test(test: GuidedTest, condition: Condition, units: Units, family: str) -> TestControl:
    value: Any = getattr(condition, test.field)
    if test.answers:
        told = {True: "yes", False: "no", None: ""}.get(value, str(value))
        can_be = test.answers_on((family,))
        offered = [a for a in test.answers if a in can_be or a == told]
        return TestControl(told, options=tuple((a, a.replace("-", " ")) for a in offered))
    if test.field.endswith("_colour"):
        return TestControl(value or "")
    seen = any(t.test == test.code for t in condition.tests)
    shown = value is not None and (value or seen)
    if test.field.endswith("_pct"):
        return TestControl(f"{value:g}" if shown else "", "%")
    kind = quantity_of_test(test)
    if kind is not None:
        return TestControl(typed(kind, value, units.system) if shown else "", units.symbol(kind.value))
    if test.field.endswith("_m"):
        return TestControl(units.typed(value) if shown else "", units.length_unit)
    return TestControl(f"{value:g}" if shown else "", {"age_years": "years"}.get(test.field, ""))
