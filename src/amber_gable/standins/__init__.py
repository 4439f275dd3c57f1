"""Simulated outside services and devices, behind the same small protocols as the real ones."""
