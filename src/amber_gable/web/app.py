"""The application factory."""

from fastapi import FastAPI

from amber_gable.services.workspace import Workspace
from amber_gable.web import errors
from amber_gable.web.asking import ContextPerRequest
from amber_gable.web.routes import (
    brought_weather,
    company,
    desk,
    estimate,
    film,
    glossary,
    jobs,
    jump,
    moisture,
    plan,
    quantities,
    rates,
    runs,
    season,
    settings,
    sky,
    specification,
    standing,
    stock,
    stores,
    sun,
    survey,
    today,
    undo,
    versions,
    weather,
)
from amber_gable.web.security import Gate
from amber_gable.web.shipped import Shipped


def create_app(space: Workspace) -> FastAPI:
    """The web application on a workspace whose database is migrated."""
    app = FastAPI(title="Amber Gable", docs_url=None, redoc_url=None, openapi_url=None)
    app.state.space = space
    app.mount("/static", Shipped(), name="static")
    pages = (
        jobs,
        undo,
        glossary,
        jump,
        stock,
        stores,
        company,
        rates,
        settings,
        survey,
        specification,
        quantities,
        estimate,
        film,
        sun,
        moisture,
        season,
        versions,
        brought_weather,
        weather,
        plan,
        today,
        standing,
        sky,
        desk,
        runs,
    )
    for module in pages:
        app.include_router(module.router)
    errors.install(app)
    app.add_middleware(Gate, refuse=errors.refuse)
    # The outermost: a page that refuses has its reader too.
    app.add_middleware(ContextPerRequest)
    return app
