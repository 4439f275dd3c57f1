"""Computation only: values in, values out. No files, network, clock or interface."""
