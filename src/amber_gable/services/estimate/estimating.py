"""How a job is estimated: its crew's skill, its cold days, its way there, how surely paint is bought, the way up each
face."""

from collections.abc import Iterable, Mapping
from typing import Annotated, Any

from amber_gable.core.estimate.estimate import SHOP_H, BuyLevel, compared_levels
from amber_gable.core.estimate.ways_up import FaceWays, ways_up
from amber_gable.core.survey.amounts.trim import trim_assumed, zone_trim
from amber_gable.domain.errors import Refused
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.access import Access, AccessChoice
from amber_gable.domain.work.consumables import ADDITIVES
from amber_gable.domain.work.estimating import Estimating
from amber_gable.domain.work.extras import EXTRAS, MOST_EXTRA
from amber_gable.domain.work.rates import rates_with
from amber_gable.domain.work.working import Skill
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form
from amber_gable.services.forms.types import number, number_from, one_of
from amber_gable.services.job.undo import job_step
from amber_gable.services.job.view import JobView
from amber_gable.services.quantities.quantities import from_quantities, kept_quantities
from amber_gable.store.company.crews import crew_of, set_crew
from amber_gable.store.job.jobs import live_job, load_bundle

REASON_MOST = 200


class PaceForm(Form):
    """How fast the crew works; `travel_min` there and back, left out as the trade says."""

    skill: Annotated[Skill, one_of(list(Skill), "choose who does the work")]
    cold_pct: Annotated[float, number_from(0, 100, "a share of the work in %, 0 to 100")]
    travel_min: Annotated[float, number_from(0, 480, "minutes there and back, 0 to 480")] | None = None


class LevelForm(Form):
    """How surely paint is bought (of 100 jobs, in how many it is enough), and the largest container, L."""

    buy_level: Annotated[float, number_from(50, 99, "of 100 jobs, in how many a paint is enough: 50 to 99")]
    largest_l: Annotated[float, number_from(0.01, 1000, "litres of the largest container")] | None = None


def keep_pace(ctx: Context, job_id: str, form: Mapping[str, str]) -> None:
    """Raises Refused by field, and NotFound."""
    typed = PaceForm.read(form)
    with job_step(ctx, job_id, "how fast the crew works") as session:
        row = live_job(session, job_id)
        set_crew(session, row, crew_of(session, row)[1].model_copy(update={"skill": typed.skill}))
        travel = None if typed.travel_min is None else typed.travel_min / 60
        row.estimating = _changed(row.estimating, cold_pct=typed.cold_pct, travel_h=travel)


def keep_level(ctx: Context, job_id: str, form: Mapping[str, str]) -> None:
    """Raises Refused by field, and NotFound."""
    typed = LevelForm.read(form)
    with job_step(ctx, job_id, "how surely paint is bought") as session:
        row = live_job(session, job_id)
        row.estimating = _changed(row.estimating, **typed.model_dump())


def keep_additives(ctx: Context, job_id: str, codes: Iterable[str]) -> None:
    """What is stirred into the finish coats. Raises Refused and NotFound."""
    chosen = list(codes)
    if any(c not in ADDITIVES for c in chosen):
        raise Refused({"additives": "choose of those that are listed"})
    with job_step(ctx, job_id, "what goes into the paint") as session:
        row = live_job(session, job_id)
        row.estimating = _changed(row.estimating, additives=chosen)


def keep_extras(ctx: Context, job_id: str, form: Mapping[str, str]) -> None:
    """Small work beside the paint, how much of each by its code; empty or 0 takes it out. Raises Refused and
    NotFound."""
    amounts, faults = dict[str, float](), dict[str, str]()
    for code, words in EXTRAS.items():
        typed = form.get(code, "").strip()
        try:
            amount = number(typed) if typed else 0.0
        except ValueError:
            amount = -1.0
        if not 0 <= amount <= MOST_EXTRA:
            faults[code] = f"“{typed[:20]}” is no amount from 0 to {MOST_EXTRA:,.0f}: {words.lower()}"
        elif amount:
            amounts[code] = amount
    if faults:
        raise Refused(faults)
    with job_step(ctx, job_id, "small extras") as session:
        row = live_job(session, job_id)
        row.estimating = _changed(row.estimating, extras=amounts)


def choose_ways(ctx: Context, job_id: str, form: Mapping[str, str]) -> None:
    """The way up each face (`access.FACE`), and why (`reason.FACE`); faces that the form does not name keep theirs.
    Raises Refused and NotFound."""
    with job_step(ctx, job_id, "the way up") as session:
        bundle, row = load_bundle(session, job_id), live_job(session, job_id)
        ways = dict(bundle.job.estimating.access)
        for face in bundle.property.faces:
            access, reason = form.get(f"access.{face.id}"), form.get(f"reason.{face.id}", "").strip()
            if access is None:
                continue
            if access not in set(Access):
                raise Refused({"ways": f"{face.name}: choose ladder, tower or lift"})
            if len(reason) > REASON_MOST:
                raise Refused({"ways": f"{face.name}: at most {REASON_MOST} letters say why; these are {len(reason)}"})
            ways[face.id] = AccessChoice(access=Access(access), reason=reason)
            if ways[face.id] == AccessChoice(access=Access.LADDER):
                # As it is where nobody chose.
                del ways[face.id]
        row.estimating = _changed(row.estimating, access={k: v.model_dump(mode="json") for k, v in ways.items()})


def buying_levels(view: JobView) -> list[BuyLevel]:
    """Levels side by side, with what the firm has and no larger containers than are wished."""
    needs, largest = [o.need for o in kept_quantities(view).orders], view.bundle.job.estimating.largest_l
    return from_quantities(view, "levels", lambda stock: compared_levels(needs, stock, largest))


def growth_found(bundle: JobBundle) -> bool:
    """Whether mildew or algae were seen anywhere on the house."""
    place = bundle.property
    return any(z.condition.mildew_pct for z in place.zones) or any(i.condition.mildew_pct for i in place.items)


def trip_hours(bundle: JobBundle) -> float:
    """What a trip for a forgotten can takes one person: the way to the shop as long as the way to the job."""
    travel = bundle.job.estimating.travel_h
    usual = 1 / rates_with(bundle.company.rates)["travel"].per_hour
    return (usual if travel is None else travel) + SHOP_H


def compared_ways(view: JobView) -> list[FaceWays]:
    """Ladder, tower and lift for each face that is worked on above 3 m."""
    crew, hours = view.bundle.job.crew, kept_quantities(view).estimate.hours
    return from_quantities(view, "ways", lambda _: ways_up(hours, crew.last_h - crew.first_h))


def trim_assumptions(bundle: JobBundle) -> list[tuple[str, str, float]]:
    """Zones of trim whose length nobody took: face id, name, metres assumed."""
    faces = {f.id: f for f in bundle.property.faces}
    return [
        (z.face, f"{faces[z.face].name}, {z.name}", zone_trim(z, faces[z.face]))
        for z in bundle.property.zones
        if trim_assumed(z)
    ]


def pace_form(bundle: JobBundle) -> dict[str, str]:
    """As it would have been typed."""
    plan = bundle.job.estimating
    return {
        "skill": bundle.job.crew.skill.value,
        "cold_pct": f"{plan.cold_pct:g}",
        "travel_min": "" if plan.travel_h is None else f"{plan.travel_h * 60:g}",
    }


def _changed(held: Mapping[str, Any], **fields: Any) -> dict[str, Any]:
    return Estimating.model_validate({**held, **fields}).model_dump(mode="json")
