"""Survey: faces and what is on them, condition, photos, the walk round, files."""
