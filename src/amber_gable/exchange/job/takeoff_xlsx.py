"""The take-off as a workbook: a sheet for each building, its sums as living formulas."""

import io
import re
from typing import Any

from openpyxl import Workbook
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter
from openpyxl.worksheet.worksheet import Worksheet

from amber_gable.core.survey.amounts.items import item_parts
from amber_gable.core.survey.amounts.takeoff import face_areas
from amber_gable.domain.house.profile import BattenProfile, LapProfile, Profile
from amber_gable.domain.house.survey import Face
from amber_gable.domain.job.job import JobBundle
from amber_gable.exchange.files import safe_cell

HEAD = ("What", "How", "Times", "Size 1, m", "Size 2, m", "Pitch, °", "Plan, m²", "Texture", "Surface, m²")
_WIDTHS = (34, 44, 8, 11, 11, 9, 11, 10, 13)
_BOLD = Font(bold=True)


def write_workbook(bundle: JobBundle) -> bytes:
    """XLSX bytes."""
    book = Workbook()
    book.remove(book.worksheets[0])
    faces = bundle.property.faces
    for building in dict.fromkeys(f.building for f in faces) or ["House"]:
        sheet = book.create_sheet(_title(building, book.sheetnames))
        _building(sheet, bundle, [f for f in faces if f.building == building])
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def _title(name: str, taken: list[str]) -> str:
    """A sheet's name: at most 31 signs and none of those a workbook refuses."""
    base = re.sub(r"[\[\]:*?/\\']", " ", name).strip()[:27] or "Building"
    title, number = base, 2
    while title.lower() in {t.lower() for t in taken}:
        title, number = f"{base} {number}", number + 1
    return title


def _building(sheet: Worksheet, bundle: JobBundle, faces: list[Face]) -> None:
    sheet.append(HEAD)
    for cell, width in zip(sheet[1], _WIDTHS, strict=True):
        cell.font = _BOLD
        sheet.column_dimensions[get_column_letter(cell.column)].width = width
    for face in faces:
        _put(sheet, [face.name, f"looks {face.azimuth_deg:g}°, tilt {face.tilt_deg:g}°, {bundle.deduction}"])
        for area in face_areas(bundle.property, face, bundle.deduction).values():
            first = sheet.max_row + 1
            for line in area.lines:
                _line(sheet, line.words, line.value_m2, line.sizes, line.share, line.pitch_deg)
            last = sheet.max_row
            row = last + 1
            sheet.append([safe_cell(area.zone.name), "plan × texture", None, None, None, None])
            sheet.cell(row, 7, f"=MAX(SUM(G{first}:G{last}),0)")
            sheet.cell(row, 8, _factor(area.zone.profile, area.profile_factor))
            sheet.cell(row, 9, f"=G{row}*H{row}")
            _finish(sheet, row)
        for item in bundle.property.items_of(face.id):
            first = sheet.max_row + 1
            for part in item_parts(item.spec):
                _line(sheet, part.name, part.area_m2, part.sizes, part.count * part.factor, 0.0)
            row = sheet.max_row + 1
            sheet.append([safe_cell(item.name), item.spec.kind.replace("-", " ")])
            sheet.cell(row, 9, f"=SUM(G{first}:G{row - 1})")
            _finish(sheet, row)
    row = sheet.max_row + 2
    sheet.cell(row, 1, "All to paint")
    # Only zones and items have a figure in this column.
    sheet.cell(row, 9, f"=SUM(I2:I{row - 1})")
    _finish(sheet, row)
    sheet.freeze_panes = "A2"


def _put(sheet: Worksheet, values: list[Any]) -> None:
    sheet.append([safe_cell(v) if isinstance(v, str) else v for v in values])
    sheet.cell(sheet.max_row, 1).font = _BOLD


def _line(sheet: Worksheet, words: str, value: float, sizes: tuple[float, ...], share: float, pitch_deg: float) -> None:
    """A line of arithmetic: multiplied out in the sheet where it has sizes, else the value itself."""
    row = sheet.max_row + 1
    sheet.cell(row, 2, safe_cell(words))
    if len(sizes) == 2:
        sheet.cell(row, 3, -share if value < 0 else share)
        sheet.cell(row, 4, sizes[0])
        sheet.cell(row, 5, sizes[1])
        pitch = f"/COS(RADIANS(F{row}))" if pitch_deg else ""
        if pitch_deg:
            sheet.cell(row, 6, pitch_deg)
        sheet.cell(row, 7, f"=C{row}*D{row}*E{row}{pitch}")
    else:
        sheet.cell(row, 7, value)
    sheet.cell(row, 7).number_format = "0.00"


def _factor(profile: Profile | None, factor: float) -> Any:
    if isinstance(profile, LapProfile):
        return f"=({profile.exposure_m}+{profile.butt_m})/{profile.exposure_m}"
    if isinstance(profile, BattenProfile):
        return f"=({profile.pitch_m}+2*{profile.batten_thickness_m})/{profile.pitch_m}"
    return factor


def _finish(sheet: Worksheet, row: int) -> None:
    for column in range(1, 10):
        sheet.cell(row, column).font = _BOLD
        if column in (7, 9):
            sheet.cell(row, column).number_format = "0.00"
    sheet.cell(row, 8).number_format = "0.000"
