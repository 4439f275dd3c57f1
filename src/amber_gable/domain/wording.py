"""Days, hours and plain figures in words: the same on pages, papers, exports and commands. Figures with a unit are told
by `units.py`."""

from datetime import date, datetime, tzinfo


def dated(t: date) -> str:
    """'Mon 14 Sep'"""
    return f"{t:%a} {t.day} {t:%b}"


def timed(t: datetime) -> str:
    """'Mon 14 Sep 08:40', in the zone of the moment."""
    return f"{t:%a} {t.day} {t:%b %H:%M}"


def timed_at(t: datetime, zone: tzinfo) -> str:
    """'Mon 14 Sep 08:40', in the house's zone."""
    return timed(t.astimezone(zone))


def clock(t: datetime) -> str:
    """'08:40'"""
    return f"{t:%H:%M}"


def hour(hours: float) -> str:
    """'07:30' for 7.5."""
    return f"{int(hours):02d}:{round(hours % 1 * 60):02d}"


def duration(hours: float) -> str:
    """'25 min', '1 h 20 min': no zero is shown for work that takes minutes."""
    total = max(1, round(hours * 60)) if hours > 0 else 0
    whole, rest = divmod(total, 60)
    return " ".join(filter(None, (f"{whole} h" if whole else "", f"{rest} min" if rest or not whole else "")))


def number(value: float, digits: int = 1) -> str:
    """'12.5'; from ten thousand on with a thin blank between thousands."""
    text = f"{value:,.{digits}f}" if abs(value) >= 10_000 else f"{value:.{digits}f}"
    return text.replace(",", "\u202f")


def plural(count: float, single: str, several: str) -> str:
    """'task is' for one, 'tasks are' for none or more."""
    return single if count == 1 else several
