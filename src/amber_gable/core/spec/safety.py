"""Safety cards (handbook §13): what the work contains decides which apply. They remind and forbid what is always wrong;
local code and licensed practice decide the rest."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, field

from amber_gable.core.spec.facts import surface_tags
from amber_gable.core.spec.part_facts import lead_presumed
from amber_gable.core.survey.painted import PaintedPart, painted_parts
from amber_gable.domain.job import JobBundle
from amber_gable.domain.operation import OperationKind, Technique
from amber_gable.domain.plan import Task
from amber_gable.domain.product import Hazard
from amber_gable.domain.schools import Method
from amber_gable.domain.survey import Item, ObstacleKind

K, T = OperationKind, Technique
LADDER_M = 3.0
ROOF_TILT = (5.0, 85.0)
HEAT_C, COLD_C = 30.0, 5.0
_DISTURBS = {K.WASH, K.STRIP, K.SCRAPE, K.SAND, K.REPAIR, K.PUTTY}
_ABRADES = {T.HAND_SAND, T.POWER_SAND, T.HEPA_SAND, T.WIRE_BRUSH, T.DRY_SCRAPE, T.GRIND}
LEAD_FORBIDS = (
    T.PRESSURE_WASH,
    T.ROTARY_NOZZLE,
    T.DRY_SCRAPE,
    T.HAND_SAND,
    T.POWER_SAND,
    T.GRIND,
    T.HEAT_GUN,
    T.OPEN_FLAME,
    T.SOLVENT_STRIPPER,
    T.BLOW_OFF,
    T.WIRE_BRUSH,
)
SILICA_FORBIDS = (T.GRIND,)
SHEET_FORBIDS = (T.POWER_SAND, T.GRIND, T.DRY_SCRAPE, T.BLOW_OFF)


@dataclass
class Content:
    """What a piece of work contains, as the cards ask for it."""

    kinds: set[OperationKind] = field(default_factory=set)
    techniques: set[Technique] = field(default_factory=set)
    methods: set[Method] = field(default_factory=set)
    hazards: set[Hazard] = field(default_factory=set)
    tags: set[str] = field(default_factory=set)
    lead: bool = False
    roof: bool = False
    high: bool = False
    wires: bool = False
    hottest_c: float | None = None
    coldest_c: float | None = None


@dataclass(frozen=True)
class Card:
    """A safety card. `forbids` are techniques blocked wherever the card applies to the surface."""

    id: str
    title: str
    text: str
    applies: Callable[[Content], bool]
    forbids: tuple[Technique, ...] = ()


CARDS = (
    Card("lead", "Presume lead paint",
         "Presume lead until tested. Keep it wet and the dust little: no dry sanding or scraping, no grinding without "
         "a HEPA shroud, no open flame, no heat gun over 590 °C, no methylene-chloride stripper, no pressure washing. "
         "Contain, clean with a HEPA vacuum certified to 99.97 % at 0.3 µm, keep children and pets away. Where the law "
         "asks for certification, certified people only; large jobs go to certified firms.",
         lambda c: c.lead and bool(c.kinds & _DISTURBS), LEAD_FORBIDS),
    Card("injection", "Airless spray injects skin",
         "Never point the gun at anyone, never feel for leaks by hand; lock the trigger and relieve pressure before "
         "cleaning. An injection is an emergency whatever it looks like: hospital at once, with the injection card.",
         lambda c: Method.AIRLESS in c.methods),
    Card("roof", "Roof work",
         "Fall protection as local code asks, dry and cool surface, start early, a way down kept free, edge marked.",
         lambda c: c.roof),
    Card("height", "Work at height",
         "Ladder on firm level ground, 4 to 1, tied or footed, three points of contact, belt buckle between the rails, "
         "never over-reach: move it. Hoist tools by bucket and rope. Above about 3 m prefer a tower or scaffold: "
         "level, outriggers out, tied. Hard hat below.",
         lambda c: c.high),
    Card("wires", "Overhead wires and live fittings",
         "Keep ladders, poles and lifts clear of overhead wires; have lines sheathed or cut off. Sign lighting and "
         "lamps: isolate before touching.",
         lambda c: c.wires or "sign" in c.tags),
    Card("bleach", "Wash chemicals",
         "Never mix bleach with ammonia or acid. Goggles and gloves; wet planting first, rinse after.",
         lambda c: bool(c.techniques & {T.BLEACH, T.FUNGICIDE, T.RESTORER, T.BRIGHTENER})),
    Card("caustic", "Caustic stripper",
         "It burns skin and eyes: goggles, gloves, long sleeves, water at hand. Cover glass, vinyl and plants. Not on "
         "walls. Read the sheet.",
         lambda c: bool(c.techniques & {T.STRIPPER, T.SOLVENT_STRIPPER})),
    Card("jet", "Pressure washing",
         "A jet injects skin and cuts wood and glass: widest fan, both hands, never at people, never from a ladder.",
         lambda c: bool(c.techniques & {T.PRESSURE_WASH, T.ROTARY_NOZZLE})),
    Card("silica", "Masonry dust",
         "It holds silica, which scars the lungs: wet methods, respirator, no dry cutting or grinding.",
         lambda c: "masonry" in c.tags and bool(c.kinds & {K.SCRAPE, K.SAND, K.REPAIR}), SILICA_FORBIDS),
    Card("sheets", "Fibre-cement sheets",
         "Their dust holds silica, and old sheets may hold asbestos: have them tested first. Wet methods only, no "
         "power sanding, no dry scraping, no blowing off.",
         lambda c: "fibre-cement" in c.tags, SHEET_FORBIDS),
    Card("dust", "Sanding dust",
         "Eye protection and a particulate respirator; sheet the ground.",
         lambda c: bool(c.techniques & _ABRADES)),
    Card("spray", "Spraying",
         "Respirator (particulate, and vapour as the sheet says), eye and ear protection, gloves. Wind away from cars, "
         "glass and neighbours; never spray up into the wind.",
         lambda c: any(m.sprays for m in c.methods)),
    Card("fumes", "Strong fumes",
         "Solvent vapour is heavier than air and burns: no flame, no smoking, vapour respirator in corners and "
         "porches.",
         lambda c: bool(c.hazards & {Hazard.STRONG_FUMES, Hazard.FLAMMABLE})),
    Card("rags", "Oily rags",
         "Rags soaked in oil or alkyd heat by themselves and catch fire: dry flat outdoors, or in water in a lidded "
         "metal can.",
         lambda c: Hazard.OILY_RAGS in c.hazards),
    Card("heat", "Heat",
         "Water, shade and breaks; start early. Dizziness or no more sweat: stop and cool down.",
         lambda c: c.hottest_c is not None and c.hottest_c >= HEAT_C),
    Card("cold", "Cold",
         "Layered clothing and breaks: painters generate little body heat. Ladders may be icy in the morning.",
         lambda c: c.coldest_c is not None and c.coldest_c <= COLD_C),
)  # fmt: skip
BY_ID = {card.id: card for card in CARDS}


def _content_of_part(content: Content, bundle: JobBundle, part: PaintedPart) -> None:
    face = part.face
    content.tags |= surface_tags(part.substrate, part.item_kind)
    content.roof |= ROOF_TILT[0] < face.tilt_deg < ROOF_TILT[1] or part.item_kind == "chimney"
    item = part.part
    reach = item.y_m + 1.5 if isinstance(item, Item) else face.top_m
    content.high |= face.is_wall and reach > LADDER_M
    content.wires |= any(o.kind is ObstacleKind.WIRES for o in face.obstacles)
    content.lead |= lead_presumed(bundle) and part.condition.coating.value != "bare"


def job_cards(bundle: JobBundle) -> list[Card]:
    """Cards for everything the job's finishes contain, in their order."""
    content = Content()
    parts = painted_parts(bundle.property, bundle.job.deduction)
    for finish in bundle.job.finishes:
        _content_of_part(content, bundle, parts[finish.part])
        for o in bundle.operations(finish):
            content.kinds.add(o.kind)
            content.techniques |= {o.technique} if o.technique else set()
            content.methods |= {o.method} if o.method and o.kind.lays_film else set()
            content.hazards |= set(bundle.product(o.product).hazards) if o.product else set()
    return [c for c in CARDS if c.applies(content)]


def day_cards(
    bundle: JobBundle, tasks: Iterable[Task], hottest_c: float | None = None, coldest_c: float | None = None
) -> list[Card]:
    """Cards for the tasks of a day, with the day's greatest and least air temperature where they are known."""
    content = Content(hottest_c=hottest_c, coldest_c=coldest_c)
    parts = painted_parts(bundle.property, bundle.job.deduction)
    products = {p.code: p for p in bundle.products}
    for task in tasks:
        if task.part in parts:
            _content_of_part(content, bundle, parts[task.part])
        content.kinds.add(task.kind)
        content.techniques |= set(task.techniques)
        content.methods |= {task.method} if task.method else set()
        content.hazards |= set(products[task.product].hazards) if task.product in products else set()
    return [c for c in CARDS if c.applies(content)]
