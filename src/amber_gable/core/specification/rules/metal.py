"""Aluminium, steel and galvanised steel below the roof (docs/trade.md §3 to §5)."""

from amber_gable.core.specification.derived.rule import (
    Acts,
    Coats,
    Phase,
    Rule,
    Step,
    above,
    at_most,
    none_of,
    one_of,
)
from amber_gable.core.specification.rules.smooth import TRIM, WALLS, peeling, prime, spots
from amber_gable.domain.paint.families import Family as F
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.operation import OperationKind as K
from amber_gable.domain.work.operation import Technique as T

_ALUMINIUM = ("metal aluminium",)
ALUMINIUM = (
    Rule("aluminium-new", "the aluminium is {age_years} years old", "the shine of newer metal sheds the coat",
         on=_ALUMINIUM, when=(at_most("age_years", 9.99, or_unknown=True),),
         steps=(prime("Bonding primer all over", "", 35, F.BONDING_PRIMER, F.METAL_PRIMER),)),
    Rule("aluminium-mill", "bare mill aluminium", "its oxide sheds a coat at any age", on=_ALUMINIUM,
         when=(one_of("coating", "bare"),),
         steps=(Step("dull", Phase.SAND, K.SAND, "Dull the metal with a fine pad, wipe clean", "Until it is matt "
                     "everywhere.", techniques=(T.HAND_SAND, T.WET_SAND), strength=2),
                prime("Bonding primer all over", "The same day it is dulled.", 37, F.BONDING_PRIMER,
                       F.METAL_PRIMER))),
    Rule("aluminium-weathered", "coated, and weathered {age_years} years", "it takes paint without primer",
         on=_ALUMINIUM, when=(above("age_years", 9.99), none_of("coating", "bare", or_unknown=True)), level=Alert.NOTE,
         unless=("prime",), todo="No primer."),
    peeling("smooth-peeling", *_ALUMINIUM, "metal copper", "glass-fibre", grit="medium to fine",
             primer=spots("Metal or bonding primer on the bared places", "", F.BONDING_PRIMER, F.METAL_PRIMER)),
    Rule("finish-aluminium", "aluminium siding", "one coat may be enough, two for a change of colour",
         on=("metal aluminium siding",), coats=Coats(WALLS, 2, Method.BRUSH, "low lustre")),
    Rule("finish-aluminium-trim", "aluminium soffit or gutter", "thin and even", on=("metal aluminium trim",
         "metal gutter"), coats=Coats(TRIM, 2, Method.BRUSH, "satin")),
    Rule("one-coat-aluminium", "sound aluminium, painted for colour only", "one coat, as thin as possible",
         on=_ALUMINIUM, when=(at_most("loose_pct", 0), none_of("coating", "bare")), coat_count=1),
)  # fmt: skip

_STEEL = ("metal steel",)
_RUSTY = Acts(pct=("rusty_pct",), least_pct=1)
RUST_OFF = Step("scrape", Phase.REMOVE, K.SCRAPE, "Wire brush loose paint and rust to sound metal", "Dust off.",
                 _RUSTY,
                 (T.WIRE_BRUSH, T.WET_WIRE_BRUSH), otherwise="Wire brush loose paint and rust wet, wipe dry at once",
                 strength=3)  # fmt: skip
SAME_DAY = Step("prime-spots", Phase.SPOT_PRIME, K.PRIME, "Rust-inhibiting primer on bare steel",
                 "The same day; about "
                 "12 h before the next coat.", Acts(pct=("rusty_pct",), factor=1.2, least_pct=2),
                 families=(F.METAL_PRIMER,), method=Method.BRUSH, strength=22)  # fmt: skip
STEEL = (
    Rule("steel-rust", "rust, bare or loose on {rusty_pct} %", "rust creeps under the coat",
         on=_STEEL, off="roof galvanised", when=(above("rusty_pct", 0),),
         steps=(RUST_OFF, SAME_DAY)),
    Rule("steel-rust-returns", "rust on {rust_pct} %", "rust from inside and from seams comes back", on=_STEEL,
         when=(above("rust_pct", 0),), level=Alert.NOTE, disclosure=True,
         todo="Rust may return from inside: say it before the contract."),
    Rule("steel-bare", "the steel is bare", "it rusts within days", on=_STEEL, off="roof galvanised",
         when=(one_of("coating", "bare"),),
         steps=(Step("dull", Phase.SAND, K.SAND, "Key with medium abrasive, wipe clean", "",
                     techniques=(T.HAND_SAND, T.WET_SAND)),
                prime("Rust-inhibiting primer all over", "The same day, about 12 h before the next coat.", 50,
                       F.METAL_PRIMER))),
    Rule("steel-sound", "sound paint on a steel door", "dull and tight it carries the coats itself", level=Alert.NOTE,
         on=("metal door", "metal garage-door"), when=(none_of("coating", "bare", or_unknown=True),),
         unless=("prime",), todo="No primer."),
    Rule("finish-metal", "smooth metal", "two thin coats", on=("metal",), off="roof",
         coats=Coats(TRIM, 2, Method.BRUSH, "satin", spray=Method.TURBINE, strength=-5)),
    Rule("finish-steel", "steel takes knocks", "two thin coats", on=("metal door", "metal railing",
         "metal garage-door"),
         coats=Coats(TRIM, 2, Method.ROLLER, "satin to semi-gloss", spray=Method.TURBINE)),
)  # fmt: skip

_ZINC = ("metal galvanised",)
GALVANISED = (
    Rule("zinc-bare", "bare galvanised steel", "mill oil and smooth zinc shed a coat; an alkyd turns to soap on it",
         on=_ZINC, when=(one_of("coating", "bare"),), steps=(Step("degrease", Phase.STRIP, K.WASH, "Degrease and dull "
         "with a pad, rinse", "Water must run off in a sheet, not in beads.", techniques=(T.DEGREASE,), wait_h=4,
         covers=("wash",)), prime("Acrylic bonding primer for zinc all over", "Never an alkyd straight on zinc.", 60,
         F.BONDING_PRIMER))),
    Rule("zinc-worn", "rust, bare or loose on {rusty_pct} % of the zinc", "rust creeps, and bare zinc sheds paint",
         on=_ZINC, when=(above("rusty_pct", 0), none_of("coating", "bare", or_unknown=True)),
         steps=(RUST_OFF, Step("prime-spots", Phase.SPOT_PRIME, K.PRIME, "Acrylic bonding primer on zinc and bare "
                                "places", "The same day. Never an alkyd straight on zinc.",
                                Acts(pct=("rusty_pct",), factor=1.2, least_pct=2), families=(F.BONDING_PRIMER,),
                                method=Method.BRUSH, strength=25))),
)  # fmt: skip

RULES = (*ALUMINIUM, *STEEL, *GALVANISED)
