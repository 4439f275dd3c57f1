"""Which weather is held for a place, and where it comes from."""
