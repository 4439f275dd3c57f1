"""What photos can show, and what each shows, in words."""

from collections.abc import Mapping
from dataclasses import dataclass

from amber_gable.domain.house.photo import Photo
from amber_gable.domain.house.survey import Property
from amber_gable.services.survey.photos import CORNER_NAMES, CORNERS
from amber_gable.web.views.units import Units


@dataclass(frozen=True)
class ShownChoice:
    """Something a photo can show: the value that is sent for it, and its name."""

    value: str
    name: str


@dataclass(frozen=True)
class ShownGroup:
    """The choices of one face: the face itself, then all that is on it."""

    name: str
    choices: tuple[ShownChoice, ...]


def shown_groups(property_: Property) -> list[ShownGroup]:
    out = []
    for face in property_.faces:
        parts = (
            *(("zone", z.id, z.name) for z in property_.zones_of(face.id)),
            *(("item", i.id, i.name) for i in property_.items_of(face.id)),
            *(("opening", o.id, o.name) for o in face.openings),
            *(("obstacle", o.id, o.name) for o in face.obstacles),
        )
        on_it = (ShownChoice(f"{face.id}/{kind}/{id_}", f"{face.name}, {name}") for kind, id_, name in parts)
        out.append(ShownGroup(face.name, (ShownChoice(face.id, face.name), *on_it)))
    return out


def shown_value(photo: Photo) -> str:
    return "/".join((photo.face or "", *(photo.part or ())))


def shown_words(property_: Property) -> dict[str, str]:
    """The face, and the part on it, in words by value: "Front, Siding"."""
    return {choice.value: choice.name for group in shown_groups(property_) for choice in group.choices}


# Shares of the picture's width and height.
_START = {
    "c1": (0.12, 0.88), "c2": (0.88, 0.88), "c3": (0.88, 0.12), "c4": (0.12, 0.12),
    "a": (0.3, 0.75), "b": (0.5, 0.75), "m1": (0.4, 0.6), "m2": (0.6, 0.4), "a2": (0.7, 0.8), "b2": (0.7, 0.5),
}  # fmt: skip
_NAMES = {
    **{key: f"Wall's {name} corner" for key, name in zip(CORNERS, CORNER_NAMES, strict=True)},
    "a": "Known length, one end",
    "b": "Known length, other end",
    "a2": "Second known length, one end",
    "b2": "Second known length, other end",
    "m1": "Measure from",
    "m2": "Measure to",
}


@dataclass(frozen=True)
class MarkField:
    """One mark: its field, what it is, and its place in px where it can be read."""

    key: str
    name: str
    value: str
    group: str


def mark_fields(values: Mapping[str, str]) -> list[MarkField]:
    groups = {"c": "corner", "a": "known", "b": "known", "m": "measure"}
    return [MarkField(key, _NAMES[key], values.get(key, ""), groups[key[0]]) for key in _NAMES]


def usual_marks(photo: Photo, units: Units) -> dict[str, str]:
    """The stored marks as typed; else a frame well inside the picture."""
    out = {k: f"{x * photo.width_px:.0f}, {y * photo.height_px:.0f}" for k, (x, y) in _START.items()}
    out |= {"length": "", "length2": ""}
    marks = photo.marks
    if marks is not None:
        out |= {key: f"{x:g}, {y:g}" for key, (x, y) in zip(CORNERS, marks.corners, strict=True)}
        out |= {"a": "{:g}, {:g}".format(*marks.known.a), "b": "{:g}, {:g}".format(*marks.known.b)}
        out["length"] = units.typed(marks.known.length_m)
        if marks.second is not None:
            out |= {"a2": "{:g}, {:g}".format(*marks.second.a), "b2": "{:g}, {:g}".format(*marks.second.b)}
            out["length2"] = units.typed(marks.second.length_m)
    return out
