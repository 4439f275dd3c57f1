"""What the rules know of a surface: its tags, its condition, its colours, where it is, and the schools that hold.

A fact that was not found out is absent; a rule decides for itself whether not knowing counts.
"""

from collections.abc import Collection, Mapping
from dataclasses import dataclass, field, replace
from datetime import UTC, tzinfo
from functools import lru_cache
from types import MappingProxyType
from typing import Any

from amber_gable.core.specification.cautions.limits import STAINS, moisture_limit
from amber_gable.core.specification.colour.difference import lab
from amber_gable.core.specification.colour.hiding import coats_to_hide, hiding_power, under_tinted
from amber_gable.core.survey.findings.essentials import is_answered
from amber_gable.core.survey.findings.moisture import judged_moisture
from amber_gable.domain.findings.condition import Coating, Condition, Gloss
from amber_gable.domain.findings.guided_tests import GUIDED_TESTS
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.aims import KEEPS_UP, Aim, based_on, usual_aim
from amber_gable.domain.work.schools import DEFAULTS

USUAL_COATS = 2
FIXINGS = 6
"""Nails or anchors of a pair of shutters, three a leaf (docs/trade.md §19)."""
CRACK_WIDTH_M, NAIL_HEAD_M2 = 0.05, 0.001
"""What a primer covers along a filled crack and over a filled nail head."""
FILMS = (Coating.WATERBORNE, Coating.OIL, Coating.FILM_STAIN, Coating.FACTORY, Coating.FACTORY_PRIMER)
TREATED_WET_YEARS = 0.35
"""So long new treated timber may hold the water of its treatment (docs/trade.md §3)."""
DRY_TIMBER = ("kiln-dried", "untreated")
OUTSIDE_TIMBER = frozenset({"deck", "railing", "stair", "beam", "floor"})
"""Where timber of unknown kind is presumed treated."""
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
_ZERO_MEANS_NONE = ("crack_m", "rot_m2", "caulk_m", "putty_m", "nails", "stubs", "bare_pct")
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

    def protecting(self, *, first: bool, contains: bool, dusty_days: int) -> "Facts":
        """The same surface, with what is done for its face along with it."""
        told = {
            "first_on_face": first,
            "contains": contains,
            "dusty_days": dusty_days,
            "contained_nights": dusty_days - 1,
        }
        return replace(self, known={**self.known, **told})

    def supposing(self, name: str, value: Any) -> "Facts":
        """The same surface with one reading as given."""
        known = {k: v for k, v in self.known.items() if k != "keeps_up" or name != "aim"}
        return replace(self, known=_derived({**known, name: value}, self.tags, self.schools))

    def under(self, topic: str, school: str) -> "Facts":
        """The same surface under another school."""
        schools = {**self.schools, topic: school}
        return replace(self, schools=schools, known=_derived(self.known, self.tags, schools))

    def with_finish(self, product: Product) -> "Facts":
        """The same surface, with what the chosen finish's own sheet says of hiding, moisture, coats and feet."""
        sheet = {
            "contrast": product.contrast,
            "sheet_moisture": product.moisture_max_pct,
            "sheet_coats": product.coats,
            "foot_h": product.foot_h,
        }
        told = {k: v for k, v in sheet.items() if v is not None}
        if not told:
            return self
        known = {**self.known, **told, **colour_facts(self.old_colour, self.new_colour, product.contrast)}
        return replace(self, known=_derived(known, self.tags, self.schools))


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
    old_sheet: bool = False,
    old_treated: bool = False,
    first_on_face: bool = False,
    obstacles: Collection[str] = (),
    hangs: str = "",
    beside: Mapping[str, Any] = MappingProxyType({}),
    fixing: str = "",
    tz: tzinfo = UTC,
) -> Facts:
    """The facts of a zone or item as surveyed. `lead`: lead paint is presumed or was found; `old_sheet`: a cement sheet
    here may be from before the 1990s; `old_treated`: treated timber here may be from before 2004; `first_on_face`: what
    is done once for a face is done with this part, containment too where it was ever painted; `hangs`: what hangs on
    the face and where, in words; `beside`: facts of what stays beside it, what was taken away from it and where it is
    taped (core/survey/amounts); `fixing`: how an item hangs; `tz`: the house's own time, by which readings are of one
    day."""
    tags = surface_tags(substrate, item_kind)
    aim = aim or usual_aim(tags)
    known: dict[str, Any] = {
        "lead_presumed": lead,
        "aim": aim.value,
        "height_m": height_m,
        "tilt_deg": tilt_deg,
        "wires": wires,
        "surface_m2": surface_m2,
        "openings": openings,
        "pieces": pieces,
        "first_on_face": first_on_face,
        "contains": first_on_face and condition.coating is not Coating.BARE,
        "dusty_days": 1,
        "contained_nights": 0,
        "hangs": hangs or "What hangs here",
        **{f"near_{kind.replace('-', '_')}": True for kind in obstacles},
        **beside,
        **({"fixing": fixing, "fixings": FIXINGS * pieces} if fixing else {}),
    }
    for test in GUIDED_TESTS:
        value = getattr(condition, test.field)
        if test.field == "moisture":
            value = judged_moisture(condition, tz)
        elif (
            not is_answered(test, condition) and test.field not in _ZERO_MEANS_NONE and not item_kind
        ) or value == Coating.UNKNOWN:
            value = None
        known[test.field] = value.value if hasattr(value, "value") else value
    # Behind what is taken away the wall is as bare as where it was scraped.
    if known.get("gone_pct"):
        known["bare_pct"] = min(100.0, (known.get("bare_pct") or 0.0) + known["gone_pct"])
    known |= colour_facts(old_colour, new_colour)
    known["asbestos"] = "fibre-cement" in tags and (condition.asbestos or (condition.asbestos is None and old_sheet))
    known["old_treated"] = "wood" in tags and condition.timber == "pressure-treated" and old_treated
    known["aged_on"] = next((t.on for t in condition.tests if t.test == "age"), None)
    return Facts(tags, _derived(known, tags, schools), surface_m2, pieces, old_colour, new_colour, dict(schools))


@lru_cache(maxsize=2000)
def colour_facts(old: str, new: str | None, contrast: float | None = None) -> Mapping[str, Any]:
    """How the colour changes; nothing where none is chosen. `contrast` is the chosen finish's own; `tint_saves` whether
    a tinted primer makes fewer coats in all, or as many of a colour that hides weakly (True), or as many with one of
    them cheaper (False)."""
    if new is None:
        return MappingProxyType({})
    power = contrast or hiding_power(new).value
    alone = coats_to_hide(old, new, power)
    primed = 1 + max(USUAL_COATS, coats_to_hide(under_tinted(old, new), new, power))
    return MappingProxyType(
        {
            "hiding_coats": alone,
            "tint_saves": (primed < alone or hiding_power(new).name == "WEAK") if primed <= alone else None,
            "lighter_by": lab(new).lightness - lab(old).lightness,
            "weak_colour": hiding_power(new).name == "WEAK",
            "dark_colour": lab(new).lightness < 35,
            "darker": lab(new).lightness < lab(old).lightness - 2,
            "colour_changes": old != new,
        }
    )


def _derived(known: Mapping[str, Any], tags: frozenset[str], schools: Mapping[str, str]) -> dict[str, Any]:
    """Facts that follow from others. What is only kept up is worked on by the rules of the finish that is there."""
    out = dict(known)
    if Aim(out["aim"]) in KEEPS_UP:
        out |= {"keeps_up": out["aim"], "aim": based_on(Aim(out["aim"]), tags).value}
    coating = out.get("coating")
    out["lead"] = out["lead_presumed"] if out.get("lead_found") is None else out["lead_found"]
    if coating == Coating.FACTORY_PRIMER.value:
        out["gloss"] = out.get("gloss") or Gloss.DULL.value
    out["film"] = None if coating is None else coating in {c.value for c in FILMS}
    out["painted"] = None if coating is None else coating != Coating.BARE.value
    out["bare_spots_pct"] = (out.get("loose_pct") or 0.0) + (out.get("bare_pct") or 0.0)
    strips = schools.get("failing") == "strip" and (out.get("loose_pct") or 0.0) > 0
    out["disturbed_m2"] = out["surface_m2"] * (100.0 if strips else out.get("loose_pct") or 0.0) / 100
    out["rusty_pct"] = max(out.get("rust_pct") or 0.0, out.get("bare_pct") or 0.0) + (out.get("loose_pct") or 0.0)
    area = max(out["surface_m2"], 0.01)
    out["rot_pct"] = 100 * (out.get("rot_m2") or 0.0) / area
    out["crack_pct"] = 100 * CRACK_WIDTH_M * (out.get("crack_m") or 0.0) / area
    out["nail_pct"] = 100 * NAIL_HEAD_M2 * (out.get("nails") or 0) / area
    out["patch_made"] = out.get("adhesion") is not None
    stained = "wood" in tags and out["aim"] in STAINS
    greyed_rough = "rough" in tags and out.get("greyed") is True
    acid = ("deck" in tags or stained or greyed_rough) and out.get("keeps_up") in (None, Aim.STRIP_ONLY.value)
    out["acid_follows"] = True if acid else None
    young = coating == Coating.BARE.value and (out.get("age_years") or 1.0) <= TREATED_WET_YEARS
    treated = out.get("timber") == "pressure-treated"
    presumed = out.get("timber") not in DRY_TIMBER and tags & OUTSIDE_TIMBER
    out["new_treated"] = True if young and "wood" in tags and (treated or presumed) else None
    out["soft"] = True if "limestone" in tags or out.get("masonry") == "dusty" else None
    out["fittings"] = True if any(out.get(f"near_{kind}") for kind in ("lamp", "other")) else None
    out["failing_pct"] = out["bare_spots_pct"] + (out.get("crack_m") or 0.0)
    limit = moisture_limit(tags, out["aim"], schools, out.get("sheet_moisture"))
    out.setdefault("foot_h", 24.0)
    out["moisture_limit"], out["moisture_source"] = (limit.value, limit.source) if limit else (None, None)
    for name in ("coating", "masonry", "vinyl", "moisture", "made_colour", "age_years", "absorbency"):
        out[f"{name}_known"] = out.get(name) is not None
    return {k: v for k, v in out.items() if v is not None}
