"""Older job bundles brought to the present version, one step at a time."""

from copy import deepcopy
from typing import Any

from amber_gable.domain.paint.families import FAMILY_NAMES, Family

PRESENT = 6


def brought_up(raw: dict[str, Any]) -> dict[str, Any]:
    """The bundle in the present version's fields. What cannot be understood is left for the validation to refuse."""
    version = raw.get("version")
    if version not in (1, 2, 3, 4, 5):
        return raw
    out = deepcopy(raw)
    if version == 1:
        _from_1(out)
    if version <= 2:
        for product in _records(out.get("products")):
            product_from_2(product)
    # Versions 4 and 6 only added fields that may be missing: a job from before starts with nothing done.
    if version <= 4 and isinstance(out.get("job"), dict):
        job_from_4(out["job"])
    out["version"] = PRESENT
    return out


def _from_1(out: dict[str, Any]) -> None:
    property_ = out.get("property")
    if isinstance(property_, dict):
        for face in _records(property_.get("faces")):
            face_from_1(face)
        for zone in _records(property_.get("zones")):
            if isinstance(zone.get("condition"), dict):
                condition_from_1(zone["condition"])


def _records(value: Any) -> list[dict[str, Any]]:
    return [r for r in value if isinstance(r, dict)] if isinstance(value, list) else []


def face_from_1(face: dict[str, Any]) -> None:
    """Version 1 knew rectangles with an optional gable in the middle, as three fields of the face."""
    width, height = face.pop("width_m", None), face.pop("eave_height_m", None)
    rise = face.pop("gable_rise_m", 0) or 0
    face["outline"] = (
        {"kind": "gable", "width_m": width, "eave_height_m": height, "rise_m": rise}
        if rise
        else {"kind": "rectangle", "width_m": width, "height_m": height}
    )


def condition_from_1(condition: dict[str, Any]) -> None:
    """Version 1 had one wood moisture figure without a date, and a tick for bare surfaces."""
    reading = condition.pop("wood_moisture_pct", None)
    if reading is not None:
        condition["moisture"] = [{"pct": reading}]
    if condition.pop("bare", False):
        condition["coating"] = "bare"


def job_from_4(job: dict[str, Any]) -> None:
    """Version 4 had the schools of openings and weather in fields of their own."""
    policy, chosen = job.get("policy"), {"deduction": job.pop("deduction", None)}
    if isinstance(policy, dict):
        chosen |= {topic: policy.pop(topic, None) for topic in ("sun", "hold", "dew")}
    own = job.get("schools", {})
    if isinstance(own, dict):
        usual = {"deduction": "threshold", "sun": "shade-when-warm", "hold": "touch-dry", "dew": "rain-ready"}
        job["schools"] = own | {t: code for t, code in chosen.items() if code not in (None, usual[t])}


_FAMILIES = {name.lower(): family for family, name in FAMILY_NAMES.items()}
_COLD = 5.0


def product_from_2(product: dict[str, Any]) -> None:
    """Version 2 had the family as free words. What is not known among them becomes 'other', its words kept as note."""
    words = product.get("family")
    if not isinstance(words, str):
        return
    family = _FAMILIES.get(words.lower(), Family.OTHER)
    if family is Family.EXTERIOR_ACRYLIC and (product.get("surface_min_c") or 0) < _COLD:
        family = Family.LOW_TEMPERATURE_ACRYLIC
    if family is Family.DECK_STAIN and "solid" in str(product.get("name")).lower():
        family = Family.SOLID_STAIN
    if family is Family.FLOOR_WATERBORNE and product.get("base") == "alkyd":
        family = Family.FLOOR_ALKYD
    if family is Family.OTHER:
        product["note"] = words
    product["family"] = family.value
