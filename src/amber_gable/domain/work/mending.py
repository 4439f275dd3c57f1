"""What a spoiled film asks for before the work goes on: by what happened to it, whether it came off, what it is made of
and whether another coat follows (docs/trade.md §11.1)."""

from collections.abc import Iterator, Sequence

from amber_gable.domain.base import Fraction, Id
from amber_gable.domain.job.site_record import Effect, Mishap, Spoiled
from amber_gable.domain.paint.families import Family
from amber_gable.domain.paint.product import Base, Product
from amber_gable.domain.work.operation import Operation, OperationKind, Technique

_K, _T = OperationKind, Technique
_DRIES_H = 4.0
_RUNS = 0.35
"""Share of its way to rain-ready before which rain runs a film down (docs/physics.md §7)."""
_DRY = "it is dry to see and touch"


class Mend(Operation):
    """A step that mends a spoiled film, only there on a stretch of the part (shares of its width); `share` is of the
    stretch, of which a film in spots takes its part. `mends` is the touch by which the film was said to be spoiled."""

    left: Fraction
    right: Fraction
    mends: Id

    def on(self, left: float, right: float) -> bool:
        """Whether it is there on some of a stretch."""
        return self.left < right - 1e-6 and self.right > left + 1e-6


MISHAPS = {
    Mishap.RAIN: "rain",
    Mishap.DEW: "dew or fog",
    Mishap.FROST: "frost",
    Mishap.TOUCHED: "touched or leant on",
    Mishap.DUST: "dust or insects in it",
    Mishap.RAN: "it ran or sagged",
    Mishap.COLOUR: "the wrong colour",
}
"""As they are asked about."""
EFFECTS = {
    Effect.NONE: "nothing to be seen",
    Effect.MARKED: "it shows, and holds",
    Effect.CAME_OFF: "it ran, came off or lost its hold",
}
_RUBBED = {
    Mishap.RAIN: "Rub the spots down, fine paper, wipe off",
    Mishap.DEW: "Rub what went matt or spotted, fine paper, wipe off",
    Mishap.FROST: "Rub down what went matt or crazed, fine paper, wipe off",
    Mishap.TOUCHED: "Rub the marks smooth, fine paper, wipe off",
    Mishap.DUST: "Rub the nibs off, fine paper, wipe off",
    Mishap.RAN: "Cut the runs flat when a thumbnail leaves no mark in them, rub smooth, wipe off",
}
_SOAKS = (Family.DECK_STAIN, Family.DECK_CLEAR)
"""What lies in the wood and forms no film that could be scraped or rubbed."""
_WATER = (Mishap.RAIN, Mishap.DEW)


def mends(spoiled: Spoiled, operations: Sequence[Operation], product: Product) -> list[Mend]:
    """The steps after the spoiled film, `spoiled.step`, of that product; nothing where nothing is to be seen of it. A
    film that still holds and gets another coat anyway is only made ready for it."""
    film = next((o for o in operations if o.id == spoiled.step), None)
    if film is None or spoiled.effect is Effect.NONE or spoiled.extent is None:
        return []
    later = operations[operations.index(film) + 1 :]
    last = not any(o.kind is _K.COAT and not o.possible for o in later)
    steps = list(_ready_again(spoiled, product))
    if last or _must_be_laid_again(spoiled, product):
        steps.append(film.model_dump() | {"id": f"{film.id}-again", "name": f"{film.name}, again", "note": ""})
    why = f"{MISHAPS[spoiled.what]}: {EFFECTS[spoiled.effect]}"
    common = {
        "share": spoiled.share * film.share,
        "left": spoiled.extent.left,
        "right": spoiled.extent.right,
        "mends": spoiled.touch,
        "because": why,
        "where": film.where,
    }
    tag = spoiled.touch[:8]
    return [Mend.model_validate(s | common | {"id": f"{str(s['id'])[:50]}-{tag}"}) for s in steps]


def likely_effect(what: Mishap, product: Product, dried: float) -> Effect:
    """What it usually leaves on a film that has come so far on its way to rain-ready, 0 to 1: rain runs a wet film
    down, spots a setting one and does a ready one no harm; frost breaks a waterborne film before it has formed."""
    waterborne = product.base not in (Base.ALKYD, Base.SOLVENT_ACRYLIC, Base.SHELLAC)
    if what in (*_WATER, Mishap.FROST) and dried >= 1:
        return Effect.NONE
    if (what is Mishap.RAIN and dried < _RUNS) or (what is Mishap.FROST and waterborne):
        return Effect.CAME_OFF
    return Effect.MARKED


def _must_be_laid_again(spoiled: Spoiled, product: Product) -> bool:
    """Whether the coat that follows does not make up for it."""
    if spoiled.effect is Effect.CAME_OFF or spoiled.what is Mishap.COLOUR:
        return True
    return spoiled.what is Mishap.FROST and product.base is not Base.ALKYD


def _ready_again(spoiled: Spoiled, product: Product) -> Iterator[dict[str, object]]:
    """What is taken off, washed off and rubbed down."""
    what, soaks = spoiled.what, product.family in _SOAKS
    if what is Mishap.COLOUR:
        return
    if spoiled.effect is Effect.CAME_OFF and not soaks:
        # Wet, whatever lies below: old paint may come off with it.
        yield _step("mend-off", _K.SCRAPE, _T.WET_SCRAPE, "Mist, scrape and wash off what lost its hold", wait=_DRIES_H)
        yield _step("mend-rub", _K.SAND, _T.DENIB, "Rub edges and runs smooth, fine paper, wipe off")
    elif what in _WATER and (soaks or product.base is not Base.ALKYD):
        yield _step("mend-wipe", _K.CLEAN, _T.DAMP_WIPE, "Wipe streaks and spots off with a damp sponge", wait=_DRIES_H)
    elif not soaks:
        yield _step("mend-rub", _K.SAND, _T.DENIB, _RUBBED[what])


def _step(id_: str, kind: OperationKind, way: Technique, name: str, wait: float = 0.0) -> dict[str, object]:
    return {
        "id": id_, "kind": kind, "technique": way, "name": name, "wait_h": wait, "wait_until": _DRY if wait else "",
    }  # fmt: skip
