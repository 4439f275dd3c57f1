"""Take-off CSV both ways, the workbook's living sums, DXF read back, and the zip with photos."""

import csv
import io
import json
import math
import re
import zipfile
from typing import Any

import ezdxf
import pytest
from openpyxl import load_workbook

from amber_gable.core.survey.amounts.items import item_area
from amber_gable.core.survey.amounts.takeoff import zone_areas
from amber_gable.demo import demo_bundles
from amber_gable.domain.errors import InputError
from amber_gable.domain.job.job import JobBundle
from amber_gable.exchange.job.bundle import load_bundle
from amber_gable.exchange.job.elevation_dxf import write_dxf
from amber_gable.exchange.job.job_zip import dump_zip, load_zip
from amber_gable.exchange.job.takeoff_csv import read_takeoff, write_takeoff
from amber_gable.exchange.job.takeoff_xlsx import write_workbook
from tests.jobs import coopers_rise

JOBS = [load_bundle(text, name) for name, text in demo_bundles()]


@pytest.mark.parametrize("bundle", JOBS, ids=[b.job.id for b in JOBS])
def test_a_take_off_read_back_holds_every_part_as_it_was(bundle: JobBundle) -> None:
    rows = read_takeoff(write_takeoff(bundle), "t.csv")
    property_ = bundle.property
    stored: list[Any] = [*property_.zones, *property_.items]
    for face in property_.faces:
        stored += [face, *face.openings, *face.obstacles]
    mine = {(type(p).__name__, _face_name(bundle, p), p.name): p for p in stored}
    assert len(rows) == len(stored)
    left_out = {"id", "face", "openings", "obstacles", "condition", "horizon", "blocks", "plan"}
    left_out |= {"exposure", "rain_exposure", "overhang_m", "note"}
    for row in rows:
        part = mine[type(row.part).__name__, row.face, row.part.name]
        assert row.part.model_dump(exclude=left_out) == part.model_dump(exclude=left_out)


def _face_name(bundle: JobBundle, part: Any) -> str:
    for f in bundle.property.faces:
        if part in f.openings or part in f.obstacles or getattr(part, "face", "") == f.id:
            return f.name
    return ""


HEAD = "record,face,name,kind,looks_deg,x_m,y_m,sizes,substrate,colour\n"
WALL = "face,,Wall,rectangle,SW,,,width_m=6; height_m=3,,\n"
BROKEN = [
    ("", "line 1.*no column 'record'"),
    ("record,price\nface,3\n", "line 1.*not known: price"),
    (HEAD + "roof,,Wall,rectangle,0,,,width_m=6; height_m=3,,\n", "line 2, record.*not one of"),
    (HEAD + "face,,Wall,rectangle,up,,,width_m=6; height_m=3,,\n", "line 2, looks_deg.*not a bearing"),
    (HEAD + "face,,Wall,pyramid,0,,,width_m=6; height_m=3,,\n", "line 2, kind.*pyramid"),
    (HEAD + "face,,Wall,rectangle,0,,,width_m=6,,\n", "line 2, sizes.*height_m"),
    (HEAD + "face,,Wall,rectangle,0,,,width_m=0; height_m=3,,\n", "line 2, sizes.*width_m.*greater than 0"),
    (HEAD + "face,,Wall,rectangle,0,,,width_m=1e9; height_m=3,,\n", "line 2, sizes.*less than or equal to 200"),
    (HEAD + "face,,Wall,rectangle,0,,,width_m=nan; height_m=3,,\n", "line 2, sizes.*finite"),
    (HEAD + "face,,Wall,rectangle,0,,,six by three,,\n", "line 2, sizes.*name=value"),
    (HEAD + "face,,Wall,free,0,,,corners=0/0 4/3 4/0 0/3,,\n", "line 2, sizes.*crosses itself"),
    (HEAD + WALL + "opening,,W,window,,1,1,width_m=1; height_m=1,,\n", "line 3, face.*is needed"),
    (HEAD + WALL + "opening,Wall,W,window,,left,1,width_m=1; height_m=1,,\n", "line 3, x_m.*not a number"),
    (HEAD + WALL + "zone,Wall,Z,face,,,,,cheese,#808080\n", "line 3, substrate.*cheese"),
    (HEAD + WALL + "zone,Wall,Z,face,,,,,brick,grey\n", "line 3, colour"),
    (HEAD + WALL + "face,,a,b,c,d,e,f,g,h,i,j\n", "line 3.*more cells"),
]


@pytest.mark.parametrize(("text", "words"), BROKEN)
def test_a_broken_take_off_names_line_and_column(text: str, words: str) -> None:
    with pytest.raises(InputError, match=words):
        read_takeoff(text, "t.csv")


def test_names_that_a_spreadsheet_would_run_are_made_harmless_and_come_back() -> None:
    bundle = coopers_rise()
    face = bundle.property.faces[0].model_copy(update={"name": "=HYPERLINK(1)"})
    nasty = bundle.model_copy(
        update={"property": bundle.property.model_copy(update={"faces": (face, *bundle.property.faces[1:])})}
    )
    text = write_takeoff(nasty)
    assert not any(cell.startswith("=") for row in csv.reader(io.StringIO(text)) for cell in row)
    assert read_takeoff(text, "t.csv")[0].part.name == "=HYPERLINK(1)"
    book = load_workbook(io.BytesIO(write_workbook(nasty)))
    assert "'=HYPERLINK(1)" in [c.value for c in book.worksheets[0]["A"]]


def _worked_out(sheet: Any) -> float:
    """The sheet's last sum, by working out its formulas as a spreadsheet would."""

    def value(cell: str) -> float:
        return work(sheet[cell].value)

    def work(content: Any) -> float:
        if not isinstance(content, str) or not content.startswith("="):
            return float(content or 0) if not isinstance(content, str) else 0.0
        text = re.sub(
            r"SUM\(([A-Z])(\d+):[A-Z](\d+)\)",
            lambda m: "(" + "+".join(f"{m[1]}{r}" for r in range(int(m[2]), int(m[3]) + 1)) + ")",
            content[1:],
        )
        text = re.sub(r"\b([A-I])(\d+)\b", lambda m: repr(value(m[0])), text)
        return float(eval(text, {"__builtins__": {}}, {"MAX": max, "COS": math.cos, "RADIANS": math.radians}))

    return work(sheet.cell(sheet.max_row, 9).value)


@pytest.mark.parametrize("bundle", JOBS, ids=[b.job.id for b in JOBS])
def test_the_workbooks_sums_come_to_what_the_program_says(bundle: JobBundle) -> None:
    book = load_workbook(io.BytesIO(write_workbook(bundle)))
    assert len(book.worksheets) == len({f.building for f in bundle.property.faces})
    total = sum(_worked_out(sheet) for sheet in book.worksheets)
    zones = sum(a.surface_m2 for a in zone_areas(bundle.property, bundle.deduction).values())
    assert total == pytest.approx(zones + sum(item_area(i.spec) for i in bundle.property.items), rel=1e-9)


def test_the_dxf_is_in_millimetres_with_a_layer_for_each_kind() -> None:
    property_ = coopers_rise().property
    document = ezdxf.read(io.StringIO(write_dxf(property_, property_.faces).decode()))
    assert document.units == ezdxf.units.MM
    assert not document.audit().errors
    lines = document.modelspace().query("LWPOLYLINE")
    outline = next(e for e in lines if e.dxf.layer == "OUTLINE")
    assert max(x for x, *_ in outline.get_points()) == pytest.approx(9600)
    openings = [e for e in lines if e.dxf.layer == "OPENINGS"]
    assert len(openings) == sum(len(f.openings) for f in property_.faces)
    said = set()
    for dimension in document.modelspace().query("DIMENSION"):
        said |= {e.plain_text() for e in dimension.virtual_entities() if e.dxftype() == "MTEXT"}
    assert {"9600", "7400", "5600", "2600"} <= said, "the figures on the drawing are millimetres too"


def _zipped(**spoil: Any) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as z:
        for name, data in spoil.items():
            z.writestr(name.replace("__", "/"), data)
    return out.getvalue()


def test_zips_that_do_not_fit_are_refused() -> None:
    bundle = coopers_rise()
    good = dump_zip(bundle, {})
    assert load_zip(good, "j.zip") == (bundle, {})
    assert dump_zip(*load_zip(good, "j.zip")) == good
    raw = json.loads(zipfile.ZipFile(io.BytesIO(good)).read("job.json"))
    raw["property"]["photos"] = [{"id": "p", "name": "P", "width_px": 10, "height_px": 10, "sha256": "0" * 64}]
    job = json.dumps(raw)
    for data, words in [
        (b"PK\x03\x04 nonsense", "cannot|not a zip"),
        (_zipped(readme="hello"), "holds no job.json"),
        (_zipped(**{"job.json": job}), "not in the zip"),
        (_zipped(**{"job.json": job, "photos__p.jpg": b"\xff\xd8\xff other"}), "not the picture"),
        (_zipped(**{"job.json": b" " * (101 * 1024 * 1024)}), "more than 100 MB"),
        (_zipped(**{"job.json": b" " * (11 * 1024 * 1024)}), "larger than 10 MB"),
    ]:
        with pytest.raises(InputError, match=words):
            load_zip(data, "j.zip")
