"""Safety cards (docs/trade.md §13): what the work contains decides which apply. They remind and forbid what is always
wrong; local code and licensed practice decide the rest."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field

from amber_gable.core.specification.cautions.dangers import (
    ARSENIC_FORBIDS,
    ASBESTOS_FORBIDS,
    DANGERS,
    LEAD_FORBIDS,
    SILICA_FORBIDS,
)
from amber_gable.core.specification.cautions.dangers import Danger as D
from amber_gable.core.specification.derived.facts import surface_tags
from amber_gable.core.specification.derived.part_facts import asbestos_presumed, part_lead, treated_long_ago
from amber_gable.core.survey.amounts.painted import Key, PaintedPart, painted_parts
from amber_gable.domain.findings.condition import Coating
from amber_gable.domain.house.survey import Item, ObstacleKind
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.plan import Task
from amber_gable.domain.paint.product import Hazard
from amber_gable.domain.work.operation import LAYING, Operation, Technique
from amber_gable.domain.work.operation import OperationKind as K

LADDER_M = 3.0
HEAT_C, COLD_C = 30.0, 5.0
_DISTURBS = {K.WASH, K.STRIP, K.SCRAPE, K.SAND, K.REPAIR, K.PUTTY, K.CAULK}
_DUSTS = (_DISTURBS | {K.DUST}) - {K.WASH}
_MINERAL = {"masonry", "fibre-cement"}


@dataclass
class Content:
    """What a piece of work contains, as the cards ask for it."""

    kinds: set[K] = field(default_factory=set)
    techniques: set[Technique] = field(default_factory=set)
    hazards: set[Hazard] = field(default_factory=set)
    tags: set[str] = field(default_factory=set)
    lead: bool = False
    asbestos: bool = False
    arsenic: bool = False
    roof: bool = False
    high: bool = False
    wires: bool = False
    open_edge: bool = False
    hottest_c: float | None = None
    coldest_c: float | None = None


@dataclass(frozen=True)
class Card:
    """A safety card. `forbids` are techniques blocked wherever the card applies to the surface, `instead` what is done
    in their place."""

    id: str
    title: str
    text: str
    applies: Callable[[Content], bool]
    forbids: tuple[Technique, ...] = ()
    instead: str = ""


def _does(*dangers: D) -> Callable[[Content], bool]:
    return lambda c: any(DANGERS[t] & set(dangers) for t in c.techniques)


CARDS = (
    Card("asbestos", "Old cement sheet: presume asbestos",
         "Sheets made before the 1990s may hold asbestos until a laboratory says no. No pressure washing, no scraping, "
         "sanding, brushing, grinding or drilling, wet or dry; nobody walks on them, they break. Sampling, broken "
         "sheets and removal are for licensed people; local rules come first.",
         lambda c: c.asbestos, ASBESTOS_FORBIDS,
         "Wet gently by hose, wipe growth off damp, dull gloss with a liquid, encapsulate what is sound."),
    Card("lead", "Presume lead paint",
         "Presume lead until tested. Keep it wet and the dust little. Contain the ground at least 3 m out and the "
         "openings; where the next plot or a path is nearer, stand sheets upright too. No scraping, sanding or "
         "stripping in wind over 9 m/s, nor where dust is seen to blow past the sheets; rain stops it as well. Drill "
         "into wet foam or a HEPA capture. Clean daily with a vacuum certified as HEPA (99.97 %), check at the end. "
         "Children, pets and their toys away; chips and sheets bagged and sealed as the local authority says. Where "
         "the law asks for certification, certified people only; large jobs go to certified firms.",
         lambda c: c.lead and bool(c.kinds & _DISTURBS), LEAD_FORBIDS,
         "Mist and scrape, wire-brush or cut wet; sand wet or under a HEPA shroud; vacuum and wipe, never blow; no "
         "heat; no methylene chloride; wash by hose and brush."),
    Card("arsenic", "Old treated timber: presume arsenic",
         "Timber pressure-treated before 2004 may hold arsenic and chromium. Sand it wet or under a HEPA shroud only, "
         "with a respirator and gloves; wash hands before eating, work clothes by themselves. Nothing blown, nothing "
         "burnt; sheet the ground, bag dust and cut-offs as the local authority says.",
         lambda c: c.arsenic and bool(c.kinds & _DISTURBS), ARSENIC_FORBIDS,
         "Sand wet or under a HEPA shroud; vacuum and wipe."),
    Card("fire", "Open flame and hot air",
         "A wall can smoulder behind the boards for hours. Never near cavities, nests, dry rot or insulation; never on "
         "lead paint; no hotter than the paint needs. An extinguisher and water at hand, somebody who watches while it "
         "is used and for an hour after, and a look again before leaving. Ask the insurer first.",
         _does(D.HEAT)),
    Card("injection", "Airless spray injects skin",
         "Never point the gun at anyone, never feel for leaks by hand; lock the trigger and relieve pressure before "
         "cleaning. An injection is an emergency whatever it looks like: hospital at once, with the injection card.",
         _does(D.INJECTION)),
    Card("edge", "Open edge",
         "The railing of this terrace or stoop is off: nobody works, walks or steps back within 2 m of its edge until "
         "a temporary rail stands, and it is barred to the household, at night as well. The railing goes back before "
         "the crew leaves for good.",
         lambda c: c.open_edge),
    Card("roof", "Roof work",
         "Fall protection on every roof, level ones too, as local code asks: edges, roof lights and brittle sheets "
         "carry no one and are marked off. Dry and cool surface, start early, a way down kept free.",
         lambda c: c.roof),
    Card("height", "Work at height",
         "Ladder on firm level ground, 4 to 1, tied or footed, three points of contact, belt buckle between the rails, "
         "never over-reach: move it. Hoist tools by bucket and rope. Above about 3 m prefer a tower or scaffold: "
         "level, outriggers out, tied. Hard hat below.",
         lambda c: c.high),
    Card("wires", "Overhead wires and live fittings",
         "Keep ladders, poles and lifts clear of overhead wires; have lines sheathed or cut off first. Sign lighting "
         "and lamps: isolate before touching.",
         lambda c: c.wires or "sign" in c.tags),
    Card("bleach", "Bleach",
         "Never mix with ammonia or acid, and never on top of either: rinse and let dry between. Goggles and gloves; "
         "wet planting first, rinse after.",
         _does(D.BLEACH)),
    Card("acid", "Acid cleaner",
         "Restorer, brightener and etch are acids: never with or straight after bleach. Goggles and gloves; glass, "
         "metal and plants wetted and covered; rinse well.",
         _does(D.ACID)),
    Card("biocide", "Fungicidal wash",
         "It harms fish and skin: gloves, goggles, not before rain, nothing into drains or ponds. Left on for the time "
         "its sheet gives.",
         _does(D.BIOCIDE)),
    Card("caustic", "Caustic stripper",
         "It burns skin and eyes: goggles, gloves, long sleeves, water at hand. Cover glass, aluminium, vinyl and "
         "plants. Work so much as stays wet, neutralise, rinse. Read the sheet.",
         lambda c: _does(D.CAUSTIC)(c) or Hazard.CAUSTIC in c.hazards),
    Card("irritant", "Irritates skin and eyes",
         "Gloves and glasses while it is mixed and laid; wash off splashes at once. Read the sheet.",
         lambda c: Hazard.IRRITANT in c.hazards),
    Card("solvent", "Deglosser and solvents",
         "Gloves and glasses, air moving, no flame, no smoking; rags dried flat outdoors or kept in water in a lidded "
         "metal can.",
         _does(D.SOLVENT, D.METHYLENE)),
    Card("jet", "Pressure washing",
         "A jet injects skin and cuts wood and glass: widest fan, both hands, never at people, never from a ladder.",
         _does(D.JET)),
    Card("silica", "Mineral dust holds silica",
         "Masonry, concrete, mortar and cement sheet: grinding, raking, dry sanding and scraping, drilling and blowing "
         "off all raise silica, which scars the lungs for good.",
         lambda c: bool(c.tags & _MINERAL and c.kinds & _DUSTS), SILICA_FORBIDS,
         "Wet it, or draw it off at the tool with a HEPA vacuum; respirator; vacuum up, never blow or sweep dry."),
    Card("dust", "Sanding dust",
         "Eye protection and a particulate respirator; sheet the ground.",
         _does(D.DUST, D.EXTRACTED)),
    Card("sparks", "Grinding",
         "Eye, ear and hand protection, guard on the disc, nothing that burns within its sparks, fresh films covered.",
         _does(D.SPARKS)),
    Card("spray", "Spraying",
         "Respirator (particulate, and vapour as the sheet says), eye and ear protection, gloves. Wind away from cars, "
         "glass and neighbours; never spray up into the wind.",
         _does(D.MIST)),
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
    tags = surface_tags(part.substrate, part.item_kind)
    content.tags |= tags
    walked = bool(tags & {"deck", "floor", "stair", "railing"})
    content.roof |= "roof" in tags or part.item_kind == "chimney" or not (face.is_wall or walked or face.tilt_deg < 5)
    content.open_edge |= not face.is_wall and _railing_off(bundle, face.id)
    item = part.part
    reach = item.y_m + 1.5 if isinstance(item, Item) else face.top_m
    content.high |= face.is_wall and reach > LADDER_M
    content.wires |= any(o.kind is ObstacleKind.WIRES for o in face.obstacles)
    content.lead |= part_lead(bundle, part) and part.condition.coating is not Coating.BARE
    content.asbestos |= asbestos_presumed(bundle, part)
    treated = "wood" in tags and part.condition.timber == "pressure-treated"
    content.arsenic |= treated and treated_long_ago(bundle, part)


def _railing_off(bundle: JobBundle, face: str) -> bool:
    """Whether a railing of the face is taken down for the work."""
    railings = [i for i in bundle.property.items_of(face) if i.spec.kind == "railing"]
    finishes = [f for i in railings if (f := bundle.finish_of("item", i.id)) is not None]
    return any(o.technique is Technique.FIT for f in finishes for o in bundle.operations(f))


def add_operations(content: Content, bundle: JobBundle, operations: Iterable[Operation]) -> None:
    """What the steps bring with them; a step stored before every step had a technique gets the one of its method."""
    products = {p.code: p for p in bundle.products}
    for o in operations:
        content.kinds.add(o.kind)
        technique = o.technique or (LAYING[o.method] if o.method and o.kind.lays_film else None)
        content.techniques |= {technique} if technique else set()
        content.hazards |= set(products[o.product].hazards) if o.product in products else set()


def part_cards(bundle: JobBundle, part: PaintedPart, operations: Iterable[Operation]) -> list[Card]:
    """Cards for one part with these steps, in their order."""
    content = Content()
    _content_of_part(content, bundle, part)
    add_operations(content, bundle, operations)
    return [c for c in CARDS if c.applies(content)]


def job_cards(bundle: JobBundle) -> list[Card]:
    """Cards for everything the job's finishes contain, in their order."""
    parts = painted_parts(bundle.property, bundle.deduction)
    found = {
        card.id
        for finish in bundle.job.finishes
        for card in part_cards(bundle, parts[finish.part], bundle.operations(finish))
    }
    return [c for c in CARDS if c.id in found]


def day_cards(
    bundle: JobBundle,
    parts: Mapping[Key, PaintedPart],
    tasks: Iterable[Task],
    hottest_c: float | None = None,
    coldest_c: float | None = None,
) -> list[Card]:
    """Cards for the tasks of a day, with the day's greatest and least air temperature where they are known; `parts` all
    of the job."""
    products = {p.code: p for p in bundle.products}
    found: set[str] = set()
    for task in tasks:
        content = Content(hottest_c=hottest_c, coldest_c=coldest_c)
        if task.part in parts:
            _content_of_part(content, bundle, parts[task.part])
        content.kinds.add(task.kind)
        content.techniques |= set(task.techniques)
        if task.method is not None and task.product is not None:
            content.techniques.add(LAYING[task.method])
        content.hazards |= set(products[task.product].hazards) if task.product in products else set()
        found |= {c.id for c in CARDS if c.applies(content)}
    return [c for c in CARDS if c.id in found]
