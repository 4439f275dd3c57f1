"""Wood above ground level: siding, trim, beams, and what items of wood share (handbook §3, §4)."""

from amber_gable.core.spec.rule import (
    BARE_SPOTS,
    LOOSE,
    Acts,
    Coats,
    Level,
    Rule,
    Source,
    Stage,
    Step,
    above,
    at_most,
    none_of,
    one_of,
)
from amber_gable.domain.families import Family as F
from amber_gable.domain.operation import OperationKind as K
from amber_gable.domain.operation import Technique as T
from amber_gable.domain.operation import Unit
from amber_gable.domain.schools import Method

_WOOD, _NO_DECK = ("wood",), "deck"
_PAINTS = one_of("aim", "paint", "solid-stain")
_SCRAPE = Step("scrape", Stage.REMOVE, K.SCRAPE, "Scrape what is loose", "Bevel up, flat side down; what a scraper "
               "does not lift stays.", LOOSE, (T.DRY_SCRAPE, T.WET_SCRAPE))  # fmt: skip
_FEATHER = Step("feather", Stage.SAND, K.SAND, "Feather the edges, 80 grit then finer", "With the grain.", BARE_SPOTS,
                (T.POWER_SAND, T.HEPA_SAND, T.WET_SAND))  # fmt: skip

FAILING = (
    Rule("peeling-wood", "{loose_pct} % is loose or peeling", "a new coat comes off with the old one", on=_WOOD,
         off=_NO_DECK, when=(above("loose_pct", 0), none_of("coating", "bare", or_unknown=True)),
         school=("failing", "encapsulate"), steps=(_SCRAPE, _FEATHER)),
    Rule("bind-edges", "old paint stays beside the scraped places", "its edges lift under a thin coat",
         on=("wood siding", "wood trim", "wood beam", "wood railing"), off=_NO_DECK,
         when=(above("loose_pct", 0), none_of("coating", "bare", or_unknown=True)), school=("failing", "encapsulate"),
         steps=(Step("prime-spots", Stage.SPOT_PRIME, K.PRIME, "Peel-bonding primer on the worked areas",
                     "Medium-stiff brush, worked into cracks and edges.", BARE_SPOTS,
                     families=(F.PEEL_BONDING_PRIMER,), method=Method.BRUSH, bare=True, strength=30),)),
    Rule("strip-wood", "{loose_pct} % fails, and the school is to strip", "only bare wood is a sure ground", on=_WOOD,
         off=_NO_DECK, when=(above("loose_pct", 0), none_of("coating", "bare", or_unknown=True)),
         school=("failing", "strip"),
         steps=(Step("scrape", Stage.REMOVE, K.SCRAPE, "Strip to bare wood", "Infrared or caustic poultice on flat "
                     "work, scraper and extraction.", techniques=(T.POWER_SAND, T.HEPA_SAND)),
                Step("feather", Stage.SAND, K.SAND, "Sand the bare wood, 80 to 120 grit", "With the grain.",
                     techniques=(T.POWER_SAND, T.HEPA_SAND)))),
    Rule("strip-wood-prime", "the wood is bare after stripping", "bare wood drinks and lets go", on=_WOOD, off=_NO_DECK,
         when=(above("loose_pct", 0), none_of("coating", "bare", or_unknown=True)), school=("failing", "strip"),
         steps=(Step("prime", Stage.PRIME, K.PRIME, "Wood primer all over", "Within two weeks of stripping.",
                     families=(F.ACRYLIC_WOOD_PRIMER, F.ALKYD_WOOD_PRIMER), method=Method.BRUSH, bare=True, strength=60,
                     covers=("prime-spots",)),)),
    Rule("thick-old-coats", "{coats} old coats", "a thick old film cracks and lets go under a new one", on=_WOOD,
         off=_NO_DECK, when=(above("coats", 4), above("loose_pct", 40)), level=Level.CHECK,
         todo="Price stripping as well: locked down it may last only a few years."),
)  # fmt: skip

_BARE_PRIME = {
    "acrylic": (F.ACRYLIC_WOOD_PRIMER, F.ALKYD_WOOD_PRIMER),
    "alkyd": (F.ALKYD_WOOD_PRIMER, F.ACRYLIC_WOOD_PRIMER),
}


def _prime_spots(school: str, families: tuple[F, ...]) -> Rule:
    return Rule(f"bare-spots-{school}", "{bare_spots_pct} % is bare, or will be once it is scraped",
                "bare wood drinks the finish and lets go", on=_WOOD, off=_NO_DECK,
                when=(_PAINTS, above("bare_spots_pct", 0), none_of("coating", "bare", or_unknown=True)),
                school=("bare-wood", school),
                steps=(Step("prime-spots", Stage.SPOT_PRIME, K.PRIME, "Wood primer on bare spots", "", BARE_SPOTS,
                            families=families, method=Method.BRUSH, bare=True, strength=10),))  # fmt: skip


def _prime_bare(school: str, families: tuple[F, ...]) -> Rule:
    return Rule(f"bare-wood-{school}", "the wood is bare", "bare wood drinks the finish and lets go", on=_WOOD,
                off=_NO_DECK, when=(_PAINTS, one_of("coating", "bare")), school=("bare-wood", school),
                steps=(Step("prime", Stage.PRIME, K.PRIME, "Wood primer all over", "End grain twice.",
                            families=families, method=Method.BRUSH, bare=True, strength=45,
                            covers=("prime-spots",)),))  # fmt: skip


BARE = (
    *(_prime_spots(s, f) for s, f in _BARE_PRIME.items()),
    *(_prime_bare(s, f) for s, f in _BARE_PRIME.items()),
    Rule("bare-sand", "new or bare wood", "mill glaze and dead fibre shed the primer", on=_WOOD, off=_NO_DECK,
         when=(one_of("coating", "bare"), none_of("greyed", True, or_unknown=True)),
         steps=(Step("dull", Stage.SAND, K.SAND, "Sand lightly, 80 to 100 grit", "With the grain.",
                     techniques=(T.HAND_SAND, T.WET_SAND)),)),
    Rule("grey-wood", "silver, weathered wood", "the dead layer, about 1.5 mm, takes the coat off with it", on=_WOOD,
         off=_NO_DECK, when=(one_of("greyed", True),),
         steps=(Step("grey", Stage.SAND, K.SAND, "Sand the grey layer off to bright wood", "60 to 80 grit, with the "
                     "grain; a nail scratch must show no silver.", Acts(pct=("bare_pct", "loose_pct"), least_pct=5),
                     (T.POWER_SAND, T.HEPA_SAND), strength=5),)),
    Rule("grey-wood-bare", "silver, weathered wood all over", "the dead layer takes the coat off with it", on=_WOOD,
         off=_NO_DECK, when=(one_of("greyed", True), one_of("coating", "bare")),
         steps=(Step("grey", Stage.SAND, K.SAND, "Sand the grey layer off to bright wood", "60 to 80 grit, with the "
                     "grain; a nail scratch must show no silver.", techniques=(T.POWER_SAND, T.HEPA_SAND),
                     strength=6),)),
    Rule("raised-fibre", "the tape picks up fibre", "loose fibre stands through the film", on=_WOOD, off=_NO_DECK,
         when=(one_of("raised_fibre", True),),
         steps=(Step("fibre", Stage.SAND, K.SAND, "Knock down raised fibre, 80 to 100 grit", "Until the tape comes off "
                     "clean.", BARE_SPOTS, (T.POWER_SAND, T.HEPA_SAND, T.WET_SAND)),)),
)  # fmt: skip

REPAIRS = (
    Rule("rot", "{rot_m2} m² of rot", "no coat holds on soft wood, and rot goes on under it", on=_WOOD,
         when=(above("rot_m2", 0),),
         steps=(Step("rot", Stage.REPAIR, K.REPAIR, "Cut out rot, harden, two-part filler, or replace the board",
                     "Mix small: it sets in minutes. Hidden rot is extra.", Acts(fact="rot_m2", unit=Unit.M2),
                     wait_h=1),)),
    Rule("rot-large", "{rot_m2} m² of rot", "so much is a carpenter's job and hides more behind it", on=_WOOD,
         when=(above("rot_m2", 1),), level=Level.STOP, todo="Have the boards replaced before painting."),
    Rule("nails", "{nails} nails stand proud or rust", "rust bleeds through; heads break the film", on=_WOOD,
         off=_NO_DECK, when=(above("nails", 0),),
         steps=(Step("nails", Stage.REPAIR, K.REPAIR, "Set nails, fill, sand flush", "",
                     Acts(fact="nails", unit=Unit.PIECES), wait_h=4),
                Step("prime-stains", Stage.SPOT_PRIME, K.PRIME, "Stain-blocking primer on filled nails", "",
                     Acts(pct=(), least_pct=1), families=(F.STAIN_BLOCKER,), method=Method.BRUSH, bare=True))),
    Rule("wood-cracks", "cracks up to {crack_mm} mm, {crack_m} m", "water stands in them", on=_WOOD, off=_NO_DECK,
         when=(above("crack_m", 0), above("crack_mm", 0.2, or_unknown=True)),
         steps=(Step("cracks", Stage.FILL, K.REPAIR, "Fill cracks with exterior filler, sand", "",
                     Acts(fact="crack_m", unit=Unit.M), wait_h=12),)),
    Rule("hair-cracks", "hair cracks up to {crack_mm} mm", "the coat bridges them", when=(above("crack_mm", 0),
         at_most("crack_mm", 0.2)), level=Level.NOTE, todo="Leave them to the coat."),
)  # fmt: skip

_FILMS = (one_of("aim", "paint", "solid-stain"),)
MOISTURE = (
    Rule("not-metered", "bare wood was not metered", "a film on damp wood blisters", on=_WOOD, off=_NO_DECK,
         when=(one_of("moisture_known", False), one_of("coating", "bare")), level=Level.CHECK,
         todo="Pins along the grain, several spots, low boards and end grain among them."),
    Rule("damp-15", "the wood is at {moisture} %", "the coat blisters: 15 % is the limit", on=_WOOD, off=_NO_DECK,
         when=(above("moisture", 15), at_most("moisture", 18), *_FILMS), school=("damp-limit", "15"),
         level=Level.STOP, source=Source.STANDARD, todo="Let it dry and meter again: 15 % or less on every board."),
    Rule("damp-17", "the wood is at {moisture} %", "the coat blisters: 17 % is the limit", on=_WOOD, off=_NO_DECK,
         when=(above("moisture", 17), at_most("moisture", 18), *_FILMS), school=("damp-limit", "17"),
         level=Level.STOP, source=Source.STANDARD, todo="Let it dry and meter again: 17 % or less on every board."),
    Rule("wet-wood", "the wood is at {moisture} %", "nothing is coated above 18 %", on=_WOOD,
         when=(above("moisture", 18),), level=Level.STOP, source=Source.STANDARD,
         todo="Find where the water comes from, let it dry, meter again."),
)  # fmt: skip

_SIDING = (F.EXTERIOR_ACRYLIC, F.LOW_TEMPERATURE_ACRYLIC)
_TRIM = (F.TRIM_ACRYLIC, F.HYBRID_SATIN, F.ALKYD_GLOSS)
FINISHES = (
    Rule("finish-wood-siding", "wood siding moves and weathers", "two thin coats last longer than one thick",
         on=("wood siding",), when=(one_of("aim", "paint"),),
         coats=Coats(_SIDING, 2, Method.BRUSH, "low lustre or satin")),
    Rule("finish-wood", "wood is painted", "two thin coats last longer than one thick", on=_WOOD, off=_NO_DECK,
         coats=Coats(_TRIM, 2, Method.BRUSH, "satin", strength=-5)),
    Rule("finish-wood-trim", "trim and beams take knocks and water", "two thin coats last longer than one thick",
         on=("wood trim", "wood beam", "wood sign", "wood stair"), off=_NO_DECK, when=(one_of("aim", "paint"),),
         coats=Coats(_TRIM, 2, Method.BRUSH, "satin to semi-gloss")),
    Rule("finish-wood-stain", "the wood is to show through a solid or semi-transparent stain",
         "stains go by spreading rate", on=("wood siding", "wood beam", "wood railing", "wood stair"), off=_NO_DECK,
         when=(one_of("aim", "semi-transparent", "translucent"),),
         coats=Coats((F.DECK_STAIN,), 1, Method.BRUSH, "flat", strength=5)),
    Rule("finish-wood-solid-stain", "a solid stain is a thin film", "two coats for colour",
         on=("wood siding", "wood beam", "wood railing", "wood stair"), off=_NO_DECK, when=(one_of("aim",
         "solid-stain"),),
         coats=Coats((F.SOLID_STAIN,), 2, Method.BRUSH, "flat", strength=5)),
    Rule("stain-over-film", "a translucent stain over {coating}", "a stain cannot get into wood under a film",
         on=("wood",), off=_NO_DECK,
         when=(one_of("aim", "semi-transparent", "translucent"), one_of("film", True, or_unknown=True)),
         source=Source.STANDARD,
         steps=(Step("strip", Stage.REMOVE, K.SCRAPE, "Take the old film off to bare wood", "Not by chemical stripper "
                     "on walls: it runs and splashes.", techniques=(T.POWER_SAND, T.HEPA_SAND), strength=9),)),
)  # fmt: skip
RULES = (*FAILING, *BARE, *REPAIRS, *MOISTURE, *FINISHES)
