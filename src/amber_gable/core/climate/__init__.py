"""A job's faces and finishes put to the weather: the only bridge between the two."""
