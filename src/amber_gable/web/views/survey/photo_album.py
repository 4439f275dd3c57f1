"""What photos can show, and what each shows, in words."""

from dataclasses import dataclass

from amber_gable.domain.house.photo import Photo
from amber_gable.domain.house.survey import Property


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
