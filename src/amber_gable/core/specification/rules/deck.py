"""Wood decks in their four states: new, weathered grey, under a film, under a penetrating stain (docs/trade.md §3,
§4.2)."""

from amber_gable.core.specification.derived.rule import (
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

_DECK = ("wood deck",)
_LETS_SHOW = one_of("aim", "semi-transparent", "translucent", "clear")
_FILM = one_of("coating", "film-stain", "waterborne", "oil", "factory-coat", "factory-primer", "lime-wash")
_RENEWED = none_of("keeps_up", "clear-anew", "refresh", or_unknown=True)
_NEITHER = none_of("keeps_up", "clear-anew", "refresh", "strip-only", or_unknown=True)
_LAID = none_of("keeps_up", "wash-only", or_unknown=True)
_DRY = "three sunny days, and the meter reads {moisture_limit} % or less"
_BRIGHTEN = Step("brighten", Phase.BRIGHTEN, K.STRIP, "Brighten and neutralise, rinse gently",
                 "Brings the surface back "
                 "to pH 7 to 8: a stain on wood left alkaline does not bond. Never straight after bleach.",
                 techniques=(T.BRIGHTENER,), wait_h=72, until=_DRY)  # fmt: skip


_DULL = "Glossy spots left are where it peels first."


def _wash(wait_h: float, until: str) -> Step:
    return Step("wash", Phase.WASH, K.WASH, "Wash with deck cleaner, brush along the grain, rinse", "Garden hose is "
                "enough.", techniques=(T.HOSE_WASH,), wait_h=wait_h, until=until)  # fmt: skip


_WASH = _wash(72, _DRY)
_WASH_THEN_STRIP = _wash(24, "the boards are dry to see and touch")
_WASH_THEN_BRIGHTEN = _wash(0, "")
"""A stripper or restorer goes on dry boards, a brightener on wet ones; the days of drying come once, at the end."""

STATES = (
    Rule("deck-new", "the wood is new and bare", "mill glaze and salts keep stain out", on=_DECK,
         when=(one_of("coating",
                "bare"), one_of("greyed", False, or_unknown=True)), steps=(_WASH_THEN_BRIGHTEN, _BRIGHTEN)),
    Rule("deck-grey", "silver-grey wood without a film", "dead fibre, about 1.5 mm deep, takes the stain off with it; "
         "washing or sanding alone leaves it in the checks", on=_DECK,
         when=(one_of("coating", "bare", "penetrating-stain"), one_of("greyed", True)),
         steps=(_WASH_THEN_STRIP, Step("restore", Phase.STRIP, K.STRIP, "Restorer: wet on, scrub, rinse",
                "Sections of about 1 × "
                            "1 m kept wet; cover glass and vinyl, wet the plants.", techniques=(T.RESTORER,)),
                _BRIGHTEN)),
    Rule("deck-film-strip", "a film of {coating} is on the boards", "a penetrating stain cannot get under a film",
         on=_DECK, when=(_FILM, _LETS_SHOW, _RENEWED), source=Source.STANDARD,
         steps=(_WASH_THEN_STRIP, Step("strip", Phase.STRIP, K.STRIP, "Chemical stripper, dwell, scrub, rinse well",
                            "On dry boards, 1 × 1 m at a time, kept wet; test patch decides neat to 1 : 7. Caustic: "
                            "goggles, gloves. Wood looks darker after: brightener mends it.",
                            techniques=(T.STRIPPER,), strength=5), _BRIGHTEN)),
    Rule("deck-film-failing", "{loose_pct} % of the film is loose", "a new film comes off with the old one", on=_DECK,
         when=(_FILM, one_of("aim", "solid-stain"), above("loose_pct", 20)),
         steps=(_WASH_THEN_STRIP, Step("strip", Phase.STRIP, K.STRIP, "Chemical stripper, dwell, scrub, rinse well",
                            "So much loose film is not worth scraping.", techniques=(T.STRIPPER,)), _BRIGHTEN)),
    Rule("deck-film-keep", "a film that mostly holds", "once solid, only solid again unless it is stripped", on=_DECK,
         when=(_FILM, one_of("aim", "solid-stain"), at_most("loose_pct", 20)),
         steps=(_WASH, Step("scrape", Phase.REMOVE, K.SCRAPE, "Scrape what is loose", "",
                            Acts(pct=("loose_pct",), least_pct=1), (T.DRY_SCRAPE, T.WET_SCRAPE),
                            otherwise="Scrape wet what is loose: mist, scrape, wipe"),
                Step("dull", Phase.SAND, K.SAND, "Sand the film dull", "", techniques=(T.POWER_SAND, T.HEPA_SAND),
                     covers=("fibre",), otherwise="Sand the film dull under a HEPA shroud"))),
    Rule("deck-penetrating", "an old penetrating stain, not grey", "it is refreshed, not stripped", on=_DECK,
         when=(one_of("coating", "penetrating-stain"), one_of("greyed", False, or_unknown=True), _NEITHER),
         steps=(_WASH_THEN_BRIGHTEN, _BRIGHTEN)),
    Rule("deck-unknown", "what is on the boards is not known", "stripped for nothing, or stained over a film", on=_DECK,
         when=(one_of("coating_known", False), _LAID), level=Alert.STOP, steps=(_WASH,),
         todo="Rub with methylated spirit, sprinkle water: film or not?"),
)  # fmt: skip

KEPT_UP = (
    Rule("deck-refresh", "last year's stain is still in the wood", "one thin coat of the same feeds it; more lies on "
         "top and shines", on=_DECK, when=(one_of("keeps_up", "refresh"), one_of("coating", "penetrating-stain"),
                                       one_of("greyed", False, or_unknown=True)), steps=(_WASH,)),
    Rule("deck-nothing-to-refresh", "no sound penetrating stain is on these boards", "a refreshed coat on grey wood or "
         "on a film does not last a winter", on=_DECK, level=Alert.STOP,
         when=(one_of("keeps_up", "refresh"), none_of("coating", "penetrating-stain", or_unknown=True)),
         todo="Choose the stain itself: the boards are restored or stripped for it."),
    Rule("deck-too-grey-to-refresh", "the boards are grey", "dead fibre takes the new stain off with it", on=_DECK,
         level=Alert.STOP, when=(one_of("keeps_up", "refresh"), one_of("greyed", True)),
         todo="Choose the stain itself: the boards are restored for it."),
    Rule("deck-wash-only", "a year of dirt and algae", "dirt holds water, and algae are slippery", on=_DECK,
         when=(one_of("keeps_up", "wash-only"),), steps=(_WASH,)),
    Rule("deck-strip-stain", "an old penetrating stain comes off", "what is left of it blotches the next one", on=_DECK,
         when=(one_of("keeps_up", "strip-only"), one_of("coating", "penetrating-stain"),
               one_of("greyed", False, or_unknown=True)), source=Source.STANDARD,
         steps=(_WASH_THEN_STRIP, Step("strip", Phase.STRIP, K.STRIP, "Chemical stripper, dwell, scrub, rinse well",
                            "On dry boards, 1 × 1 m at a time, kept wet. Caustic: goggles, gloves.",
                            techniques=(T.STRIPPER,)), _BRIGHTEN)),
    Rule("deck-left-bare", "the boards are left bare", "bare wood greys within weeks and takes the rain in", on=_DECK,
         when=(one_of("keeps_up", "strip-only"),), level=Alert.NOTE, disclosure=True,
         todo="Stain them within two weeks, or say what the weather will do."),
    Rule("deck-nothing-to-strip", "nothing is on these boards", "a stripper only raises the grain", on=_DECK,
         when=(one_of("keeps_up", "strip-only"), one_of("coating", "bare")), level=Alert.STOP,
         todo="Wash only, or choose a stain."),
    Rule("deck-clear-anew", "the clear film wears thin", "renewed every year it is never stripped", on=_DECK,
         when=(one_of("keeps_up", "clear-anew"), _FILM, at_most("loose_pct", 20)),
         steps=(_WASH, Step("dull", Phase.SAND, K.SAND, "Scuff the clear film dull, 150 grit, along the boards", _DULL,
                            techniques=(T.POWER_SAND, T.HEPA_SAND, T.WET_SAND), covers=("fibre",),
                            otherwise="Scuff the clear film dull under a HEPA shroud, 150 grit"))),
    Rule("deck-clear-gone", "{loose_pct} % of the clear film is loose", "a new one comes off with it", on=_DECK,
         when=(one_of("keeps_up", "clear-anew"), _FILM, above("loose_pct", 20)), level=Alert.STOP,
         todo="Choose the clear coat itself: the boards are stripped for it."),
    Rule("deck-no-clear", "no clear film is on these boards", "there is nothing to renew", on=_DECK, level=Alert.STOP,
         when=(one_of("keeps_up", "clear-anew"), one_of("coating", "bare", "penetrating-stain")),
         todo="Choose the clear coat itself."),
)  # fmt: skip

SANDING = (
    Rule("deck-open", "raised fibre after washing", "splinters underfoot, fibre through the stain", on=_DECK,
         school=("deck-sand", "open"), when=(_RENEWED,),
         steps=(Step("fibre", Phase.SAND, K.SAND, "Knock down raised fibre, 60 to 80 grit", "Pole sander, when "
                     "dry; the grain stays open.", techniques=(T.POWER_SAND, T.HEPA_SAND, T.WET_SAND),
                     otherwise="Knock down raised fibre under a HEPA shroud, 60 to 80 grit"),)),
    Rule("deck-smooth", "raised fibre after washing", "splinters underfoot, fibre through the stain", on=_DECK,
         school=("deck-sand", "smooth"), when=(_RENEWED,),
         steps=(Step("fibre", Phase.SAND, K.SAND, "Knock down raised fibre, 150 to 180 grit", "Pole sander, when "
                     "dry. It closes the grain: try how much stain it still takes.",
                     techniques=(T.POWER_SAND, T.HEPA_SAND, T.WET_SAND),
                     otherwise="Knock down raised fibre under a HEPA shroud"),)),
    Rule("deck-fibre", "the tape still picks up fibre", "loose fibre sheds the stain", on=_DECK,
         when=(one_of("raised_fibre", True),),
         steps=(Step("fibre", Phase.SAND, K.SAND, "Knock down raised fibre, 80 to 100 grit", "Until the tape comes off "
                     "clean.", techniques=(T.POWER_SAND, T.HEPA_SAND, T.WET_SAND), strength=5,
                     otherwise="Knock down raised fibre under a HEPA shroud"),)),
)  # fmt: skip

_NEW = one_of("new_treated", True)
_OUTSIDE = ("wood",)
_DROP = ("Sprinkle water: it must soak in within a minute; and meter several boards: {moisture_limit} % or less. Then "
         "it may be coated, sooner or later than the calendar says.")  # fmt: skip
MOISTURE = (
    Rule("deck-not-metered", "the boards were not metered", "one wet board spoils the stain on it", on=_DECK,
         when=(one_of("moisture_known", False),), level=Alert.CHECK, todo="Meter several boards, low ones among them."),
    Rule("deck-season", "new treated timber, {age_years} years old", "it holds the treatment's water for months",
         on=_OUTSIDE, when=(_NEW,), school=("timber", "season"), level=Alert.STOP, ends_after=105,
         todo="Leave it three to four months from building, then clean and stain."),
    Rule("deck-test", "new treated timber, {age_years} years old, sheds water", "it is commonly above 25 %",
         on=_OUTSIDE, when=(_NEW, one_of("absorbency", "slow", "beads")), school=("timber", "test"), level=Alert.STOP,
         todo=_DROP),
    Rule("deck-test-meter", "new treated timber, {age_years} years old, not metered", "it is commonly above 25 %",
         on=_OUTSIDE, when=(_NEW, none_of("absorbency", "slow", "beads", or_unknown=True),
                            one_of("moisture_known", False)), school=("timber", "test"), level=Alert.STOP, todo=_DROP),
    Rule("deck-metered", "new treated timber, metered at {moisture} %", "dry inside, it may still shed water outside",
         on=_OUTSIDE, when=(_NEW, at_most("moisture", "moisture_limit"), one_of("absorbency_known", False)),
         school=("timber", "test"), level=Alert.CHECK,
         todo="Sprinkle water: where it soaks in within a minute, it is ready."),
    Rule("deck-beads", "water beads on the boards", "what does not take water takes no stain", on=_DECK,
         when=(one_of("absorbency", "beads"), one_of("coating", "bare", "penetrating-stain")), level=Alert.CHECK,
         todo="Brighten, and try the water drop again before staining."),
    Rule("deck-fungicide", "a fungicidal wash is left on", "an acid brightener straight on it undoes it, and fumes on "
         "bleach", on=_DECK, when=(above("mildew_pct", 0),), school=("mildew", "fungicide"), level=Alert.NOTE,
         todo="The wash goes on last, after the brightener is rinsed, and keeps its sheet's time before the stain."),
    Rule("deck-foot", "a stained deck is walked on", "footprints in a fresh stain", on=_DECK, level=Alert.NOTE,
         disclosure=True, todo="{foot_h} h before feet, 72 h before furniture: say it before the contract."),
)  # fmt: skip

FINISHES = (
    Rule("finish-deck-stain", "a stain goes in, not on", "one coat worked in by brush; what stays wet is wiped off",
         on=_DECK, when=(one_of("aim", "semi-transparent", "translucent"),),
         coats=Coats((F.DECK_STAIN,), 1, Method.BRUSH, "flat", spray=Method.BRUSH, bare_first=True)),
    Rule("finish-deck-solid", "a solid stain is a film", "two thin coats along whole boards", on=_DECK,
         when=(one_of("aim", "solid-stain"),),
         coats=Coats((F.SOLID_STAIN,), 2, Method.ROLLER, "flat", spray=Method.ROLLER)),
    Rule("finish-deck-clear", "a clear coat is sacrificed to the weather", "renewed every year", on=_DECK,
         when=(one_of("aim", "clear"),), coats=Coats((F.DECK_CLEAR,), 1, Method.BRUSH, "satin", spray=Method.BRUSH)),
    Rule("deck-paint", "paint on a deck", "a film underfoot peels within a winter", on=_DECK,
         when=(one_of("aim", "paint"),), level=Alert.STOP, todo="Choose a stain.",
         coats=Coats((F.SOLID_STAIN,), 2, Method.ROLLER, "flat", spray=Method.ROLLER)),
)  # fmt: skip
RULES = (*STATES, *KEPT_UP, *SANDING, *MOISTURE, *FINISHES)
