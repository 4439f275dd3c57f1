"""A job under a weather: the climate of its surfaces, what stops its parts, and how it and its plan stand."""
