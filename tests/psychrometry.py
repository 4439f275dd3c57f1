"""The independent psychrometric package, kept from compiling itself: a few hundred values do not pay for that."""

import sys
from unittest import mock

with mock.patch.dict(sys.modules, {"numba": None}):
    import psychrolib

psychrolib.SetUnitSystem(psychrolib.SI)

__all__ = ["psychrolib"]
