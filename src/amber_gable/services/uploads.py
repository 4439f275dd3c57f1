"""How large what is sent to the program may be, for what stands before its pages."""

from amber_gable.exchange.sizes import SIZE_LIMIT, ZIP_LIMIT

__all__ = ["SIZE_LIMIT", "ZIP_LIMIT"]
