"""Wood that is to show through its stain: repairs without primer or filler, boards replaced (docs/trade.md §4)."""

from amber_gable.core.specification.derived.rule import Acts, Phase, Rule, Step, above, none_of
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.operation import AmountUnit
from amber_gable.domain.work.operation import OperationKind as K
from amber_gable.domain.work.operation import Technique as T

_SHOWS = none_of("aim", "paint", "solid-stain")
_BOARD = Step("rot", Phase.ROT, K.REPAIR, "Replace the rotten boards", "A filler shows through a stain and lets go "
              "underfoot. New boards: metered, and the wait of new timber.", Acts(fact="rot_m2", unit=AmountUnit.M2),
              (T.CUT_OUT, T.WET_CUT_OUT), otherwise="Replace the rotten boards, cut wet")  # fmt: skip

RULES = (
    Rule("rot-showing", "{rot_m2} m² of rot", "no stain hides a filling", on=("wood",), off="deck",
         when=(above("rot_m2", 0), _SHOWS), steps=(_BOARD,)),
    Rule("rot-deck", "{rot_m2} m² of rot", "spliced boards move and let go underfoot", on=("wood deck",),
         when=(above("rot_m2", 0),), steps=(_BOARD,)),
    Rule("nails-showing", "{nails} nails stand proud or rust", "rust runs through a stain, and no filler is seen "
         "through", on=("wood",), off="deck", when=(above("nails", 0), _SHOWS), steps=(Step("nails", Phase.REPAIR,
         K.REPAIR, "Set proud nails, change rusting ones for such as do not rust", "No primer and no filler: both "
         "would show.", Acts(fact="nails", unit=AmountUnit.PIECES), (T.FIT,)),)),
    Rule("cracks-showing", "cracks up to {crack_mm} mm, {crack_m} m", "no filler takes a stain as the wood does",
         on=("wood",), off="deck", when=(above("crack_m", 0), _SHOWS), level=Alert.CHECK,
         todo="Fine checks stay open; boards split through are replaced."),
    Rule("caulk-showing", "{caulk_m} m of joints are open or brittle", "water gets behind the boards", on=("wood",),
         off="deck", when=(above("caulk_m", 0), _SHOWS), steps=(Step("caulk-out", Phase.CUT_OUT, K.SCRAPE, "Cut the "
         "old caulk out", "", Acts(fact="caulk_m", unit=AmountUnit.M), (T.CUT_OUT, T.WET_CUT_OUT), otherwise="Mist and "
         "cut the old caulk out wet"), Step("caulk", Phase.CAULK, K.CAULK, "New caulk in the stain's colour", "No "
         "primer: it would show. Keep it off the boards, for it keeps stain out.", Acts(fact="caulk_m",
         unit=AmountUnit.M), wait_h=4))),
)  # fmt: skip
