"""What lies on a surface beside paint: factory coats, lime wash, soot, salt, graffiti, wax (docs/trade.md §3, §4)."""

from amber_gable.core.specification.derived.rule import Acts, Phase, Rule, Step, above, at_most, none_of, one_of
from amber_gable.domain.paint.families import Family as F
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.operation import OperationKind as K
from amber_gable.domain.work.operation import Technique as T

_FACTORY, _PRIMED = one_of("coating", "factory-coat"), one_of("coating", "factory-primer")
_COATED = ("metal", "fibre-cement", "wood", "glass-fibre")
_FRESH_YEARS = 0.5
"""Longer than this no primer stays open to a coat in the weather."""


def _primed(of: str, on: str, *families: F) -> tuple[Rule, Rule]:
    """Boards primed at the works, fresh and weathered; what their cut ends drink depends on what they are made of."""
    return (
        Rule(f"primed{of}-fresh", "boards primed at the works", "their faces need nothing, their cut ends drink",
             on=(on,), off="deck roof", when=(_PRIMED, at_most("age_years", _FRESH_YEARS)),
             steps=(Step("wash", Phase.WASH, K.WASH, "Brush down and wipe with a damp cloth", "A hose soaks open "
                         "ends.", techniques=(T.DAMP_WIPE,), wait_h=1, strength=4),
                    Step("prime-spots", Phase.SPOT_PRIME, K.PRIME, "Primer on cut ends, nail holes and knocks",
                         "Ends twice.", Acts(pct=("loose_pct", "bare_pct"), least_pct=3), families=families,
                         method=Method.BRUSH, bare=True, strength=6, covers=("prime-joints",)))),
        Rule(f"primed{of}-weathered", "boards primed at the works stood long in the weather, or nobody knows how long",
             "a works primer chalks within a season and carries no coat", on=(on,), off="deck roof",
             when=(_PRIMED, above("age_years", _FRESH_YEARS, or_unknown=True)),
             steps=(Step("dull", Phase.SAND, K.SAND, "Sand the old works primer, wipe clean", "",
                         techniques=(T.HAND_SAND, T.HEPA_SAND, T.WET_SAND), strength=2),
                    Step("prime", Phase.PRIME, K.PRIME, "Primer all over, cut ends twice", "", families=families,
                         method=Method.BRUSH, strength=44, covers=("prime-spots", "prime-joints")))),
    )  # fmt: skip


FACTORY = (
    Rule("factory-coat", "it carries a factory coat", "baked on, it is hard, and often waxed: paint has no tooth",
         on=_COATED, off="deck", when=(_FACTORY, none_of("adhesion", "holds", or_unknown=True)),
         steps=(Step("dull", Phase.SAND, K.SAND, "Dull the factory coat with a fine pad, wipe clean", "",
                     techniques=(T.HAND_SAND, T.WET_SAND), strength=2),
                Step("prime", Phase.PRIME, K.PRIME, "Bonding primer all over", "", families=(F.BONDING_PRIMER,),
                     method=Method.BRUSH, strength=34))),
    Rule("factory-patch", "it carries a factory coat, and no patch was tried", "some factory coats let no paint hold",
         on=_COATED, off="deck", when=(_FACTORY, one_of("patch_made", False)), level=Alert.CHECK,
         todo="Clean, dull, prime and coat a hand's breadth; a week later tape and pull."),
    *_primed("", "wood", F.ACRYLIC_WOOD_PRIMER, F.ALKYD_WOOD_PRIMER),
    *_primed("-cement", "fibre-cement siding", F.MASONRY_UNDERCOAT, F.ACRYLIC_WOOD_PRIMER),
    Rule("lime-wash", "lime or cement wash", "it rubs off for good, and a film comes off with it", on=("masonry",),
         off="roof floor", when=(one_of("coating", "lime-wash"),),
         steps=(Step("scrape", Phase.REMOVE, K.SCRAPE, "Brush off what rubs off, wet", "Down to what holds.",
                     Acts(pct=("loose_pct",), least_pct=30), (T.WET_WIRE_BRUSH, T.WET_SCRAPE), strength=2),
                Step("prime", Phase.PRIME, K.PRIME, "Stabilising conditioner over the wash", "Let it dry a full day.",
                     families=(F.MASONRY_CONDITIONER,), method=Method.ROLLER, bare=True, strength=54,
                     covers=("prime-spots", "prime-joints")))),
    Rule("lime-wash-mineral", "lime or cement wash", "old walls under it are made to breathe", on=("masonry",),
         off="roof floor", when=(one_of("coating", "lime-wash"),), level=Alert.CHECK,
         todo="Ask whether it may stay mineral: new lime wash or silicate holds on it without a conditioner."),
)  # fmt: skip

_NO_PRIMER = "membrane composite"
"""No stain-blocking primer is made for these."""
DEPOSITS = (
    Rule("soot-unprimed", "soot lies on it", "its tar comes up brown, and no blocking primer goes on this surface",
         on=tuple(_NO_PRIMER.split()), when=(one_of("deposit", "soot"),), level=Alert.CHECK,
         todo="Wash until a white cloth stays white; what stays brown then may come through: try a patch, and say it.",
         steps=(Step("degrease-dirt", Phase.BRUSH_OFF, K.WASH, "Wash the soot off with degreaser, rinse",
                     "Until a white cloth stays white.", techniques=(T.DEGREASE,), strength=3),)),
    Rule("graffiti-unprimed", "graffiti", "its dyes come through, and no blocking primer goes on this surface",
         on=tuple(_NO_PRIMER.split()), when=(one_of("deposit", "graffiti"),), level=Alert.CHECK,
         todo="What shadow stays may come through: try a patch, and say it.",
         steps=(Step("degrease-dirt", Phase.BRUSH_OFF, K.WASH, "Take the graffiti off with its remover, rinse",
                     "Try it first: it may take the surface too.", Acts(least_pct=5), (T.DEGREASE,), strength=2),)),

    Rule("soot", "soot lies on it", "it smears, and its tar comes up brown through waterborne paint", off=_NO_PRIMER,
         when=(one_of("deposit", "soot"),),
         steps=(Step("degrease-dirt", Phase.BRUSH_OFF, K.WASH, "Wash the soot off with degreaser, bottom to top, rinse",
                     "Until a white cloth stays white.", techniques=(T.DEGREASE,), strength=3),
                Step("prime-stains", Phase.STAIN_PRIME, K.PRIME, "Stain-blocking primer on what stays brown", "",
                     Acts(least_pct=10), families=(F.STAIN_BLOCKER, F.BONDING_PRIMER), method=Method.BRUSH,
                     strength=8))),
    Rule("sea-salt", "sea salt lies on it", "salt draws water under the coat: blisters, and rust on metal",
         when=(one_of("deposit", "sea-salt"),), level=Alert.CHECK,
         todo="Wash with much fresh water, and rinse again where more than two or three days pass before the coat."),
    Rule("graffiti", "graffiti", "its dyes bleed through, and its gloss sheds the coat", off=_NO_PRIMER,
         when=(one_of("deposit", "graffiti"),),
         steps=(Step("degrease-dirt", Phase.BRUSH_OFF, K.WASH, "Take the graffiti off with its remover, rinse",
                     "Try it first: it may take the paint too.", Acts(least_pct=5), (T.DEGREASE,), strength=2),
                Step("prime-stains", Phase.STAIN_PRIME, K.PRIME, "Stain-blocking primer where its shadow stays", "",
                     Acts(least_pct=5), families=(F.STAIN_BLOCKER, F.BONDING_PRIMER), method=Method.BRUSH,
                     strength=7))),
    Rule("wax", "wax or polish lies on it", "sanded in, it makes fish-eyes in every coat", when=(one_of("deposit",
         "wax"),), steps=(Step("dewax", Phase.BRUSH_OFF, K.WASH, "Wipe the wax off with solvent, two cloths", "Before "
         "anything is sanded; a water drop must spread.", techniques=(T.DEGLOSSER,)),)),
)  # fmt: skip

RULES = (*FACTORY, *DEPOSITS)
