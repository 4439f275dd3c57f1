"""The work record and the purchase list as tables: CSV, and workbooks whose sums are living formulas."""

import csv
import io
import math
from collections.abc import Callable, Iterator, Sequence
from typing import Any

from openpyxl import Workbook
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter
from openpyxl.worksheet.worksheet import Worksheet

from amber_gable.core.estimate.estimate import Estimate
from amber_gable.exchange.files import safe_cell

WORK = (
    ("Face", 22), ("Part", 26), ("Work", 44), ("Amount", 10), ("Unit", 8), ("Per hour", 10), ("Factors", 40),
    ("Factor", 9), ("Hours", 10), ("Low", 9), ("High", 9), ("Rate", 44), ("Source", 22),
)  # fmt: skip
PURCHASE = (
    ("What", 40), ("Colour", 12), ("Unit", 8), ("Low", 9), ("Likely", 9), ("High", 9), ("Container", 11),
    ("How many", 10), ("Price each", 11), ("Cost", 11),
)  # fmt: skip
_BOLD = Font(bold=True)
Row = list[Any]


def work_rows(estimate: Estimate) -> Iterator[Row]:
    """A row for each line of work; figures unrounded, so that their sum is the page's."""
    parts = estimate.hours.parts
    for line in estimate.hours.lines:
        labour, (low, high) = line.labour, line.band
        where = (parts[line.part].face.name, parts[line.part].name) if line.part is not None else ("The job", "")
        factors = "; ".join(f"{f.value:.4g} {f.name}" for f in labour.factors)
        factor = math.prod(f.value for f in labour.factors)
        yield [
            *where, line.words, labour.amount, labour.unit.value, labour.rate.per_hour, factors, factor, line.hours,
            low, high, labour.rate.words, labour.rate.source,
        ]  # fmt: skip


def purchase_rows(estimate: Estimate) -> Iterator[Row]:
    """A row for each size of container of each paint, then all that is used up; without a price where it has none."""
    for order in estimate.orders:
        need, name = order.need, order.product.name
        rows = [(f"{name}, own can {can.number}", can.litres, 1, 0.0) for can in order.stock]
        rows += [(name, container.litres, count, float(container.price)) for container, count in order.purchase.items]
        for n, (what, litres, count, price) in enumerate(rows):
            told = [need.p10, need.p50, need.p90] if n == 0 else [None, None, None]
            yield [what, order.colour, "L", *told, litres, count, price, price * count]
    for s in estimate.supplies:
        yield [s.words, None, s.unit or "pieces", s.p10, s.p50, s.p90, None, s.buy, None, None]


def work_csv(estimate: Estimate) -> str:
    return _csv(WORK, work_rows(estimate))


def purchase_csv(estimate: Estimate) -> str:
    return _csv(PURCHASE, purchase_rows(estimate))


def _csv(head: Sequence[tuple[str, int]], rows: Iterator[Row]) -> str:
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow([name for name, _ in head])
    for row in rows:
        writer.writerow([_plain(cell) for cell in row])
    return out.getvalue()


def _plain(cell: Any) -> Any:
    if isinstance(cell, str):
        return safe_cell(cell)
    return f"{cell:.6f}".rstrip("0").rstrip(".") if isinstance(cell, float) else cell


def work_workbook(estimate: Estimate) -> bytes:
    """XLSX: hours are amount ÷ per hour × factor, added up."""
    return _workbook("Work", WORK, work_rows(estimate), "Hours", lambda row: f"=D{row}/F{row}*H{row}")


def purchase_workbook(estimate: Estimate) -> bytes:
    """XLSX: costs are how many × price each, added up."""
    return _workbook("Purchase", PURCHASE, purchase_rows(estimate), "Cost", lambda row: f"=H{row}*I{row}")


def _workbook(
    title: str, head: Sequence[tuple[str, int]], rows: Iterator[Row], summed: str, formula: Callable[[int], str]
) -> bytes:
    """`summed` is the column that a formula fills, where the row has a figure there, and that is added up below."""
    book = Workbook()
    sheet = book.worksheets[0]
    sheet.title = title
    sheet.append([name for name, _ in head])
    column = [name for name, _ in head].index(summed) + 1
    for cells in rows:
        row = sheet.max_row + 1
        for n, cell in enumerate(cells, 1):
            if n == column and cell is not None:
                sheet.cell(row, n, formula(row))
            elif cell is not None:
                sheet.cell(row, n, safe_cell(cell) if isinstance(cell, str) else cell)
    _finish(sheet, head, column)
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def _finish(sheet: Worksheet, head: Sequence[tuple[str, int]], column: int) -> None:
    """Widths, bold head, the sum."""
    for n, (_, width) in enumerate(head, 1):
        sheet.cell(1, n).font = _BOLD
        sheet.column_dimensions[get_column_letter(n)].width = width
    for cells in sheet.iter_rows(min_row=2):
        for cell in cells:
            if isinstance(cell.value, float) or cell.column == column:
                cell.number_format = "0.00"
    last, letter = sheet.max_row, get_column_letter(column)
    total = sheet.cell(last + 2, column, f"=SUM({letter}2:{letter}{last})")
    total.font, total.number_format = _BOLD, "0.00"
    sheet.cell(last + 2, 1, "All").font = _BOLD
    sheet.freeze_panes = "A2"
