"""Specification: what each part gets and why, colours, schools, safety."""

from fastapi import APIRouter

from amber_gable.web.routes.specification import colours, overview, part

router = APIRouter()
for module in (overview, colours, part):
    router.include_router(module.router, prefix="/jobs/{job_id}/specification")
