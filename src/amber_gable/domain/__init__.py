"""The vocabulary of the trade as typed records. No computation beyond consistency checks, no I/O."""
