"""A large property for the speed table: 40 faces with ten openings, a base band and two items each."""

from datetime import datetime

from amber_gable.domain.job.job import JobBundle
from tests.jobs import one_wall
from tests.site_cases import record

FACES, OPENINGS = 40, 10
WASHED = datetime.fromisoformat("2025-09-14T09:00-05:00")


def large_bundle() -> JobBundle:
    raw = one_wall().model_dump(mode="json")
    faces, zones, items = [], [], []
    for n in range(FACES):
        openings = [
            {
                "id": f"o{n}-{i}",
                "name": f"Window {n}.{i}",
                "kind": "window",
                "width_m": 0.9,
                "height_m": 1.4,
                "x_m": 0.6 + 2.2 * (i % 5),
                "y_m": 1.2 + 2.8 * (i // 5),
            }
            for i in range(OPENINGS)
        ]
        outline = {"kind": "gable", "width_m": 11.5, "eave_height_m": 5.8, "rise_m": 2.4}
        face = {"id": f"f{n}", "name": f"Face {n}", "building": f"Block {n // 8}", "azimuth_deg": 45.0 * (n % 8)}
        faces.append({**face, "outline": outline, "openings": openings})
        base = {"face": f"f{n}", "colour_now": "#8a8a80"}
        zones.append({**base, "id": f"z{n}", "name": "Siding", "substrate": "wood-lap", "area": {"kind": "face"}})
        band = {"kind": "band", "from_m": 0, "to_m": 0.8}
        zones.append({**base, "id": f"b{n}", "name": "Base", "substrate": "stucco-smooth", "area": band})
        for i in range(2):
            spec = {"kind": "sash-window", "width_m": 0.9, "height_m": 1.4}
            place = {"x_m": openings[i]["x_m"], "y_m": openings[i]["y_m"]}
            items.append({**base, **place, "id": f"i{n}-{i}", "name": f"Sash {n}.{i}", "spec": spec})
    raw["property"] |= {"faces": faces, "zones": zones, "items": items}
    raw["job"]["finishes"] = [{**raw["job"]["finishes"][0], "zone": f"z{n}"} for n in range(FACES)]
    return JobBundle.model_validate(raw)


def sixty_parts() -> JobBundle:
    """Thirty faces of it with siding and base, each part with its steps; of every three parts one is washed, and one
    primed."""
    bundle = large_bundle()
    keep = {f.id for f in bundle.property.faces[:30]}
    place = bundle.property.model_copy(
        update={
            "faces": tuple(f for f in bundle.property.faces if f.id in keep),
            "zones": tuple(z for z in bundle.property.zones if z.face in keep),
            "items": (),
        }
    )
    first = bundle.job.finishes[0].model_copy(update={"system": "generic-peeling-wood"})
    finishes = tuple(first.model_copy(update={"zone": z.id}) for z in place.zones)
    lines: list[tuple[str, str, datetime, dict[str, object]]] = []
    for n, zone in enumerate(place.zones):
        done = ("", "wash", "wash scrape prime")[n % 3]
        if done:
            lines.append(("done", done, WASHED, {"parts": [("zone", zone.id)]}))
    job = bundle.job.model_copy(update={"finishes": finishes, "record": record(*lines)})
    return bundle.model_copy(update={"property": place, "job": job})


def long_terrace() -> JobBundle:
    """Its forty faces, each looking another way, with siding and base in five colours: 80 parts, 224 surfaces."""
    bundle, colours = large_bundle(), ("#e9dcc1", "#c8d0c0", "#aab4bd", "#d9c0a0", "#bcae9a")
    turned = [f.model_copy(update={"azimuth_deg": 9.0 * n}) for n, f in enumerate(bundle.property.faces)]
    zones = [z.model_copy(update={"colour_now": colours[3 * n % 5]}) for n, z in enumerate(bundle.property.zones)]
    place = {"id": "p-terrace", "faces": tuple(turned), "zones": tuple(zones), "items": ()}
    first = bundle.job.finishes[0].model_copy(update={"system": "generic-peeling-wood"})
    finishes = tuple(first.model_copy(update={"zone": z.id, "colour": colours[n % 5]}) for n, z in enumerate(zones))
    job = {"id": "long-terrace", "name": "The Long Terrace", "finishes": finishes}
    return bundle.model_copy(
        update={
            "property": bundle.property.model_copy(update=place),
            "job": bundle.job.model_copy(update=job),
        }
    )
