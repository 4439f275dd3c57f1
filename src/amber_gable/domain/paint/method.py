"""How a coating is put on."""

from collections.abc import Mapping
from enum import StrEnum


class Method(StrEnum):
    """The tool, from the smallest to the largest reach."""

    BRUSH = "brush"
    ROLLER = "roller"
    AIRLESS = "airless"
    TURBINE = "turbine"

    @property
    def sprays(self) -> bool:
        return self in (Method.AIRLESS, Method.TURBINE)


METHOD_RISKS: Mapping[tuple[Method, bool], str] = {
    (Method.BRUSH, False): "Best into bare wood, cracks and edges; lap marks where the edge dries.",
    (Method.ROLLER, False): "Best on flat to medium texture; spatter, and roller marks on smooth boards.",
    (Method.AIRLESS, False): "Mist on cars, glass and neighbours; runs; injection. Porous ground wants it worked in.",
    (Method.AIRLESS, True): "Two people; worked into pores and seams. Mist and injection as ever.",
    (Method.TURBINE, False): "For small parts; little mist, small reach, a fine surface.",
}
"""What to mind of each, alone and back-rolled."""
