"""What a film of paint does: stages of drying, and what spoils it."""
