"""What people type, as values: numbers, lengths, amounts with their units, days, times, bearings, colours, choices."""

import math
import re
from collections.abc import Collection
from datetime import date, datetime
from typing import Annotated

from amber_gable.core.survey.amounts.measures import parse_bearing, parse_length
from amber_gable.domain.units import Quantity, UnitSystem, read
from amber_gable.services.forms.form import Reads


def number(text: str) -> float:
    """With decimal point or comma, a minus of either kind. Raises ValueError."""
    try:
        value = float(text.strip().replace(",", ".").replace("−", "-"))
    except ValueError:
        value = math.nan
    if not math.isfinite(value):
        raise ValueError(f"“{text.strip()[:30]}” is not a number")
    return value


def number_from(least: float, most: float, words: str, sign: str = "%") -> Reads:
    """A number from `least` to `most`, which a sign may go before or stand behind; else it is not `words`."""

    def reader(text: str, _: UnitSystem) -> float:
        try:
            value = number(text.strip(f"{sign} "))
        except ValueError:
            value = math.nan
        if not least <= value <= most:
            raise ValueError(f"“{text[:20]}” is not {words}")
        return value

    return Reads(reader, f"is needed: {words}")


def whole_number(least: int, most: int, words: str) -> Reads:
    """A whole number from `least` to `most`; else it is not `words`."""

    def reader(text: str, _: UnitSystem) -> int:
        if not re.fullmatch(r"\d{1,6}", text, re.ASCII) or not least <= int(text) <= most:
            raise ValueError(f"“{text[:20]}” is not {words}")
        return int(text)

    return Reads(reader, f"is needed: {words}")


def whole(text: str, otherwise: int) -> int:
    """A whole number that the page itself sent, such as a version; `otherwise` for anything else."""
    return int(text) if re.fullmatch(r"\d{1,9}", text, re.ASCII) else otherwise


def amount(quantity: Quantity) -> Reads:
    """An amount in metric units, typed in the reader's or with its unit."""
    return Reads(lambda text, system: read(quantity, text, system))


def day(text: str) -> date:
    """Raises ValueError."""
    try:
        return date.fromisoformat(text.strip())
    except ValueError:
        raise ValueError(f"“{text.strip()[:20]}” is not a day; write it such as 2026-09-15") from None


def moment(text: str) -> datetime:
    """Without an offset where none was typed. Raises ValueError."""
    try:
        return datetime.fromisoformat(text)
    except ValueError:
        raise ValueError(f"“{text[:30]}” is not a time: give the day and the hour, such as 2026-09-15T08:40") from None


def time_of_day(text: str) -> float:
    """Hours of the day from `14`, `14:30`, `14:30:00`, `2 pm`. Raises ValueError."""
    found = re.fullmatch(r"(\d{1,2})(?:[:.](\d{2})(?::\d{2})?)?\s*(am|pm)?", text.strip().lower(), re.ASCII)
    hour = math.nan
    if found is not None and int(found[2] or 0) < 60:
        whole = int(found[1]) % 12 + 12 * (found[3] == "pm") if found[3] else int(found[1])
        hour = whole + int(found[2] or 0) / 60
    if not hour <= 24:
        raise ValueError(f"“{text.strip()[:20]}” is no time of the day; write it such as 07:30, 14:30 or 2 pm")
    return hour


def one_of(choices: Collection[str], words: str, needed: str = "") -> Reads:
    """One of the choices; `words` else, and where none is made unless `needed` says it otherwise."""

    def reader(text: str, _: UnitSystem) -> str:
        if text not in set(choices):
            raise ValueError(words)
        return text

    return Reads(reader, needed or words)


def colour(words: str) -> Reads:
    """`#rrggbb` in small letters; `words` else, and where none is chosen."""

    def reader(text: str, _: UnitSystem) -> str:
        if not re.fullmatch(r"#[0-9a-f]{6}", text.lower()):
            raise ValueError(words)
        return text.lower()

    return Reads(reader, words)


def text_of(needed: str, least: int = 1, most: int = 10_000) -> Reads:
    """Words of the reader's own; `needed` where there are fewer letters than `least`."""

    def reader(text: str, _: UnitSystem) -> str:
        if len(text) < least:
            raise ValueError(needed)
        if len(text) > most:
            raise ValueError(f"at most {most} letters; these are {len(text)}")
        return text

    return Reads(reader, needed)


Number = Annotated[float, Reads(lambda text, _: number(text))]
Length = Annotated[float, Reads(parse_length)]
"""m."""
Bearing = Annotated[float, Reads(lambda text, _: parse_bearing(text))]
"""Degrees from north."""
Day = Annotated[date, Reads(lambda text, _: day(text))]
TimeOfDay = Annotated[float, Reads(lambda text, _: time_of_day(text))]
"""Hours from midnight."""
Tick = Annotated[bool, Reads(lambda text, _: bool(text))]
"""A box that is sent only where it is ticked."""
Version = Annotated[int, Reads(lambda text, _: whole(text, -1))]
"""Of a row, as the page showed it; -1, which is no version, for anything else."""
