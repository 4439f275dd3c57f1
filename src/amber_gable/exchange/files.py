"""Reading a user's text file without trusting it, and writing cells that no spreadsheet takes for formulas."""

from pathlib import Path

from amber_gable.domain.errors import InputError
from amber_gable.exchange.sizes import SIZE_LIMIT


def read_text(path: Path) -> str:
    """The file's text. Refuses what is missing, over 10 MB or not text."""
    try:
        if path.stat().st_size > SIZE_LIMIT:
            raise InputError(path.name, "the file is larger than 10 MB", "cut it to the period you need")
        data = path.read_bytes()
    except OSError as error:
        raise InputError(str(path), f"cannot be read ({error.strerror})", "check the name") from None
    return decode(data, path.name)


def decode(data: bytes, name: str) -> str:
    """UTF-8 text, with or without a byte-order mark, or Latin-1 as older weather files are written."""
    if len(data) > SIZE_LIMIT:
        raise InputError(name, "the file is larger than 10 MB", "cut it to the period you need")
    if b"\x00" in data:
        raise InputError(name, "is not a text file", "choose an EPW, TMY3 CSV, plain CSV or JSON file")
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError:
        return data.decode("latin-1")


def safe_cell(value: str) -> str:
    """Text that a spreadsheet cannot take for a formula."""
    return f"'{value}" if value[:1] in ("=", "+", "-", "@", "\t", "\r") else value


def plain_cell(value: str) -> str:
    return value[1:] if value[:1] == "'" and value[1:2] in ("=", "+", "-", "@") else value
