"""Floors that are walked on: concrete slabs, wooden stairs and porch floors (docs/trade.md §3, §4)."""

from amber_gable.core.specification.derived.rule import (
    LOOSE,
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
from amber_gable.domain.paint.families import Family as F
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.operation import AmountUnit
from amber_gable.domain.work.operation import OperationKind as K
from amber_gable.domain.work.operation import Technique as T

_SPOTS = Acts(pct=("loose_pct",), factor=1.2, least_pct=2)
_FLOOR = ("masonry floor",)
_BARE = one_of("coating", "bare")
_WOODEN = ("wood floor", "wood stair")
_TRODDEN, _PAINTED = (*_FLOOR, *_WOODEN), one_of("aim", "paint")
_FILLS = "Thinned by its sheet, stippled into the pores by brush."
FLOORS = (
    Rule("finish-wooden-floor", "wooden steps and porch boards are walked on", "two thin coats of a floor paint; house "
         "paint stays soft and sticks to shoes", on=_WOODEN, when=(_PAINTED,),
         coats=Coats((F.FLOOR_WATERBORNE, F.FLOOR_ALKYD), 2, Method.BRUSH, "satin", spray=Method.BRUSH, strength=6)),
    Rule("finish-floor", "a floor is walked on", "two thin coats; slip resistance where it gets wet", on=_FLOOR,
         coats=Coats((F.FLOOR_WATERBORNE, F.FLOOR_ALL_IN_ONE, F.FLOOR_ALKYD), 2, Method.ROLLER, "satin",
                     spray=Method.ROLLER, strength=5, on_bare=_FILLS)),
    Rule("finish-floor-young", "the slab is {age_years} years old", "young concrete is alkaline and turns oil to soap",
         on=_FLOOR, when=(at_most("age_years", 0.5),), level=Alert.NOTE, todo="No alkyd floor paint on it.",
         coats=Coats((F.FLOOR_WATERBORNE, F.FLOOR_ALL_IN_ONE), 2, Method.ROLLER, "satin", spray=Method.ROLLER,
                     strength=6, on_bare=_FILLS)),
    Rule("floor-bare", "bare concrete", "smooth concrete gives no tooth", on=_FLOOR, when=(_BARE,),
         steps=(Step("dull", Phase.SAND, K.SAND, "Profile the slab: grind it under extraction", "Like medium "
                     "sandpaper to the hand; the dust is drawn off, not blown.", techniques=(T.HEPA_GRIND,)),)),
    Rule("floor-sealed", "water stands on the bare slab", "a curing compound or sealer sheds every coat", on=_FLOOR,
         when=(_BARE, one_of("absorbency", "slow", "beads")),
         steps=(Step("dull", Phase.SAND, K.SAND, "Grind the sealer off under extraction until water soaks in", "Then "
                     "like medium sandpaper to the hand.", techniques=(T.HEPA_GRIND,), strength=6),)),
    Rule("floor-trowelled", "the slab is hard and shiny", "a coat has no tooth on steel-trowelled concrete", on=_FLOOR,
         when=(one_of("masonry", "shiny"),), level=Alert.CHECK,
         todo="Grind it under extraction until it is matt everywhere; try a patch, a week later tape and pull."),
    Rule("floor-sealer-unknown", "nobody sprinkled water on the bare slab", "a curing compound or sealer sheds every "
         "coat", on=_FLOOR, when=(_BARE, one_of("absorbency_known", False)), level=Alert.CHECK,
         todo="Sprinkle water in several places: it must soak in."),
    Rule("floor-painted", "an old floor coat", "it must be dull and tight to carry another", on=_FLOOR,
         when=(none_of("coating", "bare", or_unknown=True),),
         steps=(Step("dull", Phase.SAND, K.SAND, "Sand the old floor coat dull under extraction, edges feathered", "",
                     techniques=(T.HEPA_SAND, T.WET_SAND), strength=4),)),
    Rule("floor-loose", "{loose_pct} % of the old floor coat is loose", "a new coat comes off with the old one",
         on=_FLOOR, when=(above("loose_pct", 0), none_of("coating", "bare", or_unknown=True)),
         steps=(Step("scrape", Phase.REMOVE, K.SCRAPE, "Scrape off what is loose, wet", "", LOOSE, (T.WET_SCRAPE,)),
                Step("prime-spots", Phase.SPOT_PRIME, K.PRIME, "One more coat of the floor coating on the bared places",
                     "Thinned by its sheet, stippled into the pores.", _SPOTS, (T.STIPPLE,), families=(
                     F.FLOOR_WATERBORNE, F.FLOOR_ALL_IN_ONE, F.FLOOR_ALKYD), method=Method.BRUSH, bare=True))),
    Rule("floor-stubs", "cut-off posts and anchors stand in the floor", "metal stubs rust through and trip people",
         on=_FLOOR, when=(above("stubs", 0),),
         steps=(Step("stubs", Phase.CUT_OUT, K.REPAIR, "Cut metal stubs off and grind them flush", "Eye and ear "
                     "protection.", Acts(fact="stubs", unit=AmountUnit.PIECES), (T.GRIND_METAL,)),
                Step("prime-stubs", Phase.BRIGHT_METAL, K.PRIME, "Rust-inhibiting primer on the bright metal",
                     "The same day.", Acts(least_pct=0.5), families=(F.METAL_PRIMER,), ground=("metal", "steel"),
                     method=Method.BRUSH))),
    Rule("floor-damp-test", "the slab lies on the ground", "damp from below lifts any floor coat", on=_FLOOR,
         level=Alert.CHECK, todo="Tape a plastic sheet down overnight: clear underneath, or no coat."),
    Rule("floor-slip", "a coated floor is slippery when wet", "people fall", on=_TRODDEN, when=(_PAINTED,),
         level=Alert.NOTE, disclosure=True, todo="Offer a slip additive in the last coat: grip against a rougher look "
         "and more washing."),
    Rule("floor-foot", "a floor takes a day before shoes", "footprints in a fresh coat", on=_TRODDEN, when=(_PAINTED,),
         level=Alert.NOTE, disclosure=True, todo="{foot_h} h before foot traffic, 72 h before furniture; another way "
         "in meanwhile."),
)  # fmt: skip
_STAINED = (one_of("aim", "semi-transparent", "translucent"), none_of("keeps_up", "refresh", or_unknown=True))


def _seal(family: F, method: Method, note: str, *, tinted: bool = False) -> Step:
    name = "Clear coat over the colour" + (", a little of it stirred in" if tinted else "")
    return Step("seal", Phase.SEAL, K.COAT, name, note, families=(family,), method=method)


_PLAIN = "Thin, in one direction; low sheen where it gets wet."
_TINTED = ("Stir a twentieth of the floor's colour into all of it at once, so that it does not look cloudy. Thin, in "
           "one direction; low sheen where it gets wet.")  # fmt: skip
_BOARDS_TINTED = "Stir a twentieth of the stain into all of it at once. Thin, along the boards."
CLEAR = (
    Rule("seal-floor", "shoes and weather wear the colour", "the clear coat wears in its place", on=_FLOOR,
         when=(_PAINTED,), school=("topcoat", "clear"), steps=(_seal(F.FLOOR_SEALER, Method.ROLLER, _PLAIN),)),
    Rule("seal-floor-tinted", "shoes and weather wear the colour", "the clear coat wears in its place", on=_FLOOR,
         when=(_PAINTED,), school=("topcoat", "tinted"),
         steps=(_seal(F.FLOOR_SEALER, Method.ROLLER, _TINTED, tinted=True),)),
    Rule("seal-deck", "sun and shoes wear the stain", "the clear coat wears in its place, renewed every year",
         on=("wood deck",), when=_STAINED,
         school=("topcoat", "clear"), steps=(_seal(F.DECK_CLEAR, Method.BRUSH, "Thin, along the boards."),)),
    Rule("seal-deck-tinted", "sun and shoes wear the stain", "the clear coat wears in its place, renewed every year",
         on=("wood deck",), when=_STAINED,
         school=("topcoat", "tinted"), steps=(_seal(F.DECK_CLEAR, Method.BRUSH, _BOARDS_TINTED, tinted=True),)),
)  # fmt: skip
RULES = (*FLOORS, *CLEAR)
