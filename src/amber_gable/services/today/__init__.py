"""Today: the day sheet."""
