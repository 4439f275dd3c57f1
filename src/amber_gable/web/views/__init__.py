"""View functions: computed values and a scale in, plain numbers and strings for the templates out."""
