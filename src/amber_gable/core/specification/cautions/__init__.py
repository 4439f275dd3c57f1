"""What stops or endangers: stops, limits, tests that are missing, safety cards."""
