"""The condition record: readings of the guided tests, moisture, marks on the drawing, each saved as it is given."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import date, datetime
from typing import Annotated, Any

from amber_gable.core.climate.job_climate import part_moisture_limit
from amber_gable.core.survey.amounts.takeoff import face_areas
from amber_gable.core.survey.findings.condition_map import PERCENT_FIELDS, DamageExtent, marked_extents
from amber_gable.core.survey.findings.essentials import fitting_tests, is_answered, is_essential, open_tests
from amber_gable.core.survey.findings.moisture import MoistureStatistics, moisture_statistics
from amber_gable.core.weather.film.limits import Limit
from amber_gable.domain.errors import NotFound, Refused
from amber_gable.domain.findings.condition import Condition, Damage, Mark, MoistureReading, Tested
from amber_gable.domain.findings.guided_tests import GUIDED_TESTS, GuidedTest
from amber_gable.domain.findings.meter import MeterPlace, MeterReading, MeterUnavailable
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Face, Item, Part, Property, Zone
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.units import UnitSystem
from amber_gable.domain.wording import dated
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form
from amber_gable.services.forms.types import Day, number_from
from amber_gable.services.survey.readings import reading_of
from amber_gable.services.survey.surveying import change_part, find_part
from amber_gable.store.job.jobs import load_face
from amber_gable.store.job.survey import face_of

_BY_CODE = {t.code: t for t in GUIDED_TESTS}


def surface_of(property_: Property, kind: str, id_: str) -> Zone | Item:
    """The zone or item whose condition it is. Raises NotFound."""
    part = find_part(property_, kind, id_)[0]
    if not isinstance(part, Zone | Item):
        raise NotFound("surface", id_)
    return part


@dataclass(frozen=True)
class AskedTest:
    """A test that fits a surface, whether it is answered and whether the preparation is a guess without it."""

    test: GuidedTest
    answered: bool
    essential: bool


def asked_test(test: GuidedTest, part: Zone | Item) -> AskedTest:
    return AskedTest(test, is_answered(test, part.condition), is_essential(test, part))


@dataclass(frozen=True)
class ConditionRecord:
    """A surface with the tests that fit it, those still open, how damp its wood may be, and the extent of what is
    marked on it. `plan_m2` is 0 for an item."""

    part: Zone | Item
    face: Face
    tests: list[AskedTest]
    open: list[GuidedTest]
    damp: Limit | None
    moisture: MoistureStatistics | None
    extents: dict[Damage, DamageExtent]
    plan_m2: float


def condition_record(bundle: JobBundle, kind: str, id_: str) -> ConditionRecord:
    """Raises NotFound."""
    property_ = bundle.property
    part = surface_of(property_, kind, id_)
    face = property_.face(part.face)
    extents: dict[Damage, DamageExtent] = {}
    plan_m2 = 0.0
    if isinstance(part, Zone):
        plan_m2 = face_areas(property_, face, bundle.deduction)[part.id].plan_m2
        extents = marked_extents(face, property_.zones_of(face.id), part, plan_m2)
    return ConditionRecord(
        part,
        face,
        [asked_test(t, part) for t in fitting_tests(part)],
        open_tests(part),
        part_moisture_limit(bundle, part),
        moisture_statistics(part.condition.moisture, property_.tz),
        extents,
        plan_m2,
    )


Made = tuple[str, dict[str, Any]]


def _change(ctx: Context, job_id: str, kind: str, id_: str, make: Callable[[JobBundle, Zone | Item], Made]) -> None:
    """Change fields of a condition: `make` gives the step's words and the fields, from what is stored."""

    def change(bundle: JobBundle, part: Part) -> Made:
        surface = surface_of(bundle.property, kind, id_)
        words, fields = make(bundle, surface)
        return f"{words} on {part.name}", {"condition": surface.condition.model_dump() | fields}

    change_part(ctx, job_id, kind, id_, change)


def record_test(
    ctx: Context, job_id: str, kind: str, id_: str, form: dict[str, str], system: UnitSystem = UnitSystem.METRIC
) -> None:
    """A test's reading, and its date, note and photo. What the form does not carry stays. Raises Refused by field."""
    test = _BY_CODE.get(form.get("test", ""))
    if test is None:
        raise Refused({"": "this test is not known"})
    fields: dict[str, Any] = {}
    if "value" in form:
        fields[test.field] = reading_of(test, form["value"].strip(), system)
    given: dict[str, Any] = {}
    if "on" in form:
        given["on"] = DayForm.read(form).on
    if "note" in form:
        given["note"] = form["note"].strip()
    if "photo" in form:
        given["photo"] = form["photo"] or None
    emptied = "value" in form and form["value"].strip() == ""

    def make(bundle: JobBundle, part: Zone | Item) -> Made:
        if not test.fits(SUBSTRATES[part.substrate].family):
            raise Refused({test.code: "this test does not fit the surface; nothing was saved"})
        tests = tested(part.condition, test, None if emptied else job_day(ctx, bundle), given)
        return f"test {test.name.lower()}", fields | {"tests": tests}

    _change(ctx, job_id, kind, id_, make)


def tested(
    condition: Condition, test: GuidedTest, today: date | None, given: Mapping[str, Any] | None = None
) -> list[dict[str, Any]]:
    """The tests of a condition once this one was made (`today` None: taken out), with what else was `given` of it."""
    others = [t.model_dump() for t in condition.tests if t.test != test.code]
    if today is None:
        return others
    kept = next((t for t in condition.tests if t.test == test.code), Tested(test=test.code, on=today))
    return [*others, kept.model_dump() | dict(given or {})]


def job_day(ctx: Context, bundle: JobBundle) -> date:
    """The date where the house stands."""
    return ctx.now.astimezone(bundle.property.tz).date()


def set_note(ctx: Context, job_id: str, kind: str, id_: str, note: str) -> None:
    """Whatever else there is to say. Raises Refused when it is too long."""
    _change(ctx, job_id, kind, id_, lambda _, part: ("note", {"note": note.strip()}))


class DayForm(Form):
    """The day of a test; left out: not known."""

    on: Day | None = None


class MoistureForm(Form):
    """What a meter showed."""

    pct: Annotated[float, number_from(0, 100, "a moisture between 0 and 100 %")]


def add_moisture(ctx: Context, job_id: str, kind: str, id_: str, pct: str, spot: str) -> None:
    """One more meter reading, now. Raises Refused."""
    value = MoistureForm.read({"pct": pct}).pct
    reading = MoistureReading(pct=value, at=ctx.now, spot=spot.strip()[:80])
    _change(
        ctx,
        job_id,
        kind,
        id_,
        lambda _, part: (f"reading {value:g} %", {"moisture": [*part.condition.moisture, reading]}),
    )


def drop_moisture(ctx: Context, job_id: str, kind: str, id_: str, number: int, expected: str) -> None:
    """Take a reading out by its place in the list, if it is the one the page showed there. Raises Refused."""

    def make(_: JobBundle, part: Zone | Item) -> Made:
        readings = list(part.condition.moisture)
        if not 0 <= number < len(readings) or f"{readings[number].pct:g}" != expected:
            raise Refused({"pct": "the list was changed meanwhile; look again, then remove"})
        dropped = readings.pop(number)
        return f"drop reading {dropped.pct:g} %", {"moisture": readings}

    _change(ctx, job_id, kind, id_, make)


def read_meter(ctx: Context, job_id: str, kind: str, id_: str, spot: str) -> MeterReading:
    """Hold the meter against the surface; a wood reading goes into the list. Raises MeterUnavailable."""
    if ctx.space.meter is None:
        raise MeterUnavailable("no meter is set up; type the reading")
    with ctx.reading() as session:
        property_ = load_face(session, job_id, face_of(session, job_id, kind, id_)).property
    part = surface_of(property_, kind, id_)
    face = property_.face(part.face)
    reading = ctx.space.meter.read(
        MeterPlace(
            latitude=property_.latitude,
            longitude=property_.longitude,
            at=ctx.now,
            azimuth_deg=face.azimuth_deg,
            tilt_deg=face.tilt_deg,
            substrate=part.substrate,
            colour=part.colour_now,
            spot=spot.strip()[:80] or f"reading {len(part.condition.moisture) + 1}",
        )
    )
    if reading.wood_pct is not None:
        add_moisture(ctx, job_id, kind, id_, f"{reading.wood_pct}", spot)
    return reading


def mark_damage(ctx: Context, job_id: str, zone_id: str, damage: str, runs: Any) -> None:
    """Squares of the condition map for one kind of damage; its share goes into the record. Raises Refused."""
    if damage not in set(Damage):
        raise Refused({"": f"“{damage[:20]}” is not on the list of damages"})
    try:
        mark = Mark.model_validate({"damage": damage, "runs": runs})
    except ValueError:
        raise Refused({"": "the marked squares cannot be read; paint them again"}) from None

    def make(bundle: JobBundle, zone: Zone | Item) -> Made:
        if not isinstance(zone, Zone):
            raise NotFound("surface", zone_id)
        tests = zone.condition.tests
        marks = [m for m in zone.condition.marks if m.damage != mark.damage] + ([mark] if mark.runs else [])
        fields: dict[str, Any] = {"marks": marks} | _worked_out(bundle, zone, tuple(marks), mark.damage)
        code = next((t.code for t in GUIDED_TESTS if t.field in fields), None)
        if code is not None and not any(t.test == code for t in tests):
            fields["tests"] = [*tests, Tested(test=code, on=job_day(ctx, bundle))]
        return f"mark {damage}", fields

    _change(ctx, job_id, "zone", zone_id, make)


def _worked_out(bundle: JobBundle, zone: Zone, marks: tuple[Mark, ...], damage: Damage) -> dict[str, float]:
    """The condition's own field for a damage, from its marks."""
    face = bundle.property.face(zone.face)
    marked = zone.model_copy(update={"condition": zone.condition.model_copy(update={"marks": marks})})
    zones = tuple(marked if z.id == zone.id else z for z in bundle.property.zones_of(face.id))
    plan_m2 = face_areas(bundle.property, face, bundle.deduction)[zone.id].plan_m2
    extent = marked_extents(face, zones, marked, plan_m2).get(damage)
    if damage in PERCENT_FIELDS:
        return {PERCENT_FIELDS[damage]: round(extent.pct, 1) if extent else 0.0}
    if damage is Damage.ROT:
        return {"rot_m2": round(extent.area_m2, 2) if extent else 0.0}
    return {}


def reading_time(at: datetime | None, property_: Property) -> str:
    """When a reading was taken, on the job's clock."""
    local = at.astimezone(property_.tz) if at is not None else None
    return f"{dated(local)} {local:%H:%M}" if local else ""
