"""Shapes in the plane and on the plan: lengths, shadows, bearings, photos."""
