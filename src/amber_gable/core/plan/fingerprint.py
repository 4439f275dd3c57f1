"""What of a job a plan was made from, as a fingerprint: field by field, so that a plan is out of date only when
something it reads has changed."""

import hashlib
import json
from typing import Any

from amber_gable.domain.job import JobBundle
from amber_gable.domain.schools import DEFAULTS, AskedBy, topics_of

_FACE = {
    "id": True,
    "azimuth_deg": True,
    "tilt_deg": True,
    "outline": True,
    "exposure": True,
    "rain_exposure": True,
    "overhang_m": True,
    "horizon": True,
    "blocks": True,
    "openings": {"__all__": {"id", "kind", "width_m", "height_m", "x_m", "y_m", "casing_m"}},
    "obstacles": {"__all__": {"kind", "width_m", "height_m", "x_m", "y_m"}},
}
READS: dict[str, Any] = {
    "company": {"lead_cutoff_year", "schools", "rates", "factors"},
    "property": {
        "year_built": True,
        "lead_found": True,
        "latitude": True,
        "longitude": True,
        "altitude_m": True,
        "time_zone": True,
        "faces": {"__all__": _FACE},
        "zones": {"__all__": {"id", "face", "substrate", "area", "profile", "colour_now", "condition"}},
        "items": {"__all__": {"id", "face", "x_m", "y_m", "spec", "substrate", "colour_now", "condition"}},
    },
    "products": {
        "__all__": {
            "code", "family", "base", "volume_solids_pct", "dry_film_um", "spread_low_m2_l", "spread_high_m2_l",
            "air_min_c", "air_max_c", "surface_min_c", "surface_max_c", "rh_max_pct", "spread_min_c", "hold_h",
            "moisture_max_pct", "touch_h", "rain_ready_h", "recoat_h", "max_recoat_h", "foot_h", "methods", "primer",
            "solar_reflectance",
        }
    },
    "systems": {"__all__": {"id", "operations"}},
    "job": {
        "crew": True,
        "estimating": {"cold_pct", "access"},
        "schools": True,
        "finishes": {"__all__": {"zone", "item", "system", "operations", "colour", "aim", "schools"}},
    },
}  # fmt: skip
"""Names, notes, customers, photos and prices change no plan."""
_WORDS = ("note", "because", "marks", "photo", "moisture")
"""Of a condition, a test of it and a step: what people read and the drawing shows. A meter reading leaves the plan as
it is: what it forbids is a warning."""


def plan_fingerprint(bundle: JobBundle) -> str:
    """The same for two jobs that give the same plan in the same weather; fields that stand at their default count as
    not there, so that a field added to the program leaves old plans as they are."""
    used = {o.product for f in bundle.job.finishes for o in bundle.operations(f)}
    seen = bundle.model_dump(mode="json", include=READS, exclude_defaults=True)
    seen["products"] = sorted((p for p in seen.get("products", ()) if p["code"] in used), key=lambda p: p["code"])
    _schools_of_the_house(seen, bundle)
    systems = {f.system for f in bundle.job.finishes}
    seen["systems"] = [s for s in seen.get("systems", ()) if s["id"] in systems]
    for surface in (*seen["property"].get("zones", ()), *seen["property"].get("items", ())):
        condition = surface.get("condition", {})
        for record in (condition, *condition.get("tests", ())):
            _without_words(record)
    for step in _steps(seen):
        _without_words(step)
    return hashlib.sha256(json.dumps(seen, sort_keys=True).encode()).hexdigest()


def _schools_of_the_house(seen: dict[str, Any], bundle: JobBundle) -> None:
    """By what holds, wherever it was chosen."""
    whole = [t.code for asked in (AskedBy.SURVEY, AskedBy.WEATHER) for t in topics_of(asked)]
    for holder in (seen.get("company", {}), seen["job"]):
        own = {t: s for t, s in holder.pop("schools", {}).items() if t not in whole}
        if own:
            holder["schools"] = own
    policy = bundle.policy.model_dump(mode="json", exclude_defaults=True)
    seen["job"] |= {"policy": policy} if policy else {}
    if bundle.deduction != DEFAULTS["deduction"]:
        seen["job"]["deduction"] = bundle.deduction


def _without_words(record: dict[str, Any]) -> None:
    for name in _WORDS:
        record.pop(name, None)


def _steps(seen: dict[str, Any]) -> list[dict[str, Any]]:
    holders = (*seen["systems"], *seen["job"].get("finishes", ()))
    return [step for holder in holders for step in holder.get("operations", ())]
