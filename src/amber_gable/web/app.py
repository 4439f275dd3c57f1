"""The application factory."""

from importlib import import_module

from fastapi import FastAPI

from amber_gable.services.job.stages import STAGES
from amber_gable.services.settings import LOCAL_NAMES
from amber_gable.services.workspace import Workspace
from amber_gable.web import errors
from amber_gable.web.asking import ContextPerRequest
from amber_gable.web.joined import joined
from amber_gable.web.routes import settings, stores, yard
from amber_gable.web.security import Gate
from amber_gable.web.shipped import Shipped

ROUTES = "amber_gable.web.routes"
"""Where each stage has its routes, in a module or folder of its path's name."""


def create_app(space: Workspace, names: frozenset[str] = LOCAL_NAMES) -> FastAPI:
    """The web application on a workspace whose database is migrated. `names`: of hosts, under which it may be asked."""
    app = FastAPI(title="Amber Gable", docs_url=None, redoc_url=None, openapi_url=None)
    app.state.space = space
    app.mount("/static", Shipped(), name="static")
    stages = (import_module(f"{ROUTES}.{stage.path}") for stage in STAGES)
    app.router.routes.extend(joined(yard, stores, settings, *stages).routes)
    errors.install(app)
    app.add_middleware(Gate, refuse=errors.refuse, names=names)
    # The outermost: a page that refuses has its reader too.
    app.add_middleware(ContextPerRequest)
    return app
