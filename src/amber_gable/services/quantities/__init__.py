"""Quantities: litres and containers."""
