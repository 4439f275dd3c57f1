"""One test as it is asked of many surfaces: a button per answer with how many have it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from amber_gable.core.survey.findings.answers import Tally


@dataclass(frozen=True)
class AnswerButton:
    """`every`: all surfaces that are meant have it."""

    value: str
    words: str
    count: int
    every: bool


@dataclass(frozen=True)
class FindingRow:
    """`asks_for` is what may be typed besides; empty where the answers are all there are."""

    tally: Tally
    answers: tuple[AnswerButton, ...]
    asks_for: str
    fault: str
    typed: str


def finding_row(tally: Tally, faults: dict[str, str], typed: str) -> FindingRow:
    test, given = tally.test, tally.given
    share = test.field.endswith("_pct")
    values = tally.answers
    asks_for = "20 %" if share else ""
    if not share and not test.answers:
        asks_for = "years" if test.field == "age_years" else "how many"
    if "unknown" in values and "unknown" not in given:
        values = tuple(v for v in values if v != "unknown")
    answers = tuple(
        AnswerButton(v, v.replace("-", " "), given.get(v, 0), bool(given) and given.get(v, 0) == tally.fits)
        for v in values
    )
    fault = faults.get(test.code, "")
    return FindingRow(tally, answers, asks_for, fault, typed if fault else "")
