"""Copies in a survey: a part beside itself, what fills an opening, a face mirrored or copied with all that is on it."""

from collections.abc import Callable

from amber_gable.core.survey.findings.checks import face_faults
from amber_gable.core.survey.findings.copying import Parts, copied, mirrored
from amber_gable.domain.errors import InputError, Refused
from amber_gable.domain.house.survey import Face, Item, Obstacle, Opening, Part
from amber_gable.services.context import Context
from amber_gable.services.survey.forms import choices, made_part
from amber_gable.services.survey.surveying import box_of, find_part, free_id, free_name, with_part, write_step
from amber_gable.store.job import survey
from amber_gable.store.job.jobs import load_face

# What usually fills an opening, and what it is made of.
FILLINGS: dict[str, tuple[str, ...]] = {
    "window": ("sash-window", "casement"),
    "door": ("panelled-door", "flush-door", "glazed-door"),
    "garage-door": ("garage-door",),
}
MADE_OF = {"garage-door": "metal-door"}


def duplicate_part(ctx: Context, job_id: str, kind: str, id_: str) -> str:
    """A second opening, item or obstacle beside the first, where there is room. Returns its id."""
    with ctx.writing() as session:
        face_id = survey.face_of(session, job_id, kind, id_)
        property_ = load_face(session, job_id, face_id).property
        part = find_part(property_, kind, id_)[0]
        if not isinstance(part, Opening | Obstacle | Item):
            raise InputError(part.name, "cannot be duplicated by itself", "copy its face")
        face = property_.face(face_id)
        new = free_id(session, job_id, kind, part.name)
        copy = part.model_copy(update={"id": new, "name": free_name(survey.part_names(session, job_id), part.name)})
        for x in _free_places(face, part):
            moved = copy.model_copy(update={"x_m": x})
            changed = with_part(property_, moved, face_id)
            if not face_faults(changed.face(face_id), changed.zones_of(face_id)):
                write_step(session, job_id, [(moved, face_id, None)], f"duplicate {part.name}")
                return new
    raise InputError(part.name, f"there is no room for another one on {face.name}", "make room, then duplicate it")


def _free_places(face: Face, part: Opening | Obstacle | Item) -> list[float]:
    own = box_of(part)["width_m"]
    step = 0.05
    count = int(max(face.width_m - own, 0) / step) + 1
    places = [round(k * step, 6) for k in range(count)]
    right = part.x_m + own + 0.3
    return sorted((x for x in places if abs(x - part.x_m) >= own), key=lambda x: (x < right, abs(x - right)))


def fill_opening(ctx: Context, job_id: str, id_: str, kind: str) -> str:
    """Count what fills an opening as an item of the same size and place. Returns the item's id. Raises Refused."""
    with ctx.writing() as session:
        face_id = survey.face_of(session, job_id, "opening", id_)
        property_ = load_face(session, job_id, face_id).property
        opening = find_part(property_, "opening", id_)[0]
        if not isinstance(opening, Opening) or kind not in FILLINGS.get(opening.kind, ()):
            raise Refused({"": f"a {kind or 'nothing'} does not fill this opening; choose one of the list"})
        if any(box_of(i) == box_of(opening) for i in property_.items_of(face_id)):
            raise Refused({"": f"{opening.name} is counted as an item already"})
        trim = next((z.colour_now for z in property_.zones_of(face_id) if z.substrate == "wood-trim"), "#e9e4d8")
        sizes = {"kind": kind, "width_m": opening.width_m, "height_m": opening.height_m}
        values = {
            "id": free_id(session, job_id, "item", opening.name),
            "name": opening.name,
            "face": face_id,
            "x_m": opening.x_m,
            "y_m": opening.y_m,
            "spec": {k: v for k, v in sizes.items() if k in choices("spec")[kind].model_fields},
            "substrate": MADE_OF.get(kind, "wood-trim"),
            "colour_now": trim,
        }
        item = made_part("item", None, values)
        write_step(session, job_id, [(item, face_id, None)], f"count {opening.name}")
    return item.id


def mirror_face(ctx: Context, job_id: str, id_: str) -> None:
    """Turn a face left for right."""
    with ctx.writing() as session:
        property_ = load_face(session, job_id, id_).property
        face = property_.face(id_)
        parts = mirrored(face, property_.zones_of(id_), property_.items_of(id_))
        versions = survey.versions(session, job_id, id_)
        write_step(session, job_id, _listed(parts, lambda kind, part: versions[kind, part]), f"mirror {face.name}")


def copy_face(ctx: Context, job_id: str, id_: str, *, opposite: bool) -> str:
    """Copy a face with all that is on it: looking the other way and mirrored, or just once more. Returns its id."""
    with ctx.writing() as session:
        property_ = load_face(session, job_id, id_).property
        face = property_.face(id_)
        parts: Parts = (face, property_.zones_of(id_), property_.items_of(id_))
        taken: set[tuple[str, str]] = set()

        def new_id(kind: str, old: str) -> str:
            found = free_id(session, job_id, kind, old, taken)
            taken.add((kind, found))
            return found

        name = f"Opposite {face.name}"[:120] if opposite else face.name
        names = survey.part_names(session, job_id)
        if name in names:
            name = free_name(names, name)
        azimuth = (face.azimuth_deg + 180) % 360 if opposite else face.azimuth_deg
        made = copied(
            mirrored(*parts) if opposite else parts, new_id, name=name, azimuth_deg=azimuth, horizon=(), blocks=()
        )
        write_step(session, job_id, _listed(made, lambda kind, part: None), f"copy {face.name}")
    return made[0].id


def _listed(parts: Parts, version: Callable[[str, str], int | None]) -> list[tuple[Part, str, int | None]]:
    face, zones, items = parts
    out: list[tuple[Part, str, int | None]] = [(face, face.id, version("face", face.id))]
    out += [(o, face.id, version("opening", o.id)) for o in face.openings]
    out += [(o, face.id, version("obstacle", o.id)) for o in face.obstacles]
    out += [(z, face.id, version("zone", z.id)) for z in zones]
    out += [(i, face.id, version("item", i.id)) for i in items]
    return out
