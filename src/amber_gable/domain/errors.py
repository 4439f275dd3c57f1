"""Refusals that a person can act on."""


class InputError(ValueError):
    """Input that cannot be used: `where` (file, line or field), `why` it is wrong, and what to do."""

    def __init__(self, where: str, why: str, todo: str = "") -> None:
        self.where, self.why, self.todo = where, why, todo
        super().__init__(f"{where}: {why}" + (f"; {todo}" if todo else ""))
