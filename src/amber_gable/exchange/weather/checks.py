"""What every weather reader must refuse, with the line at fault."""

from collections.abc import Sequence
from typing import NoReturn

import numpy as np
import numpy.typing as npt

from amber_gable.domain.errors import InputError
from amber_gable.domain.weather.series import BOUNDS, MAY_LACK_HOURS, Floats

UNITS = {
    "air_c": ("air temperature", "°C"),
    "rh_pct": ("relative humidity", "%"),
    "wind_ms": ("wind speed", "m/s"),
    "wind_from_deg": ("wind direction", "°"),
    "cloud": ("cloud cover", "as a share of 1"),
    "rain_mm": ("rain", "mm"),
    "rain_pct": ("rain probability", "%"),
    "ghi": ("global irradiance", "W/m²"),
    "dni": ("direct irradiance", "W/m²"),
    "dhi": ("diffuse irradiance", "W/m²"),
    "ir_down": ("downward infrared", "W/m²"),
    "gust_ms": ("gusts", "m/s"),
}


def number(text: str, name: str, line: int, column: str) -> float:
    """A finite number out of a cell."""
    try:
        value = float(text)
    except ValueError:
        value = float("nan")
    if not np.isfinite(value):
        shown = text.strip()[:30]
        raise InputError(f"{name}, line {line}, {column}", f"'{shown}' is not a number", "correct or remove the line")
    return value


def numbers(cells: Sequence[str], name: str, lines: Sequence[int], column: str) -> Floats:
    """Finite numbers out of a column of cells; the first that is none is refused with its line."""
    try:
        values = np.array(cells, dtype=float)
    except ValueError:
        values = np.array([np.nan])
    if np.isfinite(values).all():
        return values
    return np.array([number(text, name, line, column) for text, line in zip(cells, lines, strict=True)])


def in_bounds(column: str, values: Floats, lines: Sequence[int], name: str) -> None:
    """Refuse values that no weather can have. Rain and gusts alone may be unknown (NaN) in some hours."""
    low, high = BOUNDS[column]
    lacking = np.isnan(values) & (column not in MAY_LACK_HOURS)
    bad = np.flatnonzero((values < low) | (values > high) | np.isinf(values) | lacking)
    if bad.size:
        label, unit = UNITS[column]
        i = int(bad[0])
        raise InputError(
            f"{name}, line {lines[i]}",
            f"{label} {values[i]:g} {unit} is outside {low:g} to {high:g}",
            "correct the value or check the column's unit",
        )


def missing_column(name: str, line: int, column: str, have: Sequence[str]) -> NoReturn:
    shown = ", ".join(have[:12])
    raise InputError(f"{name}, line {line}", f"column '{column}' is missing (found: {shown})", "add the column")


def bridge(values: Floats, missing: npt.NDArray[np.bool_], name: str, label: str, lines: Sequence[int]) -> Floats:
    """Fill gaps of at most six hours with a straight line; refuse longer ones."""
    if not missing.any():
        return values
    edges = np.flatnonzero(np.diff(np.concatenate([[0], missing.astype(int), [0]])))
    for a, b in zip(edges[::2], edges[1::2], strict=True):
        if b - a > 6:
            raise InputError(
                f"{name}, lines {lines[a]} to {lines[b - 1]}",
                f"{label} is missing for {b - a} hours running",
                "use a file that has it",
            )
    hours = np.arange(len(values))
    return np.asarray(np.interp(hours, hours[~missing], values[~missing]))
