"""From what was typed into a survey form to the fields of a record."""

from collections.abc import Mapping
from typing import Any, get_args

from pydantic import BaseModel, ValidationError

from amber_gable.core.survey.amounts.measures import parse_bearing, parse_length, parse_size
from amber_gable.domain.errors import Refused, by_field
from amber_gable.domain.house.items import ItemSpec
from amber_gable.domain.house.outline import Outline
from amber_gable.domain.house.profile import Profile
from amber_gable.domain.house.survey import Face, Item, Obstacle, Opening, Part, Zone
from amber_gable.domain.house.zone_area import TrimPart, ZoneArea
from amber_gable.domain.units import FOOT_M, UnitSystem
from amber_gable.services.forms.types import number

MODELS: dict[str, type[Part]] = {"face": Face, "opening": Opening, "obstacle": Obstacle, "zone": Zone, "item": Item}
# Fields of these names hold a record chosen by its kind: `outline.kind`, `outline.width_m`, …
_UNIONS: dict[str, Any] = {"outline": Outline, "area": ZoneArea, "profile": Profile, "spec": ItemSpec}
_TICKS = {"spans", "louvred", "closed"}
_PLAIN = {"tilt_deg", "rain_exposure", "value", "glazed"}
_MAY_BE_EMPTY = {"note", "name"}
# The field that a size typed as width × height fills beside the width.
_HEIGHTS = ("height_m", "eave_height_m", "left_m", "run_m")


def choices(union: str) -> dict[str, type[BaseModel]]:
    """The records a field may hold, by kind."""
    out: dict[str, type[BaseModel]] = {}
    for model in get_args(get_args(_UNIONS[union])[0]):
        for kind in get_args(model.model_fields["kind"].annotation):
            out[kind] = model
    return out


def form_values(form: Mapping[str, str], system: UnitSystem) -> dict[str, Any]:
    """Typed text as field values, lengths in m. Raises Refused by field.

    A `size` such as `8.4 x 2.9 m` gives an outline its width and height where those fields are empty. Trim is typed as
    `run.fascia.girth_m` and `run.fascia.cover_m`.
    """
    values: dict[str, Any] = {}
    faults: dict[str, str] = {}
    nested: dict[str, dict[str, Any]] = {}
    for key, text in form.items():
        group, _, name = key.rpartition(".")
        try:
            value = _value(name, text.strip(), system)
        except ValueError as error:
            faults[key] = str(error)
            continue
        if value is not None:
            (nested.setdefault(group, {}) if group else values)[name] = value
    if faults:
        raise Refused(faults)
    runs = [
        {"part": part.value, **nested.pop(f"run.{part.value}")} for part in TrimPart if f"run.{part.value}" in nested
    ]
    if runs and nested.get("area", {}).get("kind") == "trim":
        nested["area"]["runs"] = runs
    if "size" in values:
        width, height = values.pop("size")
        outline = nested.setdefault("outline", {"kind": "rectangle"})
        fields = choices("outline").get(outline.get("kind", ""), Face).model_fields
        for name, metres in (("width_m", width), ("eave_m", width), *((h, height) for h in _HEIGHTS)):
            if name in fields:
                outline.setdefault(name, metres)
    for group, fields_ in nested.items():
        values[group] = _chosen(group, fields_)
    return values


def _value(name: str, text: str, system: UnitSystem) -> Any:
    if name in _TICKS:
        return text == "on"
    if name == "corners":
        return _corners(text, system)
    if not text:
        return "" if name in _MAY_BE_EMPTY else None
    if name == "size":
        return parse_size(text, system)
    if name == "azimuth_deg":
        return parse_bearing(text)
    if name.endswith("_m2"):
        # Rounded so that a figure shown in square feet and sent back unchanged stays what it was.
        return round(number(text) * (FOOT_M**2 if system is UnitSystem.US else 1.0), 6)
    if name.endswith("_m"):
        return parse_length(text, system)
    if name in _PLAIN or name.endswith("_pct"):
        return number(text)
    return text


def _corners(text: str, system: UnitSystem) -> list[tuple[float, float]]:
    """`0,0; 9.6,0; 9.6,5.6` as corners: pairs apart by semicolons or lines, x and y by a comma and blank or a slash."""
    out = []
    for pair in text.replace("\n", ";").split(";"):
        if not pair.strip():
            continue
        halves = pair.split("/") if "/" in pair else pair.split(",")
        if len(halves) != 2:
            raise ValueError(
                f"“{pair.strip()[:30]}” is not a corner; write x, y; x, y; … in metres, such as 0, 0; 9.6, 0"
            )
        out.append((parse_length(halves[0], system), parse_length(halves[1], system)))
    if len(out) < 3:
        raise ValueError("at least three corners are needed, such as 0, 0; 9.6, 0; 9.6, 5.6")
    return out


def _chosen(group: str, fields: dict[str, Any]) -> dict[str, Any] | None:
    """Only what the chosen kind has: the form may still hold fields of the kind chosen before."""
    model = choices(group).get(fields.get("kind", ""))
    if model is None:
        return None
    out = {k: v for k, v in fields.items() if k in model.model_fields}
    for tick in _TICKS & set(model.model_fields):
        out.setdefault(tick, False)
    return out


def made_part(kind: str, present: Part | None, values: dict[str, Any]) -> Part:
    """The record with the typed values over what is there. Raises Refused by field."""
    model = MODELS[kind]
    base: dict[str, Any] = present.model_dump(exclude={"openings", "obstacles"}) if present else {}
    if present is not None and isinstance(present, Face):
        base |= {"openings": present.openings, "obstacles": present.obstacles}
    if "spans" in model.model_fields and "width_m" in values:
        base["spans"] = False
    try:
        return model.model_validate(base | values)
    except ValidationError as error:
        raise Refused(by_field(error, _name)) from None


def _name(place: tuple[int | str, ...]) -> str:
    names = [str(p) for p in place if isinstance(p, str)]
    names = [names[0], names[-1]] if len(names) > 1 and names[0] in _UNIONS else names[-1:]
    # A rule of the whole record names its kind last; it belongs to the record.
    if len(names) == 2 and names[1] in choices(names[0]):
        names = names[:1]
    return ".".join(names)
