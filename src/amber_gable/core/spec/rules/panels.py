"""Vinyl, aluminium, steel, fibre cement and roofs (handbook §3 to §5)."""

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
from amber_gable.core.spec.safety import SHEET_FORBIDS
from amber_gable.domain.families import Family as F
from amber_gable.domain.operation import OperationKind as K
from amber_gable.domain.operation import Technique as T
from amber_gable.domain.schools import Method


def _prime(name: str, note: str, strength: int, *families: F, method: Method = Method.BRUSH) -> Step:
    return Step("prime", Stage.PRIME, K.PRIME, name, note, families=families, method=method, strength=strength,
                covers=("prime-spots",))  # fmt: skip


_WALLS = (F.EXTERIOR_ACRYLIC, F.LOW_TEMPERATURE_ACRYLIC)
_TRIM = (F.TRIM_ACRYLIC, F.HYBRID_SATIN, F.ALKYD_GLOSS)
VINYL = (
    Rule("vinyl-sound", "the vinyl is sound", "it takes paint without primer", on=("vinyl siding",),
         when=(one_of("vinyl", "sound"),), level=Level.NOTE, unless=("prime",), todo="No primer."),
    Rule("vinyl-pitted", "the vinyl is pitted or porous", "it drinks the coat in spots", on=("vinyl",),
         when=(one_of("vinyl", "pitted"),), steps=(_prime("Sealing primer all over", "", 35, F.BONDING_PRIMER),)),
    Rule("vinyl-warped", "panels are warped already", "paint hides nothing and holds nothing straight", on=("vinyl",),
         when=(one_of("vinyl", "warped"),), level=Level.STOP, todo="Replace the warped panels first."),
    Rule("vinyl-unknown", "the vinyl was not felt over", "primer for nothing, or none where it was needed",
         on=("vinyl siding",), when=(one_of("vinyl_known", False),), level=Level.CHECK,
         todo="Feel for pits and look along it for warp.",
         steps=(_prime("Sealing primer until the vinyl is felt over", "", 30, F.BONDING_PRIMER),)),
    Rule("vinyl-windows", "vinyl windows are shinier than siding", "a coat slides off the shine", on=("vinyl trim",
         "vinyl window"),
         steps=(_prime("Bonding primer", "", 32, F.BONDING_PRIMER),)),
    Rule("vinyl-warranty", "the vinyl is to be painted", "a colour darker than made may warp it and void its warranty",
         on=("vinyl siding",), level=Level.NOTE, todo="Say it before the contract."),
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
    Rule("aluminium-weathered", "weathered {age_years} years", "it takes paint without primer", on=_ALUMINIUM,
         when=(above("age_years", 9.99),), level=Level.NOTE, unless=("prime",), todo="No primer."),
    Rule("finish-aluminium", "aluminium siding", "one coat may be enough, two for a change of colour",
         on=("metal aluminium siding",), coats=Coats(_WALLS, 2, Method.BRUSH, "low lustre")),
    Rule("finish-aluminium-trim", "aluminium soffit or gutter", "thin and even", on=("metal aluminium trim",
         "metal gutter"), coats=Coats(_TRIM, 2, Method.BRUSH, "satin")),
    Rule("one-coat-aluminium", "sound aluminium, painted for colour only", "one coat, as thin as possible",
         on=_ALUMINIUM, when=(at_most("loose_pct", 0),), coat_count=1),
)  # fmt: skip

_STEEL = ("metal steel",)
STEEL = (
    Rule("steel-rust", "rust or bare steel on {bare_pct} % and {loose_pct} % loose", "rust creeps under the coat",
         on=_STEEL, off="roof", when=(above("bare_spots_pct", 0), none_of("coating", "bare", or_unknown=True)),
         steps=(Step("scrape", Stage.REMOVE, K.SCRAPE, "Wire brush loose paint and rust", "",
                     Acts(pct=("loose_pct", "bare_pct"), least_pct=1), (T.WIRE_BRUSH, T.WET_SCRAPE)),
                Step("prime-spots", Stage.SPOT_PRIME, K.PRIME, "Rust-inhibiting primer on bare steel", "About 12 h "
                     "before the next coat.", BARE_SPOTS, families=(F.METAL_PRIMER,), method=Method.BRUSH,
                     strength=20))),
    Rule("steel-bare", "the steel is bare", "it rusts within days", on=_STEEL, off="roof",
         when=(one_of("coating", "bare"),),
         steps=(Step("dull", Stage.SAND, K.SAND, "Key with medium abrasive, wipe clean", "",
                     techniques=(T.HAND_SAND, T.WET_SAND)),
                _prime("Rust-inhibiting primer all over", "About 12 h before the next coat.", 50, F.METAL_PRIMER))),
    Rule("steel-lighter", "the door goes {lighter_by} steps lighter", "the old colour shines through the first coats",
         on=("metal door", "metal garage-door"), when=(above("lighter_by", 8), none_of("coating", "bare",
                                                                                       or_unknown=True)),
         steps=(Step("prime", Stage.PRIME, K.PRIME, "Bonding primer all over", families=(F.BONDING_PRIMER,),
                     method=Method.ROLLER, strength=25),)),
    Rule("steel-darker", "the door keeps its lightness or goes darker", "no primer: degloss and sand", level=Level.NOTE,
         on=("metal door", "metal garage-door"), when=(at_most("lighter_by", 8), none_of("coating", "bare",
                                                                                         or_unknown=True)),
         unless=("prime",), todo="No primer."),
    Rule("finish-metal", "smooth metal", "two thin coats", on=("metal",), off="roof",
         coats=Coats(_TRIM, 2, Method.BRUSH, "satin", spray=Method.TURBINE, strength=-5)),
    Rule("finish-steel", "steel takes knocks", "two thin coats", on=("metal door", "metal railing",
         "metal garage-door"),
         coats=Coats(_TRIM, 2, Method.ROLLER, "satin to semi-gloss", spray=Method.TURBINE)),
)  # fmt: skip

CEMENT = (
    Rule("fibre-cement-bare", "bare fibre cement", "cut edges and faces drink", on=("fibre-cement siding",),
         when=(one_of("coating", "bare"),),
         steps=(_prime("Acrylic primer all over, cut edges twice", "", 40, F.ACRYLIC_WOOD_PRIMER, F.MASONRY_CONDITIONER,
                       method=Method.ROLLER),)),
    Rule("fibre-cement-peeling", "{loose_pct} % is loose", "a new coat comes off with the old one",
         on=("fibre-cement siding",), when=(above("loose_pct", 0), none_of("coating", "bare", or_unknown=True)),
         steps=(Step("scrape", Stage.REMOVE, K.SCRAPE, "Scrape what is loose, wet", "Never dry-grind: the dust holds "
                     "silica.", LOOSE, (T.WET_SCRAPE,)),
                Step("prime-spots", Stage.SPOT_PRIME, K.PRIME, "Primer on the bared places", "", BARE_SPOTS,
                     families=(F.ACRYLIC_WOOD_PRIMER, F.MASONRY_CONDITIONER), method=Method.BRUSH, bare=True,
                     strength=10))),
    Rule("fibre-cement-dust", "fibre cement", "its dust holds silica", on=("fibre-cement",), level=Level.CHECK,
         forbids=SHEET_FORBIDS, source=Source.STANDARD,
         todo="Wet methods only; sheets of older make may hold asbestos: have them tested first."),
    Rule("finish-fibre-cement", "fibre cement is stable", "two coats last long on it", on=("fibre-cement",), off="roof",
         coats=Coats(_WALLS, 2, Method.BRUSH, "low lustre")),
)  # fmt: skip

_ROOF = ("roof",)
ROOFS = (
    Rule("roof-rust", "rust or loose coating on {bare_pct} % and {loose_pct} %", "rust creeps under the coat",
         on=("metal roof",), when=(above("bare_spots_pct", 0), none_of("coating", "bare", or_unknown=True)),
         steps=(Step("scrape", Stage.REMOVE, K.SCRAPE, "Wire brush loose coating and rust", "",
                     Acts(pct=("loose_pct", "bare_pct"), least_pct=1), (T.WIRE_BRUSH, T.WET_SCRAPE)),
                Step("prime-spots", Stage.SPOT_PRIME, K.PRIME, "Metal primer on bare spots", "", BARE_SPOTS,
                     families=(F.METAL_PRIMER,), method=Method.BRUSH, strength=20))),
    Rule("roof-metal-new", "bare sheet, {age_years} years old", "new metal is bright and oily and sheds a coat",
         on=("metal roof",), when=(one_of("coating", "bare"), at_most("age_years", 2, or_unknown=True)),
         steps=(_prime("Metal primer all over", "", 50, F.METAL_PRIMER, method=Method.ROLLER),)),
    Rule("roof-metal-weathered", "bare sheet, weathered {age_years} years", "a roof coat holds to it once washed",
         on=("metal roof",), when=(one_of("coating", "bare"), above("age_years", 2)), level=Level.NOTE,
         todo="No primer but on rust."),
    Rule("roof-tile-dusty", "the tiles are dusty", "a coat holds to the dust", on=("masonry roof",),
         when=(one_of("masonry", "dusty"),),
         steps=(_prime("Stabilising conditioner", "", 40, F.MASONRY_CONDITIONER, method=Method.ROLLER),)),
    Rule("roof-tile-broken", "cracked or slipped tiles", "a coat seals nothing that leaks", on=("masonry roof tile",),
         when=(above("crack_m", 0),), level=Level.STOP, todo="Have broken tiles replaced first."),
    Rule("roof-membrane", "a low-slope membrane",
         "a coat does not stop a leaking seam, and not every membrane takes one",
         on=("membrane roof",), level=Level.CHECK, todo="Seams and blisters mended first; the membrane's maker must "
         "allow the coating."),
    Rule("roof-loose", "{loose_pct} % of the old coat is loose", "a new coat comes off with the old one",
         on=("masonry roof", "fibre-cement roof", "membrane roof"), when=(above("loose_pct", 0),),
         steps=(Step("scrape", Stage.REMOVE, K.SCRAPE, "Take loose coating off, wet", "", LOOSE, (T.WET_SCRAPE,)),)),
    Rule("finish-roof", "a roof takes all the weather", "two coats at full film", on=_ROOF,
         coats=Coats((F.ROOF_COAT,), 2, Method.ROLLER, "matt", strength=8)),
)  # fmt: skip
RULES = (*VINYL, *ALUMINIUM, *STEEL, *CEMENT, *ROOFS)
