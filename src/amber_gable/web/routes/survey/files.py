"""The survey as files: take-off as CSV and workbook, elevations as SVG and DXF, a take-off brought in."""

from fastapi import APIRouter, HTTPException, Request, UploadFile
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.house.survey import Face
from amber_gable.services.survey.takeoff_files import elevations_dxf, import_takeoff, takeoff_csv, takeoff_workbook
from amber_gable.web.asking import context_of
from amber_gable.web.pages import rendered
from amber_gable.web.routes.survey.sheet import Sheet, read_sheet, show
from amber_gable.web.views.survey.elevation import draw, paper_mm

router = APIRouter(prefix="/jobs/{job_id}/survey/files")
_XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
PAPER_SCALE = 60.0


@router.get("")
def files(request: Request, job_id: str) -> Response:
    sheet = read_sheet(request, job_id)
    property_ = sheet.bundle.property
    context = {
        "base": f"/jobs/{job_id}/survey",
        "faces": property_.faces,
        "photo_count": len(property_.photos),
        "brought": request.query_params.get("brought", "")[:6],
    }
    return show(request, job_id, "survey/files.html", "survey/files.html", context)


@router.get("/takeoff.csv")
def csv(request: Request, job_id: str) -> Response:
    return _file(takeoff_csv(read_sheet(request, job_id).bundle), "text/csv; charset=utf-8", f"{job_id}-takeoff.csv")


@router.get("/takeoff.xlsx")
def workbook(request: Request, job_id: str) -> Response:
    return _file(takeoff_workbook(read_sheet(request, job_id).bundle), _XLSX, f"{job_id}-takeoff.xlsx")


@router.get("/elevations.dxf")
def all_dxf(request: Request, job_id: str) -> Response:
    property_ = read_sheet(request, job_id).bundle.property
    return _file(elevations_dxf(property_, property_.faces), "image/vnd.dxf", f"{job_id}-elevations.dxf")


@router.get("/face/{id_}.dxf")
def face_dxf(request: Request, job_id: str, id_: str) -> Response:
    property_ = read_sheet(request, job_id).bundle.property
    return _file(elevations_dxf(property_, (_face(property_.faces, id_),)), "image/vnd.dxf", f"{job_id}-{id_}.dxf")


@router.get("/face/{id_}.svg")
def face_svg(request: Request, job_id: str, id_: str) -> Response:
    sheet = read_sheet(request, job_id)
    text = _svg(sheet, _face(sheet.bundle.property.faces, id_))
    return _file(text.encode(), "image/svg+xml", f"{job_id}-{id_}.svg")


def _svg(sheet: Sheet, face: Face) -> str:
    drawing = draw(sheet.bundle.property, face, PAPER_SCALE, units=sheet.units)
    return rendered("svg/file.svg", {"drawing": drawing, "paper": paper_mm(drawing)})


def _face(faces: tuple[Face, ...], id_: str) -> Face:
    found = next((f for f in faces if f.id == id_), None)
    if found is None:
        raise HTTPException(404, "This face is gone.")
    return found


def _file(data: bytes, kind: str, name: str) -> Response:
    return Response(data, media_type=kind, headers={"content-disposition": f'attachment; filename="{name}"'})


@router.post("/takeoff")
def bring(request: Request, job_id: str, file: UploadFile) -> Response:
    count = import_takeoff(context_of(request), job_id, file.file.read(), file.filename or "take-off")
    return RedirectResponse(f"/jobs/{job_id}/survey/files?brought={count}", 303)
