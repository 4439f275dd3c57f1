"""Schools: points on which good painters differ. Each is a choice, with what it trades."""

from enum import StrEnum


class DeductionSchool(StrEnum):
    """Whether openings are taken off the wall's area.

    NET deducts every opening: least paint, no allowance for cutting in round small windows.
    GROSS deducts none: the cutting-in costs what the opening saves; paint is over-ordered on glassy faces.
    THRESHOLD deducts openings larger than 1.5 m² only: between the two, and the default.
    """

    NET = "net"
    GROSS = "gross"
    THRESHOLD = "threshold"


class SunSchool(StrEnum):
    """When direct sun on the face stops the work. The product's hot limit holds in all three.

    SHADE_WHEN_WARM stops for sun only if the air is at or above 18 °C or the surface above 32 °C.
    FOLLOW_SHADE never lays a coat in direct sun: fewest lap marks, fewest hours.
    TEMPERATURE looks at the product's surface maximum alone: most hours, more risk of lap marks.
    """

    SHADE_WHEN_WARM = "shade-when-warm"
    FOLLOW_SHADE = "follow-shade"
    TEMPERATURE = "temperature"


class HoldSchool(StrEnum):
    """How long the surface must stay above the product's minimum after the last stroke.

    TOUCH_DRY: until dry to touch and at least 2 h. FOUR_HOURS: at least 4 h. OVERNIGHT: 14 h, the night included;
    safest for the film, and it closes most of spring and autumn.
    """

    TOUCH_DRY = "touch-dry"
    FOUR_HOURS = "four-hours"
    OVERNIGHT = "overnight"


class DewSchool(StrEnum):
    """How long no dew may form on the fresh film.

    RAIN_READY is the default. TOUCH_DRY accepts dew on a touch-dry film: later last strokes, some risk of dull or
    streaked patches.
    """

    RAIN_READY = "rain-ready"
    TOUCH_DRY = "touch-dry"


class Method(StrEnum):
    """How the coating is put on."""

    BRUSH = "brush"
    ROLLER = "roller"
    AIRLESS = "airless"
    TURBINE = "turbine"

    @property
    def sprays(self) -> bool:
        return self in (Method.AIRLESS, Method.TURBINE)
