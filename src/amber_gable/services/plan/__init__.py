"""Plan: the climate of a job and the work placed in it."""
