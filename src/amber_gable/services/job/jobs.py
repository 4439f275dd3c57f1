"""Listing, importing and exporting jobs."""

from amber_gable.core.specification.derived.completing import completed
from amber_gable.demo import PRODUCTS, demo_bundles
from amber_gable.domain.errors import InputError, NoSteps
from amber_gable.domain.job.job import JobBundle
from amber_gable.exchange.files import decode
from amber_gable.exchange.job.bundle import dump_bundle
from amber_gable.exchange.job.bundle import load_bundle as read_bundle
from amber_gable.exchange.job.job_zip import dump_zip, is_zip, load_zip, refuse_missing_photos, without_photos
from amber_gable.exchange.stores.products import read_products
from amber_gable.services.context import Context
from amber_gable.store.company.sheets import put_products
from amber_gable.store.job.jobs import list_jobs, load_bundle, save_bundle
from amber_gable.store.job.photos import all_photo_bytes
from amber_gable.store.job.specification import put_company


def other_jobs(ctx: Context, job_id: str) -> list[tuple[str, str]]:
    """Ids and names of the other jobs, in the order of the jobs page."""
    with ctx.reading() as session:
        return [(j.id, j.name) for j in list_jobs(session) if j.id != job_id]


def job_file(ctx: Context, job_id: str) -> str:
    """The job as a bundle without its photos. Raises NotFound."""
    with ctx.reading() as session:
        return dump_bundle(without_photos(load_bundle(session, job_id)))


def job_zip(ctx: Context, job_id: str) -> bytes:
    """The job with its photos. Raises NotFound."""
    with ctx.reading() as session:
        return dump_zip(load_bundle(session, job_id), all_photo_bytes(session, job_id))


def read_job(data: bytes, name: str) -> tuple[JobBundle, dict[str, bytes]]:
    """A job from its zip, photos with it, or from plain JSON. Raises InputError."""
    if is_zip(data):
        bundle, photos = load_zip(data, name)
        return _completed(bundle, name), photos
    bundle = read_bundle(decode(data, name), name)
    refuse_missing_photos(bundle, name)
    return _completed(bundle, name), {}


def _completed(bundle: JobBundle, name: str) -> JobBundle:
    try:
        return completed(bundle)
    except NoSteps as error:
        raise InputError(name, str(error), "give the finish its steps, or mend the survey; nothing was saved") from None


def import_job(ctx: Context, data: bytes, name: str) -> str:
    """Store an uploaded bundle whole. Raises InputError and saves nothing when it is at fault. Returns the job's id."""
    bundle, photos = read_job(data, name)
    try:
        with ctx.writing() as session:
            save_bundle(session, bundle, photos)
    except InputError as error:
        raise InputError(error.where, error.why, "delete or rename it first; nothing was saved") from None
    return bundle.job.id


def load_demo(ctx: Context) -> None:
    """Put the demo jobs as they were shipped."""
    for name, text in demo_bundles():
        with ctx.writing() as session:
            bundle = read_bundle(text, name)
            save_bundle(session, bundle, replace=True)
            put_company(session, bundle.company)
            put_products(session, bundle.company.id, read_products(PRODUCTS.read_text(encoding="utf-8"), PRODUCTS.name))
