"""All rules, in the order in which their findings are told."""

from amber_gable.core.specification.rules import (
    deck,
    everywhere,
    floors,
    found,
    items,
    lying_on,
    masonry,
    metal,
    panels,
    rarer,
    roofs,
    seen,
    wood,
    wood_showing,
)

RULES = (
    *everywhere.RULES,
    *wood.RULES,
    *wood_showing.RULES,
    *deck.RULES,
    *masonry.RULES,
    *floors.RULES,
    *panels.RULES,
    *metal.RULES,
    *roofs.RULES,
    *items.RULES,
    *found.RULES,
    *lying_on.RULES,
    *rarer.RULES,
    *seen.RULES,
)
BY_ID = {rule.id: rule for rule in RULES}
