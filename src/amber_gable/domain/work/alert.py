"""How grave a finding of the specification is."""

from enum import StrEnum


class Alert(StrEnum):
    """How grave a finding is: STOP must be answered before a coat goes on, CHECK wants a decision, NOTE is good to
    know, STEP is work the system contains."""

    STOP = "stop"
    CHECK = "check"
    NOTE = "note"
    STEP = "step"
