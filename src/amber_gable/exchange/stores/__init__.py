"""Products, colours and rates as files."""
