"""What people type, as records take it."""


def plain_number(text: str) -> float | None:
    """A number as people type it: decimal point or comma. None for an empty field. Raises ValueError."""
    text = text.strip().replace(",", ".")
    return float(text) if text else None
