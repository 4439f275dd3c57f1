"""What a wall does in it: temperature, dew and moisture, through time."""
