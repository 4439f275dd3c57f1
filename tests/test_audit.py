"""The audit of the climate holds over the two years that come with a library of the program."""

from pathlib import Path

import pytest

from tests.tools.audit_physics import main
from tests.weather_cases import TMY3, TMY3_NO_RAIN

pytestmark = pytest.mark.long


@pytest.mark.parametrize("year", [TMY3, TMY3_NO_RAIN], ids=["inland", "coast"])
def test_every_line_of_the_audit_holds(year: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(year) == 0
    assert capsys.readouterr().out.count("ok  ") >= 14
