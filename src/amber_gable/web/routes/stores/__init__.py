"""The company's stores and stock."""

from fastapi import APIRouter

from amber_gable.web.routes.stores import sheets, stock

router = APIRouter()
for module in (stock, sheets):
    router.include_router(module.router)
