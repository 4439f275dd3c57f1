"""Render, brick, block, stone, concrete walls and floors, chimneys (docs/trade.md §3, §4)."""

from amber_gable.core.specification.cautions.dangers import SILICA_FORBIDS, SOFT_STONE_FORBIDS
from amber_gable.core.specification.derived.rule import (
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

_ALL, _WALL = ("masonry",), "floor roof"
_BARE = one_of("coating", "bare")


def _prime(name: str, note: str, strength: int, *families: F, tinted: bool = False) -> Step:
    return Step("prime", Phase.PRIME, K.PRIME, name, note, families=families, method=Method.ROLLER, bare=True,
                tinted=tinted, strength=strength, covers=("prime-spots", "prime-joints"))  # fmt: skip


GROUND = (
    Rule("dusty", "dust comes off on the finger", "paint holds to the dust, not to the wall", on=_ALL, off="roof",
         when=(one_of("masonry", "dusty"),),
         steps=(_prime("Stabilising conditioner, dried a full day", "Flood it on from the bottom up; no puddles.", 55,
                       F.MASONRY_CONDITIONER, F.MASONRY_UNDERCOAT),)),
    Rule("glazed", "the surface is hard and shiny", "paint has no tooth to hold to", on=_ALL, off="roof",
         when=(one_of("masonry", "shiny"),),
         steps=(_prime("Bonding conditioner, tinted toward the finish", "Thin and even.", 50, F.MASONRY_CONDITIONER,
                       F.BONDING_PRIMER, tinted=True),)),
    Rule("masonry-unknown", "the finger test was not made on bare masonry", "primer for nothing, or none where it was "
         "needed", on=_ALL, off=_WALL, when=(_BARE, one_of("masonry_known", False)), level=Alert.CHECK,
         todo="Draw a finger over it: dusty, normal or shiny?",
         steps=(_prime("Conditioner until the finger test says otherwise", "", 45, F.MASONRY_CONDITIONER),)),
    Rule("brick-direct", "bare brick with ordinary tooth", "masonry paint holds to it direct", on=("masonry brick",),
         when=(_BARE, one_of("masonry", "normal")), school=("brick", "direct"), level=Alert.NOTE,
         unless=("prime",), todo="No primer."),
    Rule("brick-prime", "bare brick, and the school primes it", "even suction under the finish", on=("masonry brick",),
         when=(_BARE, one_of("masonry", "normal")), school=("brick", "prime"),
         steps=(_prime("Masonry primer all over", "", 30, F.MASONRY_UNDERCOAT, tinted=True),)),
    Rule("bare-masonry", "the masonry is bare", "it drinks the first coat unevenly", on=_ALL,
         off="floor roof brick block limestone",
         when=(_BARE, one_of("masonry", "normal")),
         steps=(_prime("Masonry primer all over", "", 30, F.MASONRY_UNDERCOAT, tinted=True),)),
    Rule("limestone-self", "bare limestone", "a tight primer would seal the stone", on=("masonry limestone",),
         when=(_BARE,), unless=("prime",), level=Alert.NOTE,
         todo="The first coat, thinned by its sheet, is the primer."),
    Rule("block-self", "bare block", "a high-build coat primes and fills it", on=("masonry block",),
         when=(_BARE, one_of("masonry", "normal")), level=Alert.NOTE, todo="The first high-build coat is the primer."),
    Rule("painted-sound", "sound old paint", "it needs no primer", on=_ALL, off=_WALL,
         when=(one_of("film", True), at_most("loose_pct", 0), at_most("bare_pct", 0, or_unknown=True),
               none_of("masonry", "dusty", "shiny", or_unknown=True)),
         level=Alert.NOTE, unless=("prime",), todo="No primer."),
    Rule("beads", "water beads on it", "what sheds water sheds paint", on=_ALL, off="roof",
         when=(one_of("absorbency", "beads"), one_of("masonry", "normal")), level=Alert.CHECK,
         todo="An old water repellent? Wash, try again; else a bonding primer."),
)  # fmt: skip

_FAILS = (above("loose_pct", 0), none_of("coating", "bare", or_unknown=True))
_SPOTS = Acts(pct=("loose_pct",), factor=1.2, least_pct=2)
_SPOT_PRIMER = Step("prime-spots", Phase.SPOT_PRIME, K.PRIME, "Conditioner on the bared places", "", _SPOTS,
                    families=(F.MASONRY_CONDITIONER, F.MASONRY_UNDERCOAT), method=Method.BRUSH, bare=True,
                    strength=10, covers=("prime-joints",))  # fmt: skip
REPAIRS = (
    Rule("peeling-masonry", "{loose_pct} % of the old paint is loose", "a new coat comes off with the old one", on=_ALL,
         off="floor roof limestone", when=(*_FAILS, none_of("masonry", "dusty", or_unknown=True)),
         steps=(Step("scrape", Phase.REMOVE, K.SCRAPE, "Take loose paint off by rotary nozzle, wet",
                     "Priced as an extra where much comes off.", LOOSE, (T.ROTARY_NOZZLE, T.WET_SCRAPE,
                     T.WET_WIRE_BRUSH), otherwise="Scrape loose paint off wet: mist, scrape, wipe"), _SPOT_PRIMER)),
    Rule("peeling-soft", "{loose_pct} % of the old paint is loose on a soft wall", "a jet or a disc takes the face of "
         "the wall with it", on=_ALL, off=_WALL, when=(*_FAILS, one_of("soft", True)),
         steps=(Step("scrape", Phase.REMOVE, K.SCRAPE, "Take loose paint off wet by hand", "Wooden or plastic scraper, "
                     "soft brush; what holds stays.", LOOSE, (T.WET_SCRAPE,), strength=5), _SPOT_PRIMER)),
    Rule("peeling-extra", "{loose_pct} % of the old paint is loose", "how much really comes off is known only when it "
         "is off", on=_ALL, off=_WALL, when=(*_FAILS, above("loose_pct", 20)), level=Alert.NOTE, disclosure=True,
         todo="Removal of bad paint is priced as an extra: say it before the contract."),
    Rule("bloom", "white salt bloom", "salt under a coat pushes it off", on=_ALL, off="roof",
         when=(one_of("efflorescence", "dry-bloom", "returns"),),
         steps=(Step("bloom", Phase.BRUSH_OFF, K.DUST, "Brush the bloom off dry, vacuum it up", "Before any washing: "
                     "water drives the salt in again.", techniques=(T.DRY_BRUSH, T.HEPA_VACUUM),
                     otherwise="Vacuum the bloom off dry (HEPA)"),)),
    Rule("bloom-returns", "the white bloom comes back", "water is coming through the wall", on=_ALL, off="roof",
         when=(one_of("efflorescence", "returns"),), level=Alert.STOP,
         todo="Find and stop the water, brush off dry, wait until it stays away through a wet week."),
    Rule("bloom-watch", "white salt bloom", "where it came once, water came through", on=_ALL, off="roof",
         when=(one_of("efflorescence", "dry-bloom"),), level=Alert.CHECK,
         todo="Look for the water: copings, gutters, ground level. Brush off dry and look again before the coat."),
    Rule("damp-source", "the brick is soft and dusty", "soft brick is mostly wet brick", on=("masonry brick",),
         when=(one_of("masonry", "dusty"),), level=Alert.CHECK, todo="Look for where the water comes from."),
    Rule("masonry-cracks", "cracks up to {crack_mm} mm, {crack_m} m", "a coat does not bridge more than 0.2 mm",
         on=_ALL,
         off="roof", when=(above("crack_m", 0), above("crack_mm", 0.2, or_unknown=True)),
         steps=(Step("open-cracks", Phase.CUT_OUT, K.REPAIR, "Rake cracks out wet and widen them", "",
                     Acts(fact="crack_m", unit=AmountUnit.M), (T.WET_RAKE_OUT,)),
                Step("cracks", Phase.FILL, K.REPAIR, "Fill the cracks, texture to match", "Mastic in fine ones, mortar "
                     "or render in wide ones.", Acts(fact="crack_m", unit=AmountUnit.M), (T.FILL,), wait_h=24))),
    Rule("crumbling", "dusty, and {loose_pct} % comes away", "render that crumbles needs a new face",
         on=("masonry stucco",),
         when=(one_of("masonry", "dusty"), above("loose_pct", 25)),
         steps=(Step("base-render", Phase.FILL, K.REPAIR, "Stabilising base render on the damaged parts", "Three to "
                     "four days before the next step.", Acts(pct=("loose_pct",)), (T.FILL,), wait_h=84),)),
    Rule("moving-cracks", "cracks of {crack_mm} mm", "they move with the seasons and open again", on=("masonry",),
         off=_WALL, when=(above("crack_mm", 2),), level=Alert.CHECK,
         todo="Have the cause looked at; a flexible elastomeric coat bridges what still moves a little."),
    Rule("green-masonry", "{age_years} years old", "fresh render and concrete are alkaline and wet: 28 to 30 days",
         on=_ALL, off="brick limestone roof", when=(_BARE, at_most("age_years", 0.08)), level=Alert.STOP,
         source=Source.STANDARD, ends_after=28,
         todo="Wait 28 to 30 days from laying and test for neutral, unless the primer's sheet allows less."),
    Rule("form-oil", "bare cast concrete", "the oil of the forms sheds every coat", on=("masonry concrete",),
         off="floor", when=(_BARE,),
         steps=(Step("degrease", Phase.STRIP, K.WASH, "De-oil and abrade the smooth places wet", "A water drop must "
                     "soak in everywhere.", techniques=(T.DEGREASE,), wait_h=24),)),
    Rule("concrete-ph", "bare cast concrete", "alkali burns a coat from below", on=("masonry concrete",), off="floor",
         when=(_BARE, at_most("age_years", 0.5, or_unknown=True)), level=Alert.CHECK,
         todo="Test the face for neutral before the primer."),
)  # fmt: skip

DUST = (
    Rule("masonry-dust", "masonry dust holds silica", "it scars the lungs for good", on=_ALL, forbids=SILICA_FORBIDS,
         source=Source.STANDARD, todo="Wet or extracted methods and a respirator."),
    Rule("soft-stone", "limestone is soft", "jets, discs and acids open its face for good", on=("masonry limestone",),
         forbids=SOFT_STONE_FORBIDS, level=Alert.CHECK, todo="Hand tools and gentle washing only; ask whether the "
         "building is listed."),
    Rule("soft-film", "dust comes off a soft wall that is to be coated", "a film holds its water in, and frost takes "
         "the face of the wall with it", on=("masonry brick", "masonry limestone"),
         when=(one_of("masonry", "dusty"),), level=Alert.CHECK,
         todo="Where frost comes, leave it bare; lime or a mineral coat lets it breathe; a conditioner binds the dust "
         "and tightens the wall: only where it is dry and holds."),
    Rule("soft-crumbles", "the wall is dusty and {loose_pct} % comes away", "what crumbles carries no conditioner and "
         "no film", on=("masonry brick", "masonry limestone"),
         when=(one_of("masonry", "dusty"), above("loose_pct", 25)), level=Alert.STOP,
         todo="Have the wall repaired and dried first."),
    Rule("soft-brick", "dust comes off the brick", "jets and discs open its face for good", on=("masonry brick",),
         when=(one_of("masonry", "dusty"),), forbids=SOFT_STONE_FORBIDS, todo="Gentle washing only."),
)  # fmt: skip

SAY_FIRST = (
    Rule("brick-for-good", "bare brick is to be painted", "painted brick cannot be unpainted",
         on=("masonry brick", "masonry limestone"), when=(_BARE,), level=Alert.NOTE, disclosure=True,
         todo="Say it before the contract."),
    Rule("chimney-peels", "a chimney above the roof line", "about half of painted chimneys peel",
         on=("masonry chimney",),
         level=Alert.NOTE, disclosure=True,
         todo="Have water and heat looked at; say it before the contract and leave it "
         "out of the warranty."),
)  # fmt: skip

FINISHES = (
    Rule("finish-masonry", "masonry is painted flat", "flat keeps the wall's look and forgives touch-up", on=_ALL,
         off=_WALL, coats=Coats((F.MASONRY_PAINT, F.HIGH_BUILD_MASONRY, F.ELASTOMERIC), 2, Method.ROLLER, "flat")),
    Rule("finish-block", "block is coarse and thirsty", "a high-build coat fills its face", on=("masonry block",),
         coats=Coats((F.HIGH_BUILD_MASONRY, F.MASONRY_PAINT), 2, Method.ROLLER, "flat", strength=5)),
    Rule("finish-limestone", "limestone must breathe", "a tight film traps water and the stone flakes",
         on=("masonry limestone",), when=(_BARE,), coats=Coats((F.SILICATE_PAINT, F.MASONRY_PAINT), 2, Method.ROLLER,
                                                              "flat", strength=5)),
    Rule("finish-limestone-painted", "limestone under old paint must breathe", "silicate does not hold on an organic "
         "film", on=("masonry limestone",), when=(none_of("coating", "bare", or_unknown=True),),
         coats=Coats((F.MASONRY_PAINT,), 2, Method.ROLLER, "flat", strength=5)),
    Rule("finish-soft-brick", "soft brick must breathe", "an elastic or heavy film traps its water",
         on=("masonry brick",), when=(one_of("masonry", "dusty"),),
         coats=Coats((F.MASONRY_PAINT,), 2, Method.ROLLER, "flat", strength=5)),
    Rule("one-coat-brick", "sound brick, painted for colour only", "one coat, as thin as possible, keeps the joints",
         on=("masonry brick",), when=(at_most("loose_pct", 0), none_of("masonry", "dusty", or_unknown=True)),
         coat_count=1),
)  # fmt: skip

_FLOOR = ("masonry floor",)
FLOORS = (
    Rule("finish-floor", "a floor is walked on", "two thin coats; slip resistance where it gets wet", on=_FLOOR,
         coats=Coats((F.FLOOR_WATERBORNE, F.FLOOR_ALL_IN_ONE, F.FLOOR_ALKYD), 2, Method.ROLLER, "satin",
                     spray=Method.ROLLER, strength=5)),
    Rule("floor-bare", "bare concrete", "smooth concrete gives no tooth; the pores must be filled", on=_FLOOR,
         when=(one_of("coating", "bare"),),
         steps=(Step("dull", Phase.SAND, K.SAND, "Abrade smooth places wet, stipple the first coat into the pores", "",
                     techniques=(T.WET_SAND,)),)),
    Rule("floor-painted", "an old floor coat", "it must be dull and tight to carry another", on=_FLOOR,
         when=(none_of("coating", "bare", or_unknown=True),),
         steps=(Step("dull", Phase.SAND, K.SAND, "Sand the old floor coat dull under extraction, edges feathered", "",
                     techniques=(T.HEPA_SAND, T.WET_SAND), strength=4),)),
    Rule("floor-loose", "{loose_pct} % of the old floor coat is loose", "a new coat comes off with the old one",
         on=_FLOOR, when=(above("loose_pct", 0), none_of("coating", "bare", or_unknown=True)),
         steps=(Step("scrape", Phase.REMOVE, K.SCRAPE, "Scrape off what is loose, wet", "", LOOSE, (T.WET_SCRAPE,)),
                Step("prime-spots", Phase.SPOT_PRIME, K.PRIME, "One more coat of the floor coating on the bared places",
                     "Thinned by its sheet, stippled into the pores.", _SPOTS, families=(F.FLOOR_WATERBORNE,
                     F.FLOOR_ALL_IN_ONE, F.FLOOR_ALKYD), method=Method.BRUSH, bare=True))),
    Rule("floor-stubs", "cut-off posts and anchors stand in the floor", "metal stubs rust through and trip people",
         on=_FLOOR, when=(above("stubs", 0),),
         steps=(Step("stubs", Phase.CUT_OUT, K.REPAIR, "Cut metal stubs off and grind them flush", "Eye and ear "
                     "protection; prime the bright metal the same day.", Acts(fact="stubs", unit=AmountUnit.PIECES),
                     (T.GRIND_METAL,)),)),
    Rule("floor-damp-test", "the slab lies on the ground", "damp from below lifts any floor coat", on=_FLOOR,
         level=Alert.CHECK, todo="Tape a plastic sheet down overnight: clear underneath, or no coat."),
    Rule("floor-slip", "a coated floor is slippery when wet", "people fall", on=_FLOOR, level=Alert.NOTE,
         disclosure=True, todo="Offer a slip additive in the last coat: grip against a rougher look and more washing."),
    Rule("floor-foot", "a floor takes a day before shoes", "footprints in a fresh coat", on=_FLOOR, level=Alert.NOTE,
         disclosure=True, todo="{foot_h} h before foot traffic, 72 h before furniture; another way in meanwhile."),
)  # fmt: skip
RULES = (*GROUND, *REPAIRS, *DUST, *SAY_FIRST, *FINISHES, *FLOORS)
