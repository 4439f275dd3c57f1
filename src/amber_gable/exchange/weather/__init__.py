"""Weather in files and from services."""
