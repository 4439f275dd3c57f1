"""Spans of time in words, and what a script is handed."""

import json
from datetime import datetime


def between(early: datetime, late: datetime | None) -> str:
    """'Tue 13:50–15:10', 'Tue 23:18–Wed 06:01', or, where the end is not known, 'Tue 13:50 or later'."""
    if late is None:
        return f"{early:%a %H:%M} or later"
    return f"{early:%a %H:%M}–{late.strftime('%H:%M' if late.date() == early.date() else '%a %H:%M')}"


def script_json(value: object) -> str:
    """JSON that may stand inside a script element: nothing in it can end that."""
    return json.dumps(value).replace("<", "\\u003c")
