"""What other parts of a face ask of a step: dust and water beside a film, dust before one."""

from typing import Any

import pytest

from amber_gable.core.state.beside import dust_left
from amber_gable.core.state.progress import cells, progress
from amber_gable.domain.house.zone_area import OwnArea
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.operation import Operation
from tests.site_cases import SIDING, at, entry, record, state_of, wall

TRIM = ("zone", "trim")
TEN = at(0, "10:00")
PREPARED = ("done", "wash scrape", at(-4, "09:00"))
PRIMED = ("done", "prime", at(-2, "08:00"))


def _with_trim(*lines: tuple[Any, ...]) -> JobBundle:
    """The siding with trim on its face, of which these lines were noted; the siding is primed and caulked."""
    ready = (PREPARED, PRIMED, ("done", "caulk", at(-1, "12:00")))
    bundle = wall(*ready, *((said, steps, when, {"parts": [TRIM]}) for said, steps, when in lines))
    field = bundle.property.zones[0]
    trim = field.model_copy(update={"id": "trim", "name": "Trim", "area": OwnArea(area_m2=3.0, trim_m=20.0)})
    finish = bundle.job.finishes[0].model_copy(update={"zone": "trim"})
    return bundle.model_copy(
        update={
            "property": bundle.property.model_copy(update={"zones": (field, trim)}),
            "job": bundle.job.model_copy(update={"finishes": (*bundle.job.finishes, finish)}),
        }
    )


def test_nothing_dusty_goes_on_beside_a_wet_film_and_no_film_before_the_dust_beside_it_is_off() -> None:
    # The siding's coat was laid half an hour ago: the trim is not scraped beside it, and later it is.
    laid = _with_trim(("done", "wash", at(-4, "09:00")))
    coat = entry("done", "coat-1", at(0, "10:00"), 99)
    laid = laid.model_copy(update={"job": laid.job.model_copy(update={"record": (*laid.job.record, coat)})})
    for clock, waits in (("10:15", True), ("16:00", False)):
        cell = state_of(laid, at(0, clock)).parts[TRIM].cells[0]
        assert cell.next is not None and cell.next.first.id == "scrape"
        assert any("dust sticks in it" in w.words for w in cell.waits) is waits, clock
    # The trim was washed only: the siding may be coated. Water beside it waits until it is rain-ready.
    unwashed = _with_trim()
    unwashed = unwashed.model_copy(
        update={"job": unwashed.job.model_copy(update={"record": (*unwashed.job.record, coat)})}
    )
    (wait,) = state_of(unwashed, at(0, "11:30")).parts[TRIM].cells[0].waits
    assert "water spoils it" in wait.words and wait.until is not None


def test_a_spot_primer_and_what_lies_elsewhere_bar_nothing_beside_them() -> None:
    cell = state_of(_with_trim(("done", "wash", at(-4, "09:00"))), at(-2, "08:10")).parts[TRIM].cells[0]
    primed = next(o for o in cell.cell.operations if o.id == "prime")
    assert any("is still wet" in w.words for w in cell.waits) is (primed.share >= 0.1)


@pytest.mark.parametrize(
    ("noted", "left"),
    [("", ""), ("wash", ""), ("wash sand", "dust"), ("wash sand dust", ""), ("wash sand dust coat", "")],
)
def test_dust_is_left_where_it_was_sanded_and_nobody_noted_that_it_is_off(noted: str, left: str) -> None:
    film = {"product": "exterior-acrylic-standard", "method": "brush"}
    steps = [
        Operation.model_validate({"id": kind, "name": kind, "kind": kind, **(film if kind == "coat" else {})})
        for kind in ("wash", "sand", "dust", "coat")
    ]
    lines = record(("done", noted, TEN)) if noted else ()
    (cell,) = cells(SIDING, steps, progress(lines))
    found = dust_left(cell)
    assert (found.id if found else "") == left
