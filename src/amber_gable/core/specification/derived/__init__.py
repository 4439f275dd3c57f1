"""From what was found to steps: facts, diagnosis, systems, overrides."""
