"""Use cases of a whole job."""
