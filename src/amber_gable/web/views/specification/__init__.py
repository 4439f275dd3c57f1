"""How steps, choices and build-ups are shown."""
