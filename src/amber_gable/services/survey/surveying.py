"""Editing a survey: parts saved, placed, copied, mirrored, deleted."""

import re
from collections.abc import Callable, Mapping
from typing import Annotated, Any

from pydantic import ValidationError

from amber_gable.core.survey.amounts.measures import parse_bearing
from amber_gable.core.survey.drawing.geometry import item_size
from amber_gable.core.survey.drawing.house_plan import house_plan, turned
from amber_gable.core.survey.findings.checks import face_faults
from amber_gable.domain.errors import InputError, NotFound, Refused
from amber_gable.domain.house.survey import Face, Item, Opening, Part, PlanPlace, Property, Zone
from amber_gable.domain.house.zone_area import Region
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.units import UnitSystem
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form
from amber_gable.services.forms.types import Number, Version, whole_number
from amber_gable.services.survey.forms import MODELS, form_values, made_part
from amber_gable.store.job import journal, survey
from amber_gable.store.job.jobs import live_job, load_bundle, load_face
from amber_gable.store.transaction import Transaction, places

_OWN_FORM = {"version", "face", "id", "back", "units"}
_UNTYPED: dict[str, dict[str, Any]] = {"face": {"azimuth_deg": 180.0}, "opening": {"x_m": 0.0, "y_m": 0.0}}
# From a job (cut down to a face) and a part of it to the step's words and the part's new fields.
Change = Callable[[JobBundle, Part], tuple[str, dict[str, Any]]]
KIND_OF: dict[type[Part], str] = {model: kind for kind, model in MODELS.items()}


def find_part(property_: Property, kind: str, id_: str) -> tuple[Part, str]:
    """A part and the id of its face. Raises NotFound."""
    for f in property_.faces:
        on_face: dict[str, tuple[Part, ...]] = {
            "face": (f,),
            "opening": f.openings,
            "obstacle": f.obstacles,
            "zone": property_.zones_of(f.id),
            "item": property_.items_of(f.id),
        }
        for part in on_face.get(kind, ()):
            if part.id == id_:
                return part, f.id
    raise NotFound(kind, id_)


def with_part(property_: Property, part: Part, face_id: str) -> Property:
    """The property with the part put in, or in place of the one of its id. Not validated."""
    if isinstance(part, Zone | Item):
        name = "zones" if isinstance(part, Zone) else "items"
        return property_.model_copy(update={name: _put(getattr(property_, name), part)})
    if isinstance(part, Face):
        return property_.model_copy(update={"faces": _put(property_.faces, part)})
    name = "openings" if isinstance(part, Opening) else "obstacles"
    faces = tuple(
        f.model_copy(update={name: _put(getattr(f, name), part)}) if f.id == face_id else f for f in property_.faces
    )
    return property_.model_copy(update={"faces": faces})


def _put(parts: tuple[Any, ...], part: Any) -> tuple[Any, ...]:
    if any(p.id == part.id for p in parts):
        return tuple(part if p.id == part.id else p for p in parts)
    return (*parts, part)


def tried(
    bundle: JobBundle, kind: str, id_: str | None, face_id: str, form: Mapping[str, str], system: UnitSystem
) -> tuple[JobBundle, Part]:
    """The job as it would be with what is typed so far, without saving. Raises Refused."""
    present = find_part(bundle.property, kind, id_)[0] if id_ else None
    values = form_values({k: v for k, v in form.items() if k not in _OWN_FORM}, system)
    values |= {"id": id_ or "new"} | ({"face": face_id} if kind in ("zone", "item") else {})
    if present is None:
        # Who is still typing need not have named it.
        values = _UNTYPED.get(kind, {}) | values | {"name": values.get("name") or "new"}
    part = made_part(kind, present, values)
    changed = with_part(bundle.property, part, face_id)
    face = changed.face(part.id if isinstance(part, Face) else face_id)
    faults = face_faults(face, changed.zones_of(face.id))
    if faults:
        raise Refused({"": str(faults[0])})
    return bundle.model_copy(update={"property": changed}), part


def save_part(
    ctx: Context,
    job_id: str,
    kind: str,
    form: Mapping[str, str],
    id_: str | None,
    system: UnitSystem = UnitSystem.METRIC,
) -> str:
    """Add (`id_` None) or change a part from its form. Returns its id.

    Raises Refused with what to mend, StaleEdit when it changed meanwhile, NotFound when it or its face is gone.
    """
    values = form_values({k: v for k, v in form.items() if k not in _OWN_FORM}, system)
    version = None if id_ is None else BoxForm.read({"version": form.get("version", "")}).version
    if version == -1:
        raise Refused({"": "the form has lost its version; open it again"})
    if id_ is None and not values.get("name"):
        raise Refused({"name": "is needed"})
    with ctx.writing() as session:
        present, face_id, property_ = None, form.get("face", ""), None
        if id_ is not None:
            face_id = survey.face_of(session, job_id, kind, id_)
        if kind != "face" or id_ is not None:
            property_ = load_face(session, job_id, face_id).property
            present = find_part(property_, kind, id_)[0] if id_ is not None else None
        if kind in ("zone", "item"):
            values["face"] = face_id
        values["id"] = id_ or free_id(session, job_id, kind, str(values["name"]))
        part = made_part(kind, present, values)
        changes: list[tuple[Part, str, int | None]] = [(part, face_id, version)]
        if present is not None and property_ is not None and box_of(part) != box_of(present):
            changes += _with_companion(session, job_id, property_, present, face_id, box_of(part))
        write_step(session, job_id, changes, f"{'change' if id_ else 'add'} {part.name}")
    return part.id


class BoxForm(Form):
    """Where something was drawn, m, of the version that was on the drawing."""

    x_m: Number | None = None
    y_m: Number | None = None
    width_m: Number | None = None
    height_m: Number | None = None
    version: Version = -1


class CornerForm(Form):
    """Where a corner was drawn, m; corners count from 0."""

    corner: Annotated[int, whole_number(0, 9999, "the number of a corner")]
    x_m: Number
    y_m: Number
    version: Version = -1


def place_part(ctx: Context, job_id: str, kind: str, id_: str, form: Mapping[str, str]) -> None:
    """Move or resize something on a face by drawing: x_m, y_m, and width_m, height_m where it has them, in metres."""
    try:
        typed = BoxForm.read(form)
    except Refused:
        raise Refused({"": "the place is not given in numbers"}) from None
    numbers = {k: round(v, 6) for k, v in typed.model_dump(exclude={"version"}, exclude_none=True).items()}
    with ctx.writing() as session:
        face_id = survey.face_of(session, job_id, kind, id_)
        property_ = load_face(session, job_id, face_id).property
        part = find_part(property_, kind, id_)[0]
        changes: list[tuple[Part, str, int | None]] = [(_boxed(part, numbers), face_id, typed.version)]
        changes += _with_companion(session, job_id, property_, part, face_id, numbers)
        write_step(session, job_id, changes, f"move {part.name}")


def move_corner(ctx: Context, job_id: str, zone_id: str, form: Mapping[str, str]) -> None:
    """Move one corner of a zone's own outline: `corner` counts from 0, `x_m` and `y_m` in metres. Raises Refused."""
    try:
        typed = CornerForm.read(form)
    except Refused:
        raise Refused({"": "the corner's place is not given in numbers"}) from None
    number = typed.corner
    with ctx.writing() as session:
        face_id = survey.face_of(session, job_id, "zone", zone_id)
        zone = find_part(load_face(session, job_id, face_id).property, "zone", zone_id)[0]
        if not isinstance(zone, Zone) or not isinstance(zone.area, Region) or not 0 <= number < len(zone.area.corners):
            raise Refused({"": "this zone has no such corner"})
        corners = [list(c) for c in zone.area.corners]
        corners[number] = [round(typed.x_m, 6), round(typed.y_m, 6)]
        moved = made_part("zone", zone, {"area": {"kind": "region", "corners": corners}})
        write_step(session, job_id, [(moved, face_id, typed.version)], f"move a corner of {zone.name}")


def _boxed(part: Part, numbers: Mapping[str, float]) -> Part:
    """The part with another place or size, as far as it has one. Raises Refused."""
    values: dict[str, Any] = {k: v for k, v in numbers.items() if k in type(part).model_fields}
    if isinstance(part, Item):
        spec = {k: v for k, v in numbers.items() if k in type(part.spec).model_fields}
        values["spec"] = part.spec.model_dump() | spec
    if isinstance(part, Opening):
        values["spans"] = part.spans
    return made_part(KIND_OF[type(part)], part, values)


def box_of(part: Part) -> dict[str, float]:
    if isinstance(part, Item):
        return {"x_m": part.x_m, "y_m": part.y_m, **dict(zip(("width_m", "height_m"), item_size(part), strict=True))}
    return {k: getattr(part, k, 0.0) for k in ("x_m", "y_m", "width_m", "height_m")}


def _with_companion(
    session: Transaction, job_id: str, property_: Property, part: Part, face_id: str, numbers: Mapping[str, float]
) -> list[tuple[Part, str, int | None]]:
    """The item that fills an opening goes with it, and the opening with the item: they share one box on the wall."""
    others: tuple[Opening, ...] | tuple[Item, ...] = ()
    if isinstance(part, Opening):
        others = property_.items_of(face_id)
    elif isinstance(part, Item):
        others = property_.face(face_id).openings
    box = box_of(part)
    for other in others:
        if all(abs(v - box[k]) < 1e-6 for k, v in box_of(other).items()):
            kind = KIND_OF[type(other)]
            return [(_boxed(other, numbers), face_id, survey.live_part(session, job_id, kind, other.id).version)]
    return []


def remove_part(ctx: Context, job_id: str, kind: str, id_: str) -> None:
    with ctx.writing() as session, journal.step(session, job_id, "delete a part"):
        name = survey.delete_part(session, job_id, kind, id_)
        journal.call_step(session, f"delete {name}")


def turn_house(ctx: Context, job_id: str, face_id: str, bearing: str) -> None:
    """Turn all faces so that one of them looks towards a bearing as typed. Raises InputError."""
    try:
        azimuth_deg = parse_bearing(bearing)
    except ValueError as error:
        raise InputError("bearing", str(error), "go back and type it again; nothing was changed") from None
    with ctx.writing() as session:
        property_ = load_bundle(session, job_id).property
        by = azimuth_deg - property_.face(face_id).azimuth_deg
        versions = survey.versions(session, job_id)
        changes: list[tuple[Part, str, int | None]] = [
            (turned(f, by), f.id, versions["face", f.id]) for f in property_.faces
        ]
        write_step(session, job_id, changes, f"turn the house by {by:.0f}°")


class StandForm(Form):
    """Where a wall's left end stands on the plan, m; left out: nobody says."""

    east_m: Number | None = None
    north_m: Number | None = None


def stand_wall(ctx: Context, job_id: str, face_id: str, form: Mapping[str, str]) -> None:
    """Put a wall where it stands on the plan, or let it be guessed again; the others stay where they are seen. Raises
    InputError."""
    try:
        typed, place = StandForm.read(form), None
        if typed.east_m is not None and typed.north_m is not None:
            place = PlanPlace(east_m=round(typed.east_m, 3), north_m=round(typed.north_m, 3))
    except (Refused, ValidationError):
        raise InputError("place", "is not given in metres east and north", "drag the wall again") from None
    with ctx.writing() as session:
        property_ = load_bundle(session, job_id).property
        versions = survey.versions(session, job_id)
        name = property_.face(face_id).name
        changes: list[tuple[Part, str, int | None]] = []
        for wall in house_plan(property_.faces):
            mine = wall.face.id == face_id
            seen = PlanPlace(east_m=round(wall.start[0], 3), north_m=round(wall.start[1], 3))
            plan = place if mine else seen if wall.guessed else wall.face.plan
            if plan != wall.face.plan:
                moved = wall.face.model_copy(update={"plan": plan})
                changes.append((moved, wall.face.id, versions["face", wall.face.id]))
        write_step(session, job_id, changes, f"stand {name}")


def change_part(ctx: Context, job_id: str, kind: str, id_: str, change: Change) -> None:
    """Set fields of a part that no form of its own carries (size from a photo, blocks, condition).

    `change` sees the part as it stands while nobody else may write, so that two hands at one record lose nothing.
    Raises Refused, NotFound.
    """
    with ctx.writing() as session:
        face_id = survey.face_of(session, job_id, kind, id_)
        bundle = load_face(session, job_id, face_id)
        part = find_part(bundle.property, kind, id_)[0]
        version = survey.live_part(session, job_id, kind, id_).version
        words, fields = change(bundle, part)
        write_step(session, job_id, [(made_part(kind, part, fields), face_id, version)], words)


def write_step(session: Transaction, job_id: str, parts: list[tuple[Part, str, int | None]], words: str) -> None:
    """Save the parts as one step; the faces they are on must stay valid. Raises Refused, StaleEdit."""
    try:
        with journal.step(session, job_id, words):
            _put_all(session, job_id, parts)
    except InputError as error:
        raise Refused({"": f"{error.why}; {error.todo}"}) from None


def _put_all(session: Transaction, job_id: str, parts: list[tuple[Part, str, int | None]]) -> None:
    survey.hold_parts(session, job_id, [part for part, _, version in parts if version is not None])
    # Faces first: what is on a face refers to it.
    faces = [p for p in parts if isinstance(p[0], Face)]
    for group in (faces, [p for p in parts if not isinstance(p[0], Face)]):
        for part, face_id, version in group:
            survey.put_part(session, job_id, part, face_id, version)
        session.flush()
    survey.check_faces(session, job_id, [face_id for _, face_id, _ in parts])


def free_name(taken: set[str], name: str) -> str:
    """The name with the next number that is free: Sash 2 after Sash 1."""
    stem, number = re.sub(r"\s+\d+$", "", name)[:110], 2
    if stem not in taken and f"{stem} 1" not in taken:
        return f"{stem} 1"
    while f"{stem} {number}" in taken:
        number += 1
    return f"{stem} {number}"


def free_id(
    session: Transaction, job_id: str, kind: str, name: str, taken: set[tuple[str, str]] | frozenset[Any] = frozenset()
) -> str:
    """An id from the name that no record of the property has, deleted ones included."""
    # "new" is the address of the empty form.
    taken = taken | {(kind, "new")}
    slug = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:48].strip("-") or kind
    stem = re.sub(r"-\d+$", "", slug)
    property_id = live_job(session, job_id).property_id
    there = places(session, survey.PARTS[kind], property_id)
    for number in range(1, 10_000):
        id_ = slug if number == 1 else f"{stem}-{number}"
        if (kind, id_) not in taken and id_ not in there:
            return id_
    raise InputError(name, "no free id is left for this name", "choose another name")
