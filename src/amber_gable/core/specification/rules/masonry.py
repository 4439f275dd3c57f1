"""Render, brick, block, stone, concrete walls, chimneys (docs/trade.md §3, §4)."""

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
    Rule("dusty", "dust comes off on the finger", "paint holds to the dust, not to the wall", on=_ALL,
         off="roof brick limestone", when=(one_of("masonry", "dusty"),),
         steps=(_prime("Stabilising conditioner, dried a full day", "Flood it on from the bottom up; no puddles.", 55,
                       F.MASONRY_CONDITIONER, F.MASONRY_UNDERCOAT),)),
    Rule("glazed-abrade", "the surface is hard and shiny", "paint has no tooth to hold to, and nothing soaks into "
         "glaze", on=_ALL, off=_WALL, when=(one_of("masonry", "shiny"),), school=("glaze", "abrade"),
         steps=(Step("dull", Phase.SAND, K.SAND, "Abrade the glaze wet until it is dull everywhere", "Coarse pad or "
         "block; rinse the slurry off.", techniques=(T.WET_SAND, T.HEPA_SAND), strength=3), _prime("Adhesion primer, "
         "tinted toward the finish", "Thin and even.", 50, F.BONDING_PRIMER, tinted=True))),
    Rule("glazed-conditioner", "the surface is hard and shiny", "paint has no tooth to hold to", on=_ALL, off=_WALL,
         when=(one_of("masonry", "shiny"),), school=("glaze", "conditioner"),
         steps=(_prime("Bonding conditioner, tinted toward the finish", "Thin and even.", 50, F.MASONRY_CONDITIONER,
                       F.BONDING_PRIMER, tinted=True),)),
    Rule("age-unknown", "bare, and nobody knows how old", "fresh render and concrete are alkaline and wet for a month",
         on=("masonry stucco", "masonry block", "masonry floor"), when=(_BARE, one_of("age_years_known", False)),
         level=Alert.CHECK, todo="Ask when it was laid; under a month old it waits."),
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
         when=(_BARE, one_of("masonry", "normal")), unless=("prime",), level=Alert.NOTE,
         todo="The first coat, thinned by its sheet, is the primer."),
    Rule("block-self", "bare block", "a high-build coat primes and fills it", on=("masonry block",),
         when=(_BARE, one_of("masonry", "normal")), level=Alert.NOTE, todo="The first high-build coat is the primer."),
    Rule("painted-sound", "sound old paint", "it needs no primer", on=_ALL, off=_WALL,
         when=(one_of("film", True), at_most("loose_pct", 0), at_most("bare_pct", 0, or_unknown=True),
               none_of("masonry", "dusty", "shiny", or_unknown=True)),
         level=Alert.NOTE, unless=("prime", "prime-mortar"), todo="No primer."),
    Rule("beads", "water beads on it", "what sheds water sheds paint", on=_ALL, off="roof",
         when=(one_of("absorbency", "beads"), one_of("masonry", "normal")), level=Alert.CHECK,
         todo="An old water repellent? Wash, try again; else a bonding primer."),
)  # fmt: skip

_FAILS = (above("loose_pct", 0), none_of("coating", "bare", or_unknown=True))
_SPOTS = Acts(pct=("loose_pct",), factor=1.2, least_pct=2)
_NO_JET = (T.PRESSURE_WASH, T.ROTARY_NOZZLE)
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
                Step("dust-cracks", Phase.CRACK_DUST, K.DUST, "Vacuum the opened cracks out", "A filler holds to the "
                     "dust, not to the wall.", Acts(fact="crack_m", unit=AmountUnit.M), (T.HEPA_VACUUM, T.DAMP_WIPE)),
                Step("cracks", Phase.FILL, K.REPAIR, "Fill the cracks, texture to match", "Mastic up to about 1 mm, "
                     "mortar or render in wider ones.", Acts(fact="crack_m", unit=AmountUnit.M), (T.FILL,),
                     wait_h=24))),
    Rule("new-mortar", "cracks up to {crack_mm} mm are filled with mortar", "new mortar is alkaline and burns a coat "
         "from below", on=_ALL, off="roof floor limestone", when=(above("crack_m", 0), above("crack_mm", 1,
                                                                                         or_unknown=True)),
         steps=(Step("prime-mortar", Phase.SPOT_PRIME, K.PRIME, "Alkali-resistant primer on the new mortar", "When it "
                     "is dry right through.", Acts(pct=("crack_pct",), least_pct=1), families=(F.MASONRY_UNDERCOAT,),
                     method=Method.BRUSH, bare=True),)),
    Rule("jet-cracks", "open cracks in the render", "a jet drives water through them behind it",
         on=("masonry stucco",), when=(above("crack_mm", 0.2),), forbids=_NO_JET, todo="Soft brush, low pressure."),
    Rule("jet-friable", "dust comes off the wall", "a jet takes its face off", on=("masonry stucco", "masonry block",
         "masonry concrete"), off="floor", when=(one_of("masonry", "dusty"),), forbids=_NO_JET,
         todo="Soft brush, low pressure."),
    Rule("crumbling", "dusty, and {loose_pct} % comes away", "render that crumbles needs a new face",
         on=("masonry stucco",),
         when=(one_of("masonry", "dusty"), above("loose_pct", 25)),
         steps=(Step("base-render", Phase.FILL, K.REPAIR, "Stabilising base render on the damaged parts", "Three to "
                     "four days before the next step.", Acts(pct=("loose_pct",)), (T.FILL,), wait_h=84),)),
    Rule("moving-cracks", "cracks of {crack_mm} mm", "they move with the seasons and open again", on=("masonry",),
         off=_WALL, when=(above("crack_mm", 1.5), at_most("crack_mm", 3)), level=Alert.CHECK,
         todo="Have the cause looked at; a flexible elastomeric coat bridges what still moves a little."),
    Rule("wide-cracks", "cracks of {crack_mm} mm", "so wide a crack is the building's, and opens again through any "
         "coat", on=("masonry",), off=_WALL, when=(above("crack_mm", 3),), level=Alert.STOP,
         todo="Have somebody who knows buildings find the cause and end it; then it is filled and coated."),
    Rule("green-masonry", "{age_years} years old", "fresh render and concrete are alkaline and wet: 28 to 30 days",
         on=_ALL, off="brick limestone roof", when=(_BARE, at_most("age_years", 0.08)), level=Alert.STOP,
         source=Source.STANDARD, ends_after=28,
         todo="Wait 28 to 30 days from laying and test for neutral, unless the primer's sheet allows less."),
    Rule("form-oil", "bare cast concrete", "the oil of the forms sheds every coat", on=("masonry concrete",),
         off="floor", when=(_BARE,), steps=(Step("degrease", Phase.TREAT, K.WASH, "De-oil and abrade the smooth places "
         "wet", "Before the wash, which rinses it; after that a water drop must soak in everywhere.",
         techniques=(T.DEGREASE,)),)),
    Rule("concrete-ph", "bare cast concrete", "alkali burns a coat from below", on=("masonry concrete",), off="floor",
         when=(_BARE, at_most("age_years", 0.5, or_unknown=True)), level=Alert.CHECK,
         todo="Test the face for neutral before the primer."),
)  # fmt: skip

_SOFT, _DUSTY = ("masonry brick", "masonry limestone"), one_of("masonry", "dusty")
_PAINTED = none_of("coating", "bare", or_unknown=True)
_BIND = _prime(
    "Stabilising conditioner, dried a full day",
    "Flood it on from the bottom up; no puddles.",
    55,
    F.MASONRY_CONDITIONER,
    F.MASONRY_UNDERCOAT,
)
DUST = (
    Rule("masonry-dust", "masonry dust holds silica", "it scars the lungs for good", on=_ALL, forbids=SILICA_FORBIDS,
         source=Source.STANDARD, todo="Wet or extracted methods and a respirator."),
    Rule("soft-stone", "limestone is soft", "jets, discs and acids open its face for good", on=("masonry limestone",),
         forbids=SOFT_STONE_FORBIDS, level=Alert.CHECK, todo="Hand tools and gentle washing only; ask whether the "
         "building is listed."),
    Rule("soft-leave", "dust comes off a soft bare wall", "a film holds its water in, and frost takes the face of the "
         "wall with it", on=_SOFT, when=(_DUSTY, _BARE), school=("soft-wall", "leave"), level=Alert.STOP,
         todo="Leave it bare. Where it must be coated, a mineral coat or a conditioner are schools of this part."),
    Rule("soft-mineral", "dust comes off a soft bare wall", "only what lets water out again keeps its face on",
         on=_SOFT, when=(_DUSTY, _BARE), school=("soft-wall", "mineral"), level=Alert.CHECK,
         todo="The first coat, thinned by its own sheet, binds the dust; try a patch and rub it when it is dry.",
         coats=Coats((F.SILICATE_PAINT,), 2, Method.ROLLER, "flat", strength=9)),
    Rule("soft-conditioner", "dust comes off a soft bare wall", "paint holds to the dust, not to the wall", on=_SOFT,
         when=(_DUSTY, _BARE), school=("soft-wall", "conditioner"), steps=(_BIND,)),
    Rule("soft-bound", "a conditioner tightens a soft wall", "where it is damp, frost may take its face", on=_SOFT,
         when=(_DUSTY, _BARE), school=("soft-wall", "conditioner"), level=Alert.NOTE, disclosure=True,
         todo="Only where it is dry and holds: say it before the contract."),
    Rule("soft-painted", "dust comes off under old paint", "paint holds to the dust, and the film keeps the wall's "
         "water in", on=_SOFT, when=(_DUSTY, _PAINTED), level=Alert.CHECK, steps=(_BIND,),
         todo="Find where the water comes from. Where the old film can come off, bare or mineral is better for the "
         "wall."),
    Rule("soft-crumbles", "the wall is dusty and {loose_pct} % comes away", "what crumbles carries no conditioner and "
         "no film", on=("masonry brick", "masonry limestone"),
         when=(one_of("masonry", "dusty"), above("loose_pct", 25)), level=Alert.STOP,
         todo="Have the wall repaired and dried first."),
    Rule("soft-brick", "dust comes off the brick", "jets and discs open its face for good", on=("masonry brick",),
         when=(one_of("masonry", "dusty"),), forbids=SOFT_STONE_FORBIDS, todo="Gentle washing only."),
)  # fmt: skip

SAY_FIRST = (
    Rule("brick-for-good", "bare brick is to be painted", "painted brick cannot be unpainted",
         on=("masonry brick",), when=(_BARE,), level=Alert.NOTE, disclosure=True,
         todo="Say it before the contract."),
    Rule("stone-for-good", "bare stone is to be painted", "its pores never come clean again",
         on=("masonry limestone",), when=(_BARE,), level=Alert.NOTE, disclosure=True,
         todo="Say it before the contract."),
    Rule("chimney-peels", "a chimney above the roof line", "about half of painted chimneys peel",
         on=("masonry chimney",),
         level=Alert.NOTE, disclosure=True,
         todo="Have water and heat looked at; say it before the contract and leave it "
         "out of the warranty."),
)  # fmt: skip

_SOUND = (at_most("loose_pct", 0), none_of("masonry", "dusty", or_unknown=True))
FINISHES = (
    Rule("finish-masonry", "masonry is painted flat", "flat keeps the wall's look and forgives touch-up", on=_ALL,
         off=_WALL, coats=Coats((F.MASONRY_PAINT, F.HIGH_BUILD_MASONRY, F.ELASTOMERIC), 2, Method.ROLLER, "flat")),
    Rule("finish-block", "block is coarse and thirsty", "a high-build coat fills its face", on=("masonry block",),
         coats=Coats((F.HIGH_BUILD_MASONRY, F.MASONRY_PAINT), 2, Method.ROLLER, "flat", strength=5)),
    Rule("finish-limestone", "limestone must breathe", "a tight film traps water and the stone flakes", on=("masonry "
         "limestone",), when=(_BARE, one_of("masonry", "normal")), coats=Coats((F.SILICATE_PAINT, F.MASONRY_PAINT), 2,
         Method.ROLLER, "flat", strength=5)),
    Rule("finish-limestone-painted", "limestone must breathe", "silicate does not hold on an organic primer or film",
         on=("masonry limestone",), coats=Coats((F.MASONRY_PAINT,), 2, Method.ROLLER, "flat", strength=4)),
    Rule("finish-soft-brick", "soft brick must breathe", "an elastic or heavy film traps its water",
         on=("masonry brick",), when=(one_of("masonry", "dusty"),),
         coats=Coats((F.MASONRY_PAINT,), 2, Method.ROLLER, "flat", strength=5)),
    Rule("one-coat-brick", "sound bare brick, painted for colour only", "one coat, as thin as possible, keeps the "
         "joints", on=("masonry brick",), when=(_BARE, *_SOUND), school=("brick", "direct"), coat_count=1),
    Rule("one-coat-painted-brick", "sound painted brick, painted for colour only", "one coat, as thin as possible, "
         "keeps the joints", on=("masonry brick",), when=(none_of("coating", "bare", "lime-wash", or_unknown=True),
         *_SOUND), coat_count=1),
)  # fmt: skip

RULES = (*GROUND, *REPAIRS, *DUST, *SAY_FIRST, *FINISHES)
