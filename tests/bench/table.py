"""The speed table: `make bench`. Medians of repeated runs, with the target beside each."""

import gc
import re
import statistics
import tempfile
import time
from collections.abc import Callable
from dataclasses import replace
from datetime import datetime, timedelta
from functools import partial
from pathlib import Path

from fastapi.testclient import TestClient

from amber_gable.core.climate.job_climate import site_climate
from amber_gable.core.climate.part_surface import face_surface
from amber_gable.core.estimate.estimate import job_estimate
from amber_gable.core.plan.build import plan_job
from amber_gable.core.specification.choices.preview import light_at, lit_colours, part_colours
from amber_gable.core.specification.derived.part_spec import Wish, fresh_spec
from amber_gable.core.state.job_state import job_state, surroundings
from amber_gable.core.survey.amounts.painted import painted_parts
from amber_gable.core.weather.judged.slots import make_slots
from amber_gable.core.weather.judged.windows import film_windows
from amber_gable.core.weather.outdoors.typical import stretch
from amber_gable.core.weather.wall.slot_climate import SurfaceClimate
from amber_gable.core.weather.wall.steps import to_steps
from amber_gable.core.weather.wall.surface import surface_climate
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.method import Method
from amber_gable.exchange.job.bundle import dump_bundle, load_bundle
from amber_gable.exchange.job.elevation_dxf import write_dxf
from amber_gable.exchange.job.takeoff_xlsx import write_workbook
from amber_gable.exchange.weather.any_file import read_weather
from amber_gable.run import plan_unplanned
from amber_gable.services.computed import Computed
from amber_gable.services.context import Context
from amber_gable.services.job.jobs import load_demo
from amber_gable.services.quantities.quantities import job_quantities
from amber_gable.store.job.jobs import save_bundle
from amber_gable.web.app import create_app
from amber_gable.web.views.survey.elevation import draw, drawing_scale
from tests.bench import calibration
from tests.bench.engine import Row, engine_rows
from tests.bench.large_property import large_bundle, sixty_parts
from tests.bench.serving import command_rows, serving_rows
from tests.clients import HOST
from tests.fixtures import open_space
from tests.jobs import coopers_rise, demo_products
from tests.weather_cases import TMY3, real_year, steady
from tests.web.forms import form_of

BEGIN = datetime.fromisoformat("2025-09-15T00:00-05:00")


def median_ms(run: Callable[[], object], repeats: int) -> float:
    run()
    times = []
    for _ in range(repeats):
        start = time.perf_counter()
        run()
        times.append(1000 * (time.perf_counter() - start))
    return statistics.median(times)


def lanes_of_six_faces() -> None:
    """Six faces, ten days, one product: weather to windows, nothing kept from before."""
    bundle = coopers_rise()
    series = stretch(real_year(), BEGIN.date(), 10)
    steps = to_steps(series, 45.25, -62.1, 12)
    climate = surface_climate(steps, tuple(face_surface(f, "wood-lap", "#e9dcc1") for f in bundle.property.faces))
    slots = make_slots(steps, BEGIN, 10, BEGIN.tzinfo or bundle.property.tz)
    film_windows(climate, slots, bundle.products[1], Method.BRUSH, bundle.policy, bundle.job.crew)


def rows() -> list[Row]:
    # As the program itself sets it.
    gc.set_threshold(50_000, 20, 100)
    bundle, text = coopers_rise(), dump_bundle(coopers_rise())
    climate = partial(site_climate, bundle, real_year(), BEGIN, 13, BEGIN.tzinfo)
    site = climate()
    sixty = sixty_parts()
    out: list[tuple[str, float, float | None]] = [
        ("lanes: 6 faces × 10 days × 1 product", median_ms(lanes_of_six_faces, 9), 60),
        ("climate of the demo job, 30 surfaces × 13 days", median_ms(climate, 5), None),
        ("plan of the demo job, 13 days", median_ms(lambda: plan_job(site, BEGIN), 5), 1000),
        ("quantities of the demo job", median_ms(lambda: job_quantities(bundle), 9), None),
        ("estimate of 60 zones with its range", median_ms(lambda: job_estimate(sixty), 9), 300),
        ("read and check a job bundle", median_ms(lambda: load_bundle(text, "job"), 9), None),
        ("read a TMY3 year", median_ms(lambda: read_weather(TMY3.read_text(), TMY3.name), 3), None),
    ]
    out += state_of_sixty_parts()
    with tempfile.TemporaryDirectory() as folder:
        ctx = open_space(Path(folder) / "bench.sqlite3")
        load_demo(ctx)
        plan_unplanned(ctx)
        client = TestClient(create_app(ctx.space), base_url=HOST, headers={"accept": "text/html", "origin": HOST})
        stages = ("survey", "specification", "quantities", "estimate", "weather", "plan", "today")
        pages = ["/", *(f"/jobs/coopers-rise/{s}" for s in stages)]
        for path in pages:
            out.append((f"page {path}, once computed", median_ms(partial(client.get, path), 15), 40))
        out += _after_an_edit(client)
        out += _two_hundred_jobs(Path(folder), bundle)
        out += _specification(ctx, client)
        out += _large_survey(ctx, client)
        why = partial(client.get, "/jobs/coopers-rise/weather?face=back", headers={"hx-request": "true"})
        out.append(("why panel alone", median_ms(why, 15), 150))
        out += _weather_pages(client)
        others = serving_rows(ctx, client)
        others += command_rows(Path(folder))
    return [*engine_rows(median_ms), *((name, ms, "ms", target) for name, ms, target in out), *others]


def _weather_pages(client: TestClient) -> list[tuple[str, float, float | None]]:
    """What the painter looks at, once it is computed: with how sure it is."""
    base, asked = "/jobs/coopers-rise/weather", "product=coat&face=back&at=2026-09-15T12:30:00-03:00"
    client.get(f"{base}/sure?{asked}", headers={"hx-request": "true"})
    pages = {"lanes with how sure they are": "", "film story": "/film", "house and sun": "/sun"}
    return [
        (f"weather: {name}, once computed", median_ms(partial(client.get, f"{base}{path}?{asked}"), 15), target)
        for (name, path), target in zip(pages.items(), (150, 100, 100), strict=True)
    ]


def state_of_sixty_parts() -> list[tuple[str, float, float | None]]:
    """Every part of a house of 30 faces judged for its next step, a third of it washed, a third primed."""
    bundle = sixty_parts()
    site = site_climate(bundle, steady(BEGIN - timedelta(days=2), 20 * 24, offset_h=-4.0), BEGIN, 13, BEGIN.tzinfo)
    now = BEGIN + timedelta(hours=11)
    keys, parts = [f.part for f in bundle.job.finishes], painted_parts(bundle.property, bundle.deduction)

    def judged(surfaces: tuple[SurfaceClimate, ...]) -> None:
        state = job_state(surroundings(replace(site, surfaces=surfaces), now, {}, parts))
        for key in keys:
            found = state.judged(key)
            assert found is not None
            found.answer(now)

    def anew() -> None:
        judged(tuple(SurfaceClimate(s.climate, s.slots) for s in site.surfaces))

    return [
        ("state and judgement of 60 parts", median_ms(lambda: judged(site.surfaces), 9), 30),
        ("the same, the first time on a new climate", median_ms(anew, 5), None),
    ]


def _after_an_edit(client: TestClient) -> list[tuple[str, float, float | None]]:
    """Pages right after a wall was renamed, which no surface feels."""
    face = "/jobs/coopers-rise/survey/face/front"
    out: list[tuple[str, float, float | None]] = []
    for stage in ("survey", "specification", "quantities", "plan"):
        times = []
        for n in range(9):
            form = form_of(client.get(face).text, f"{face.rpartition('/')[0]}/save")
            client.post(f"{face.rpartition('/')[0]}/save", data=form | {"name": f"Street front {n}"})
            start = time.perf_counter()
            client.get(f"/jobs/coopers-rise/{stage}")
            times.append(1000 * (time.perf_counter() - start))
        out.append((f"page {stage} after an edit no surface feels", statistics.median(times), 80))
    return out


def _two_hundred_jobs(folder: Path, bundle: JobBundle) -> list[tuple[str, float, float | None]]:
    """The jobs page as it is opened again and again, and the first time after a start."""
    ctx = open_space(folder / "many.sqlite3", Computed())
    with ctx.writing() as session:
        for n in range(200):
            place = bundle.property.model_copy(update={"id": f"p{n}"})
            job = bundle.job.model_copy(update={"id": f"j{n}", "name": f"Job {n}"})
            save_bundle(session, bundle.model_copy(update={"property": place, "job": job}))
    client = TestClient(create_app(ctx.space), base_url=HOST, headers={"accept": "text/html", "origin": HOST})
    start = time.perf_counter()
    client.get("/")
    first = 1000 * (time.perf_counter() - start)
    again = median_ms(partial(client.get, "/"), 9)
    return [("jobs page with 200 jobs", again, 150), ("the same, first time after a start", first, 300)]


def _specification(ctx: Context, client: TestClient) -> list[tuple[str, float, float | None]]:
    """Sixty zones from survey to systems, a house of six faces in two schemes, and the pages."""
    bundle, shelf = coopers_rise(), demo_products()
    parts = [p for p in painted_parts(bundle.property, bundle.deduction).values() if not p.item_kind]
    sixty = [replace(p, name=f"{p.name} {n}") for n in range(6) for p in parts]
    place = bundle.property
    scale = drawing_scale(place.faces)

    def derived() -> None:
        for part in sixty:
            fresh_spec(bundle, part, Wish("#e9dcc1", "Oat"), shelf)

    def preview() -> None:
        moment = light_at(place, BEGIN)
        for scheme in bundle.job.schemes[:2]:
            colours = part_colours(place, scheme, {})
            for face in place.faces:
                draw(bundle.property, face, scale, colours=lit_colours(face, place, colours, moment))

    fragment = "/jobs/coopers-rise/specification/colours/preview?left=harbour&right=sage&hour=16"
    part_page = partial(client.get, "/jobs/coopers-rise/specification/zone/front-siding")
    colour_page = partial(client.get, "/jobs/coopers-rise/specification/colours")
    everything = partial(client.post, "/jobs/coopers-rise/specification/again")
    return [
        (f"{len(sixty)} zones derived, products chosen", median_ms(derived, 7), 200),
        ("preview of 6 faces in two schemes", median_ms(preview, 9), 300),
        ("that preview as the browser asks for it", median_ms(partial(client.get, fragment), 9), 300),
        ("page of one part of the specification", median_ms(part_page, 15), 150),
        ("page of the colours", median_ms(colour_page, 5), None),
        ("a job of 27 parts derived anew, page and all", median_ms(everything, 5), None),
    ]


def _large_survey(ctx: Context, client: TestClient) -> list[tuple[str, float, float | None]]:
    """A property of 40 faces with 400 openings: its survey page, and an opening dragged to another place."""
    bundle = large_bundle()
    place = bundle.property
    with ctx.writing() as session:
        save_bundle(session, bundle)
    base = "/jobs/job/survey"
    form = form_of(client.get(f"{base}/opening/o5-1").text, f"{base}/opening/save")
    state = {"version": form["version"], "x_m": "0.6"}

    def drag() -> None:
        state["x_m"] = "0.7" if state["x_m"] == "0.6" else "0.6"
        moved = {**state, "y_m": "1.2", "width_m": "0.9", "height_m": "1.4"}
        page = client.post(f"{base}/opening/o3-0/place", data=moved, headers={"hx-request": "true"})
        found = re.search(r'data-id="o3-0"\s+data-version="(\d+)"', page.text)
        assert page.status_code == 200 and found, page.text[:200]
        state["version"] = found[1]

    def typed() -> None:
        client.post(f"{base}/opening/try", data=form | {"x_m": "2.85"}, headers={"hx-request": "true"})

    return [
        ("survey page of 40 faces, 400 openings", median_ms(partial(client.get, base), 15), 300),
        ("one face's drawing table there", median_ms(partial(client.get, f"{base}/face/f3"), 15), 300),
        ("an opening dragged there, round trip", median_ms(drag, 15), 100),
        ("the picture while typing there", median_ms(typed, 15), 100),
        ("its take-off as a workbook", median_ms(lambda: write_workbook(bundle), 3), None),
        ("its elevations as DXF", median_ms(lambda: write_dxf(place, place.faces), 3), None),
    ]


def main() -> None:
    print(f"{'what':62} {'median':>12} {'target':>10} {'of target':>10}")
    for name, figure, unit, target in rows():
        places = 2 if unit == "s" else 1
        shown = f"{target:.0f} {unit}" if target else "-"
        share = f"{figure / target:.0%}" if target else "-"
        print(f"{name:62} {figure:8.{places}f} {unit:3} {shown:>10} {share:>10}")
    print(calibration.table(calibration.cases()))


if __name__ == "__main__":
    main()
