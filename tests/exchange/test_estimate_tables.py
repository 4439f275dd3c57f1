"""The work record and the purchase list as files: their sums are the page's, their words no formulas."""

import csv
import io
import re

import pytest
from openpyxl import load_workbook

from amber_gable.core.estimate.estimate import job_estimate
from amber_gable.domain.job.job import JobBundle
from amber_gable.exchange.job.estimate_tables import (
    PURCHASE,
    WORK,
    purchase_csv,
    purchase_workbook,
    work_csv,
    work_workbook,
)
from tests.jobs import demo_job

EVIL = "=cmd|' /C calc'!A0"


def _sum(book: bytes, column: int) -> float:
    """The sum below the column, by working out its formulas as a spreadsheet would."""
    sheet = load_workbook(io.BytesIO(book)).worksheets[0]

    def worked(row: int, at: int) -> float:
        value = sheet.cell(row, at).value
        if value is None:
            return 0.0
        if not isinstance(value, str):
            return float(value)
        assert re.fullmatch(r"=[A-M]\d+([*/][A-M]\d+)+", value), value
        out, times = 1.0, "*"
        for sign, letter, number in re.findall(r"([=*/])([A-M])(\d+)", value):
            figure = worked(int(number), ord(letter) - 64)
            times = "*" if sign == "=" else sign
            out = out * figure if times == "*" else out / figure
        return out

    last = sheet.max_row
    letter = chr(64 + column)
    assert sheet.cell(last, column).value == f"=SUM({letter}2:{letter}{last - 2})"
    return sum(worked(row, column) for row in range(2, last - 1))


@pytest.mark.parametrize("stem", "12345")
def test_the_workbooks_sums_are_the_pages(stem: str) -> None:
    found = job_estimate(demo_job(stem))
    assert _sum(work_workbook(found), 9) == pytest.approx(found.hours.hours, abs=1e-6)
    assert _sum(purchase_workbook(found), 10) == pytest.approx(float(found.paint_cost), abs=0.004)


def test_the_csv_files_hold_the_same_lines() -> None:
    found = job_estimate(demo_job("1"))
    work = list(csv.DictReader(io.StringIO(work_csv(found))))
    assert list(work[0]) == [name for name, _ in WORK]
    assert len(work) == len(found.hours.lines)
    assert sum(float(r["Hours"]) for r in work) == pytest.approx(found.hours.hours, abs=0.001)
    bought = list(csv.DictReader(io.StringIO(purchase_csv(found))))
    assert list(bought[0]) == [name for name, _ in PURCHASE]
    assert sum(float(r["Cost"]) for r in bought if r["Cost"]) == pytest.approx(float(found.paint_cost), abs=0.004)
    assert {s.words for s in found.supplies} <= {r["What"] for r in bought}


def test_a_name_that_looks_like_a_formula_stays_a_name() -> None:
    raw = demo_job("1").model_dump(mode="json")
    raw["property"]["faces"][0]["name"] = EVIL
    raw["property"]["zones"][0]["name"] = "@SUM(A1)"
    for product in raw["products"]:
        product["name"] = "+1-2"
    found = job_estimate(JobBundle.model_validate(raw))
    for text in (work_csv(found), purchase_csv(found)):
        cells = [c for row in csv.reader(io.StringIO(text)) for c in row]
        assert not [c for c in cells if c[:1] in "=+@" and c]
    for book in (work_workbook(found), purchase_workbook(found)):
        for row in load_workbook(io.BytesIO(book)).worksheets[0].iter_rows():
            for cell in row:
                assert cell.data_type != "f" or re.fullmatch(r"=(SUM\([A-M]\d+:[A-M]\d+\)|[A-MA0-9*/]+)", cell.value)
