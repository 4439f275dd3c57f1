"""How a coating is put on."""

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
