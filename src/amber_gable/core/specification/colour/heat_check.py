"""Whether a colour may go where it is wanted, by the heat it takes up: vinyl by its schools, doors and dark walls by a
warning (docs/trade.md §6, docs/physics.md §5)."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from amber_gable.core.climate.part_surface import face_surface
from amber_gable.core.specification.colour.absorptance import absorptance_of
from amber_gable.core.specification.colour.heat import (
    DOOR_WARN_C,
    VINYL_LIMIT_C,
    VINYL_SOFTENS_C,
    Peak,
    admissible_absorptance,
    lightened,
    peaks,
)
from amber_gable.core.specification.derived.facts import surface_tags
from amber_gable.core.survey.amounts.painted import PaintedPart
from amber_gable.domain.house.survey import Property
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.operation import Operation, OperationKind

_HOT = {
    "door": "panels move, seals stick, the film ages faster",
    "garage-door": "sections bow, the film ages faster",
    "deck": "too hot for bare feet",
    "floor": "too hot for bare feet",
    "masonry": "the film ages faster and hair cracks open",
    "wood": "joints open, knots bleed, the film ages faster",
}
_ALIKE = 0.005
"""Absorptances this close count as equal: the eye would not tell the colours apart."""


@dataclass(frozen=True)
class Wanted:
    """A part, the colour it is to get, the vinyl school that holds for it, and the coating's product where one is
    chosen."""

    part: PaintedPart
    colour: str
    vinyl_school: str = "both"
    product: Product | None = None

    @property
    def rated(self) -> bool:
        """Whether the product's sheet names this colour as safe on vinyl: a rating is of product and colour."""
        return self.product is not None and self.product.vinyl_safe and self.colour in self.product.vinyl_colours

    @property
    def borne(self) -> str:
        """The colour that shows what the surface bears."""
        return self.part.condition.made_colour or self.part.colour_now

    @property
    def absorbed_now(self) -> float:
        """Most that the borne colour may take up of the sun."""
        return absorptance_of(self.borne).high

    @property
    def absorbed_then(self) -> float:
        """Most that the wanted one may take up; beneath a clear coat it is the present one."""
        if self.product is not None and self.product.clear:
            return self.absorbed_now
        return absorptance_of(self.colour, self.product.solar_reflectance if self.product else None).high


def last_coat(operations: Iterable[Operation], products: Iterable[Product]) -> Product | None:
    """What lies in the sun in the end, where its product is at hand."""
    codes = [o.product for o in operations if o.kind is OperationKind.COAT]
    return next((p for p in products if codes and p.code == codes[-1]), None)


@dataclass(frozen=True)
class HeatCheck:
    """Peaks of the present colour (on vinyl the one it was made in, where that is known) and of the wanted one. `level`
    None where there is nothing to say; `limit_c` the limit it was held against, `admissible` the colour nearest to the
    wanted one that would pass."""

    wanted: Wanted
    now: Peak
    then: Peak
    level: Alert | None
    words: str
    limit_c: float | None
    admissible: str | None


def heat_checks(place: Property, wanted: Sequence[Wanted], hot_c: float | None = None) -> list[HeatCheck]:
    """Check all at once. `hot_c`: the site's own design temperature, °C."""
    if not wanted:
        return []
    pairs = [
        replace(face_surface(w.part.face, w.part.substrate, w.colour), absorptance=taken, absorptance_band=None)
        for w in wanted
        for taken in (w.absorbed_now, w.absorbed_then)
    ]
    found = peaks(place, tuple(pairs), hot_c)
    return [_checked(w, found[2 * i], found[2 * i + 1]) for i, w in enumerate(wanted)]


def _checked(w: Wanted, now: Peak, then: Peak) -> HeatCheck:
    tags = surface_tags(w.part.substrate, w.part.item_kind)
    if "vinyl" in tags:
        return _vinyl(w, now, then)
    if then.surface_c >= DOOR_WARN_C and then.surface_c > now.surface_c + 1 and "roof" not in tags:
        door = bool(tags & {"door", "garage-door"})
        what = "The door" if door else "The surface"
        ill = next((words for tag, words in _HOT.items() if tag in tags), "joints open and the film ages faster")
        words = (
            f"{what} would reach {then.surface_c:.0f} °C on a hot clear day, {then.surface_c - now.surface_c:.0f} K "
            f"more than in its present colour: {ill}."
        )
        level = Alert.CHECK if door else Alert.NOTE
        return HeatCheck(w, now, then, level, words, DOOR_WARN_C, _nearest(w, now, then, DOOR_WARN_C))
    return HeatCheck(w, now, then, None, f"Peak {then.surface_c:.0f} °C on a hot clear day.", None, None)


def _vinyl(w: Wanted, now: Peak, then: Peak) -> HeatCheck:
    """School A looks at the colour, C at the peak, B at the sheet; 'both' wants A and C.

    The made colour's own peak is borne already, so where it is known C refuses only what is above its limit and hotter
    than that. Today's colour, faded or painted, is no such proof.
    """
    made = w.part.condition.made_colour is not None
    darker = w.absorbed_then > w.absorbed_now + _ALIKE
    limit = max(VINYL_LIMIT_C, now.surface_c) if made else VINYL_LIMIT_C
    hot = then.surface_c > limit + 0.05
    figures = (
        f"peak {then.surface_c:.0f} °C, {'as made' if made else 'now'} {now.surface_c:.0f} °C; limit "
        f"{VINYL_LIMIT_C:.0f} °C, the panel softens at "
        f"{VINYL_SOFTENS_C:.0f} °C"
    )
    refusals = {
        "not-darker": darker,
        "computed": hot,
        "both": darker or hot,
        "rated": darker and not w.rated,
    }
    softens = then.surface_c > max(VINYL_SOFTENS_C, now.surface_c if made else 0.0)
    if softens and not refusals[w.vinyl_school]:
        words = f"Refused on vinyl: the panel softens in this colour ({figures}), whatever the coating is rated for."
        return HeatCheck(w, now, then, Alert.STOP, words, VINYL_SOFTENS_C, _nearest(w, now, then, VINYL_SOFTENS_C))
    if not refusals[w.vinyl_school]:
        aside = ", a colour its sheet rates vinyl-safe" if w.vinyl_school == "rated" and darker else ""
        return HeatCheck(w, now, then, Alert.NOTE, f"Vinyl bears this colour{aside}: {figures}.", limit, None)
    was = "was made" if made else "is now, and the colour it was made in is not known"
    by_colour = w.vinyl_school in ("not-darker", "rated") or (w.vinyl_school == "both" and not hot)
    bound = now.surface_c if by_colour or w.vinyl_school == "both" else limit
    why = {
        "not-darker": f"it is darker than the panel {was}",
        "computed": "it gets too hot for the panel",
        "both": "it gets too hot for the panel" if hot else f"it is darker than the panel {was}",
        "rated": f"it is darker than the panel {was} and the coating's sheet does not rate this colour vinyl-safe",
    }[w.vinyl_school]
    words = f"Refused on vinyl: {why} ({figures}). It may warp the panel and void its warranty."
    return HeatCheck(w, now, then, Alert.STOP, words, bound, _nearest(w, now, then, bound))


def _nearest(w: Wanted, now: Peak, then: Peak, limit_c: float) -> str:
    """The wanted colour, lightened until it passes."""
    points = ((w.absorbed_now, now.surface_c), (w.absorbed_then, then.surface_c))
    return lightened(w.colour, admissible_absorptance(*points, limit_c))
