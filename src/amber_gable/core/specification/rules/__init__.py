"""All rules, in the order in which their findings are told."""

from amber_gable.core.specification.rules import deck, everywhere, found, items, masonry, panels, wood

RULES = (*everywhere.RULES, *wood.RULES, *deck.RULES, *masonry.RULES, *panels.RULES, *items.RULES, *found.RULES)
BY_ID = {rule.id: rule for rule in RULES}
