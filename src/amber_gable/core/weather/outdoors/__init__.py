"""What comes at a wall: air, sun, sky, light and rain."""
