"""Jump to anything that has a name, by typing some of it."""

from fastapi import APIRouter, Request
from starlette.responses import Response

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
