"""Sample jobs: copied in to be looked at, under a company of their own, and dropped without a trace."""

from functools import cache

from amber_gable.demo import PRODUCTS, demo_bundles
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.listed_job import Front
from amber_gable.exchange.job.bundle import load_bundle
from amber_gable.exchange.stores.products import read_products
from amber_gable.services.context import Context
from amber_gable.store.changes import COMPANIES, HOUSES
from amber_gable.store.company.sheets import put_products
from amber_gable.store.job.jobs import save_bundle
from amber_gable.store.job.samples import drop_sample_companies, mark_sample, sample_places

PREFIX = "sample-"


def bring_samples(ctx: Context) -> None:
    """All of them, as they were shipped; what is here of them already is put back so."""
    drop_samples(ctx)
    with ctx.writing() as session:
        for name, text in demo_bundles():
            bundle = _renamed(load_bundle(text, name))
            save_bundle(session, bundle)
            mark_sample(session, bundle.company.id)
            products = read_products(PRODUCTS.read_text(encoding="utf-8"), PRODUCTS.name)
            put_products(session, bundle.company.id, products)


@cache
def sample_front() -> Front:
    """The first sample's first face, to be drawn where there is no house yet."""
    name, text = demo_bundles()[0]
    bundle = load_bundle(text, name)
    house = bundle.property
    face = house.faces[0]
    on_it = {"faces": (face,), "zones": house.zones_of(face.id), "items": house.items_of(face.id), "photos": ()}
    colours = {f.part: f.colour for f in bundle.job.finishes}
    return Front((face,), house.model_copy(update=on_it), colours, "sample")


def _renamed(bundle: JobBundle) -> JobBundle:
    """Under names that no job of the user's has."""
    company, house, job = (
        record.model_copy(update={"id": f"{PREFIX}{record.id}"})
        for record in (bundle.company, bundle.property, bundle.job)
    )
    return bundle.model_copy(update={"company": company, "property": house, "job": job})


def drop_samples(ctx: Context) -> int:
    """With all that was tried on them. Returns how many there were."""
    with ctx.writing() as session:
        dropped = drop_sample_companies(session)
    return dropped


def is_sample_place(ctx: Context, property_id: str) -> bool:
    """Whether a house is a sample's: it has made-up weather."""
    with ctx.reading() as session:
        return property_id in session.kept.get(
            session, ("sample places", "all"), (COMPANIES, HOUSES), lambda: sample_places(session)
        )
