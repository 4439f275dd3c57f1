"""Roofs: profiled and galvanised sheet, tiles, cement sheets, membranes (docs/trade.md §3 to §5)."""

from dataclasses import replace

from amber_gable.core.specification.derived.rule import (
    LOOSE,
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
from amber_gable.core.specification.rules.metal import RUST_OFF, SAME_DAY
from amber_gable.core.specification.rules.smooth import prime
from amber_gable.domain.paint.families import Family as F
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.operation import OperationKind as K
from amber_gable.domain.work.operation import Technique as T

_ROOF = ("roof",)
ROOFS = (
    Rule("roof-rust", "rust, bare or loose on {rusty_pct} %", "no roof coat over rust: it creeps on under it",
         on=("metal roof",), off="galvanised", when=(above("rusty_pct", 0),), steps=(RUST_OFF, replace(SAME_DAY,
         ground=("metal", "steel")))),
    Rule("roof-rust-much", "rust, bare or loose on {rusty_pct} %", "thin and holed sheet hides under so much rust",
         on=("metal roof",),
         off="galvanised", when=(above("rusty_pct", 30),), level=Alert.CHECK,
         todo="Look for holes and thin laps before it is coated."),
    Rule("roof-seams", "seams and fixings of a metal roof", "water comes in there first", on=("metal roof",),
         off="seam", steps=(Step("seams", Phase.REPAIR, K.REPAIR, "Tighten or change fixings, seal seams and laps",
         "Sealant that the roof coat's sheet names.", techniques=(T.SEAL,), wait_h=4, until="the sealant has a "
         "skin"),)),
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
         steps=(Step("degrease", Phase.STRIP, K.WASH, "Degrease the sheet, rinse", "Water must run off in a sheet, not "
                     "in beads.", techniques=(T.DEGREASE,), wait_h=4, covers=("wash",)),
                replace(prime("Bonding primer for zinc all over", "Taken as zinc-coated: never an alkyd on it.", 50,
                       F.BONDING_PRIMER, method=Method.ROLLER), covers=()))),
    Rule("roof-metal-weathered", "bare sheet, weathered {age_years} years", "a roof coat holds to it once washed",
         on=("metal roof",), off="galvanised", when=(one_of("coating", "bare"), above("age_years", 2)),
         level=Alert.NOTE, unless=("prime",), todo="No primer but on rust."),
    Rule("roof-tile-dusty", "the tiles are dusty", "a coat holds to the dust", on=("masonry roof",),
         when=(one_of("masonry", "dusty"),),
         steps=(prime("Stabilising conditioner", "", 40, F.MASONRY_CONDITIONER, method=Method.ROLLER),)),
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

RULES = ROOFS
