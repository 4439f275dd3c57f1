"""Refusals that a person can act on. Anything else that is raised is a fault of the program."""

from typing import Any


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
