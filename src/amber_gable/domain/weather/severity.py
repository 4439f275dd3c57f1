"""How much harm what befalls a fresh film does to it."""

from enum import StrEnum


class Severity(StrEnum):
    SPOILS = "spoils"
    HARMS = "harms"
    MARKS = "marks"
