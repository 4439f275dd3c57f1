"""Rain depth where a file only says what the weather was.

Rates in mm/h are the middles of the observing classes light, moderate and heavy.
"""

LIGHT, MODERATE, HEAVY, DRIZZLE = 1.0, 4.0, 10.0, 0.3


def epw_codes(codes: str) -> float | None:
    """mm/h from an EPW nine-digit present-weather field; None where it cannot be read.

    The second digit is rain and showers, the third drizzle and squalls; 9 means none.
    """
    codes = codes.strip().zfill(9)
    if len(codes) != 9 or not codes.isdigit():
        return None
    rain = {0: LIGHT, 1: MODERATE, 2: HEAVY, 3: LIGHT, 4: MODERATE, 5: HEAVY, 6: LIGHT, 7: MODERATE, 8: HEAVY}
    drizzle = {0: DRIZZLE, 1: DRIZZLE, 3: DRIZZLE, 4: DRIZZLE, 5: MODERATE, 6: DRIZZLE, 7: DRIZZLE, 8: DRIZZLE}
    return max(rain.get(int(codes[1]), 0.0), drizzle.get(int(codes[2]), 0.0))


def synoptic_code(code: int) -> float | None:
    """mm/h from a WMO 4680 automatic-station present-weather code; None where it is missing."""
    if not 0 <= code <= 99:
        return None
    if 50 <= code <= 59:
        return DRIZZLE
    if 60 <= code <= 69 or 80 <= code <= 89 or 40 <= code <= 42:
        return {1: LIGHT, 2: MODERATE, 3: HEAVY, 4: HEAVY}.get(code % 10, LIGHT)
    return HEAVY if 90 <= code <= 99 else 0.0
