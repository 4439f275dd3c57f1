"""A wall that is told by another: `same as Back` puts its openings and what is painted in them on this one, from its
middle outwards; on the wall opposite the other way round. What was found on them stays where it was found."""

import re

from amber_gable.domain.errors import Refused
from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.house.survey import Face, Item, Opening, Part, Property
from amber_gable.services.survey.surveying import box_of, free_id, free_name, write_step
from amber_gable.store.job import survey
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.transaction import Transaction

_SAME = re.compile(r"\s*(?:the\s+)?same\s+as\s+(.+?)\s*$", re.IGNORECASE)


def other_wall(text: str) -> str | None:
    """The wall that a line names as the same; None where it tells its openings itself."""
    found = _SAME.fullmatch(text)
    return found[1] if found else None


def fill_like(session: Transaction, job_id: str, face_id: str, name: str) -> int:
    """Returns how many parts it made. Raises Refused under `line`, and nothing is kept then."""
    house = load_bundle(session, job_id).property
    face, model = house.face(face_id), _named(house, face_id, name)
    boxes = [box_of(o) for o in model.openings]
    parts: list[Opening | Item] = [*model.openings, *(i for i in house.items_of(model.id) if _goes_with(i, boxes))]
    if not parts:
        raise Refused({"line": f"{model.name} has no openings yet"})
    opposite = abs((face.azimuth_deg - model.azimuth_deg + 180) % 360 - 180) > 135
    names, taken = survey.part_names(session, job_id), set[tuple[str, str]]()
    changes: list[tuple[Part, str, int | None]] = []
    for part in parts:
        kind = "opening" if isinstance(part, Opening) else "item"
        new_name = free_name(names, part.name)
        names.add(new_name)
        id_ = free_id(session, job_id, kind, new_name, taken)
        taken.add((kind, id_))
        own = {"id": id_, "name": new_name, "x_m": _place(box_of(part), model, face, mirrored=opposite)}
        if isinstance(part, Item):
            own |= {"face": face_id, "condition": Condition()}
        changes.append((part.model_copy(update=own), face_id, None))
    try:
        write_step(session, job_id, changes, f"fill {face.name} like {model.name}")
    except Refused as error:
        raise Refused({"line": next(iter(error.fields.values()))}) from None
    return len(changes)


def _goes_with(item: Item, boxes: list[dict[str, float]]) -> bool:
    """Whether an item fills an opening, or hangs on it as shutters do."""
    own = box_of(item)
    right, top = own["x_m"] + own["width_m"], own["y_m"] + own["height_m"]
    return any(
        own["x_m"] <= b["x_m"] + 1e-6
        and right >= b["x_m"] + b["width_m"] - 1e-6
        and own["y_m"] <= b["y_m"] + 1e-6
        and top >= b["y_m"] + b["height_m"] - 1e-6
        and own["width_m"] <= 3 * b["width_m"]
        for b in boxes
    )


def _named(house: Property, face_id: str, name: str) -> Face:
    """The only other wall of that name, or beginning with it."""
    others = [f for f in house.faces if f.id != face_id and f.is_wall]
    wanted = name.casefold()
    exact = [f for f in others if f.name.casefold() == wanted]
    found = exact or [f for f in others if f.name.casefold().startswith(wanted)]
    if len(found) == 1:
        return found[0]
    known = ", ".join(f.name for f in (found or others)[:8])
    raise Refused({"line": f"“{name[:40]}” {'may be' if found else 'is no other wall here:'} {known}"})


def _place(box: dict[str, float], model: Face, face: Face, *, mirrored: bool) -> float:
    """Left edge on the new wall, as far from its middle as on the other."""
    middle = box["x_m"] + box["width_m"] / 2 - model.width_m / 2
    x = face.width_m / 2 + (-middle if mirrored else middle) - box["width_m"] / 2
    if x < -1e-6 or x + box["width_m"] > face.width_m + 1e-6:
        wide = f"{face.name} is {face.width_m:.2f} m wide"
        raise Refused({"line": f"{wide}: what stands on {model.name} ({model.width_m:.2f} m) does not fit"})
    return round(max(x, 0.0), 4)
