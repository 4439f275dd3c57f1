"""Photos: taken in, and measured on."""

from typing import Any

from fastapi import APIRouter, Request, UploadFile
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused
from amber_gable.domain.house.photo import Photo
from amber_gable.services.survey import photos
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, units_of
from amber_gable.web.routes.survey.sheet import is_fragment, read_sheet, show
from amber_gable.web.views.survey.photos import mark_fields, shown_groups, shown_value, shown_words, usual_marks
from amber_gable.web.views.units import Units

router = APIRouter(prefix="/jobs/{job_id}/survey/photos")


@router.get("")
def album(request: Request, job_id: str, of: str = "") -> Response:
    """All photos, or those of a face or of a part on it (`of`: FACE or FACE/KIND/ID)."""
    sheet = read_sheet(request, job_id)
    property_ = sheet.bundle.property
    photos.read_shown(property_, of)
    shown = [p for p in property_.photos if f"{shown_value(p)}/".startswith(f"{of}/") or not of]
    words = shown_words(property_)
    context = {
        "base": f"/jobs/{job_id}/survey",
        "album": shown,
        "of": of,
        "of_words": words.get(of, ""),
        "face": next((f for f in property_.faces if f.id == of.partition("/")[0]), None),
        "words": {p.id: words.get(shown_value(p), "") for p in shown},
        "missing": photos.without_picture(context_of(request), shown),
    }
    return show(request, job_id, "survey/photos.html", "survey/photos.html", context)


@router.post("")
def take_in(request: Request, job_id: str, file: UploadFile, of: str = "") -> Response:
    made = photos.add_photo(context_of(request), job_id, of, file.file.read(), file.filename or "photo")
    return RedirectResponse(f"/jobs/{job_id}/survey/photos/{made}?said=saved", 303)


@router.get("/{id_}.jpg")
def picture(request: Request, job_id: str, id_: str) -> Response:
    data = photos.picture(context_of(request), job_id, id_)
    return Response(data, media_type="image/jpeg", headers={"cache-control": "private, max-age=31536000, immutable"})


@router.get("/{id_}")
def measure_page(request: Request, job_id: str, id_: str) -> Response:
    return _measure(request, job_id, id_, None, {})


@router.post("/{id_}/measure")
def measure(request: Request, job_id: str, id_: str, form: Fields) -> Response:
    """Keep the marks and say the sizes."""
    return _measure(request, job_id, id_, form, {}, keep=True)


@router.post("/{id_}/send")
def send(request: Request, job_id: str, id_: str, form: Fields) -> Response:
    """What was measured goes to the face's drawing: as an opening, or as the wall's own size."""
    ctx, units = context_of(request), units_of(request)
    photo = photos.find_photo(read_sheet(request, job_id).bundle.property, id_)
    try:
        found = _found(photo, form, units)
        kind = form.get("kind", "")
        if kind == "wall":
            there = f"face/{photos.send_wall(ctx, job_id, photo, found)}"
        else:
            there = f"opening/{photos.send_opening(ctx, job_id, photo, found, kind)}"
    except Refused as error:
        faults = {"": "; ".join(f"{k.removesuffix('_m')} {v}".strip() for k, v in error.fields.items())}
        return _measure(request, job_id, id_, form, faults)
    target = f"/jobs/{job_id}/survey/{there}?said=saved"
    if is_fragment(request):
        return Response(headers={"hx-redirect": target})
    return RedirectResponse(target, 303)


@router.post("/{id_}/shows")
def shows(request: Request, job_id: str, id_: str, form: Fields) -> Response:
    photos.set_shown(context_of(request), job_id, id_, form.get("shows", ""))
    return RedirectResponse(f"/jobs/{job_id}/survey/photos/{id_}?said=saved", 303)


@router.post("/{id_}/delete")
def delete(request: Request, job_id: str, id_: str) -> Response:
    photos.delete_photo(context_of(request), job_id, id_)
    return RedirectResponse(f"/jobs/{job_id}/survey/photos?said=deleted", 303)


def _found(photo: Photo, form: dict[str, str], units: Units) -> photos.PhotoMeasure:
    marks = photos.read_marks(form, units.system)
    try:
        first, last = photos.read_point(form.get("m1", "")), photos.read_point(form.get("m2", ""))
    except ValueError as error:
        raise Refused({"": str(error)}) from None
    return photos.measure(photo, marks, first, last)


def _measure(
    request: Request, job_id: str, id_: str, form: dict[str, str] | None, faults: dict[str, str], *, keep: bool = False
) -> Response:
    sheet = read_sheet(request, job_id)
    photo = photos.find_photo(sheet.bundle.property, id_)
    values = form if form is not None else usual_marks(photo, sheet.units)
    found = None
    if not faults and (form is not None or photo.marks is not None):
        try:
            found = _found(photo, values, sheet.units)
            if keep:
                photos.save_marks(context_of(request), job_id, id_, photos.read_marks(values, sheet.units.system))
        except Refused as error:
            faults = error.fields
    faces = sheet.bundle.property.faces
    context: dict[str, Any] = {
        "base": f"/jobs/{job_id}/survey",
        "photo": photo,
        "fields": mark_fields(values),
        "values": values,
        "faults": faults,
        "found": found,
        "units": sheet.units,
        "groups": shown_groups(sheet.bundle.property),
        "shows": shown_value(photo),
        "missing": photos.without_picture(context_of(request), (photo,)),
        "face": next((f for f in faces if f.id == photo.face), None),
    }
    return show(request, job_id, "survey/photo.html", "parts/survey/photo.html", context, 422 if faults else 200)
