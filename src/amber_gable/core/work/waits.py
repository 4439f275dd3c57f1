"""What must pass between one step and the next (docs/trade.md §11): fixed waits, and the stage a film must have
reached."""

from collections.abc import Iterable, Sequence

from amber_gable.core.weather.film.drying import DryingStage
from amber_gable.domain.findings.condition import Absorbency, Coating, Condition
from amber_gable.domain.findings.moisture_figures import MasonryFigures, moisture_figures
from amber_gable.domain.house.substrates import Substrate
from amber_gable.domain.work.operation import Operation, OperationKind, Technique

_K, _T = OperationKind, Technique
SURFACE_DRY_H = 4.0
"""Washed to scraping or sanding: some hours, until the surface is dry; the substrate's own wait is for what seals."""
WHOLE = 0.95
"""A film on this share of the surface is one all over."""
SPOTS = 0.1
"""A film on less than this share of the surface is laid on spots."""
_ON_A_DRY_FACE = (_K.SCRAPE, _K.SAND, _K.DUST, _K.MASK, _K.PROTECT, _K.FIT, _K.CLEAN)
_SEALS = (_K.PRIME, _K.COAT, _K.CAULK, _K.PUTTY)
_ONLY_TAKES_OFF = (
    _T.RAKE_OUT,
    _T.WET_RAKE_OUT,
    _T.WIRE_BRUSH,
    _T.WET_WIRE_BRUSH,
    _T.GRIND,
    _T.HEPA_GRIND,
    _T.GRIND_METAL,
    _T.DRILL,
)
"""Repairs that put nothing on; those that cut out rot put filler in."""
LEAVES_WET = (
    _T.WET_SAND, _T.WET_SCRAPE, _T.WET_WIRE_BRUSH, _T.WET_CUT_OUT, _T.WET_RAKE_OUT, _T.DAMP_WIPE, _T.DEGLOSSER,
)  # fmt: skip


WHILE_SOFT = (_T.UNMASK, _T.MOVE)
"""Done with the coat before it, or it is too late."""


def wait_hours(before: Operation, after: Operation) -> float:
    """Hours from the end of a step that lays no film to the beginning of the other."""
    # What is left on the wall keeps its time before anything touches it.
    if before.kind is _K.WASH and before.technique is not _T.FUNGICIDE and after.kind in _ON_A_DRY_FACE:
        return min(before.wait_h, SURFACE_DRY_H)
    return before.wait_h


def next_waits(operations: Sequence[Operation]) -> list[float]:
    """Hours from each step that lays no film to the one after it: what only wants a dry surface follows a wash sooner
    than what seals the substrate."""
    after = [*operations[1:], None]
    return [o.wait_h if n is None else wait_hours(o, n) for o, n in zip(operations, after, strict=True)]


def film_stage(after: Operation) -> DryingStage | None:
    """What a film must have reached before the step: tape comes off and sashes are moved while it is soft, what was
    taken down goes back when it is dry to touch."""
    if after.technique in WHILE_SOFT:
        return None
    if after.technique in (_T.INSPECT, _T.LOOK_OVER):
        # A film is judged when it is dry: wet it hides what it lacks.
        return DryingStage.RECOAT
    return DryingStage.TOUCH if after.kind in (_K.FIT, _K.CLEAN, _K.PROTECT) else DryingStage.RECOAT


def seals(operation: Operation) -> bool:
    """Whether the step shuts moisture in: it wants the substrate dry, not only the surface."""
    fills = operation.kind is _K.REPAIR and operation.technique not in _ONLY_TAKES_OFF
    return operation.kind in _SEALS or fills


def shuts_in(operation: Operation) -> bool:
    """Whether it shuts so much of the surface that rain which soaked the substrate must have dried out: a primer on
    nail heads or a filling only wants a dry surface."""
    return operation.kind.lays_film and operation.share >= SPOTS


def keeps_rain_out(operation: Operation, substrate: Substrate) -> bool:
    """Whether the step lays a film all over that keeps rain from what is below. Masonry drinks through a conditioner or
    primer: only a coat shuts it."""
    shuts = operation.kind is _K.COAT or not isinstance(moisture_figures(substrate), MasonryFigures)
    return operation.kind.lays_film and operation.share >= WHOLE and shuts


SOUND_PCT = 5.0
"""Old paint that fails on no more than this share still sheds the rain: an assumption."""
_SHEDS = (Coating.WATERBORNE, Coating.OIL)


def old_film_sheds(condition: Condition, substrate: Substrate) -> bool:
    """Whether what was there before keeps rain out of masonry still: sound paint that drinks no drop. Wood is bared and
    cracks as it is prepared."""
    if not isinstance(moisture_figures(substrate), MasonryFigures) or condition.coating not in _SHEDS:
        return False
    return condition.loose_pct <= SOUND_PCT and condition.absorbency is not Absorbency.SOAKS


def dampens(operation: Operation) -> bool:
    """Whether the step leaves the substrate wet, so that a meter may shorten the wait behind it."""
    return operation.kind.wets or operation.technique in LEAVES_WET


def asks_before(earlier: Iterable[Operation]) -> bool:
    """Whether it matters to a coat what fell on its substrate before the weather that is known: not after a step that
    wets it, whose own test answers that when it has dried."""
    return not any(dampens(o) for o in earlier)


PAST = {
    _K.FIT: "fittings seen to",
    _K.PROTECT: "covered",
    _K.WASH: "washed",
    _K.STRIP: "stripped",
    _K.SCRAPE: "scraped",
    _K.SAND: "sanded",
    _K.REPAIR: "repaired",
    _K.DUST: "dusted off",
    _K.PUTTY: "puttied",
    _K.CAULK: "caulked",
    _K.MASK: "masked",
    _K.PRIME: "primed",
    _K.COAT: "coated",
    _K.CLEAN: "cleaned up",
}
"""What was done, in a word or two."""
