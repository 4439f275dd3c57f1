"""Jobs and their parts as files."""
