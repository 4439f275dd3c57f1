"""How many coats of the finish, and where the primer is tinted toward it (docs/physics.md §8)."""

from collections.abc import Sequence
from dataclasses import replace

from amber_gable.core.specification.colour.hiding import Hiding, coats_to_hide, hiding_power, under_tinted
from amber_gable.core.specification.derived.facts import Facts
from amber_gable.core.specification.derived.rule import THIN, Coats, Rule, Step
from amber_gable.domain.paint.families import Family
from amber_gable.domain.work.finish import PRIMER_COLOUR

MOST_COATS = 6
SHOWS_WOOD = {Family.DECK_STAIN, Family.DECK_CLEAR}
CLEAR = {Family.MASONRY_CONDITIONER}


def _contrast(facts: Facts) -> float:
    """Share of what is below that one coat of the finish hides at its sheet's film."""
    if facts.new_colour is None:
        return Hiding.GOOD.value
    return float(facts.get("contrast") or hiding_power(facts.new_colour).value)


def _primer(steps: Sequence[Step]) -> Step | None:
    """The film all over the surface that the finish goes on."""
    whole = {s.role: s for s in steps if s.role in ("undercoat", "prime")}
    return whole.get("undercoat") or whole.get("prime")


def _under(facts: Facts, primer: Step | None) -> str:
    """What the first coat of the finish must hide. A clear conditioner leaves the old colour as it was, and a tinted
    one hides little: it is a thin film of few solids."""
    if primer is None or facts.new_colour is None or (primer.families[0] in CLEAR and not primer.tinted):
        return facts.old_colour
    if not primer.tinted:
        return PRIMER_COLOUR
    power = Hiding.TINT_BASE if primer.families[0] in CLEAR else Hiding.GOOD
    return under_tinted(facts.old_colour, facts.new_colour, power.value)


def tinted_where_it_saves(steps: Sequence[Step], facts: Facts, coats: Coats) -> list[Step]:
    """A primer that is needed anyway is tinted toward the finish where that makes a coat of it needless."""
    primer = _primer(steps)
    if primer is None or primer.tinted or facts.new_colour is None or primer.families[0] in CLEAR:
        return list(steps)
    if coats.families[0] in SHOWS_WOOD:
        return list(steps)
    power = _contrast(facts)
    plain = max(coats.count, coats_to_hide(PRIMER_COLOUR, facts.new_colour, power))
    tinted = max(coats.count, coats_to_hide(under_tinted(PRIMER_COLOUR, facts.new_colour), facts.new_colour, power))
    if tinted >= plain:
        return list(steps)
    toned = replace(primer, name=f"{primer.name}, tinted toward the finish", tinted=True)
    return [toned if s is primer else s for s in steps]


def coat_count(
    facts: Facts, coats: Coats, steps: Sequence[Step], holding: Sequence[Rule]
) -> tuple[int, tuple[str, ...], str]:
    """Coats of the finish, the rules that changed the usual number, and why it is not the usual number."""
    fewer = [r for r in holding if r.coat_count is not None]
    thin = min((r.coat_count for r in fewer if r.coat_count is not None), default=None)
    if facts.new_colour is None or coats.families[0] in SHOWS_WOOD:
        return thin or coats.count, tuple(r.id for r in fewer), ""
    under, power = _under(facts, _primer(steps)), _contrast(facts)
    if thin is not None and coats_to_hide(under, facts.new_colour, 1 - (1 - power) ** THIN) <= thin:
        return thin, tuple(r.id for r in fewer), ""
    needed = coats_to_hide(under, facts.new_colour, power)
    usual = max(coats.count, facts.get("sheet_coats") or 0)
    if needed > usual:
        return min(needed, MOST_COATS), (), f"{needed} coats until the colour beneath no longer shows"
    return usual, (), "one thin coat would let the old colour through" if thin is not None else ""
