"""How hours, cans and supplies are shown."""
