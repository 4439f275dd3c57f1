"""The marks on a photo: where they lie, and where they begin on one that has none."""

from collections.abc import Mapping
from dataclasses import dataclass

from amber_gable.domain.house.photo import Photo
from amber_gable.services.survey.photos import CORNER_NAMES, CORNERS
from amber_gable.web.views.units import Units

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
