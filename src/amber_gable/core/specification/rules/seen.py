"""How near a part is seen: what it is looked over for at the end (docs/trade.md §14, §19)."""

from amber_gable.core.specification.derived.rule import Phase, Rule, Step
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.operation import OperationKind as K
from amber_gable.domain.work.operation import Technique as T


def _over(name: str, note: str) -> tuple[Step]:
    return (Step("look-over", Phase.FINAL_CHECK, K.CLEAN, name, note, techniques=(T.LOOK_OVER,)),)


RULES = (
    Rule("seen-near", "it is seen near and touched", "nibs, runs and misses stand before the eye every day",
         school=("seen", "near"),
         steps=_over("Look over dry at arm's length in raking light, mend", "Nibs, runs, sags, cut lines, edges.")),
    Rule("seen-above", "it is seen from windows above", "misses on what lies flat or slopes show from there alone",
         school=("seen", "above"),
         steps=_over("Look over dry, from above too, and mend", "From the windows that see it; while access stands.")),
    Rule("seen-by-nobody", "nobody sees it", "hours for looks alone are lost on it", school=("seen", "nobody"),
         level=Alert.NOTE, todo="Closed and even is enough: looked at for holes and misses as it is laid, no rubbing "
         "down between coats."),
)  # fmt: skip
