"""The time grid: what is computed goes in steps, what is judged, planned and drawn goes in slots of whole steps."""

HOUR_S = 3600
STEP_S = 450
"""Length of a step of the surface climate, s: at most ten minutes (docs/physics.md §4)."""
SLOT_S = 900
"""Length of a slot, s: a whole number of steps, and an hour a whole number of slots."""
STEPS_PER_HOUR = HOUR_S // STEP_S
STEPS_PER_SLOT = SLOT_S // STEP_S
SLOTS_PER_HOUR = HOUR_S // SLOT_S
SLOT_H = SLOT_S / HOUR_S
