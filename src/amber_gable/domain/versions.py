"""Older job bundles brought to the present version, one step at a time."""

from copy import deepcopy
from typing import Any

PRESENT = 2


def brought_up(raw: dict[str, Any]) -> dict[str, Any]:
    """The bundle in the present version's fields. What cannot be understood is left for the validation to refuse."""
    if raw.get("version") != 1:
        return raw
    out = deepcopy(raw)
    out["version"] = 2
    property_ = out.get("property")
    if isinstance(property_, dict):
        for face in _records(property_.get("faces")):
            face_from_1(face)
        for zone in _records(property_.get("zones")):
            if isinstance(zone.get("condition"), dict):
                condition_from_1(zone["condition"])
    return out


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
