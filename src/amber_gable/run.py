"""Starting the program on the loopback interface."""

import gc
import socket
import sys
import threading
import time

import uvicorn
from fastapi import FastAPI

from amber_gable.core.weather.wall.warming import warm
from amber_gable.demo import demo_stock
from amber_gable.domain.errors import InputError
from amber_gable.domain.units import UnitSystem
from amber_gable.exchange.meter import HttpMeter
from amber_gable.exchange.weather.forecast import HttpForecast
from amber_gable.services.clock import DemoClock, SystemClock
from amber_gable.services.company.stock import add_can
from amber_gable.services.context import Context
from amber_gable.services.job.jobs import load_demo
from amber_gable.services.opening import open_database
from amber_gable.services.plan.planning import make_plan
from amber_gable.services.settings import LOOPBACK, Settings
from amber_gable.services.weather.held.asking import job_weather
from amber_gable.services.workspace import Workspace
from amber_gable.standins.weather.service import weather_service
from amber_gable.store.database import Database
from amber_gable.store.job.jobs import list_jobs, load_bundle
from amber_gable.store.job.plans import load_plan
from amber_gable.store.soundness import held
from amber_gable.web.app import create_app

TURN_S = 0.0005
WARM_AFTER_S = 1.0
"""By then the first page was answered, which would otherwise share the interpreter with the loading."""


def _free(port: int, what: str, host: str = LOOPBACK) -> None:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except OSError:
            raise InputError(
                f"port {port}", f"is in use, so {what} cannot start", "stop the other or set another port"
            ) from None


def _in_background(app: FastAPI, port: int) -> uvicorn.Server:
    """Run an ASGI application in a thread and wait until it answers."""
    server = uvicorn.Server(uvicorn.Config(app, host=LOOPBACK, port=port, log_level="warning"))
    threading.Thread(target=server.run, daemon=True).start()
    for _ in range(100):
        if server.started:
            return server
        time.sleep(0.05)
    raise InputError(f"port {port}", "the service did not start", "try again")


def serve(port: int | None = None) -> None:
    """The program with the user's own database and the machine's clock. Raises InputError where it would be reached
    from other machines without accounts."""
    settings = Settings()
    settings.check_reach(accounts=False)
    port = port or settings.port
    _free(port, "the program", settings.host)
    provider = HttpForecast(settings.forecast_url, members=settings.forecast_members) if settings.forecast_url else None
    meter = HttpMeter(settings.meter_url) if settings.meter_url else None
    with held(settings.database, "this one"):
        _prepare()
        space = Workspace(open_database(settings.database), SystemClock(), provider, meter)
        space.solve_seconds = settings.solve_seconds
        address = settings.public_url or f"http://{settings.host}:{port}"
        print(f"Amber Gable is at {address}  (data in {settings.database}; Ctrl-C stops it)", flush=True)
        uvicorn.run(create_app(space, settings.names), host=settings.host, port=port, log_level="warning")


def _prepare() -> None:
    """Fetch what the climate needs soon after the start: neither the first page nor the first climate waits for it.
    Pages and long work take turns often, so that a page which reads the database does not lose its turn at each row."""
    sys.setswitchinterval(TURN_S)

    def load() -> None:
        if warm() == "plain":
            print("The climate is computed without numba: slower, with the same results.", flush=True)
        # Half a million objects stay to the end: no page waits while they are looked through for garbage.
        gc.freeze()

    later = threading.Timer(WARM_AFTER_S, load)
    later.daemon = True
    later.start()


def reset_demo() -> None:
    """Put the sample data, its plans and the demo clock back as they were. A demo that runs keeps its clock until it is
    started again."""
    path = Settings().demo_database
    database = open_database(path)
    with socket.socket() as spare:
        spare.bind((LOOPBACK, 0))
        port: int = spare.getsockname()[1]
    _in_background(weather_service(), port)
    clock = DemoClock(database)
    clock.reset()
    ctx = Context(Workspace(database, clock, HttpForecast(f"http://{LOOPBACK}:{port}")))
    load_demo(ctx)
    plan_unplanned(ctx)
    print(f"sample data put back in {path}")


def demo_space(database: Database, weather_port: int) -> Workspace:
    """The demo: sample jobs (put in once), the pinned clock, forecasts from the stand-in over HTTP."""
    address = f"http://{LOOPBACK}:{weather_port}"
    space = Workspace(database, DemoClock(database), HttpForecast(address), HttpMeter(address))
    with database.reading() as session:
        empty = not list_jobs(session)
    ctx = Context(space)
    if empty:
        load_demo(ctx)
        _fill_shelf(ctx)
    plan_unplanned(ctx)
    return space


def _fill_shelf(ctx: Context) -> None:
    """A few cans left over from other houses."""
    for can in demo_stock():
        add_can(ctx, can, UnitSystem.METRIC)


def plan_unplanned(ctx: Context) -> None:
    """Give jobs without a plan their first one, so that the demo opens on a full picture."""
    with ctx.reading() as session:
        bundles = [load_bundle(session, j.id) for j in list_jobs(session) if load_plan(session, j.id) is None]
    for bundle in bundles:
        weather = job_weather(ctx, bundle.property)
        if weather.series is not None and bundle.job.finishes:
            make_plan(ctx, bundle, weather.series)


def demo(port: int | None = None, weather_port: int | None = None) -> None:
    """The program on sample data, with the simulated forecast service beside it on its own port."""
    settings = Settings()
    port, weather_port = port or settings.port, weather_port or settings.weather_port
    _free(port, "the program")
    _free(weather_port, "the simulated forecast service")
    with held(settings.demo_database, "this one"):
        _prepare()
        _in_background(weather_service(), weather_port)
        space = demo_space(open_database(settings.demo_database), weather_port)
        space.solve_seconds = settings.solve_seconds
        print(f"Amber Gable demo: http://{LOOPBACK}:{port}   (Ctrl-C stops it)", flush=True)
        uvicorn.run(create_app(space), host=LOOPBACK, port=port, log_level="warning")
