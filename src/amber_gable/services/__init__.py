"""Use cases: load, compute, save. The only layer that knows both core and store."""
