"""Wood above ground level: siding, trim, beams, and what items of wood share (docs/trade.md §3, §4)."""

from amber_gable.core.specification.cautions.limits import WOOD_MOISTURE
from amber_gable.core.specification.derived.rule import (
    BARE_SPOTS,
    LOOSE,
    Acts,
    Coats,
    Phase,
    Rule,
    Source,
    Step,
    above,
    at_most,
    none_of,
    one_of,
)
from amber_gable.domain.paint.families import Family as F
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.operation import AmountUnit
from amber_gable.domain.work.operation import OperationKind as K
from amber_gable.domain.work.operation import Technique as T

_WOOD, _NO_DECK = ("wood",), "deck"
_PAINTS = one_of("aim", "paint", "solid-stain")
_SHOWS = one_of("aim", "semi-transparent", "translucent")
_PEELS = (above("loose_pct", 0), none_of("coating", "bare", or_unknown=True))
_HAND = (T.POWER_SAND, T.HEPA_SAND, T.WET_SAND)
_SCRAPE = Step("scrape", Phase.REMOVE, K.SCRAPE, "Scrape what is loose", "Bevel up, flat side down; what a scraper "
               "does not lift stays.", LOOSE, (T.DRY_SCRAPE, T.WET_SCRAPE),
               otherwise="Scrape wet what is loose: mist, scrape, wipe")  # fmt: skip
_FEATHER = Step("feather", Phase.SAND, K.SAND, "Feather the edges, 80 grit then finer", "With the grain.", BARE_SPOTS,
                _HAND, otherwise="Feather the edges under a HEPA shroud, 80 grit then finer")  # fmt: skip
_STRIP = Step("strip", Phase.REMOVE, K.SCRAPE, "Take the old film off to bare wood by sander", "A poultice where "
              "mouldings are; never a runny stripper on walls: it runs and splashes.",
              techniques=(T.POWER_SAND, T.HEPA_SAND), strength=9, covers=("scrape", "feather", "dull"),
              otherwise="Take the old film off to bare wood under a HEPA shroud")  # fmt: skip
_FINE = Step("fibre", Phase.SAND, K.SAND, "Sand the bare wood, 80 to 120 grit", "With the grain.", techniques=_HAND,
             otherwise="Sand the bare wood under a HEPA shroud, 80 to 120 grit", strength=5)  # fmt: skip

FAILING = (
    Rule("peeling-wood", "{loose_pct} % is loose or peeling", "a new coat comes off with the old one", on=_WOOD,
         off=_NO_DECK, when=(*_PEELS, _PAINTS), school=("failing", "encapsulate"), steps=(_SCRAPE, _FEATHER)),
    Rule("bind-edges", "old paint stays beside the scraped places", "its edges lift under a thin coat",
         on=("wood siding", "wood trim", "wood beam", "wood railing"), off=_NO_DECK,
         when=(*_PEELS, one_of("aim", "paint")), school=("failing", "encapsulate"),
         steps=(Step("prime-spots", Phase.SPOT_PRIME, K.PRIME, "Peel-bonding primer on the worked areas",
                     "Medium-stiff brush, worked into cracks and edges.", BARE_SPOTS,
                     families=(F.PEEL_BONDING_PRIMER,), method=Method.BRUSH, bare=True, strength=30,
                     covers=("prime-joints",)),)),
    Rule("peeling-wood-all", "{loose_pct} % is loose or peeling", "a new coat comes off with the old one", on=_WOOD,
         off=_NO_DECK, when=(*_PEELS, _PAINTS), school=("failing", "encapsulate-all"), steps=(_SCRAPE, _FEATHER)),
    Rule("bind-all", "old paint stays all over the part", "what holds today may let go tomorrow", on=_WOOD,
         off=_NO_DECK, when=(*_PEELS, one_of("aim", "paint")), school=("failing", "encapsulate-all"),
         steps=(Step("prime", Phase.PRIME, K.PRIME, "Peel-bonding primer all over",
                     "Medium-stiff brush, worked into cracks and edges; never thinned.",
                     families=(F.PEEL_BONDING_PRIMER,), method=Method.BRUSH, bare=True, strength=55,
                     covers=("prime-spots", "prime-joints")),)),
    Rule("strip-wood", "{loose_pct} % fails, and the school is to strip", "only bare wood is a sure ground", on=_WOOD,
         off=_NO_DECK, when=(*_PEELS, _PAINTS), school=("failing", "strip"), steps=(_STRIP, _FINE)),
    Rule("strip-wood-prime", "the wood is bare after stripping", "bare wood drinks and lets go", on=_WOOD, off=_NO_DECK,
         when=(*_PEELS, one_of("aim", "paint")), school=("failing", "strip"),
         steps=(Step("prime", Phase.PRIME, K.PRIME, "Wood primer all over", "Within two weeks of stripping.",
                     families=(F.ACRYLIC_WOOD_PRIMER, F.ALKYD_WOOD_PRIMER), method=Method.BRUSH, bare=True, strength=60,
                     covers=("prime-spots", "prime-joints", "prime-rebates")),)),
    Rule("thick-old-coats", "{coats} old coats", "a thick old film cracks and lets go under a new one", on=_WOOD,
         off=_NO_DECK, when=(above("coats", 4), above("loose_pct", 20), at_most("loose_pct", 50)), level=Alert.CHECK,
         unless=("strip",), todo="Price stripping as well: locked down it may last only a few years."),
    Rule("price-stripping", "{loose_pct} % is loose", "with more than half gone the rest will follow", on=_WOOD,
         off=_NO_DECK, when=(above("loose_pct", 50),), level=Alert.CHECK, unless=("strip",),
         todo="Price stripping as well: so much scraping and feathering costs nearly as much and lasts less."),
    Rule("hidden-rot", "paint peels from the wood", "what is under it is seen only when it is off", on=_WOOD,
         when=(above("loose_pct", 0),), level=Alert.NOTE, disclosure=True,
         todo="Look for the water behind it: gutter, downspout, tap, sprinkler, soil against the boards. Hidden rot is "
         "extra, by the hour: say it before the contract."),
)  # fmt: skip

_BARE_PRIME = {
    "acrylic": (F.ACRYLIC_WOOD_PRIMER, F.ALKYD_WOOD_PRIMER),
    "alkyd": (F.ALKYD_WOOD_PRIMER, F.ACRYLIC_WOOD_PRIMER),
}


def _prime_spots(school: str, families: tuple[F, ...]) -> Rule:
    return Rule(f"bare-spots-{school}", "{bare_spots_pct} % is bare, or will be once it is scraped",
                "bare wood drinks the finish and lets go", on=_WOOD, off=_NO_DECK,
                when=(one_of("aim", "paint"), above("bare_spots_pct", 0),
                      none_of("coating", "bare", or_unknown=True)), school=("bare-wood", school),
                steps=(Step("prime-spots", Phase.SPOT_PRIME, K.PRIME, "Wood primer on bare spots", "", BARE_SPOTS,
                            families=families, method=Method.BRUSH, bare=True, strength=10,
                            covers=("prime-joints",)),))  # fmt: skip


def _prime_bare(school: str, families: tuple[F, ...]) -> Rule:
    return Rule(f"bare-wood-{school}", "the wood is bare", "bare wood drinks the finish and lets go", on=_WOOD,
                off=_NO_DECK, when=(one_of("aim", "paint"), one_of("coating", "bare")), school=("bare-wood", school),
                steps=(Step("prime", Phase.PRIME, K.PRIME, "Wood primer all over", "End grain twice.",
                            families=families, method=Method.BRUSH, bare=True, strength=45,
                            covers=("prime-spots", "prime-joints", "prime-rebates")),))  # fmt: skip


BARE = (
    *(_prime_spots(s, f) for s, f in _BARE_PRIME.items()),
    *(_prime_bare(s, f) for s, f in _BARE_PRIME.items()),
    Rule("rough-bare", "bare rough-sawn wood", "its tooth holds the coat; sanded it would only fuzz", on=("wood "
         "rough",), when=(one_of("coating", "bare"), none_of("greyed", True, or_unknown=True), _PAINTS),
         level=Alert.NOTE, todo="Not sanded: washed and brushed out, the first film worked in by brush."),
    Rule("bare-sand", "new or bare wood", "mill glaze and dead fibre shed the primer", on=_WOOD, off="deck rough",
         when=(one_of("coating", "bare"), none_of("greyed", True, or_unknown=True), _PAINTS),
         steps=(Step("dull", Phase.SAND, K.SAND, "Sand lightly, 80 to 100 grit", "With the grain.",
                     techniques=(T.HAND_SAND, T.HEPA_SAND, T.WET_SAND),
                     otherwise="Sand lightly under a HEPA shroud, 80 to 100 grit"),)),
    Rule("bare-clean", "weathered or new wood is to take a stain", "mill glaze and grey fibre keep stain out; sanding "
         "fine closes the grain", on=_WOOD, off=_NO_DECK,
         when=(one_of("coating", "bare", "penetrating-stain"), _SHOWS),
         steps=(Step("brighten", Phase.BRIGHTEN, K.STRIP, "Clean and brighten, rinse gently", "Opens the grain and "
                     "brings the wood back to pH 7 to 8.", techniques=(T.BRIGHTENER,), wait_h=72,
                     until="the meter reads {moisture_limit} % or less"),)),
    Rule("grey-rough", "silver, weathered rough-sawn wood", "the dead layer takes the coat off with it, and no paper "
         "reaches into the saw marks", on=("wood rough",),
         when=(one_of("greyed", True), one_of("film", False), _PAINTS),
         steps=(Step("grey", Phase.STRIP, K.STRIP, "Restorer: brush in along the grain, rinse", "A nail scratch must "
                     "show no silver when it is dry.", techniques=(T.RESTORER,), wait_h=72,
                     until="the meter reads {moisture_limit} % or less"),)),
    Rule("grey-rough-film", "silver wood where the old film is gone", "the dead layer takes the coat off with it",
         on=("wood rough",), when=(one_of("greyed", True), one_of("film", True, or_unknown=True), _PAINTS),
         steps=(Step("grey", Phase.SAND, K.SAND, "Sand the grey off the bared places by hand, 60 grit", "Along the "
                     "grain, the dust brushed out of the saw marks.", Acts(pct=("bare_pct", "loose_pct"), least_pct=5),
                     (T.HAND_SAND, T.HEPA_SAND, T.WET_SAND),
                     otherwise="Sand the grey off the bared places under a HEPA shroud, 60 grit", strength=5),)),
    Rule("grey-wood", "silver, weathered wood", "the dead layer, about 1.5 mm, takes the coat off with it", on=_WOOD,
         off="deck rough", when=(one_of("greyed", True), _PAINTS),
         steps=(Step("grey", Phase.SAND, K.SAND, "Sand the grey layer off to bright wood", "60 to 80 grit, with the "
                     "grain; a nail scratch must show no silver.", Acts(pct=("bare_pct", "loose_pct"), least_pct=5),
                     _HAND, otherwise="Sand the grey layer off to bright wood under a HEPA shroud", strength=5),)),
    Rule("grey-wood-bare", "silver, weathered wood all over", "the dead layer takes the coat off with it", on=_WOOD,
         off="deck rough", when=(one_of("greyed", True), one_of("coating", "bare"), _PAINTS),
         steps=(Step("grey", Phase.SAND, K.SAND, "Sand the grey layer off to bright wood", "60 to 80 grit, with the "
                     "grain; a nail scratch must show no silver.", techniques=_HAND,
                     otherwise="Sand the grey layer off to bright wood under a HEPA shroud", strength=6),)),
    Rule("raised-fibre", "the tape picks up fibre", "loose fibre stands through the film", on=_WOOD, off=_NO_DECK,
         when=(one_of("raised_fibre", True),),
         steps=(Step("fibre", Phase.SAND, K.SAND, "Knock down raised fibre, 80 to 100 grit", "Until the tape comes off "
                     "clean.", BARE_SPOTS, _HAND, otherwise="Knock down raised fibre under a HEPA shroud"),)),
)  # fmt: skip

_BLED = Acts(pct=("loose_pct", "bare_pct"), factor=1.2, least_pct=10)
BLEED = (
    Rule("tannin-film", "the wood bleeds brown", "tannin comes up through waterborne paint as brown tears", on=_WOOD,
         off=_NO_DECK, when=(one_of("tannin", True), one_of("aim", "paint"), none_of("coating", "bare",
                                                                                    or_unknown=True)),
         steps=(Step("prime-stains", Phase.SPOT_PRIME, K.PRIME, "Stain-blocking primer over knots and bleeding boards",
                     "Whole boards, not dots.", _BLED,
                     families=(F.STAIN_BLOCKER, F.ALKYD_WOOD_PRIMER), method=Method.BRUSH, bare=True, strength=10),)),
    Rule("tannin-chalk", "the wood bleeds brown and chalks heavily", "a stain blocker on powder holds to the powder",
         on=_WOOD, off=_NO_DECK, when=(one_of("tannin", True), one_of("aim", "paint"), one_of("chalking", "heavy"),
                                       none_of("coating", "bare", or_unknown=True)),
         steps=(Step("prime-stains", Phase.STAIN_PRIME, K.PRIME, "Stain-blocking primer over knots and bleeding boards",
                     "Whole boards, not dots; over what binds the chalk.", _BLED,
                     families=(F.STAIN_BLOCKER, F.ALKYD_WOOD_PRIMER), method=Method.BRUSH, bare=True, strength=12),)),
    Rule("tannin-bare", "the bare wood bleeds brown", "tannin comes up through waterborne paint as brown tears",
         on=_WOOD, off=_NO_DECK, when=(one_of("tannin", True), one_of("aim", "paint"), one_of("coating", "bare")),
         steps=(Step("prime", Phase.PRIME, K.PRIME, "Stain-blocking primer all over", "End grain twice.",
                     families=(F.STAIN_BLOCKER, F.ALKYD_WOOD_PRIMER), method=Method.BRUSH, bare=True, strength=65,
                     covers=("prime-spots", "prime-joints", "prime-stains", "prime-rebates")),)),
    Rule("tannin-returns", "the wood bleeds brown", "where water gets in, it bleeds again", on=_WOOD,
         when=(one_of("tannin", True),), level=Alert.NOTE, disclosure=True,
         todo="Bleed may return where water enters: say it before the contract."),
)  # fmt: skip

_HEADS = Acts(pct=("nail_pct",), factor=1.5, least_pct=0.5)
_FILLED = Acts(pct=("rot_pct", "crack_pct", "nail_pct"), factor=1.2, least_pct=1)
_FLUSH = Step("sand-fillings", Phase.SAND, K.SAND, "Sand the fillings flush", "", _FILLED, (T.HAND_SAND, T.HEPA_SAND,
              T.WET_SAND), otherwise="Sand the fillings flush under a HEPA shroud")  # fmt: skip


def _fill(role: str, name: str, acts: Acts, wait_h: float) -> Step:
    return Step(role, Phase.FILL, K.REPAIR, name, "After the primer where its sheet says so.", acts, (T.FILL,),
                wait_h=wait_h)  # fmt: skip


REPAIRS = (
    Rule("rot", "{rot_m2} m² of rot", "no coat holds on soft wood, and rot goes on under it", on=_WOOD, off=_NO_DECK,
         when=(above("rot_m2", 0), _PAINTS),
         steps=(Step("rot", Phase.ROT, K.REPAIR, "Cut out rot, harden, two-part filler, or replace the board",
                     "Cut when it is dry and metered, {moisture_limit} % or less, before the hardener. Mix small: it "
                     "sets in minutes. Find what wets it first.", Acts(fact="rot_m2", unit=AmountUnit.M2),
                     (T.CUT_OUT, T.WET_CUT_OUT), otherwise="Cut out rot misted; dry by the meter, harden and fill, or "
                     "replace the board", wait_h=1), _FLUSH,
                Step("prime-fillings", Phase.SPOT_PRIME, K.PRIME, "Wood primer on the fillings", "", _FILLED,
                     families=(F.ACRYLIC_WOOD_PRIMER, F.ALKYD_WOOD_PRIMER), method=Method.BRUSH, bare=True),)),
    Rule("rot-goes-on", "rot was found", "where one board is soft, others are behind it", on=_WOOD,
         when=(above("rot_m2", 0),), level=Alert.NOTE, disclosure=True,
         todo="What is found when it is open is extra, by the hour: say it before the contract."),
    Rule("rot-large", "{rot_m2} m² of rot", "so much is a carpenter's job and hides more behind it", on=_WOOD,
         when=(above("rot_m2", 1),), level=Alert.STOP, todo="Have the boards replaced before painting."),
    Rule("nails", "{nails} nails stand proud or rust", "rust bleeds through; filler does not hold on rust", on=_WOOD,
         off=_NO_DECK, when=(_PAINTS, above("nails", 0),),
         steps=(Step("nails", Phase.REPAIR, K.REPAIR, "Set or replace nails, brush rust off their heads", "",
                     Acts(fact="nails", unit=AmountUnit.PIECES), (T.WIRE_BRUSH, T.WET_WIRE_BRUSH),
                     otherwise="Set or replace nails, brush rust off their heads wet"),
                Step("prime-nails", Phase.NAIL_PRIME, K.PRIME, "Rust-inhibiting primer on the heads", "", _HEADS,
                     families=(F.METAL_PRIMER,), ground=("metal",), method=Method.BRUSH),
                _fill("fill-nails", "Fill over the set nails", Acts(fact="nails", unit=AmountUnit.PIECES), 4), _FLUSH,
                Step("prime-fillings", Phase.SPOT_PRIME, K.PRIME, "Wood primer on the fillings", "", _FILLED,
                     families=(F.ACRYLIC_WOOD_PRIMER, F.ALKYD_WOOD_PRIMER), method=Method.BRUSH, bare=True))),
    Rule("wood-cracks", "cracks up to {crack_mm} mm, {crack_m} m", "water stands in them", on=_WOOD, off="deck log",
         when=(_PAINTS, above("crack_m", 0), above("crack_mm", 0.2, or_unknown=True)),
         steps=(_fill("cracks", "Fill cracks with exterior filler", Acts(fact="crack_m", unit=AmountUnit.M), 12),
                _FLUSH,
                Step("prime-fillings", Phase.SPOT_PRIME, K.PRIME, "Wood primer on the fillings", "", _FILLED,
                     families=(F.ACRYLIC_WOOD_PRIMER, F.ALKYD_WOOD_PRIMER), method=Method.BRUSH, bare=True))),
    Rule("hair-cracks", "hair cracks up to {crack_mm} mm", "the coat bridges them", when=(above("crack_mm", 0),
         at_most("crack_mm", 0.2)), level=Alert.NOTE, todo="Leave them to the coat."),
)  # fmt: skip

MOISTURE = (
    Rule("not-metered", "bare wood was not metered", "a film on damp wood blisters", on=_WOOD, off=_NO_DECK,
         when=(one_of("moisture_known", False), one_of("coating", "bare")), level=Alert.CHECK,
         todo="Pins along the grain, several spots, low boards and end grain among them."),
    Rule("damp", "the wood is at {moisture} %", "the coat blisters above {moisture_limit} % ({moisture_source})",
         on=_WOOD, when=(above("moisture", "moisture_limit"), at_most("moisture", WOOD_MOISTURE)), level=Alert.STOP,
         source=Source.STANDARD, todo="Let it dry and meter again: {moisture_limit} % or less on every board."),
    Rule("wet-wood", "the wood is at {moisture} %", "nothing is coated above 18 %", on=_WOOD, when=(above("moisture",
         WOOD_MOISTURE), one_of("new_treated", False, or_unknown=True)), level=Alert.STOP, source=Source.STANDARD,
         todo="Find where the water comes from, let it dry, meter again: {moisture_limit} % or less on every board."),
    Rule("wet-treated", "the new treated timber is at {moisture} %", "it is the treatment's own water, and no film "
         "holds above 18 %", on=_WOOD, when=(above("moisture", WOOD_MOISTURE), one_of("new_treated", True)),
         level=Alert.STOP, source=Source.STANDARD, todo="Let air get round it and meter again: {moisture_limit} % or "
         "less on every board."),
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
         on=("wood trim", "wood beam", "wood sign"), off=_NO_DECK, when=(one_of("aim", "paint"),),
         coats=Coats(_TRIM, 2, Method.BRUSH, "satin to semi-gloss")),
    Rule("finish-wood-stain", "the wood is to show through a solid or semi-transparent stain", "stains go by spreading "
         "rate", on=("wood siding", "wood beam", "wood railing", "wood stair", "wood floor"), off=_NO_DECK,
         when=(one_of("aim", "semi-transparent", "translucent"),), coats=Coats((F.DECK_STAIN,), 1, Method.BRUSH, "flat",
         spray=Method.BRUSH, strength=5, bare_first=True)),
    Rule("finish-wood-solid-stain", "a solid stain is a thin film", "two coats for colour",
         on=("wood siding", "wood beam", "wood railing", "wood stair", "wood floor"), off=_NO_DECK, when=(one_of("aim",
         "solid-stain"),),
         coats=Coats((F.SOLID_STAIN,), 2, Method.BRUSH, "flat", strength=5)),
    Rule("stain-over-film", "a translucent stain over {coating}", "a stain cannot get into wood under a film",
         on=("wood",), off=_NO_DECK, when=(_SHOWS, one_of("film", True, or_unknown=True)), level=Alert.STOP,
         source=Source.STANDARD, steps=(_STRIP, _FINE),
         todo="Opacity cannot go up again without stripping: agree the stripping and its price, or choose a solid "
         "stain or paint."),
    Rule("paint-over-stain", "a penetrating stain is to be painted", "its oils repel waterborne paint", on=_WOOD,
         off=_NO_DECK, when=(one_of("coating", "penetrating-stain"), one_of("aim", "paint")),
         steps=(Step("prime", Phase.PRIME, K.PRIME, "Wood primer over the old stain", "",
                     families=(F.ACRYLIC_WOOD_PRIMER, F.ALKYD_WOOD_PRIMER), method=Method.BRUSH, bare=True,
                     strength=42, covers=("prime-spots", "prime-joints")),)),
)  # fmt: skip
RULES = (*FAILING, *BARE, *BLEED, *REPAIRS, *MOISTURE, *FINISHES)
