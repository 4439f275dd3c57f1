"""The survey's pages."""

from fastapi import APIRouter

from amber_gable.web.routes.survey import (
    block,
    block_floor,
    condition,
    edits,
    files,
    findings,
    overview,
    photos,
    plan,
    surroundings,
    table,
    walk,
)

router = APIRouter(prefix="/jobs/{job_id}")
# What has an address of its own comes before the pages that take any kind of part.
for module in (
    block_floor,
    block,
    files,
    findings,
    walk,
    photos,
    plan,
    overview,
    surroundings,
    condition,
    edits,
    table,
):
    router.include_router(module.router)
