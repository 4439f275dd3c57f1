"""Specification: what each part gets, colours, schools, safety cards, sheets taken over."""
