"""Jobs kept to begin others from: the house, its schools, products, colours and crew, without what was found, done or
noted on the one it came from."""

import re
import uuid

from amber_gable.core.specification.derived.completing import completed
from amber_gable.domain.errors import NoSteps
from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.house.survey import Property
from amber_gable.domain.job.company_usual import Shelf
from amber_gable.domain.job.job import Company, Job, JobBundle
from amber_gable.services.company import stores
from amber_gable.services.context import Context
from amber_gable.store.job.board import put_on
from amber_gable.store.job.jobs import load_bundle, save_bundle

_BROUGHT = ("policy", "crew", "estimating", "schools", "schemes", "finishes", "left")
_LINES = (
    "record",
    "changes",
    "others",
    "others_noted",
    "found_more",
    "spoiled",
    "rained",
    "cans_noted",
    "missing",
    "acknowledged",
)
OF_ANOTHER = {**dict.fromkeys(_LINES, ()), "note": ""}


def keep_as_beginning(ctx: Context, job_id: str) -> str:
    """A copy of a job for others to begin from. What was found on its walls stays behind: the next house is looked at
    for itself. Raises NotFound. Returns its id."""
    with ctx.writing() as session:
        bundle = load_bundle(session, job_id)
        id_ = new_id(bundle.job.name)
        save_bundle(session, _bare(bundle, stores.kept_company(session), id_))
        put_on(session, id_, Shelf.BEGINNINGS)
    return id_


def _bare(bundle: JobBundle, company: Company, id_: str) -> JobBundle:
    house = bundle.property
    clean = {"condition": Condition()}
    # Its trees, neighbours and what stands before its walls shade and hinder no other house.
    alone = {"horizon": (), "blocks": (), "obstacles": (), "note": ""}
    bare = house.model_copy(
        update={
            "id": id_,
            "photos": (),
            "lead_found": None,
            "faces": tuple(f.model_copy(update=alone) for f in house.faces),
            "zones": tuple(z.model_copy(update=clean) for z in house.zones),
            "items": tuple(i.model_copy(update=clean) for i in house.items),
        }
    )
    wishes = tuple(f.model_copy(update={"operations": (), "overrides": (), "aim": None}) for f in bundle.job.finishes)
    job = bundle.job.model_copy(update={**OF_ANOTHER, "id": id_, "finishes": wishes})
    # The colours are wishes as long as nobody has looked at the walls: steps follow when a job begins from them.
    return bundle.model_copy(update={"company": company, "property": bare, "job": job})


def begun_from(beginning: JobBundle, company: Company, property_: Property, job: Job) -> JobBundle:
    """A new job at another place, with all that its beginning brings. A colour whose steps cannot be derived before the
    wall was looked at waits for the specification."""
    surveyed = {k: getattr(beginning.property, k) for k in ("faces", "zones", "items")}
    kept = {k: getattr(beginning.job, k) for k in _BROUGHT}
    # The way there is another one.
    kept["estimating"] = kept["estimating"].model_copy(update={"travel_h": None})
    made = beginning.model_copy(
        update={
            "company": company,
            "property": property_.model_copy(update=surveyed),
            "job": job.model_copy(update=kept),
        }
    )
    try:
        return completed(made)
    except NoSteps:
        return made.model_copy(update={"job": made.job.model_copy(update={"finishes": ()})})


def new_id(name: str) -> str:
    """The beginning of its name, and what makes it the only one."""
    base = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:40].strip("-") or "job"
    return f"{base}-{uuid.uuid4().hex[:8]}"
