"""What is done and by whom: steps, finishes, schools, rates and the crew."""
