"""Settings: the company, its rates, where weather comes from."""

from fastapi import APIRouter

from amber_gable.web.routes.settings import company, rates, sources

router = APIRouter()
for module in (company, rates, sources):
    router.include_router(module.router)
