"""Small work beside the paint that a customer asks for, by the piece, each with a rate of domain/work/rates.py."""

from collections.abc import Mapping
from types import MappingProxyType

EXTRAS: Mapping[str, str] = MappingProxyType(
    {
        "extra-window": "Windows cleaned outside",
        "extra-lamp": "Lamps changed",
        "extra-gutter": "Runs of gutter cleared",
        "extra-cobwebs": "Faces with cobwebs",
        "extra-furniture": "Garden furniture washed",
    }
)
"""What is asked for, by the code of its rate. A lamp is changed with the current off, where the law lets a painter."""
MOST_EXTRA = 10_000.0
