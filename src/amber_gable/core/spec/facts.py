"""What the rules know of a surface: its tags, its condition, its colours, where it is, and the schools that hold.

A fact that was not found out is absent; a rule decides for itself whether not knowing counts.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from amber_gable.core.spec.colour import lab
from amber_gable.core.spec.hiding import coats_to_hide, hiding_power
from amber_gable.core.survey.essentials import is_answered
from amber_gable.core.survey.moisture import judged_moisture
from amber_gable.domain.aims import Aim, usual_aim
from amber_gable.domain.condition import Coating, Condition
from amber_gable.domain.guided_tests import GUIDED_TESTS
from amber_gable.domain.spec_schools import DEFAULTS
from amber_gable.domain.substrates import SUBSTRATES

FILMS = (Coating.WATERBORNE, Coating.OIL, Coating.FILM_STAIN)
_ITEM_TAGS = {
    "panelled-door": "door panelled-door",
    "flush-door": "door",
    "glazed-door": "door glazed",
    "sash-window": "window sash glazed",
    "casement": "window casement glazed",
    "shutter-pair": "shutter",
    "garage-door": "garage-door",
    "railing": "railing",
    "gutter": "gutter",
    "sign-band": "sign",
    "stair": "stair",
    "chimney": "chimney",
}
_ZERO_MEANS_NONE = ("crack_m", "rot_m2", "caulk_m", "putty_m", "nails", "bare_pct")
"""Figures whose zero may be believed without a ticked test: they are things one sees."""


@dataclass(frozen=True)
class Facts:
    """One surface to specify. `surface_m2` and `pieces` say how much of it there is; `known` holds the readings."""

    tags: frozenset[str]
    known: Mapping[str, Any]
    surface_m2: float
    pieces: int = 1
    old_colour: str = "#808080"
    new_colour: str | None = None
    schools: Mapping[str, str] = field(default_factory=lambda: dict(DEFAULTS))

    def get(self, name: str) -> Any:
        """The fact, or None where it is not known."""
        return self.known.get(name)

    def supposing(self, name: str, value: Any) -> "Facts":
        """The same surface with one reading as given."""
        return replace(self, known=_derived({**self.known, name: value}))

    def under(self, topic: str, school: str) -> "Facts":
        """The same surface under another school."""
        return replace(self, schools={**self.schools, topic: school})


def surface_tags(substrate: str, item_kind: str = "") -> frozenset[str]:
    """Tags of a substrate and of the item made of it. An item's own kind takes the place of 'trim' and 'siding'."""
    tags = SUBSTRATES[substrate].tags
    if not item_kind:
        return tags
    return (tags - {"trim", "siding", "door"}) | frozenset(_ITEM_TAGS[item_kind].split())


def facts_of(
    substrate: str,
    condition: Condition,
    *,
    surface_m2: float,
    item_kind: str = "",
    pieces: int = 1,
    old_colour: str = "#808080",
    new_colour: str | None = None,
    aim: Aim | None = None,
    schools: Mapping[str, str] = DEFAULTS,
    lead: bool = False,
    wires: bool = False,
    openings: int = 0,
    height_m: float = 0.0,
    tilt_deg: float = 90.0,
) -> Facts:
    """The facts of a zone or item as surveyed. `lead`: lead paint is presumed or was found."""
    tags = surface_tags(substrate, item_kind)
    aim = aim or usual_aim(tags)
    known: dict[str, Any] = {
        "lead": lead,
        "aim": aim.value,
        "height_m": height_m,
        "tilt_deg": tilt_deg,
        "wires": wires,
        "surface_m2": surface_m2,
        "openings": openings,
        "pieces": pieces,
    }
    for test in GUIDED_TESTS:
        value = getattr(condition, test.field)
        if test.field == "moisture":
            value = judged_moisture(condition)
        elif (
            not is_answered(test, condition) and test.field not in _ZERO_MEANS_NONE and not item_kind
        ) or value == Coating.UNKNOWN:
            value = None
        known[test.field] = value.value if hasattr(value, "value") else value
    known |= colour_facts(old_colour, new_colour)
    return Facts(tags, _derived(known), surface_m2, pieces, old_colour, new_colour, dict(schools))


def colour_facts(old: str, new: str | None) -> dict[str, Any]:
    """How the colour changes; nothing where none is chosen."""
    if new is None:
        return {}
    return {
        "hiding_coats": coats_to_hide(old, new, hiding_power(new).value),
        "lighter_by": lab(new).lightness - lab(old).lightness,
        "weak_colour": hiding_power(new).name == "WEAK",
        "dark_colour": lab(new).lightness < 35,
    }


def _derived(known: Mapping[str, Any]) -> dict[str, Any]:
    """Facts that follow from others."""
    out = dict(known)
    coating = out.get("coating")
    out["film"] = None if coating is None else coating in {c.value for c in FILMS}
    out["painted"] = None if coating is None else coating != Coating.BARE.value
    out["bare_spots_pct"] = (out.get("loose_pct") or 0.0) + (out.get("bare_pct") or 0.0)
    for name in ("coating", "masonry", "vinyl", "moisture"):
        out[f"{name}_known"] = out.get(name) is not None
    return {k: v for k, v in out.items() if v is not None}
