"""What must pass between two steps, as a master painter would say it (trade.md §11)."""

import pytest

from amber_gable.core.weather.film.drying import DryingStage
from amber_gable.core.work.waits import film_stage, old_film_sheds, wait_hours
from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.operation import Operation, OperationKind, Technique

K, T, S = OperationKind, Technique, DryingStage


def _step(kind: OperationKind, technique: Technique | None = None, wait_h: float = 0.0) -> Operation:
    film = {"product": "house-coat", "method": Method.BRUSH} if kind.lays_film else {}
    return Operation(id="step", name="Step", kind=kind, technique=technique, wait_h=wait_h, **film)  # type: ignore[arg-type]


AFTER_A_FILM = [
    (K.COAT, None, S.RECOAT, "a coat on a coat"),
    (K.SAND, None, S.RECOAT, "sandpaper clogs in what is only dry to touch"),
    (K.FIT, T.FIT, S.TOUCH, "shutters go back on what does not stick"),
    (K.CLEAN, None, S.TOUCH, "sheets are gathered when nothing drips"),
    (K.PROTECT, None, S.TOUCH, "what is covered must not stick to its cover"),
    (K.CLEAN, T.UNMASK, None, "tape comes off while the film is soft"),
    (K.FIT, T.MOVE, None, "a sash is moved before it glues itself in"),
]


@pytest.mark.parametrize(("kind", "technique", "stage", "why"), AFTER_A_FILM, ids=[c[3] for c in AFTER_A_FILM])
def test_what_a_film_must_have_reached_before_a_step(
    kind: OperationKind, technique: Technique | None, stage: DryingStage | None, why: str
) -> None:
    assert film_stage(_step(kind, technique)) is stage


FROM_TO = [
    (K.WASH, 24.0, K.SCRAPE, 4.0, "only the surface need be dry"),
    (K.WASH, 24.0, K.MASK, 4.0, "tape holds on a dry face"),
    (K.WASH, 2.0, K.SAND, 2.0, "a wipe dries sooner than a wash"),
    (K.WASH, 24.0, K.PRIME, 24.0, "what seals waits for the wood"),
    (K.WASH, 24.0, K.REPAIR, 24.0, "filler seals too"),
    (K.CAULK, 6.0, K.SCRAPE, 6.0, "only washing is cut short"),
]


@pytest.mark.parametrize(("before", "wait_h", "after", "hours", "why"), FROM_TO, ids=[c[4] for c in FROM_TO])
def test_hours_between_two_steps_without_a_film(
    before: OperationKind, wait_h: float, after: OperationKind, hours: float, why: str
) -> None:
    assert wait_hours(_step(before, wait_h=wait_h), _step(after)) == hours


def test_a_fungicide_left_on_keeps_its_time_before_anything_touches_the_wall() -> None:
    for after in (K.SCRAPE, K.SAND, K.MASK, K.PRIME):
        assert wait_hours(_step(K.WASH, T.FUNGICIDE, 24.0), _step(after)) == 24.0
    assert wait_hours(_step(K.WASH, T.HOSE_WASH, 24.0), _step(K.SCRAPE)) == 4.0


@pytest.mark.parametrize(
    ("code", "found", "sheds"),
    [
        ("stucco-smooth", {"coating": "waterborne", "loose_pct": 2}, True),
        ("stucco-smooth", {"coating": "waterborne", "loose_pct": 20}, False),
        ("stucco-smooth", {"coating": "waterborne", "absorbency": "soaks"}, False),
        ("brick", {"coating": "oil"}, True),
        ("brick", {"coating": "bare"}, False),
        ("brick", {"coating": "lime-wash"}, False),
        ("brick", {}, False),
        # Wood is bared in places as it is prepared, and its joints open.
        ("wood-lap", {"coating": "waterborne", "loose_pct": 0}, False),
    ],
)
def test_sound_old_paint_keeps_the_rain_out_of_masonry(code: str, found: dict[str, object], sheds: bool) -> None:
    """A painted render after two summer showers held 41 % and was never dry; painters coat it the next good day."""
    assert old_film_sheds(Condition.model_validate(found), SUBSTRATES[code]) is sheds
