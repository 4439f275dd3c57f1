"""Weather: every face judged for a coat, hour by hour."""

from fastapi import APIRouter

from amber_gable.web.routes.weather import brought, film, lanes, moisture, season, sky, sun, versions

router = APIRouter()
# What has an address of its own comes before the lanes, which take any.
for module in (film, sun, moisture, season, versions, brought, sky, lanes):
    router.include_router(module.router)
