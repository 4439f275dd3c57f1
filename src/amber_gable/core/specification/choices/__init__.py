"""What else could be chosen: products, schools, and what each would change."""
