"""Small jobs for tests."""

import json
from typing import Any

from amber_gable.demo import PRODUCTS, demo_bundles
from amber_gable.domain.house.survey import Property
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.generic_products import GENERIC_PRODUCTS
from amber_gable.domain.paint.generic_systems import GENERIC_SYSTEMS
from amber_gable.domain.paint.product import Product
from amber_gable.exchange.job.bundle import load_bundle
from amber_gable.exchange.stores.products import read_products

FOOT = 0.3048


def demo_job(stem: str) -> JobBundle:
    """A demo job by its file's name."""
    name, text = next((n, t) for n, t in demo_bundles() if n.startswith(stem))
    return load_bundle(text, name)


def demo_products() -> list[Product]:
    """What the demo company's stores hold."""
    return read_products(PRODUCTS.read_text(encoding="utf-8"), PRODUCTS.name)


def coopers_rise() -> JobBundle:
    return demo_job("1-coopers-rise")


def coopers_rise_json() -> dict[str, Any]:
    raw: dict[str, Any] = json.loads(demo_bundles()[0][1])
    return raw


def one_wall(
    width_m: float = 6.0,
    height_m: float = 3.0,
    openings: tuple[dict[str, Any], ...] = (),
    system: str = "generic-sound-siding",
    substrate: str = "wood-lap",
    azimuth: float = 0.0,
    **job: Any,
) -> JobBundle:
    """One wall at the demo's place with one zone and one finish."""
    return JobBundle.model_validate(
        {
            "company": {"id": "test", "name": "Test"},
            "property": {
                "id": "place",
                "name": "Place",
                "place": "Nowhere",
                "latitude": 45.25,
                "longitude": -62.1,
                "time_zone": "America/Halifax",
                "faces": [
                    {
                        "id": "wall",
                        "name": "Wall",
                        "azimuth_deg": azimuth,
                        "outline": {"kind": "rectangle", "width_m": width_m, "height_m": height_m},
                        "openings": [{"kind": "window", "name": o["id"], **o} for o in openings],
                    }
                ],
                "zones": [
                    {
                        "id": "siding",
                        "name": "Siding",
                        "face": "wall",
                        "substrate": substrate,
                        "area": {"kind": "face"},
                        "colour_now": "#8a8a80",
                    }
                ],
            },
            "products": list(GENERIC_PRODUCTS.values()),
            "systems": list(GENERIC_SYSTEMS),
            "job": {
                "id": "job",
                "name": "Job",
                "customer": "Somebody",
                "finishes": [{"zone": "siding", "system": system, "colour": "#e9dcc1", "colour_name": "Oat"}],
                **job,
            },
        }
    )


def opening(id_: str, x: float, y: float, width: float, height: float) -> dict[str, Any]:
    return {"id": id_, "x_m": x, "y_m": y, "width_m": width, "height_m": height}


def one_face(
    outline: dict[str, Any],
    openings: list[dict[str, Any]],
    zones: list[dict[str, Any]] | None = None,
    **face: Any,
) -> Property:
    """A property of one face 'face' whose rest is the zone 'field'; other zones by id and area."""
    filled = [{"kind": "window", "name": o["id"], **o} for o in openings]
    field = [*(zones or []), {"id": "field", "area": {"kind": "face"}}]
    return Property.model_validate(
        {
            "id": "p",
            "name": "P",
            "place": "Nowhere",
            "latitude": 45.25,
            "longitude": -62.1,
            "time_zone": "America/Halifax",
            "faces": [
                {"id": "face", "name": "Face", "azimuth_deg": 180, "outline": outline, "openings": filled, **face}
            ],
            "zones": [
                {"name": z["id"], "face": "face", "substrate": "wood-lap", "colour_now": "#808080", **z} for z in field
            ],
        }
    )
