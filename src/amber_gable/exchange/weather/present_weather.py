"""Rain depth where a file only says what the weather was: mm of water in the hour.

Rates are the middles of the observing classes light, moderate and heavy; snow counts as the water in it. Fog drops
nothing that can be measured: what it does to a surface is in the air's humidity.
"""

LIGHT, MODERATE, HEAVY, DRIZZLE = 1.0, 4.0, 10.0, 0.3
SNOW_LIGHT, SNOW_MODERATE, SNOW_HEAVY = 0.5, 1.5, 3.0
_RAIN = (LIGHT, MODERATE, HEAVY) * 3
_DRIZZLE = {0: DRIZZLE, 1: DRIZZLE, 3: DRIZZLE, 4: DRIZZLE, 5: MODERATE, 6: DRIZZLE, 7: DRIZZLE, 8: DRIZZLE}
_SNOW = (SNOW_LIGHT, SNOW_MODERATE, SNOW_HEAVY) * 3


def epw_codes(codes: str) -> float | None:
    """mm/h from an EPW nine-digit present-weather field; None where it cannot be read.

    The second digit is rain and showers, the third drizzle and squalls, the fourth snow, the fifth snow showers and
    grains, the sixth sleet and hail, the ninth ice pellets; 9 means none.
    """
    codes = codes.strip().zfill(9)
    if len(codes) != 9 or not codes.isdigit():
        return None
    digits = [int(c) for c in codes]
    frozen = [_SNOW[digits[n]] for n in (3, 4, 5, 8) if digits[n] != 9]
    rain = _RAIN[digits[1]] if digits[1] != 9 else 0.0
    return max(rain, _DRIZZLE.get(digits[2], 0.0), *frozen, 0.0)


def epw_weather(flag: str, codes: str) -> float:
    """mm/h from an EPW's present-weather flag and field; NaN where it cannot be known. Flag 0: looked at; 9: nobody
    did, which files of stations that write something down only when there is something also have in dry hours, their
    field then empty or without any weather. A year of nothing but those holds no rain at all."""
    text = codes.strip()
    if flag.strip() == "9" and text in ("", "999999999"):
        return 0.0
    found = epw_codes(text) if text else None
    return float("nan") if found is None or flag.strip() != "0" else found


def _classes(light: float, moderate: float, heavy: float) -> tuple[float, ...]:
    """The observer's tens 0 to 5: slight, moderate, heavy, each with breaks and without."""
    return (light, light, moderate, moderate, heavy, heavy)


# Code -> mm/h. WMO 4677, the observer's table: typical years carry 45 in a tenth of all hours, which is fog there and
# would be snow in the automatic stations' 4680. Twenties are weather of the past hour, which a typical year's hour is.
_SYNOPTIC: dict[int, float] = {
    **dict(enumerate((DRIZZLE, LIGHT, SNOW_LIGHT, LIGHT, DRIZZLE, LIGHT, SNOW_LIGHT, LIGHT, 0.0, MODERATE), 20)),
    **dict(enumerate((*_classes(DRIZZLE, DRIZZLE, LIGHT), DRIZZLE, LIGHT, LIGHT, MODERATE), 50)),
    **dict(enumerate((*_classes(LIGHT, MODERATE, HEAVY), LIGHT, MODERATE, LIGHT, MODERATE), 60)),
    **dict(enumerate((*_classes(SNOW_LIGHT, SNOW_MODERATE, SNOW_HEAVY), 0.0, SNOW_LIGHT, 0.0, SNOW_LIGHT), 70)),
    **dict(enumerate((LIGHT, MODERATE, HEAVY, LIGHT, MODERATE, SNOW_LIGHT, SNOW_MODERATE, LIGHT, MODERATE, LIGHT), 80)),
    **dict(enumerate((MODERATE, LIGHT, HEAVY, LIGHT, MODERATE, MODERATE, MODERATE, HEAVY, MODERATE, HEAVY), 90)),
}


def synoptic_code(code: int) -> float | None:
    """mm/h from a two-digit WMO 4677 present-weather code; None where it is missing."""
    return _SYNOPTIC.get(code, 0.0) if 0 <= code <= 99 else None
