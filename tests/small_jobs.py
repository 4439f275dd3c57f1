"""Small jobs as practitioners take them: what was found, and the finish that is wished; the steps are derived."""

from collections.abc import Callable
from typing import Any

from amber_gable.core.specification.derived.completing import completed
from amber_gable.domain.job.job import JobBundle
from tests.jobs import demo_products

_PLACE = {
    "latitude": 45.25,
    "longitude": -62.1,
    "time_zone": "America/Halifax",
    "place": "Saltmarsh Quay",
}


def _named(id_: str) -> dict[str, Any]:
    return {"id": id_, "name": id_.replace("-", " ").title()}


def _face(id_: str, azimuth: float, width: float = 5.0, height: float = 2.8, **more: Any) -> dict[str, Any]:
    outline = {"kind": "rectangle", "width_m": width, "height_m": height}
    return _named(id_) | {"azimuth_deg": azimuth, "outline": outline} | more


def _item(id_: str, face: str, spec: dict[str, Any], **more: Any) -> dict[str, Any]:
    return _named(id_) | {"face": face, "spec": spec, "colour_now": "#e4e0d4"} | more


def _found(**found: Any) -> dict[str, Any]:
    """A condition whose zeros were looked for."""
    return {"tests": [{"test": "scrape"}], **found}


def _job(
    id_: str,
    faces: list[dict[str, Any]],
    items: list[dict[str, Any]],
    zones: list[dict[str, Any]] | None = None,
    year: int = 1996,
    wishes: dict[str, dict[str, Any]] | None = None,
    **job: Any,
) -> JobBundle:
    """Every part that is not left is painted cream, or as `wishes` say by its id."""
    zones = zones or []
    finishes = [
        {kind: part["id"], "colour": "#e9dcc1", "colour_name": "Cream"} | (wishes or {}).get(part["id"], {})
        for kind, parts in (("zone", zones), ("item", items))
        for part in parts
        if part["id"] not in {x.get(kind) for x in job.get("left", ())}
    ]
    place = _PLACE | {"id": f"p-{id_}", "name": _named(id_)["name"], "year_built": year}
    raw = {
        "company": {"id": "amber", "name": "Amber & Daughters"},
        "property": place | {"faces": faces, "items": items, "zones": zones},
        "products": [p.model_dump(mode="json") for p in demo_products()],
        "job": {"id": id_, "name": place["name"], "customer": "Ines Calder", "finishes": finishes, **job},
    }
    return completed(JobBundle.model_validate(raw))


STEEL_DOOR = {"kind": "garage-door", "width_m": 2.5, "height_m": 2.1}
SASH = {"kind": "sash-window", "width_m": 0.9, "height_m": 1.5, "panes_across": 2, "panes_down": 2}
SHUTTERS = {"kind": "shutter-pair", "leaf_width_m": 0.4, "height_m": 1.4, "apart_m": 0.9}


def garage_door() -> JobBundle:
    """A steel sectional door of ten years, sound and a little chalky, sprayed; nothing else."""
    door = _item("garage-door", "garage-front", STEEL_DOOR, substrate="metal-door",
                 condition=_found(coating="waterborne", gloss="satin", chalking="light", loose_pct=0))  # fmt: skip
    return _job("garage-door", [_face("garage-front", 90.0)], [door], schools={"method": "spray"}, crew={"people": 1})


def two_sashes(place: str = "in-place") -> JobBundle:
    """Two old sash windows of a house of 1931, glossy oil, 3 m of putty gone in each."""
    found = _found(coating="oil", gloss="gloss", chalking="none", loose_pct=5, putty_m=3.0)
    sashes = [_item(f"sash-{n}", "street-front", SASH, x_m=float(n), condition=found) for n in (1, 2)]
    front = _face("street-front", 180.0)
    return _job("two-sashes", [front], sashes, year=1931, crew={"people": 1}, schools={"place": place})


def one_sash() -> JobBundle:
    """A sash window of a house of 1996, sound and stuck, painted where it hangs."""
    found = _found(coating="waterborne", gloss="dull", chalking="none", loose_pct=0)
    sash = _item("sash", "garden-front", SASH, condition=found)
    return _job("one-sash", [_face("garden-front", 0.0)], [sash], crew={"people": 1})


def five_shutters(place: str = "in-place") -> JobBundle:
    """Five pairs of wooden shutters, sound film paint, upstairs and down."""
    found = _found(coating="waterborne", gloss="dull", chalking="none", loose_pct=0)
    pairs = [
        _item(f"shutters-{n}", "street-front", SHUTTERS, x_m=1.5 * n, y_m=0.9 if n < 3 else 3.7, condition=found)
        for n in range(1, 6)
    ]
    front = _face("street-front", 180.0, 9.0, 5.6)
    return _job("five-shutters", [front], pairs, crew={"people": 2}, schools={"place": place})


def one_item(spec: dict[str, Any], **job: Any) -> JobBundle:
    """One sound item, called `it`, on a wall to the south."""
    it = _item("it", "front", spec, condition=_found(coating="waterborne", gloss="dull", loose_pct=0))
    return _job("one-item", [_face("front", 180.0)], [it], crew={"people": 1}, **job)


def door_and_shutters() -> JobBundle:
    """A door painted where it hangs, and louvred shutters beside it, with more to paint, on stands."""
    found = _found(coating="waterborne", gloss="dull", chalking="none", loose_pct=0)
    door = {"kind": "flush-door", "width_m": 0.9, "height_m": 2.0}
    items = [_item("shutters", "street-front", SHUTTERS | {"louvred": True}, x_m=1.0, condition=found),
             _item("door", "street-front", door, x_m=4.0, condition=found)]  # fmt: skip
    wishes = {"shutters": {"schools": {"place": "stands"}}}
    return _job("door-and-shutters", [_face("street-front", 180.0)], items, wishes=wishes, crew={"people": 1})


def entry_door(look: str = "counted") -> JobBundle:
    """A sound panelled door, of which a third coat may be wanted."""
    spec = {"kind": "panelled-door", "width_m": 0.95, "height_m": 2.1, "panels": 6}
    door = _item("door", "porch", spec, condition=_found(coating="waterborne", gloss="dull", loose_pct=0))
    return _job("entry-door", [_face("porch", 180.0)], [door], crew={"people": 1}, schools={"look": look})


def shop_front(**job: Any) -> JobBundle:
    """A rendered shop front: wall and one sash are painted; the door stays as it is, window makers bring a brown
    gutter, the sign goes for good."""
    wall = _named("wall") | {
        "face": "street", "substrate": "stucco-smooth", "area": {"kind": "face"}, "colour_now": "#c9bfae",
        "condition": _found(coating="waterborne", gloss="dull", chalking="none", loose_pct=0, masonry="normal"),
    }  # fmt: skip
    items = [
        _item("door", "street", {"kind": "panelled-door", "width_m": 1.0, "height_m": 2.1}, x_m=0.5),
        _item(
            "sash", "street", SASH, x_m=3.0, y_m=0.9, condition=_found(coating="waterborne", gloss="dull", loose_pct=0)
        ),
        _item("gutter", "street", {"kind": "gutter", "length_m": 6.0, "downspouts": 1}, y_m=3.1),
        _item("sign", "street", {"kind": "sign-band", "width_m": 3.0, "height_m": 0.5}, x_m=1.5, y_m=2.5),
    ]
    left = [
        {"item": "door"},
        {"item": "gutter", "leaving": "replaced", "colour": "#5a3d2b", "colour_name": "Brown", "by": "Window makers"},
        {"item": "sign", "leaving": "taken-away"},
    ]
    front = _face("street", 180.0, 6.0, 3.2)
    return _job("shop-front", [front], items, [wall], left=left, crew={"people": 1}, **job)


def cold_front() -> JobBundle:
    """A small sided front that must be done in the last weeks that hold, two people."""
    wall = _named("siding") | {
        "face": "front", "substrate": "wood-lap", "area": {"kind": "face"}, "colour_now": "#7d8a86",
        "condition": _found(coating="waterborne", gloss="dull", chalking="none", loose_pct=5, mildew_pct=0,
                            moisture=[{"pct": 13}]),
    }  # fmt: skip
    front = _face("front", 180.0, 7.0, 3.0)
    return _job("cold-front", [front], [], [wall], crew={"people": 2}, schools={"season": "cold"})


def stoop() -> JobBundle:
    """A painted concrete stoop with two stubs of an old railing, sealed over its colour."""
    outline = {"kind": "rectangle", "width_m": 3.0, "height_m": 1.5}
    slab = _named("slab") | {
        "face": "stoop", "substrate": "concrete-slab", "area": {"kind": "face"}, "colour_now": "#8f8b84",
        "condition": _found(coating="waterborne", gloss="dull", loose_pct=5, stubs=2),
    }  # fmt: skip
    face = _named("stoop") | {"azimuth_deg": 180.0, "tilt_deg": 0.0, "outline": outline}
    grey = {"slab": {"colour": "#6b6f70", "colour_name": "Slate"}}
    return _job(
        "stoop",
        [face],
        [],
        [slab],
        wishes=grey,
        crew={"people": 1},
        schools={"topcoat": "tinted", "sun": "temperature"},
    )


def deck(aim: str) -> JobBundle:
    """A deck of 38 m² with last year's penetrating stain in it, to be kept up in one way or another."""
    outline = {"kind": "rectangle", "width_m": 9.5, "height_m": 4.0}
    boards = _named("boards") | {
        "face": "deck", "substrate": "wood-deck", "area": {"kind": "face"}, "colour_now": "#8a6a48",
        "condition": _found(coating="penetrating-stain", greyed=False, loose_pct=0, moisture=[{"pct": 12}]),
    }  # fmt: skip
    face = _named("deck") | {"azimuth_deg": 180.0, "tilt_deg": 0.0, "outline": outline}
    return _job("deck", [face], [], [boards], wishes={"boards": {"aim": aim, "colour": "#8a6a48"}}, crew={"people": 1})


ITEMS_ONLY: dict[str, Callable[[], JobBundle]] = {
    "garage-door": garage_door,
    "two-sashes": two_sashes,
    "five-shutters": five_shutters,
}
