"""How lanes, films, sky and sun are drawn."""
