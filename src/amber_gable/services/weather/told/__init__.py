"""What the weather means over days and seasons, in pictures and words."""
