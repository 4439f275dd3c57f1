"""How far a forecast was from what was measured, in words."""

from amber_gable.services.weather.held.observed import LoggedHours
from amber_gable.web.views.units import Units

SAME_K, SAME_PCT = 0.3, 2.0


def apart_words(found: LoggedHours | None, units: Units) -> str:
    """'1.2 K warmer and 4 % drier over the last day'; '' where nothing is known."""
    if found is None or found.apart is None:
        return ""
    air, rh = found.apart.air, found.apart.rh
    said = []
    if abs(air) >= SAME_K:
        said.append(f"{units.shown(abs(air), 'temperature-difference', 1)} {'warmer' if air > 0 else 'colder'}")
    if rh is not None and abs(rh) >= SAME_PCT:
        said.append(f"{abs(rh):.0f} % {'damper' if rh > 0 else 'drier'}")
    return f"{' and '.join(said) or 'as near as can be'} over the last day"
