"""Fields of a survey form, read off the records' own models, so that the form asks for what the record has."""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from amber_gable.domain.house.exposure import Exposure
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import ObstacleKind, OpeningKind, Part
from amber_gable.services.survey.forms import MODELS, choices
from amber_gable.web.views.part_names import LABELS, TRIM_NAMES, UNION_LABELS, UNION_NAMES
from amber_gable.web.views.units import Units

# What the hand with the tape asks for first.
_FIRST = {"face": ("name", "outline", "azimuth_deg", "tilt_deg")}
_OPTIONAL = {"note", "trim_m", "overhang_m", "peak_m", "middle_width_m", "middle_rise_m"}
_PICKS: dict[str, list[tuple[str, str]]] = {
    "substrate": [(s.code, s.name) for s in SUBSTRATES.values()],
    "exposure": [(Exposure.OPEN.value, "open"), (Exposure.SHELTERED.value, "sheltered")],
}
_KINDS: dict[str, type[StrEnum]] = {"opening": OpeningKind, "obstacle": ObstacleKind}
# Sizes of parts, thought of in millimetres.
_FINE_MM = 0.4


@dataclass(frozen=True)
class FormField:
    """One field as the template draws it. `kind`: text, pick, tick, colour, or lines (several lines of text)."""

    name: str
    label: str
    kind: str
    value: str
    hint: str = ""
    options: tuple[tuple[str, str], ...] = ()
    fault: str = ""
    required: bool = True
    redraws: bool = False


def part_fields(kind: str, typed: Mapping[str, str], faults: Mapping[str, str], fresh: bool) -> list[FormField]:
    """The form's fields for what is typed so far: the chosen shape decides which sizes are asked for."""
    out: list[FormField] = []
    for name in (*_FIRST.get(kind, ()), *(n for n in MODELS[kind].model_fields if n not in _FIRST.get(kind, ()))):
        if name in UNION_NAMES:
            out += _union(name, typed, faults, fresh and name == "outline")
        elif name in LABELS:
            out.append(_field(kind, name, name, typed, faults))
    return out


def _union(group: str, typed: Mapping[str, str], faults: Mapping[str, str], fresh: bool) -> list[FormField]:
    key = f"{group}.kind"
    chosen = typed.get(key, "")
    options = tuple(UNION_NAMES[group].items())
    fault = faults.get(group) or faults.get(key) or ""
    out = [FormField(key, UNION_LABELS[group], "pick", chosen, "", options, fault, redraws=True)]
    if fresh:
        out.append(
            FormField(
                "size", "Size", "text", typed.get("size", ""), '27\' 6" x 9\' 6", 8.4 x 2.9 m or 8400x2900', (),
                faults.get("size", ""), required=False,
            )
        )  # fmt: skip
    if group == "area" and chosen == "trim":
        for part, words in TRIM_NAMES.items():
            for name in ("girth_m", "cover_m"):
                label = f"{words}, {'girth' if name == 'girth_m' else 'covers the wall by'}"
                value, fault = typed.get(f"run.{part}.{name}", ""), faults.get(f"run.{part}.{name}", "")
                out.append(FormField(f"run.{part}.{name}", label, "text", value, "", (), fault, required=False))
        return out
    model = choices(group).get(chosen)
    for name in model.model_fields if model else ():
        if name in LABELS and name != "kind":
            field = _field(group, f"{group}.{name}", name, typed, faults, model)
            out.append(FormField(**{**field.__dict__, "required": field.required and not fresh}))
    return out


def _field(
    owner: str, key: str, name: str, typed: Mapping[str, str], faults: Mapping[str, str], model: Any = None
) -> FormField:
    label, hint = LABELS[name]
    value, fault = typed.get(key, ""), faults.get(key, "")
    annotation = model.model_fields[name].annotation if model else None
    if name == "kind":
        options = tuple((k.value, k.value.replace("-", " ")) for k in _KINDS[owner])
        return FormField(key, label, "pick", value, hint, options, fault, redraws=True)
    if isinstance(annotation, type) and issubclass(annotation, StrEnum):
        options = tuple((k.value, k.value.replace("-", " ")) for k in annotation)
        return FormField(key, label, "pick", value, hint, options, fault)
    if name in _PICKS:
        return FormField(key, label, "pick", value, hint, tuple(_PICKS[name]), fault)
    if name in ("spans", "louvred", "closed"):
        return FormField(key, label, "tick", value, hint, (), fault, required=False)
    kind = {"colour_now": "colour", "corners": "lines", "note": "lines"}.get(name, "text")
    return FormField(key, label, kind, value, hint, (), fault, required=name not in _OPTIONAL)


def typed_part(part: Part, units: Units) -> dict[str, str]:
    """A record as its form would have been typed."""
    out: dict[str, str] = {}
    dumped = part.model_dump(mode="json", exclude={"openings", "obstacles", "condition", "horizon", "blocks", "plan"})
    for name, value in dumped.items():
        if name == "area" and value["kind"] == "trim":
            out["area.kind"] = "trim"
            for run in value["runs"]:
                for size in ("girth_m", "cover_m"):
                    out[f"run.{run['part']}.{size}"] = field_text(size, run[size], units)
        elif isinstance(value, dict):
            out |= {f"{name}.{k}": field_text(k, v, units) for k, v in value.items()}
        else:
            out[name] = field_text(name, value, units)
    if "profile" in dumped and dumped["profile"] is None:
        out["profile.kind"] = ""
    return out


def field_text(name: str, value: Any, units: Units) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "on" if value else ""
    if name == "corners":
        return "; ".join(f"{units.typed(x)}/{units.typed(y)}" for x, y in value)
    if name.endswith("_m2"):
        return f"{units.area_value(value):.6f}".rstrip("0").rstrip(".")
    if name.endswith("_m"):
        fine = not units.us and 0 < value < _FINE_MM and name not in ("x_m", "y_m")
        return f"{value * 1000:.4f}".rstrip("0").rstrip(".") + " mm" if fine else units.typed(value)
    if isinstance(value, float):
        return f"{value:g}"
    return str(value)
