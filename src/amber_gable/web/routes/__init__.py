"""Routes by stage of the work."""
