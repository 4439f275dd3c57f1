"""Usual cautions for the work of a day (handbook §13). They remind; local code and licensed practice decide."""

from dataclasses import dataclass

from amber_gable.domain.plan import Task
from amber_gable.domain.product import OperationKind
from amber_gable.domain.survey import Face, Property

LEAD_CUTOFF_YEAR = 1978
LADDER_M = 3.0
ROOF_TILT = (5.0, 85.0)


@dataclass(frozen=True)
class Caution:
    id: str
    title: str
    text: str


LEAD = Caution(
    "lead",
    "Presume lead paint",
    "Built before 1978 or year unknown: presume lead until tested. Keep it wet, no dry power sanding or grinding "
    "without a HEPA shroud, no open flame, no pressure washing. Contain, clean with a HEPA vacuum, "
    "keep children and pets away. Where the law asks for certification, certified people only.",
)
HEIGHT = Caution(
    "height",
    "Work at height",
    "Ladder on firm level ground, 4 to 1, tied or footed, three points of contact, belt buckle between the rails. "
    "Above about 3 m prefer a tower or scaffold. Keep clear of overhead wires.",
)
ROOF = Caution(
    "roof",
    "Roof work",
    "Fall protection as local code asks, dry and cool surface, start early, a way down kept free.",
)
INJECTION = Caution(
    "injection",
    "Airless spray injects skin",
    "Never point the gun at anyone, never feel for leaks by hand; lock the trigger and relieve pressure before "
    "cleaning. An injection is an emergency whatever it looks like: hospital at once.",
)
BLEACH = Caution(
    "bleach",
    "Wash chemicals",
    "Never mix bleach with ammonia or acid. Goggles and gloves; wet planting first, rinse after.",
)
DUST = Caution("dust", "Sanding dust", "Eye protection and a particulate respirator; sheet the ground.")
RAGS = Caution(
    "rags",
    "Oily rags",
    "Rags soaked in alkyd or oil heat by themselves: dry flat outdoors or in water in a lidded can.",
)


def day_cautions(property_: Property, tasks: list[Task], alkyd_products: set[str]) -> list[Caution]:
    """Cautions that apply to these tasks, gravest first, each once."""
    faces: dict[str, Face] = {f.id: f for f in property_.faces}
    kinds = {t.kind for t in tasks}
    used = [faces[t.face] for t in tasks if t.face in faces]
    disturbs = kinds & {OperationKind.WASH, OperationKind.SCRAPE, OperationKind.SAND, OperationKind.REPAIR}
    old = property_.year_built is None or property_.year_built < LEAD_CUTOFF_YEAR
    checks = [
        (LEAD, bool(disturbs) and old),
        (INJECTION, any(t.method is not None and t.method.sprays for t in tasks)),
        (ROOF, any(ROOF_TILT[0] < f.tilt_deg < ROOF_TILT[1] for f in used)),
        (HEIGHT, any(f.tilt_deg >= ROOF_TILT[1] and f.top_m > LADDER_M for f in used)),
        (BLEACH, OperationKind.WASH in kinds),
        (DUST, bool(kinds & {OperationKind.SCRAPE, OperationKind.SAND})),
        (RAGS, any(t.product in alkyd_products for t in tasks)),
    ]
    return [caution for caution, applies in checks if applies]
