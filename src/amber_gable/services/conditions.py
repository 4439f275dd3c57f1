"""The condition record: readings of the guided tests, moisture, marks on the drawing, each saved as it is given."""

from datetime import date, datetime
from typing import Any

from amber_gable.core.survey.condition_map import PERCENT_FIELDS, marked_extents
from amber_gable.core.survey.measures import UnitSystem, parse_length
from amber_gable.core.survey.takeoff import face_areas
from amber_gable.domain.condition import Condition, Damage, Mark, MoistureReading, Tested
from amber_gable.domain.guided_tests import GUIDED_TESTS, GuidedTest
from amber_gable.domain.survey import Item, Property, Zone
from amber_gable.exchange.meter import MeterPlace, MeterReading, MeterUnavailable
from amber_gable.services.editing import Faults, plain_number
from amber_gable.services.surveying import change_part, find_part
from amber_gable.services.workspace import Workspace
from amber_gable.store.jobs import load_face
from amber_gable.store.survey import face_of

_BY_CODE = {t.code: t for t in GUIDED_TESTS}
_YES_NO = {"yes": True, "no": False, "": None}


def surface_of(property_: Property, kind: str, id_: str) -> Zone | Item:
    """The zone or item whose condition it is. Raises KeyError."""
    part = find_part(property_, kind, id_)[0]
    if not isinstance(part, Zone | Item):
        raise KeyError(id_)
    return part


def _stored(space: Workspace, job_id: str, kind: str, id_: str) -> tuple[Property, Zone | Item]:
    with space.database.reading() as session:
        property_ = load_face(session, job_id, face_of(session, job_id, kind, id_)).property
    return property_, surface_of(property_, kind, id_)


def record_test(
    space: Workspace, job_id: str, kind: str, id_: str, form: dict[str, str], system: UnitSystem = UnitSystem.METRIC
) -> Condition:
    """A test's reading, and its date, note and photo. What the form does not carry stays. Raises Faults by field."""
    test = _BY_CODE.get(form.get("test", ""))
    if test is None:
        raise Faults({"": "this test is not known"})
    property_, part = _stored(space, job_id, kind, id_)
    condition = part.condition
    changes: dict[str, Any] = {}
    if "value" in form:
        changes[test.field] = _reading(test, form["value"].strip(), system)
    kept = next((t for t in condition.tests if t.test == test.code), Tested(test=test.code))
    today = space.clock.now().astimezone(property_.tz).date()
    made = kept.model_dump() | {"on": _day(form["on"]) if "on" in form else kept.on or today}
    if "note" in form:
        made["note"] = form["note"].strip()
    if "photo" in form:
        made["photo"] = form["photo"] or None
    others = [t for t in condition.tests if t.test != test.code]
    emptied = "value" in form and form["value"].strip() == ""
    tests = others if emptied else [*others, made]
    return _save(space, job_id, kind, part, condition, changes | {"tests": tests}, f"test {test.name.lower()}")


def _reading(test: GuidedTest, text: str, system: UnitSystem) -> Any:
    info = Condition.model_fields[test.field]
    if test.field in ("greyed", "raised_fibre"):
        if text not in _YES_NO:
            raise Faults({test.code: "must be yes or no"})
        return _YES_NO[text]
    if not text:
        return info.get_default()
    try:
        if test.field.endswith("_m"):
            return parse_length(text, system)
        if info.annotation is float or "float" in str(info.annotation) or "int" in str(info.annotation):
            return plain_number(text)
    except ValueError as error:
        words = str(error) if test.field.endswith("_m") else f"“{text[:30]}” is not a number"
        raise Faults({test.code: words}) from None
    return text


def _day(text: str) -> date | None:
    try:
        return date.fromisoformat(text) if text.strip() else None
    except ValueError:
        raise Faults({"on": f"“{text[:20]}” is not a date; write it such as 2026-09-14"}) from None


def _save(
    space: Workspace,
    job_id: str,
    kind: str,
    part: Zone | Item,
    condition: Condition,
    changes: dict[str, Any],
    words: str,
) -> Condition:
    merged = condition.model_dump() | changes
    change_part(space, job_id, kind, part.id, f"{words} on {part.name}", condition=merged)
    return surface_of(_stored(space, job_id, kind, part.id)[0], kind, part.id).condition


def add_moisture(space: Workspace, job_id: str, kind: str, id_: str, pct: str, spot: str) -> None:
    """One more meter reading, now. Raises Faults."""
    try:
        value = plain_number(pct)
    except ValueError:
        value = None
    if value is None or not 0 <= value <= 100:
        raise Faults({"pct": f"“{pct.strip()[:20]}” is not a moisture between 0 and 100 %"})
    _, part = _stored(space, job_id, kind, id_)
    reading = MoistureReading(pct=value, at=space.clock.now(), spot=spot.strip()[:80])
    readings = [*part.condition.moisture, reading]
    _save(space, job_id, kind, part, part.condition, {"moisture": readings}, f"reading {value:g} %")


def drop_moisture(space: Workspace, job_id: str, kind: str, id_: str, number: int) -> None:
    """Take a reading out by its place in the list. Raises KeyError."""
    _, part = _stored(space, job_id, kind, id_)
    readings = list(part.condition.moisture)
    if not 0 <= number < len(readings):
        raise KeyError(number)
    dropped = readings.pop(number)
    _save(space, job_id, kind, part, part.condition, {"moisture": readings}, f"drop reading {dropped.pct:g} %")


def read_meter(space: Workspace, job_id: str, kind: str, id_: str, spot: str) -> MeterReading:
    """Hold the meter against the surface; a wood reading goes into the list. Raises MeterUnavailable."""
    if space.meter is None:
        raise MeterUnavailable("no meter is set up; type the reading")
    property_, part = _stored(space, job_id, kind, id_)
    face = property_.face(part.face)
    reading = space.meter.read(
        MeterPlace(
            latitude=property_.latitude,
            longitude=property_.longitude,
            at=space.clock.now(),
            azimuth_deg=face.azimuth_deg,
            tilt_deg=face.tilt_deg,
            substrate=part.substrate,
            colour=part.colour_now,
            spot=spot.strip()[:80] or f"reading {len(part.condition.moisture) + 1}",
        )
    )
    if reading.wood_pct is not None:
        add_moisture(space, job_id, kind, id_, f"{reading.wood_pct}", spot)
    return reading


def mark_damage(space: Workspace, job_id: str, zone_id: str, damage: str, runs: Any) -> None:
    """Squares of the condition map for one kind of damage; its share goes into the record. Raises Faults."""
    if damage not in set(Damage):
        raise Faults({"": f"“{damage[:20]}” is not on the list of damages"})
    with space.database.reading() as session:
        bundle = load_face(session, job_id, face_of(session, job_id, "zone", zone_id))
    zone = surface_of(bundle.property, "zone", zone_id)
    if not isinstance(zone, Zone):
        raise KeyError(zone_id)
    try:
        mark = Mark.model_validate({"damage": damage, "runs": runs})
    except ValueError:
        raise Faults({"": "the marked squares cannot be read; paint them again"}) from None
    marks = [m for m in zone.condition.marks if m.damage != mark.damage] + ([mark] if mark.runs else [])
    tried = zone.model_copy(update={"condition": zone.condition.model_copy(update={"marks": tuple(marks)})})
    face = bundle.property.face(zone.face)
    plan_m2 = face_areas(bundle.property, face, bundle.job.deduction)[zone.id].plan_m2
    zones = tuple(tried if z.id == zone.id else z for z in bundle.property.zones_of(face.id))
    extent = marked_extents(face, zones, tried, plan_m2).get(mark.damage)
    changes: dict[str, Any] = {"marks": marks}
    if mark.damage in PERCENT_FIELDS:
        changes[PERCENT_FIELDS[mark.damage]] = round(extent.pct, 1) if extent else 0.0
    if mark.damage is Damage.ROT:
        changes["rot_m2"] = round(extent.area_m2, 2) if extent else 0.0
    code = next((t.code for t in GUIDED_TESTS if t.field in changes), None)
    if code is not None:
        today = space.clock.now().astimezone(bundle.property.tz).date()
        kept = next((t for t in zone.condition.tests if t.test == code), Tested(test=code, on=today))
        changes["tests"] = [*(t for t in zone.condition.tests if t.test != code), kept]
    _save(space, job_id, "zone", zone, zone.condition, changes, f"mark {damage}")


def reading_time(at: datetime | None, property_: Property) -> str:
    """When a reading was taken, on the job's clock."""
    local = at.astimezone(property_.tz) if at is not None else None
    return f"{local:%a} {local.day} {local:%b} {local:%H:%M}" if local else ""
