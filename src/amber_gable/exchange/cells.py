"""Cells of tables that spreadsheets open: text that would be taken for a formula is marked as text."""


def safe_cell(value: str) -> str:
    """Text that a spreadsheet cannot take for a formula."""
    return f"'{value}" if value[:1] in ("=", "+", "-", "@", "\t", "\r") else value


def plain_cell(value: str) -> str:
    return value[1:] if value[:1] == "'" and value[1:2] in ("=", "+", "-", "@") else value
