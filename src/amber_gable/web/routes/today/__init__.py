"""Today: the day sheet, and noting work."""

from fastapi import APIRouter

from amber_gable.web.routes.today import day, standing

router = APIRouter()
for module in (day, standing):
    router.include_router(module.router)
