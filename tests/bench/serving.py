"""Rows of the speed table that concern the program as it is served: its start, eight people at once while plans are
made, and pages after an edit that a surface feels."""

import os
import re
import statistics
import subprocess
import sys
import tempfile
import threading
import time
import urllib.parse
import urllib.request
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager
from http.client import HTTPConnection
from pathlib import Path
from socket import socket

from fastapi.testclient import TestClient

from amber_gable.services.computed import Computed
from amber_gable.services.context import Context
from amber_gable.services.job.jobs import load_demo
from amber_gable.store.job.jobs import list_jobs, load_bundle, save_bundle
from tests.bench.engine import Row
from tests.bench.large_property import long_terrace
from tests.fixtures import open_space
from tests.tools.outputs import made_week
from tests.web.forms import form_of

CLIENTS, SECONDS, PAUSE_S = 8, 20.0, 1.0
STAGES = ("survey", "specification", "quantities", "weather", "plan", "today")


def serving_rows(ctx: Context, client: TestClient) -> list[Row]:
    return [*_after_a_surface(ctx, client), *_starts(), *_eight_clients()]


def _after_a_surface(ctx: Context, client: TestClient) -> list[Row]:
    """The front wall in another colour: its page, and those that show the weather, right after."""
    base, out = "/jobs/coopers-rise/survey/zone", list[Row]()
    for stage in ("survey", "specification", "weather", "plan", "today"):
        times = []
        for n in range(7):
            form = form_of(client.get(f"{base}/front-siding").text, f"{base}/save")
            client.post(f"{base}/save", data=form | {"colour_now": f"#{40 + n:02x}{50 + len(out):02x}30"})
            start = time.perf_counter()
            client.get(f"/jobs/coopers-rise/{stage}")
            times.append(1000 * (time.perf_counter() - start))
        out.append((f"page {stage} after an edit that a surface feels", statistics.median(times), "ms", 100))
    return out


def _starts() -> list[Row]:
    """The program with an empty database of its own, from the command to the first page, caches on disk."""
    took = []
    with tempfile.TemporaryDirectory() as folder:
        for _ in range(6):
            start = time.perf_counter()
            with _served(Path(folder)):
                took.append(time.perf_counter() - start)
    # The first one fills the caches.
    return [("start of the program to its first page", statistics.median(took[1:]), "s", 2.0)]


@contextmanager
def _served(data: Path) -> Iterator[str]:
    """The program in a process of its own; left when it has answered a page."""
    with closing(socket()) as spare:
        spare.bind(("127.0.0.1", 0))
        port = spare.getsockname()[1]
    environment = {k: v for k, v in os.environ.items() if k != "PYTHONDONTWRITEBYTECODE"}
    # Fewer days are looked for when they are asked for.
    environment["AMBER_GABLE_SOLVE_SECONDS"] = "0"
    command = [sys.executable, "-m", "amber_gable.cli", "serve", "--port", str(port)]
    program = subprocess.Popen(command, env=environment | {"AMBER_GABLE_DATA": str(data)}, stdout=subprocess.DEVNULL)
    address = f"http://127.0.0.1:{port}"
    try:
        for _ in range(3000):
            try:
                urllib.request.urlopen(f"{address}/", timeout=60).read()
                break
            except OSError:
                time.sleep(0.01)
        yield address
    finally:
        program.terminate()
        program.wait(60)


def _eight_clients() -> list[Row]:
    """Eight people on eight houses open a page a second each, while the plan of a terrace of 80 parts is made again and
    again; the weather lies in the database, so that no service answers late."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "amber-gable.sqlite3"
        jobs = _eight_jobs(path)
        with _served(path.parent) as address:
            for job in jobs:
                for stage in STAGES:
                    _page(f"{address}/jobs/{job}/{stage}")
            idle = _clients(address, jobs)
            _plans(address, 0)
            while "run-card" in _text(f"{address}/runs"):
                time.sleep(0.1)
            solving = _clients(address, jobs, _fewer_days)
            search = _stopped(address, "fewer-days")
            busy = _clients(address, jobs, _plans)
            stopped = _stopped(address, "", crew="1", people="1", start="06:00", end="18:00")
    return [
        (f"{len(idle)} pages of eight clients, 95 of 100 under", _p95(idle), "ms", None),
        (f"{len(busy)} pages while plans are computed, 95 of 100 under", _p95(busy), "ms", 300),
        ("the slowest of them", max(busy), "ms", None),
        ("a plan under way told to stop, until it has", stopped, "ms", 1000),
        (f"{len(solving)} pages while fewer days are looked for, 95 of 100 under", _p95(solving), "ms", 150),
        ("that told to stop, until it has", search, "ms", 1000),
    ]


def _p95(times: list[float]) -> float:
    return statistics.quantiles(times, n=20)[-1]


def _eight_jobs(path: Path) -> list[str]:
    """The demo's house under eight names, at places of their own, and a long terrace; each with its weather."""
    ctx = open_space(path, Computed())
    load_demo(ctx)
    with ctx.reading() as session:
        first = load_bundle(session, next(j.id for j in list_jobs(session)))
    names = [f"house-{n}" for n in range(CLIENTS)]
    with ctx.writing() as session:
        for n, name in enumerate(names):
            moved = {"id": f"p-{name}", "latitude": first.property.latitude + 0.01 * n}
            place = first.property.model_copy(update=moved)
            job = first.job.model_copy(update={"id": name, "name": f"House {n}"})
            save_bundle(session, first.model_copy(update={"property": place, "job": job}))
        save_bundle(session, long_terrace())
    _file_weather(ctx, [*(f"p-{n}" for n in names), "p-terrace"])
    ctx.space.database.engine.dispose()
    return names


def _file_weather(ctx: Context, places: list[str]) -> None:
    from amber_gable.store.weather.series import save_series
    from tests.weather_cases import real_year

    with ctx.writing() as session:
        for place in places:
            save_series(session, place, "file", real_year())


def _page(address: str) -> float:
    start = time.perf_counter()
    urllib.request.urlopen(urllib.request.Request(address, headers={"accept": "text/html"}), timeout=120).read()
    return 1000 * (time.perf_counter() - start)


def _ask(address: str, **fields: str) -> None:
    """Send a form; the page it leads to is not fetched."""
    parts = urllib.parse.urlsplit(address)
    with closing(HTTPConnection(parts.netloc, timeout=120)) as connection:
        headers = {"origin": f"http://{parts.netloc}", "content-type": "application/x-www-form-urlencoded"}
        connection.request("POST", parts.path, urllib.parse.urlencode(fields), headers)
        answer = connection.getresponse()
        said = answer.read()
    if answer.status == 503:
        # What it needs is still being worked out.
        time.sleep(0.3)
        return _ask(address, **fields)
    assert answer.status == 303, (answer.status, said)


def _plans(address: str, n: int) -> None:
    """Whoever moves the crew's hours asks for another plan each time."""
    crew = {"crew": "1", "people": str(2 + n % 3), "start": "07:00", "end": f"17:{n % 60:02d}"}
    _ask(f"{address}/jobs/long-terrace/plan", **crew)


def _fewer_days(address: str, n: int) -> None:
    _ask(f"{address}/jobs/long-terrace/plan/fewer-days")


def _clients(address: str, jobs: list[str], beside: Callable[[str, int], None] | None = None) -> list[float]:
    times: list[float] = []
    over = threading.Event()

    def one(number: int, job: str) -> None:
        step = number
        over.wait(number * PAUSE_S / CLIENTS)
        while not over.is_set():
            times.append(_page(f"{address}/jobs/{job}/{STAGES[step % len(STAGES)]}"))
            step += 1
            over.wait(PAUSE_S)

    def work() -> None:
        for n in range(1000):
            if over.is_set() or beside is None:
                return
            beside(address, n)
            while not over.is_set() and re.search("run-card", _text(f"{address}/runs")):
                over.wait(0.2)

    threads = [threading.Thread(target=one, args=given) for given in enumerate(jobs)]
    threads.append(threading.Thread(target=work))
    for thread in threads:
        thread.start()
    time.sleep(SECONDS)
    over.set()
    for thread in threads:
        thread.join()
    return times


def _text(address: str) -> str:
    return str(urllib.request.urlopen(address, timeout=120).read().decode())


def _stopped(address: str, what: str, **form: str) -> float:
    """How long a plan, or the search for fewer days, goes on once it is told to stop, ms."""
    _ask(f"{address}/jobs/long-terrace/plan/{what}".rstrip("/"), **form)
    found = re.search(r'data-run="(\w+)"', _text(f"{address}/runs"))
    assert found, "the plan was there before it could be stopped"
    start = time.perf_counter()
    _ask(f"{address}/runs/{found[1]}/stop")
    while "run-card" in _text(f"{address}/runs"):
        time.sleep(0.01)
    return 1000 * (time.perf_counter() - start)


def command_rows(folder: Path) -> list[Row]:
    """Commands as a whole, from the shell to their last line."""
    week = folder / "week.csv"
    week.write_text(made_week(), encoding="utf-8")
    wall = ["--azimuth", "90", "--substrate", "wood-lap", "--colour", "#6b7a5e", "--method", "brush"]
    site = ["--lat", "45.25", "--lon", "-62.1", "--start", "2026-09-14", "--days", "7"]
    paint = ["--product", "exterior-acrylic-standard"]
    asked: list[tuple[str, list[str], float]] = [
        ("command specify, one wall", ["specify", "docs/examples/garden-wall.json"], 800),
        ("command windows, a week", ["windows", "--weather", str(week), *wall, *paint, *site], 1200),
    ]
    out: list[Row] = []
    for name, arguments, target in asked:
        times = []
        for _ in range(7):
            start = time.perf_counter()
            subprocess.run([sys.executable, "-m", "amber_gable.cli", *arguments], check=True, stdout=subprocess.DEVNULL)
            times.append(1000 * (time.perf_counter() - start))
        out.append((name, statistics.median(times), "ms", target))
    return out
