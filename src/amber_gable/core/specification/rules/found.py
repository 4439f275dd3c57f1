"""Rules for what was found where no rule of the surface's own asks for it: heavy dirt, chalk and salt on roofs and
floors, cracks in sheets and boards, bare places, rust on zinc, films that let go (docs/trade.md §3, §4)."""

from collections.abc import Iterable

from amber_gable.core.specification.derived.rule import (
    Acts,
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

_PAINTED = none_of("coating", "bare", or_unknown=True)
_LEVEL = ("roof", "masonry floor", "deck")
_BARE_SHARE = Acts(pct=("bare_pct", "loose_pct"), factor=1.2, least_pct=2)


def _spots(name: str, *families: F) -> Step:
    return Step("prime-spots", Phase.SPOT_PRIME, K.PRIME, name, "", _BARE_SHARE, families=families, method=Method.BRUSH,
                bare=True, strength=8)  # fmt: skip


SURFACE = (
    Rule("dirt-heavy", "it is heavily soiled", "grease and soot come through a wash that is enough for dust",
         when=(one_of("dirt", "heavy"),),
         steps=(Step("degrease-dirt", Phase.BRUSH_OFF, K.WASH, "Go over the worst soiled places with degreaser, rinse",
                     "Until a white cloth stays white. Without ammonia, and all of it rinsed off, where bleach "
                     "follows.", Acts(least_pct=30), (T.DEGREASE,)),)),
    Rule("chalk-level", "it chalks heavily", "loose powder parts the coats", on=_LEVEL,
         when=(one_of("chalking", "heavy"),), level=Alert.CHECK,
         todo="Wash again until a dark cloth stays clean; what stays chalky is bound with what the coat's sheet "
         "names."),
    Rule("salt-on-roof", "white salt bloom", "water goes through the tiles", on=("masonry roof",),
         when=(one_of("efflorescence", "dry-bloom", "returns"),), level=Alert.CHECK,
         todo="Look for the water; brushed off dry, and no coat until it stays away."),
    Rule("glazed-tiles", "the tiles are hard and shiny", "a coat has no tooth on glaze", on=("masonry roof",),
         when=(one_of("masonry", "shiny"),), level=Alert.CHECK,
         todo="Glazed tiles are not coated as they are: try a patch, a week later tape and pull."),
    Rule("beads-bare", "water beads on the bare surface", "what sheds water sheds paint",
         on=("wood", "masonry", "fibre-cement"), off="deck",
         when=(one_of("absorbency", "beads"), one_of("coating", "bare"),
               none_of("masonry", "normal", "dusty", "shiny", or_unknown=True)),
         level=Alert.CHECK, todo="Mill glaze, wax or an old water repellent: sand or clean it, sprinkle again; no coat "
         "until the water soaks in."),
    Rule("soaks-slowly", "water soaks in slowly", "it may be damp, glazed or still oily", on=("wood", "masonry",
         "fibre-cement"), when=(one_of("absorbency", "slow"), one_of("coating", "bare")), level=Alert.NOTE,
         todo="Meter it, and try again after cleaning."),
    Rule("young-paint", "the coat is {age_years} years old", "a fresh film is still hardening", on=(),
         when=(none_of("coating", "bare", "factory-coat", "factory-primer", or_unknown=True), at_most("age_years",
         0.1)), level=Alert.CHECK, todo="Ask what it is: inside its longest recoat time it takes a coat, after that it "
         "is keyed first."),
    Rule("film-lifts", "the test patch lifted", "what lets go under the patch lets go under the coat",
         when=(_PAINTED, one_of("adhesion", "lifts")), level=Alert.CHECK, unless=("prime",),
         todo="See what parted: an old film that left its ground comes off; a new coat that left the old wants a "
         "bonding primer."),
    Rule("many-coats", "{coats} old coats", "a thick film is stiff: it cracks and lets go under one more",
         when=(_PAINTED, above("coats", 4), at_most("loose_pct", 20, or_unknown=True)), level=Alert.NOTE,
         unless=("strip",),
         todo="Cross-cut and tape it in several places; where it lifts, price stripping."),
)  # fmt: skip

CRACKS = (
    Rule("cracked-sheet", "cracks up to {crack_mm} mm, {crack_m} m", "filler does not hold a broken sheet",
         on=("fibre-cement",), when=(above("crack_m", 0),), level=Alert.CHECK,
         todo="Have broken sheets replaced; hair cracks at fixings are sealed with a flexible filler."),
    Rule("crack-length", "cracks up to {crack_mm} mm, their length not told", "nobody has counted the work",
         on=("wood", "masonry", "fibre-cement"), when=(above("crack_mm", 0.2), at_most("crack_m", 0, or_unknown=True)),
         level=Alert.CHECK, todo="Pace off the cracks wider than 0.2 mm."),
    Rule("crack-cause", "cracks of {crack_mm} mm", "so wide a crack has a cause that a filler does not end",
         on=("wood", "fibre-cement", "masonry roof", "masonry floor"), when=(above("crack_mm", 2),), level=Alert.CHECK,
         todo="Look for what moves: a board that is split, a joint without room, a slab that sinks."),
    Rule("deck-splits", "splits in the boards, {crack_m} m", "splinters and standing water", on=("wood deck",),
         when=(above("crack_m", 0),), level=Alert.CHECK,
         todo="Boards that catch a foot or are split through are replaced; fine checks are left open."),
    Rule("deck-nails", "{nails} nails stand proud or rust", "they catch feet and sanders, and rust through the stain",
         on=("wood deck",), when=(above("nails", 0),),
         steps=(Step("nails", Phase.REPAIR, K.REPAIR, "Set proud nails, change rusting ones for screws that do "
                     "not rust", "", Acts(fact="nails", unit=AmountUnit.PIECES), (T.FIT,)),)),
    Rule("tile-stubs", "fixings stand in it", "rust runs from them over the coat", on=("masonry",), off="floor",
         when=(above("stubs", 0),), level=Alert.CHECK, todo="Have them cut back and sealed before the coat."),
    Rule("joints-level", "{caulk_m} m of joints are open or brittle", "water goes in there first", on=_LEVEL,
         off="wood", when=(above("caulk_m", 0),), level=Alert.CHECK,
         todo="Seal them with what the coating's sheet names, before the first coat."),
)  # fmt: skip


def _bare_share(id_: str, on: Iterable[str], off: str, *families: F) -> Rule:
    return Rule(id_, "{bare_pct} % of the old coat is gone", "bare places drink the finish and show through it",
                on=tuple(on), off=off, when=(_PAINTED, above("bare_pct", 0), at_most("loose_pct", 0, or_unknown=True)),
                steps=(_spots("Primer on the bare places", *families),))  # fmt: skip


BARE = (
    _bare_share("bare-share-masonry", ("masonry",), "roof floor limestone", F.MASONRY_UNDERCOAT,
                F.MASONRY_CONDITIONER),
    _bare_share("bare-share-cement", ("fibre-cement siding",), "roof", F.MASONRY_UNDERCOAT, F.ACRYLIC_WOOD_PRIMER),
    _bare_share("bare-share-smooth", ("metal aluminium", "metal copper", "glass-fibre"), "roof", F.BONDING_PRIMER),
    Rule("bare-share-level", "{bare_pct} % of the old coat is gone", "why it wore off decides what may follow",
         on=(*_LEVEL, "masonry limestone", "vinyl"), off="metal",
         when=(_PAINTED, above("bare_pct", 0)), level=Alert.CHECK,
         todo="Wear, damp or a coat that never held? The bare places get a coat more."),
    Rule("bare-or-not", "said to be bare, and {loose_pct} % loose", "only a coat or the surface itself can be loose",
         on=("masonry", "metal", "fibre-cement", "vinyl", "glass-fibre"),
         when=(one_of("coating", "bare"), above("loose_pct", 0)),
         level=Alert.CHECK, todo="Look again: an old coat, or a surface that crumbles? Brush it to what is sound."),
    Rule("rust-runs", "rust on {rust_pct} %", "this metal does not rust: its fixings do, or what stands above it",
         on=("metal aluminium", "metal copper"), when=(above("rust_pct", 0),), level=Alert.CHECK,
         todo="Find the steel it runs from; change or prime that first."),
    Rule("red-rust-zinc", "red rust on {rust_pct} %", "where it is red the zinc is gone", on=("metal galvanised",),
         when=(above("rust_pct", 0),), source=Source.PRACTICE,
         steps=(Step("scrape", Phase.REMOVE, K.SCRAPE, "Wire brush the rust to sound metal", "Dust off.",
                     Acts(pct=("rust_pct",), least_pct=1), (T.WIRE_BRUSH, T.WET_WIRE_BRUSH),
                     otherwise="Wire brush the rust wet, wipe dry at once"),
                Step("prime-rust", Phase.RUST_PRIME, K.PRIME, "Rust-inhibiting primer where the zinc is gone",
                     "The same day.", Acts(pct=("rust_pct",), factor=1.2, least_pct=2), families=(F.METAL_PRIMER,),
                     ground=("metal", "steel"), method=Method.BRUSH))),
)  # fmt: skip
RULES = (*SURFACE, *CRACKS, *BARE)
