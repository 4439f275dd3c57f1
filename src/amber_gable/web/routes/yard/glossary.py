"""Words of the trade: as a page, and as the table from which pages explain them where they first stand."""

from fastapi import APIRouter, Request
from starlette.responses import JSONResponse, Response

from amber_gable.domain.glossary import glossary
from amber_gable.web.pages import page

router = APIRouter()


@router.get("/glossary")
def words(request: Request) -> Response:
    return page(request, "glossary.html", {"terms": glossary()})


@router.get("/glossary.json")
def table() -> Response:
    told = [{"forms": t.written, "meaning": t.meaning} for t in glossary()]
    return JSONResponse(told, headers={"cache-control": "max-age=3600"})
