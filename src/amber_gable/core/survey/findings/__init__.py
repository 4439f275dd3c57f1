"""What is found and what is still missing."""
