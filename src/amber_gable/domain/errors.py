"""Refusals that a person can act on, and validation errors of Pydantic in our own words. Any other exception is a fault
of the program."""

from collections.abc import Callable
from typing import Any

from pydantic import ValidationError


class InputError(ValueError):
    """Input that cannot be used: `where` (file, line or field), `why` it is wrong, and what to do."""

    def __init__(self, where: str, why: str, todo: str = "") -> None:
        self.where, self.why, self.todo = where, why, todo
        super().__init__(f"{where}: {why}" + (f"; {todo}" if todo else ""))


class UnknownCode(ValueError):
    """A code that is none of those there are; the message lists them."""


class NotFound(LookupError):
    """What was asked for by name is not there, or no longer."""

    def __init__(self, what: str, name: object) -> None:
        super().__init__(f"there is no {what} '{name}'")
        self.what, self.name = what, str(name)


class Refused(Exception):
    """A form that cannot be taken: what is wrong, by field; '' holds what concerns it as a whole."""

    def __init__(self, fields: dict[str, str]) -> None:
        super().__init__("; ".join(f"{k}: {v}" if k else v for k, v in fields.items()))
        self.fields = fields


class StaleEdit(Exception):
    """Somebody else changed the record meanwhile. Holds both values, field by field, where they differ."""

    def __init__(self, name: str, differences: dict[str, tuple[Any, Any]]) -> None:
        super().__init__(f"'{name}' was changed meanwhile")
        self.name, self.differences = name, differences


class NoSteps(Exception):
    """No steps can be derived for a surface; the message says what is missing."""


class NoClimate(Exception):
    """There is nothing to compute a climate of, or no weather for the days; the message says which."""


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
