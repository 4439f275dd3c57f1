"""Where one can jump to by typing some of its name: pages, stages, jobs, faces, parts, products."""

from collections.abc import Iterator
from dataclasses import dataclass

from amber_gable.exchange.towns import folded
from amber_gable.services.company.stores import shelves
from amber_gable.services.context import Context
from amber_gable.services.job.stages import STAGES
from amber_gable.store.named import NamedJob, named_faces, named_jobs, named_parts

MOST = 12
_PAGES = (
    ("Jobs", "/"),
    ("Stores: products", "/stores"),
    ("Colours", "/stores/colours"),
    ("Settings: feeds and loggers", "/settings"),
    ("Under way", "/runs"),
)
_OF_A_JOB = (
    ("Walk round", "survey/walk"),
    ("Condition of many at once", "survey/findings"),
    ("Block out", "survey/block"),
    ("Photos", "survey/photos"),
    ("Files", "survey/files"),
    ("House and sun", "weather/sun"),
    ("The year", "weather/season"),
    ("Forecasts so far", "weather/versions"),
    ("Name, customer, place", "details"),
)


@dataclass(frozen=True)
class JumpTarget:
    """A name, what it is of, and its address."""

    name: str
    of: str
    href: str


def jump(ctx: Context, text: str, job_id: str = "") -> list[JumpTarget]:
    """Places whose name and surroundings hold every word of the text, the likeliest first: what is near (of the job one
    is on) before what is far, what begins with a word before what holds it somewhere."""
    words = folded(text).split()
    if not words:
        return []
    found: list[tuple[int, int, JumpTarget]] = []
    for near, place in _places(ctx, job_id):
        name, where = folded(place.name), folded(place.of)
        if not all(w in name or w in where for w in words) or not any(w in name for w in words):
            continue
        starts = sum(any(part.startswith(w) for part in name.split()) for w in words)
        found.append((-starts, near, place))
    return [place for _, _, place in sorted(found, key=lambda f: f[:2])[:MOST]]


def _places(ctx: Context, job_id: str) -> Iterator[tuple[int, JumpTarget]]:
    with ctx.reading() as session:
        jobs, faces = named_jobs(session), named_faces(session)
        parts = named_parts(session, job_id) if job_id else []
    here = next((j for j in jobs if j.id == job_id), None)
    if here is not None:
        yield from ((0, place) for place in _of_job(here))
        for face in (f for f in faces if f.job_id == job_id):
            yield 1, JumpTarget(face.name, f"face, {here.name}", f"/jobs/{job_id}/survey/face/{face.id}")
        for part in parts:
            yield 2, JumpTarget(part.name, f"{part.kind}, {part.face}", f"/jobs/{job_id}/survey/{part.kind}/{part.id}")
    yield from ((3, JumpTarget(name, "page", href)) for name, href in _PAGES)
    for job in jobs:
        yield 3, JumpTarget(job.name, f"job, {job.customer}, {job.place}", f"/jobs/{job.id}/survey")
        if job is not here:
            yield from ((5, place) for place in _of_job(job))
    for product in shelves(ctx).products:
        yield 4, JumpTarget(product.name, f"product, {product.maker}", f"/stores/product/{product.code}")
    names = {j.id: j.name for j in jobs}
    for face in (f for f in faces if f.job_id != job_id):
        yield 6, JumpTarget(face.name, f"face, {names[face.job_id]}", f"/jobs/{face.job_id}/survey/face/{face.id}")


def _of_job(job: NamedJob) -> Iterator[JumpTarget]:
    for stage in STAGES:
        yield JumpTarget(stage.name, job.name, f"/jobs/{job.id}/{stage.path}")
    for name, path in _OF_A_JOB:
        yield JumpTarget(name, job.name, f"/jobs/{job.id}/{path}")
