"""What state a surface is in: conditions, tests and meter readings."""
