"""The sunshine columns of a typical-year file: their gaps, and the interval their values stand for."""

from collections.abc import MutableMapping
from typing import Any

import numpy as np

from amber_gable.core.weather.outdoors.light import SEARCH_H, closure
from amber_gable.core.weather.outdoors.sun import step_positions
from amber_gable.domain.grid import STEP_S
from amber_gable.domain.weather.series import HOUR

BRIDGED_H = 3
DISAGREE = 60.0
"""W/m² between direct × sine + diffuse and global from which on the direct sunshine is not believed."""


def read_sunshine(
    columns: dict[str, np.ndarray],
    gaps: dict[str, np.ndarray],
    values: MutableMapping[str, Any],
    notes: list[str],
    site: tuple[int, float, float, float],
) -> float:
    """Put what can be used of global, diffuse and direct into `values`, what must be said into `notes`; the minutes by
    which they stand later than their hours. site: epoch second of the first hour, degrees north and east, m."""
    for field, label in (("ghi", "global"), ("dhi", "diffuse"), ("dni", "direct")):
        if field != "ghi" and "ghi" not in values:
            break
        filled, lacking = _bridged(columns[field], gaps[field])
        if filled is not None:
            values[field] = filled
        if lacking:
            done = "run straight between its neighbours" if filled is not None else "so none of it is used"
            notes.append(f"{label} sunshine is missing in {lacking} hours, {done}")
    if "dhi" not in values or "dni" not in values:
        return 0
    start, *place = site
    first = start - SEARCH_H * HOUR + STEP_S // 2
    elevation = step_positions(first, len(values["ghi"]) + 2 * SEARCH_H, *place).elevation
    found = closure(values["ghi"], values["dni"], values["dhi"], elevation)
    if found is None or found.left > DISAGREE:
        del values["dni"]
        if found is not None:
            notes.append(
                f"direct sunshine is not used: with the diffuse it misses the global by {found.left:.0f} W/m² at best"
            )
        return 0
    if found.offset_min:
        side = "later" if found.offset_min > 0 else "earlier"
        notes.append(
            f"sunshine stands {abs(found.offset_min):g} minutes {side} than its label and is taken so: there direct × "
            f"sine + diffuse comes to the global within {found.left:.0f} W/m²"
        )
    return found.offset_min


def _bridged(values: np.ndarray, missing: np.ndarray) -> tuple[np.ndarray | None, int]:
    """A column with gaps of at most three hours filled, None where they are longer; and how many hours lack it."""
    count = int(missing.sum())
    edges = np.flatnonzero(np.diff(np.concatenate([[0], missing.astype(int), [0]])))
    if count and (edges[1::2] - edges[::2]).max() > BRIDGED_H:
        return None, 0 if missing.all() else count
    hours = np.arange(len(values))
    return np.interp(hours, hours[~missing], values[~missing]), count
