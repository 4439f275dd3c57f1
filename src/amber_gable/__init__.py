"""Amber Gable: survey, quantities, weather windows and plans for exterior painting."""

__version__ = "0.1.0"
