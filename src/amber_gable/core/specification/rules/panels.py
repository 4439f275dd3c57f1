"""Vinyl, aluminium, steel, fibre cement and roofs (docs/trade.md §3 to §5)."""

from amber_gable.core.specification.cautions.dangers import ASBESTOS_FORBIDS, SILICA_FORBIDS
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
from amber_gable.domain.work.operation import OperationKind as K
from amber_gable.domain.work.operation import Technique as T


def _prime(name: str, note: str, strength: int, *families: F, method: Method = Method.BRUSH) -> Step:
    return Step("prime", Phase.PRIME, K.PRIME, name, note, families=families, method=method, strength=strength,
                covers=("prime-spots",))  # fmt: skip


_WALLS = (F.EXTERIOR_ACRYLIC, F.LOW_TEMPERATURE_ACRYLIC)
_TRIM = (F.TRIM_ACRYLIC, F.HYBRID_SATIN, F.ALKYD_GLOSS)
_PEELS = (above("loose_pct", 0), none_of("coating", "bare", or_unknown=True))


def _spots(name: str, note: str, *families: F) -> Step:
    return Step("prime-spots", Phase.SPOT_PRIME, K.PRIME, name, note, BARE_SPOTS, families=families,
                method=Method.BRUSH, strength=20)  # fmt: skip


def _peeling(id_: str, *on: str, grit: str, spots: Step) -> Rule:
    return Rule(id_, "{loose_pct} % of the coating is loose", "never leave loose film because the panel is sound",
                on=on,
                off="roof", when=_PEELS,
                steps=(Step("scrape", Phase.REMOVE, K.SCRAPE, "Scrape what is loose", "Plastic or blunt blade: no "
                            "gouges.", LOOSE, (T.DRY_SCRAPE, T.WET_SCRAPE),
                            otherwise="Scrape wet what is loose: mist, scrape, wipe"),
                       Step("feather", Phase.SAND, K.SAND, f"Feather the edges by hand, {grit}", "", BARE_SPOTS,
                            (T.HAND_SAND, T.WET_SAND), otherwise=f"Feather the edges wet by hand, {grit}"),
                       spots))  # fmt: skip


VINYL = (
    Rule("vinyl-sound", "the vinyl is sound", "it takes paint without primer", on=("vinyl siding",),
         when=(one_of("vinyl", "sound"),), level=Alert.NOTE, unless=("prime",), todo="No primer."),
    Rule("vinyl-pitted", "the vinyl is pitted or porous", "it drinks the coat in spots", on=("vinyl",),
         when=(one_of("vinyl", "pitted"),), steps=(_prime("Sealing primer all over", "", 35, F.BONDING_PRIMER),)),
    Rule("vinyl-warped", "panels are warped already", "paint hides nothing and holds nothing straight", on=("vinyl",),
         when=(one_of("vinyl", "warped"),), level=Alert.STOP, todo="Replace the warped panels first."),
    Rule("vinyl-unknown", "the vinyl was not felt over", "primer for nothing, or none where it was needed",
         on=("vinyl siding",), when=(one_of("vinyl_known", False),), level=Alert.CHECK,
         todo="Feel for pits and look along it for warp.",
         steps=(_prime("Sealing primer until the vinyl is felt over", "", 30, F.BONDING_PRIMER),)),
    Rule("vinyl-windows", "vinyl windows are shinier than siding", "a coat slides off the shine", on=("vinyl trim",
         "vinyl window"),
         steps=(_prime("Bonding primer", "", 32, F.BONDING_PRIMER),)),
    _peeling("vinyl-peeling", "vinyl", grit="120 grit",
             spots=_spots("Bonding primer on the bared places", "", F.BONDING_PRIMER)),
    Rule("vinyl-made-unknown", "the colour the vinyl was made in is not known",
         "today's colour is faded or painted: it "
         "proves nothing of what the panel bears", on=("vinyl siding",),
         when=(one_of("made_colour_known", False), one_of("darker", True)), level=Alert.CHECK,
         todo="Find the made colour under trim or behind a fitting; until then only the computed peak speaks for the "
         "new one."),
    Rule("vinyl-warranty", "the vinyl is to be painted", "a colour darker than made may warp it and void its warranty",
         on=("vinyl siding", "vinyl trim", "vinyl window"), level=Alert.NOTE, disclosure=True,
         todo="Say it before the contract; gaskets and seals stay unpainted."),
    Rule("finish-vinyl", "vinyl moves with the heat", "a flexible acrylic in two thin coats", on=("vinyl siding",),
         coats=Coats(_WALLS, 2, Method.BRUSH, "low lustre")),
    Rule("finish-vinyl-trim", "vinyl frames move with the heat", "a flexible acrylic in two thin coats",
         on=("vinyl",), coats=Coats((F.TRIM_ACRYLIC, F.EXTERIOR_ACRYLIC), 2, Method.BRUSH, "satin", strength=-5)),
)  # fmt: skip

_ALUMINIUM = ("metal aluminium",)
ALUMINIUM = (
    Rule("aluminium-new", "the aluminium is {age_years} years old", "the shine of newer metal sheds the coat",
         on=_ALUMINIUM, when=(at_most("age_years", 9.99, or_unknown=True),),
         steps=(_prime("Bonding primer all over", "", 35, F.BONDING_PRIMER, F.METAL_PRIMER),)),
    Rule("aluminium-mill", "bare mill aluminium", "its oxide sheds a coat at any age", on=_ALUMINIUM,
         when=(one_of("coating", "bare"),),
         steps=(_prime("Bonding primer all over", "The same day it is dulled.", 37, F.BONDING_PRIMER,
                       F.METAL_PRIMER),)),
    Rule("aluminium-weathered", "coated, and weathered {age_years} years", "it takes paint without primer",
         on=_ALUMINIUM, when=(above("age_years", 9.99), none_of("coating", "bare", or_unknown=True)), level=Alert.NOTE,
         unless=("prime",), todo="No primer."),
    _peeling("aluminium-peeling", *_ALUMINIUM, grit="medium to fine",
             spots=_spots("Metal or bonding primer on the bared places", "", F.BONDING_PRIMER, F.METAL_PRIMER)),
    Rule("finish-aluminium", "aluminium siding", "one coat may be enough, two for a change of colour",
         on=("metal aluminium siding",), coats=Coats(_WALLS, 2, Method.BRUSH, "low lustre")),
    Rule("finish-aluminium-trim", "aluminium soffit or gutter", "thin and even", on=("metal aluminium trim",
         "metal gutter"), coats=Coats(_TRIM, 2, Method.BRUSH, "satin")),
    Rule("one-coat-aluminium", "sound aluminium, painted for colour only", "one coat, as thin as possible",
         on=_ALUMINIUM, when=(at_most("loose_pct", 0), none_of("coating", "bare")), coat_count=1),
)  # fmt: skip

_STEEL = ("metal steel",)
_RUSTY = Acts(pct=("rusty_pct",), least_pct=1)
_RUST_OFF = Step("scrape", Phase.REMOVE, K.SCRAPE, "Wire brush loose paint and rust to sound metal", "Dust off.",
                 _RUSTY,
                 (T.WIRE_BRUSH, T.WET_WIRE_BRUSH), otherwise="Wire brush loose paint and rust wet, wipe dry at once",
                 strength=3)  # fmt: skip
_SAME_DAY = Step("prime-spots", Phase.SPOT_PRIME, K.PRIME, "Rust-inhibiting primer on bare steel",
                 "The same day; about "
                 "12 h before the next coat.", Acts(pct=("rusty_pct",), factor=1.2, least_pct=2),
                 families=(F.METAL_PRIMER,), method=Method.BRUSH, strength=22)  # fmt: skip
STEEL = (
    Rule("steel-rust", "rust, bare or loose on {rusty_pct} %", "rust creeps under the coat",
         on=_STEEL, off="roof galvanised", when=(above("rusty_pct", 0),),
         steps=(_RUST_OFF, _SAME_DAY)),
    Rule("steel-rust-returns", "rust on {rust_pct} %", "rust from inside and from seams comes back", on=_STEEL,
         when=(above("rust_pct", 0),), level=Alert.NOTE, disclosure=True,
         todo="Rust may return from inside: say it before the contract."),
    Rule("steel-bare", "the steel is bare", "it rusts within days", on=_STEEL, off="roof galvanised",
         when=(one_of("coating", "bare"),),
         steps=(Step("dull", Phase.SAND, K.SAND, "Key with medium abrasive, wipe clean", "",
                     techniques=(T.HAND_SAND, T.WET_SAND)),
                _prime("Rust-inhibiting primer all over", "The same day, about 12 h before the next coat.", 50,
                       F.METAL_PRIMER))),
    Rule("steel-lighter", "the door goes {lighter_by} steps lighter", "the old colour shines through the first coats",
         on=("metal door", "metal garage-door"), when=(above("lighter_by", 8), none_of("coating", "bare",
                                                                                       or_unknown=True)),
         steps=(Step("prime", Phase.PRIME, K.PRIME, "Bonding primer all over", families=(F.BONDING_PRIMER,),
                     method=Method.ROLLER, strength=25),)),
    Rule("steel-darker", "the door keeps its lightness or goes darker", "no primer: degloss and sand", level=Alert.NOTE,
         on=("metal door", "metal garage-door"), when=(at_most("lighter_by", 8), none_of("coating", "bare",
                                                                                         or_unknown=True)),
         unless=("prime",), todo="No primer."),
    Rule("finish-metal", "smooth metal", "two thin coats", on=("metal",), off="roof",
         coats=Coats(_TRIM, 2, Method.BRUSH, "satin", spray=Method.TURBINE, strength=-5)),
    Rule("finish-steel", "steel takes knocks", "two thin coats", on=("metal door", "metal railing",
         "metal garage-door"),
         coats=Coats(_TRIM, 2, Method.ROLLER, "satin to semi-gloss", spray=Method.TURBINE)),
)  # fmt: skip

_ZINC = ("metal galvanised",)
GALVANISED = (
    Rule("zinc-bare", "bare galvanised steel", "mill oil and smooth zinc shed a coat; an alkyd turns to soap on it",
         on=_ZINC, when=(one_of("coating", "bare"),),
         steps=(Step("degrease", Phase.STRIP, K.WASH, "Degrease and etch, rinse", "Water must run off in a sheet, not "
                     "in beads.", techniques=(T.DEGREASE,), wait_h=4),
                _prime("Acrylic bonding primer for zinc all over", "Never an alkyd straight on zinc.", 60,
                       F.BONDING_PRIMER))),
    Rule("zinc-worn", "rust, bare or loose on {rusty_pct} % of the zinc", "rust creeps, and bare zinc sheds paint",
         on=_ZINC, when=(above("rusty_pct", 0), none_of("coating", "bare", or_unknown=True)),
         steps=(_RUST_OFF, Step("prime-spots", Phase.SPOT_PRIME, K.PRIME, "Acrylic bonding primer on zinc and bare "
                                "places", "The same day. Never an alkyd straight on zinc.",
                                Acts(pct=("rusty_pct",), factor=1.2, least_pct=2), families=(F.BONDING_PRIMER,),
                                method=Method.BRUSH, strength=25))),
)  # fmt: skip

CEMENT = (
    Rule("fibre-cement-bare", "bare fibre cement", "cut edges and faces drink", on=("fibre-cement siding",),
         when=(one_of("coating", "bare"),),
         steps=(_prime("Acrylic primer all over, cut edges twice", "", 40, F.ACRYLIC_WOOD_PRIMER, F.MASONRY_CONDITIONER,
                       method=Method.ROLLER),)),
    Rule("fibre-cement-peeling", "{loose_pct} % is loose", "a new coat comes off with the old one",
         on=("fibre-cement siding",), when=(*_PEELS, none_of("asbestos", True)),
         steps=(Step("scrape", Phase.REMOVE, K.SCRAPE, "Scrape wet what is loose: mist, scrape, wipe", "",
                     LOOSE, (T.WET_SCRAPE,)),
                Step("prime-spots", Phase.SPOT_PRIME, K.PRIME, "Primer on the bared places", "", BARE_SPOTS,
                     families=(F.ACRYLIC_WOOD_PRIMER, F.MASONRY_CONDITIONER), method=Method.BRUSH, bare=True,
                     strength=10))),
    Rule("fibre-cement-dust", "fibre cement", "its dust holds silica", on=("fibre-cement",), level=Alert.NOTE,
         forbids=SILICA_FORBIDS, source=Source.STANDARD, todo="Wet or extracted methods only."),
    Rule("asbestos-sound", "the sheet may hold asbestos", "its fibres kill years later", on=("fibre-cement",),
         off="roof", when=(one_of("asbestos", True),), level=Alert.CHECK, forbids=ASBESTOS_FORBIDS,
         source=Source.STANDARD, todo="Presume asbestos until a laboratory says no, on a sample taken by licensed "
         "people. Sound sheets: wet gently and encapsulate, break nothing."),
    Rule("asbestos-failing", "coating or sheet fails where it may hold asbestos", "nothing may be scraped or sanded",
         on=("fibre-cement",), off="roof", when=(one_of("asbestos", True), above("failing_pct", 0)), level=Alert.STOP,
         source=Source.STANDARD, todo="A laboratory's no, or licensed people for everything that comes off."),
    Rule("asbestos-roof", "a roof sheet that may hold asbestos",
         "its fibres kill years later, and the sheet carries no "
         "one", on=("fibre-cement roof",), when=(one_of("asbestos", True),), level=Alert.STOP,
         forbids=ASBESTOS_FORBIDS, source=Source.STANDARD, todo="Licensed people, or leave it; a laboratory's no lifts "
         "this. Nobody walks on it either way."),
    Rule("sheet-fragile", "fibre-cement roof sheets", "they break under a foot", on=("fibre-cement roof",),
         level=Alert.CHECK, source=Source.STANDARD,
         todo="Work from a lift or crawl boards with fall arrest; never step "
         "on a sheet."),
    Rule("finish-fibre-cement", "fibre cement is stable", "two coats last long on it", on=("fibre-cement",), off="roof",
         coats=Coats(_WALLS, 2, Method.BRUSH, "low lustre")),
)  # fmt: skip

_ROOF = ("roof",)
ROOFS = (
    Rule("roof-rust", "rust, bare or loose on {rusty_pct} %", "no roof coat over rust: it creeps on under it",
         on=("metal roof",), off="galvanised", when=(above("rusty_pct", 0),), steps=(_RUST_OFF, _SAME_DAY)),
    Rule("roof-rust-much", "rust, bare or loose on {rusty_pct} %", "thin and holed sheet hides under so much rust",
         on=("metal roof",),
         off="galvanised", when=(above("rusty_pct", 30),), level=Alert.CHECK,
         todo="Look for holes and thin laps before it is coated."),
    Rule("roof-seams", "seams and fixings of a metal roof", "water comes in there first", on=("metal roof",),
         level=Alert.NOTE, todo="Tighten or replace fixings, seal seams before the coat."),
    Rule("clay-tiles", "clay tiles are to be coated", "a film keeps their water in: frost splits them, and it peels",
         on=("masonry roof clay",), level=Alert.STOP, source=Source.STANDARD,
         todo="Leave them without a film: clean them softly, have broken ones replaced."),
    Rule("roof-frost", "a coat on tiles", "a tight coat keeps the wet in, and frost splits the tile",
         on=("masonry roof",),
         level=Alert.NOTE, disclosure=True, todo="Only a coat that breathes, only if wished: say it before the "
         "contract."),
    Rule("roof-metal-new", "bare sheet, {age_years} years old", "new metal is bright and oily and sheds a coat",
         on=("metal roof",), off="galvanised", when=(one_of("coating", "bare"), at_most("age_years", 2,
         or_unknown=True)),
         steps=(_prime("Metal primer all over", "", 50, F.METAL_PRIMER, method=Method.ROLLER),)),
    Rule("roof-metal-weathered", "bare sheet, weathered {age_years} years", "a roof coat holds to it once washed",
         on=("metal roof",), off="galvanised", when=(one_of("coating", "bare"), above("age_years", 2)),
         level=Alert.NOTE, unless=("prime",), todo="No primer but on rust."),
    Rule("roof-tile-dusty", "the tiles are dusty", "a coat holds to the dust", on=("masonry roof",),
         when=(one_of("masonry", "dusty"),),
         steps=(_prime("Stabilising conditioner", "", 40, F.MASONRY_CONDITIONER, method=Method.ROLLER),)),
    Rule("roof-tile-broken", "cracked or slipped tiles", "a coat seals nothing that leaks", on=("masonry roof tile",),
         when=(above("crack_m", 0),), level=Alert.STOP, todo="Have broken tiles replaced first."),
    Rule("roof-membrane", "a low-slope membrane",
         "a coat does not stop a leaking seam, and not every membrane takes one",
         on=("membrane roof",), level=Alert.CHECK,
         todo="Find out what membrane it is: its maker must allow the coating. "
         "Look for ponding; seams and blisters mended first."),
    Rule("roof-loose", "{loose_pct} % of the old coat is loose", "a new coat comes off with the old one",
         on=("masonry roof", "fibre-cement roof", "membrane roof"), when=(above("loose_pct", 0), none_of("asbestos",
                                                                                               True, or_unknown=True)),
         steps=(Step("scrape", Phase.REMOVE, K.SCRAPE, "Take loose coating off wet", "", LOOSE, (T.WET_SCRAPE,)),)),
    Rule("finish-roof", "a roof takes all the weather", "two coats at full film", on=_ROOF,
         coats=Coats((F.ROOF_COAT,), 2, Method.ROLLER, "matt", strength=8)),
)  # fmt: skip
RULES = (*VINYL, *ALUMINIUM, *STEEL, *GALVANISED, *CEMENT, *ROOFS)
