"""A job and what belongs to it: its file, its plan, its record of the site."""
