"""What a new part usually is, so that a tap or a blank form gives something sensible."""

from collections.abc import Mapping

from amber_gable.domain.house.survey import Face
from amber_gable.domain.units import INCH_M
from amber_gable.services.survey.figures import hanging_gutter
from amber_gable.services.survey.forms import choices
from amber_gable.web.views.survey.part_form import field_text
from amber_gable.web.views.units import Units

_BLANKS: dict[str, dict[str, str]] = {
    "face": {
        "building": "House",
        "tilt_deg": "90",
        "rain_exposure": "1",
        "exposure": "open",
        "outline.kind": "rectangle",
    },
    "opening": {"kind": "window"},
    "obstacle": {"kind": "planting"},
    "zone": {"area.kind": "face", "substrate": "wood-lap", "colour_now": "#d8d2c2"},
    "item": {"spec.kind": "sash-window", "substrate": "wood-trim", "colour_now": "#e9e4d8"},
}
_SIZES: dict[str, dict[str, float]] = {
    "window": {"width_m": 0.9, "height_m": 1.4, "y_m": 0.9, "casing_m": 0.09},
    "door": {"width_m": 0.9, "height_m": 2.1, "y_m": 0.0, "casing_m": 0.09},
    "garage-door": {"width_m": 2.4, "height_m": 2.1, "y_m": 0.0, "casing_m": 0.09},
    "vent": {"width_m": 0.5, "height_m": 0.6, "y_m": 2.0, "casing_m": 0.05},
    "planting": {"width_m": 1.8, "height_m": 0.9, "y_m": 0.0},
    "meter": {"width_m": 0.3, "height_m": 0.4, "y_m": 1.3},
    "lamp": {"width_m": 0.2, "height_m": 0.3, "y_m": 2.0},
    "air-conditioner": {"width_m": 0.9, "height_m": 0.7, "y_m": 0.1},
    "wires": {"width_m": 2.0, "height_m": 0.3, "y_m": 4.0},
    "neighbour": {"width_m": 3.4, "height_m": 2.3, "y_m": 0.0},
    "children-or-pets": {"width_m": 2.2, "height_m": 1.1, "y_m": 0.0},
    "vehicle": {"width_m": 4.3, "height_m": 1.5, "y_m": 0.0},
    "other": {"width_m": 1.0, "height_m": 1.0, "y_m": 0.0},
}
_ITEM_SIZES: dict[str, dict[str, float]] = {
    "panelled-door": {"width_m": 0.9, "height_m": 2.1},
    "flush-door": {"width_m": 0.9, "height_m": 2.1},
    "glazed-door": {"width_m": 0.9, "height_m": 2.1},
    "sash-window": {"width_m": 0.9, "height_m": 1.4},
    "casement": {"width_m": 1.2, "height_m": 1.2},
    "shutter-pair": {"leaf_width_m": 0.4, "height_m": 1.4},
    "garage-door": {"width_m": 2.4, "height_m": 2.1},
    "railing": {"length_m": 3.0, "height_m": 1.0},
    "gutter": {"length_m": 6.0},
    "sign-band": {"width_m": 4.0, "height_m": 0.6},
    "stair": {"width_m": 1.0},
    "chimney": {"width_m": 0.6, "depth_m": 0.6, "height_m": 1.4},
}
_ITEM_MORE = {
    "panelled-door": {"panels": "4"},
    "glazed-door": {"glazed": "0.5"},
    "stair": {"treads": "3"},
    "casement": {"leaves": "2"},
}


_ITEM_MADE_OF = {
    "garage-door": "metal-door",
    "gutter": "aluminium-trim",
    "stair": "wood-deck",
    "sign-band": "wood-trim",
    "chimney": "brick",
}


def blank_part(kind: str, asked: Mapping[str, str], units: Units, face: Face | None = None) -> dict[str, str]:
    """Usual values of a new part, over which goes what the address asks for; a gutter's follow from its `face`."""
    out = _BLANKS[kind] | {k: v for k, v in asked.items() if k != "face"}
    chosen = out.get("kind") or out.get("spec.kind") or ""
    if kind in ("opening", "obstacle"):
        out = {k: _usual(v, units) for k, v in (_SIZES.get(chosen, {}) | {"x_m": 0.6}).items()} | out
    if kind == "item":
        spec = choices("spec").get(chosen)
        sizes = {n: f.default for n, f in spec.model_fields.items()} if spec else {}
        out = {f"spec.{n}": field_text(n, v, units) for n, v in sizes.items() if isinstance(v, int | float)} | out
        out |= {f"spec.{n}": _usual(v, units) for n, v in _ITEM_SIZES.get(chosen, {}).items()}
        out |= {f"spec.{n}": v for n, v in _ITEM_MORE.get(chosen, {}).items()}
        if "substrate" not in asked:
            out["substrate"] = _ITEM_MADE_OF.get(chosen, out["substrate"])
        if chosen == "gutter" and face is not None and face.is_wall:
            hangs = hanging_gutter(face)
            out |= {"x_m": units.typed(0.0), "y_m": units.typed(hangs.y_m)}
            out |= {f"spec.{n}": units.typed(getattr(hangs, n)) for n in ("length_m", "downspout_m")}
        out = {"x_m": _usual(0.6, units), "y_m": _usual(0.9 if "window" in chosen else 0.0, units)} | out
    return out


def other_kind(
    kind: str, typed: Mapping[str, str], units: Units, face: Face | None, *, keep: bool = False
) -> dict[str, str]:
    """What is typed once another kind was chosen: what was only the usual of some kind becomes the usual of this one.
    `keep`: the part was there before, so all that it has stays."""
    key = "spec.kind" if kind == "item" else "kind"
    usual = blank_part(kind, {key: typed.get(key, "")}, units, face)
    if keep:
        return usual | dict(typed)
    others = _ITEM_SIZES if kind == "item" else _SIZES
    seen: dict[str, set[str]] = {}
    for other in others:
        for name, value in blank_part(kind, {key: other}, units, face).items():
            seen.setdefault(name, set()).add(value)
    return usual | {n: v for n, v in typed.items() if n == key or n not in usual or v not in seen.get(n, set())}


def _usual(metres: float, units: Units) -> str:
    """A usual size as one would say it: whole inches in US units."""
    return units.typed(round(metres / INCH_M) * INCH_M if units.us else metres)
