"""The letters by which lanes, plan and warnings name what stops the work."""

LETTERS = {
    "N": "dark or outside working hours",
    "R": "rain",
    "D": "dew or wet surface",
    "C": "cold",
    "H": "hot or direct sun",
    "W": "wind",
    "M": "damp substrate",
    "U": "humid air",
    "?": "not known: the weather does not reach far enough",
    "S": "a stop that must be answered first",
    "O": "other people's work comes first",
    "B": "what lies below is not ready",
}
"""What stops the work, in the order in which it is shown."""
