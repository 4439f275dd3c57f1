"""What the survey must hold before each later stage can be trusted, and what of it is missing."""

from dataclasses import dataclass

from amber_gable.domain.findings.condition import Coating, Condition
from amber_gable.domain.findings.guided_tests import GUIDED_TESTS, GuidedTest
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Item, Zone
from amber_gable.domain.house.zone_area import Lies, OwnArea
from amber_gable.domain.job.job import JobBundle

# Without these the preparation is a guess. An item is judged with the wall it is on but for its paint.
ESSENTIAL_TESTS = {"coating", "scrape", "rub", "sheen", "bleach", "meter", "finger", "vinyl", "age"}
ITEM_TESTS = {"coating", "sheen"}


@dataclass(frozen=True)
class Missing:
    """A gap: for which stage, at which part, in words. `kind` and `id` are empty for what concerns the whole
    property."""

    stage: str
    kind: str
    id: str
    face: str
    words: str


def fitting_tests(part: Zone | Item) -> list[GuidedTest]:
    """The tests that make sense on the part's substrate, in the order of the walk."""
    family = SUBSTRATES[part.substrate].family
    return [t for t in GUIDED_TESTS if t.fits(family)]


def is_answered(test: GuidedTest, condition: Condition) -> bool:
    """Whether the test's reading is there. A zero that was never looked at does not count: the test must be ticked."""
    value = getattr(condition, test.field)
    if value is None or value == Coating.UNKNOWN or value == ():
        return False
    return bool(value) or not isinstance(value, int | float) or any(t.test == test.code for t in condition.tests)


def is_essential(test: GuidedTest, part: Zone | Item) -> bool:
    if test.code == "age" and SUBSTRATES[part.substrate].family != "metal":
        return False
    return test.code in (ITEM_TESTS if isinstance(part, Item) else ESSENTIAL_TESTS)


def open_tests(part: Zone | Item) -> list[GuidedTest]:
    """Essential tests without a reading."""
    return [t for t in fitting_tests(part) if is_essential(t, part) and not is_answered(t, part.condition)]


def missing_essentials(bundle: JobBundle) -> list[Missing]:
    """Gaps in the order of the stages that need them; nothing is asked of a part that is not painted."""
    property_, out = bundle.property, []
    left = {x.part for x in bundle.job.left}
    for face in property_.faces:
        if not property_.zones_of(face.id) and not property_.items_of(face.id):
            out.append(Missing("quantities", "face", face.id, face.id, f"{face.name}: nothing to paint is named"))
    for zone in property_.zones:
        if isinstance(zone.area, OwnArea) and zone.area.lies is Lies.NOT_SAID and ("zone", zone.id) not in left:
            words = f"{zone.name}: does it lie on the wall, on an opening or on neither?"
            out.append(Missing("quantities", "zone", zone.id, zone.face, words))
    if property_.year_built is None:
        out.append(Missing("specification", "", "", "", "year built is not known: lead is presumed"))
    for zone in property_.zones:
        found = open_tests(zone)
        if found and ("zone", zone.id) not in left:
            words = ", ".join(t.name.lower() for t in found)
            name = next(f.name for f in property_.faces if f.id == zone.face)
            out.append(Missing("specification", "zone", zone.id, zone.face, f"{name}, {zone.name}: {words}"))
    for face in property_.faces:
        if not face.horizon and not face.blocks:
            words = f"{face.name}: trees and neighbours are not sketched; an open horizon is taken"
            out.append(Missing("weather", "face", face.id, face.id, words))
    return out
