"""How much there is: areas, lengths and counts, with their arithmetic."""
