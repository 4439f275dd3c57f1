"""Colours: differences, hiding, and the heat the sun makes in them."""
