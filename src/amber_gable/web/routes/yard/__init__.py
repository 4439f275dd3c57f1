"""The start page, and what is above the jobs."""

from fastapi import APIRouter

from amber_gable.web.routes.yard import desk, jobs, runs, undo, words

router = APIRouter()
for module in (jobs, undo, words, desk, runs):
    router.include_router(module.router)
