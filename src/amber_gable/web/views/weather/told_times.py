"""Spans of time in words, and what a script is handed."""

import json
from datetime import datetime


def between(early: datetime, late: datetime | None, beside: datetime) -> str:
    """'13:50–15:10', 'Tue 23:18–Wed 06:01', or, where the end is not known, 'Tue 13:50 or later'. The day is said where
    it is not that of the moment it stands `beside`."""
    begins = early.strftime("%H:%M" if early.date() == beside.date() else "%a %H:%M")
    if late is None:
        return f"{begins} or later"
    return f"{begins}–{late.strftime('%H:%M' if late.date() == early.date() else '%a %H:%M')}"


def script_json(value: object) -> str:
    """JSON that may stand inside a script element: nothing in it can end that."""
    return json.dumps(value).replace("<", "\\u003c")
