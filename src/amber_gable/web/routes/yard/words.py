"""Where words lead: jumping to anything that has a name, and the words of the trade explained."""

from fastapi import APIRouter, Request
from starlette.responses import JSONResponse, Response

from amber_gable.domain.glossary import glossary
from amber_gable.services.job.jump import jump
from amber_gable.web.asking import context_of
from amber_gable.web.pages import page

router = APIRouter()


@router.get("/jump")
def jump_to(request: Request, find: str = "", job: str = "") -> Response:
    find = find[:80]
    context = {"found": jump(context_of(request), find, job[:64]), "find": find, "from_job": job[:64]}
    fragment = request.headers.get("hx-request") == "true"
    return page(request, "parts/jump_found.html" if fragment else "yard/jump.html", context)


@router.get("/glossary")
def words(request: Request) -> Response:
    return page(request, "glossary.html", {"terms": glossary()})


@router.get("/glossary.json")
def table() -> Response:
    told = [{"forms": t.written, "meaning": t.meaning} for t in glossary()]
    return JSONResponse(told, headers={"cache-control": "max-age=3600"})
