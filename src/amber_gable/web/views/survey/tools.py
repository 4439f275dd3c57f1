"""What can be drawn on a face: each tool with its usual size, the name the next one gets, and the form behind it."""

from dataclasses import dataclass
from typing import Any
from urllib.parse import urlencode

from amber_gable.domain.house.items import ITEM_NAMES
from amber_gable.domain.house.survey import ObstacleKind, OpeningKind
from amber_gable.web.views.survey.usual_parts import blank_part
from amber_gable.web.views.units import Units

_OPENINGS = {"window": "Window", "door": "Door", "garage-door": "Garage door", "vent": "Vent"}
_OBSTACLES = {
    "planting": "Planting",
    "meter": "Meter",
    "lamp": "Lamp",
    "air-conditioner": "Air-conditioning unit",
    "wires": "Wires",
    "vehicle": "Vehicle",
    "neighbour": "Neighbour close by",
    "children-or-pets": "Children or pets",
    "other": "Something else",
}
_WIDTHS = ("width_m", "spec.width_m", "spec.leaf_width_m", "spec.length_m")
_HEIGHTS = ("height_m", "spec.height_m")


@dataclass(frozen=True)
class Tool:
    """`fields` are posted with the drawn place; `width` and `height` name the fields that the drawing fills (a shutter
    pair's leaf is half of what is drawn: `halves`)."""

    group: str
    kind: str
    label: str
    query: str
    fields: dict[str, str]
    width: str
    height: str
    halves: bool


def drawing_tools(taken: set[str], units: Units) -> list[Tool]:
    """Tools in the order of a survey; names count on from those that are taken."""
    tools = [_tool("Openings", "opening", "kind", k.value, _OPENINGS[k], taken, units) for k in OpeningKind]
    tools.append(_zone(taken, units))
    tools += [_tool("Items", "item", "spec.kind", k, name, taken, units) for k, name in ITEM_NAMES.items()]
    return tools + [_tool("In front", "obstacle", "kind", k.value, _OBSTACLES[k], taken, units) for k in ObstacleKind]


def _tool(group: str, kind: str, key: str, value: str, label: str, taken: set[str], units: Units) -> Tool:
    fields = blank_part(kind, {key: value}, units)
    width = next((w for w in _WIDTHS if w in fields), "")
    height = next((h for h in _HEIGHTS if h in fields), "")
    fields["name"] = _next(label, taken)
    return Tool(group, kind, label, urlencode({key: value}), fields, width, height, "leaf" in width)


def _zone(taken: set[str], units: Units) -> Tool:
    fields: dict[str, Any] = blank_part("zone", {"area.kind": "region"}, units) | {"name": _next("Zone", taken)}
    query = urlencode({"area.kind": "region", "name": fields["name"]})
    return Tool("Zone", "zone", "Zone", query, fields, "", "", False)


def _next(label: str, taken: set[str]) -> str:
    number = 1
    while f"{label} {number}" in taken:
        number += 1
    return f"{label} {number}"
