"""The start page, and what is above the jobs."""

from fastapi import APIRouter

from amber_gable.web.routes.yard import desk, glossary, jobs, jump, runs, undo

router = APIRouter()
for module in (jobs, undo, glossary, jump, desk, runs):
    router.include_router(module.router)
