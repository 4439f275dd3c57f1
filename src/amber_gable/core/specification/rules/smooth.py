"""Steps that vinyl, metal and other smooth panels share (docs/trade.md §4)."""

from amber_gable.core.specification.derived.rule import BARE_SPOTS, LOOSE, Phase, Rule, Step, above, none_of
from amber_gable.domain.paint.families import Family as F
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.operation import OperationKind as K
from amber_gable.domain.work.operation import Technique as T


def prime(name: str, note: str, strength: int, *families: F, method: Method = Method.BRUSH) -> Step:
    return Step("prime", Phase.PRIME, K.PRIME, name, note, families=families, method=method, strength=strength,
                covers=("prime-spots",))  # fmt: skip


WALLS = (F.EXTERIOR_ACRYLIC, F.LOW_TEMPERATURE_ACRYLIC)
TRIM = (F.TRIM_ACRYLIC, F.HYBRID_SATIN, F.ALKYD_GLOSS)
PEELS = (above("loose_pct", 0), none_of("coating", "bare", or_unknown=True))


def spots(name: str, note: str, *families: F) -> Step:
    return Step("prime-spots", Phase.SPOT_PRIME, K.PRIME, name, note, BARE_SPOTS, families=families,
                method=Method.BRUSH, strength=20)  # fmt: skip


def peeling(id_: str, *on: str, grit: str, primer: Step) -> Rule:
    return Rule(id_, "{loose_pct} % of the coating is loose", "never leave loose film because the panel is sound",
                on=on,
                off="roof", when=PEELS,
                steps=(Step("scrape", Phase.REMOVE, K.SCRAPE, "Scrape what is loose", "Plastic or blunt blade: no "
                            "gouges.", LOOSE, (T.DRY_SCRAPE, T.WET_SCRAPE),
                            otherwise="Scrape wet what is loose: mist, scrape, wipe"),
                       Step("feather", Phase.SAND, K.SAND, f"Feather the edges by hand, {grit}", "", BARE_SPOTS,
                            (T.HAND_SAND, T.WET_SAND), otherwise=f"Feather the edges wet by hand, {grit}"),
                       primer))  # fmt: skip
