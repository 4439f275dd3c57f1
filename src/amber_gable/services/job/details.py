"""A job's own details: begun from a form, changed, copied, taken off the board and brought back."""

from collections.abc import Mapping
from typing import Annotated

from pydantic import ValidationError

from amber_gable.domain.errors import NotFound, Refused, by_field
from amber_gable.domain.house.exposure import Terrain
from amber_gable.domain.house.survey import Property
from amber_gable.domain.job.company_usual import Shelf
from amber_gable.domain.job.job import Job, JobBundle
from amber_gable.services.company import stores
from amber_gable.services.company.crew_typed import crew_form, typed_crew
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form, Reads, read_all
from amber_gable.services.forms.types import number, text_of
from amber_gable.services.job.beginnings import begun_from, new_id
from amber_gable.services.job.undo import forget_weather, job_step
from amber_gable.services.place_check import TypedPlace, read_place
from amber_gable.store.company.crews import crew_of, set_crew
from amber_gable.store.job.board import deleted_jobs, hide_job, put_on, same_address, shelf_of_job, show_job
from amber_gable.store.job.jobs import live_job, load_bundle, save_bundle
from amber_gable.store.tables import PropertyRow

LEAST_YEAR = 1500


def start_job(ctx: Context, form: Mapping[str, str]) -> str:
    """A new job with an empty survey, from the form on the jobs page. Raises Refused by field. Returns its id."""
    place, typed = _read(ctx, form)
    _refuse_doubled(ctx, place, typed.name, form)
    id_ = new_id(typed.name)
    property_, job = _records(id_, id_, place, typed)
    begun = form.get("begin_from", "")
    usual = stores.usual_of(ctx)
    with ctx.writing() as session:
        company = stores.company(session)
        if begun:
            try:
                beginning = load_bundle(session, begun)
            except NotFound:
                raise Refused({"begin_from": "is no longer here: choose another, or nothing"}) from None
            save_bundle(session, begun_from(beginning, company, property_, job))
            return id_
        if usual is not None:
            job = job.model_copy(update={"crew": usual.crew})
        products, systems = stores.held(session, company.id), stores.held_systems(session, company.id)
        save_bundle(
            session, JobBundle(company=company, property=property_, products=products, systems=systems, job=job)
        )
    return id_


def _refuse_doubled(ctx: Context, place: TypedPlace, name: str, form: Mapping[str, str]) -> None:
    """Ask before an address is put up a second time. Raises Refused, until it is said to be meant."""
    if form.get("again"):
        return
    with ctx.reading() as session:
        there = same_address(session, name, place.latitude, place.longitude)
    if there is not None:
        raise Refused({"again": f"“{there.name}” of {there.customer} in {there.place} is here already"})


def change_job(ctx: Context, job_id: str, form: Mapping[str, str]) -> None:
    """Name, customer, place, year and crew as typed. Surfaces, weather and plan follow. Raises Refused by field."""
    if _stays(ctx, job_id, form):
        # Whatever was doubtful about the place was answered when it was put in.
        form = {**form, "sure": "1"}
    place, typed = _read(ctx, form)
    with job_step(ctx, job_id, "change the details of the job") as session:
        row = live_job(session, job_id)
        if "people" in form:
            set_crew(session, row, typed_crew(form, crew_of(session, row)[1].model_dump()))
        property_, job = _records(job_id, row.property_id, place, typed)
        row.name, row.customer = job.name, job.customer
        house = session.get(PropertyRow, row.property_id)
        assert house is not None, "every job has its property"
        stood = house.latitude, house.longitude
        fields = {"name", "place", "latitude", "longitude", "altitude_m", "time_zone", "year_built"}
        asked = fields | ({"terrain"} if "terrain" in form else set())
        for name, value in property_.model_dump(mode="json", include=asked).items():
            if getattr(house, name) != value:
                setattr(house, name, value)
        forget_weather(ctx, session, house, stood)


def _stays(ctx: Context, job_id: str, form: Mapping[str, str]) -> bool:
    """Whether the place is told as it was."""
    with ctx.reading() as session:
        held = details_form(load_bundle(session, job_id))
    return not form.get("town") and all(
        form.get(key, "").strip() == held[key] for key in ("place", "latitude", "longitude", "time_zone")
    )


def copy_job(ctx: Context, job_id: str) -> str:
    """The same house as a job of its own: survey, specification and photos, without what was done and planned. Returns
    its id."""
    with ctx.writing() as session:
        bundle = load_bundle(session, job_id)
        name = f"{bundle.job.name} (copy)"[:120]
        id_ = new_id(name)
        job = bundle.job.model_copy(update={"id": id_, "name": name, "record": (), "changes": (), "acknowledged": ()})
        property_ = bundle.property.model_copy(update={"id": id_, "name": name})
        save_bundle(session, bundle.model_copy(update={"job": job, "property": property_}))
    return id_


def move_job(ctx: Context, job_id: str, shelf: Shelf) -> None:
    """Off the board into the archive, or back; all of it stays as it is. Raises NotFound."""
    with ctx.writing() as session:
        put_on(session, job_id, shelf)


def shelf_of(ctx: Context, job_id: str) -> Shelf:
    """Raises NotFound."""
    with ctx.reading() as session:
        return shelf_of_job(session, job_id)


def delete_job(ctx: Context, job_id: str) -> None:
    """Take a job off the board; all of it is kept."""
    with ctx.writing() as session:
        hide_job(session, job_id, int(ctx.now.timestamp()))


def restore_job(ctx: Context, job_id: str) -> None:
    """Raises NotFound where no such job was taken off the board."""
    with ctx.writing() as session:
        if not show_job(session, job_id):
            raise NotFound("deleted job", job_id)


def off_the_board(ctx: Context) -> list[tuple[str, str]]:
    """Ids and names of deleted jobs, the last one first."""
    with ctx.reading() as session:
        return deleted_jobs(session)


def details_form(bundle: JobBundle) -> dict[str, str]:
    """As they would have been typed."""
    place = bundle.property
    return {
        "name": bundle.job.name,
        "customer": bundle.job.customer,
        "place": place.place,
        "latitude": f"{place.latitude:g}",
        "longitude": f"{place.longitude:g}",
        "altitude_m": f"{place.altitude_m:g}" if place.altitude_m else "",
        "time_zone": place.time_zone,
        "year_built": str(place.year_built or ""),
        "terrain": place.terrain.value,
        **crew_form(bundle.job.crew),
    }


class DetailsForm(Form):
    """A job's name and customer, the year its house was built, and the land round it."""

    name: Annotated[str, text_of("give the job a name, such as its address")]
    customer: Annotated[str, text_of("say whose job it is")]
    year_built: Annotated[int, Reads(lambda text, _: _year(text))] | None = None
    terrain: Terrain = Terrain.SUBURB


def _read(ctx: Context, form: Mapping[str, str]) -> tuple[TypedPlace, DetailsForm]:
    """What is at fault is told all at once. Raises Refused by field."""
    return read_all(lambda: read_place(ctx, form), lambda: DetailsForm.read(form))


def _year(text: str) -> int:
    """Raises ValueError with words: '55' may be 1955 or a slip."""
    try:
        year = number(text)
    except ValueError:
        raise ValueError(f"“{text[:20]}” is not a year; write such as 1931") from None
    if 0 <= year < 100 and year == int(year):
        raise ValueError(f"{year:g} may be {1900 + int(year)} or {2000 + int(year)}: write it in full")
    if year != int(year) or not LEAST_YEAR <= year <= 2200:
        raise ValueError(f"{year:g} is not a year; write such as 1931")
    return int(year)


def _records(id_: str, property_id: str, place: TypedPlace, typed: DetailsForm) -> tuple[Property, Job]:
    house = vars(place) | {
        "altitude_m": place.altitude_m or 0.0,
        "year_built": typed.year_built,
        "terrain": typed.terrain,
    }
    try:
        property_ = Property.model_validate(house | {"id": property_id, "name": typed.name})
        job = Job.model_validate({"id": id_, "name": typed.name, "customer": typed.customer})
    except ValidationError as error:
        raise Refused(by_field(error)) from None
    return property_, job
