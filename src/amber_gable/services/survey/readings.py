"""A test's reading as it is typed or chosen."""

import re
from typing import Any

from pydantic import ValidationError

from amber_gable.core.survey.amounts.measures import parse_length, parse_share
from amber_gable.domain.errors import Refused, first_words
from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.findings.guided_tests import GuidedTest, quantity_of_test
from amber_gable.domain.units import UnitSystem, read
from amber_gable.services.forms.types import number

_YES_NO = {"yes": True, "no": False, "": None}


def reading_of(test: GuidedTest, text: str, system: UnitSystem) -> Any:
    """The value of the test's field, such as a condition may hold. Raises Refused under the test's code."""
    value = _read(test, text, system)
    try:
        Condition.model_validate({test.field: value})
    except ValidationError as error:
        raise Refused({test.code: f"“{text[:30]}” {first_words(error)[1]}"}) from None
    return value


def _read(test: GuidedTest, text: str, system: UnitSystem) -> Any:
    info = Condition.model_fields[test.field]
    if info.annotation == bool | None:
        if text not in _YES_NO:
            raise Refused({test.code: "must be yes or no"})
        return _YES_NO[text]
    if not text:
        return info.get_default()
    if test.field == "made_colour":
        if not re.fullmatch(r"#[0-9a-f]{6}", text.lower()):
            raise Refused({test.code: f"“{text[:20]}” is no colour; write it such as #a39b8b"})
        return text.lower()
    kind = quantity_of_test(test)
    try:
        if test.field.endswith("_pct"):
            return parse_share(text)
        if kind is not None:
            return read(kind, text, system)
        if test.field.endswith("_m"):
            return parse_length(text, system)
        if info.annotation is float or "float" in str(info.annotation) or "int" in str(info.annotation):
            return number(re.sub(r"\s*(?:years?|yrs?|coats?)$", "", text.lower()))
    except ValueError as error:
        words = str(error) if test.field.endswith(("_m", "_pct")) or kind else f"“{text[:30]}” is not a number"
        raise Refused({test.code: words}) from None
    return text
