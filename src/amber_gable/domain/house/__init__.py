"""The house: faces, outlines, zones, items, substrates and what stands in front."""
