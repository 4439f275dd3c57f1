"""A simulated forecast service with a hidden true weather."""
