"""Limits of the size of uploads, for the check that runs before any page."""

from amber_gable.exchange.sizes import SIZE_LIMIT, ZIP_LIMIT

__all__ = ["SIZE_LIMIT", "ZIP_LIMIT"]
