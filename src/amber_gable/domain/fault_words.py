"""Validation errors of Pydantic in our own words, made here alone. The words follow the name of a field."""

from collections.abc import Callable
from typing import Any

from pydantic import ValidationError

Place = tuple[int | str, ...]
_MISSING = ("missing", "string_too_short", "too_short")


def words_of(fault: Any) -> str:
    """One entry of a ValidationError in words."""
    if fault["type"] in _MISSING:
        return "is needed"
    return str(fault["msg"]).removeprefix("Value error, ").replace("Input should be", "must be")


def last_name(place: Place) -> str:
    """The innermost field of an error's location; '' for a rule of the whole record."""
    return next((str(p) for p in reversed(place) if isinstance(p, str)), "")


def by_field(error: ValidationError, name: Callable[[Place], str] = last_name) -> dict[str, str]:
    """Words of every error by field; `name` makes the field's name of an error's location."""
    return {name(f["loc"]): words_of(f) for f in error.errors(include_url=False)}


def first_words(error: ValidationError) -> tuple[str, str]:
    """Location and words of the first error."""
    fault = error.errors(include_url=False)[0]
    return ".".join(map(str, fault["loc"])), words_of(fault)
