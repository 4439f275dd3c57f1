"""The facts of one part of a job, with the job's lead presumption and the schools that hold for it."""

from collections.abc import Mapping

from amber_gable.core.spec.facts import Facts, facts_of
from amber_gable.core.survey.painted import PaintedPart
from amber_gable.domain.aims import Aim
from amber_gable.domain.job import JobBundle
from amber_gable.domain.spec_schools import resolved
from amber_gable.domain.survey import ObstacleKind, Zone


def lead_presumed(bundle: JobBundle) -> bool:
    """What the lead test said; without one, whether the house is older than the jurisdiction's year, or of unknown
    age."""
    place = bundle.property
    if place.lead_found is not None:
        return place.lead_found
    return place.year_built is None or place.year_built < bundle.company.lead_cutoff_year


def part_facts(
    bundle: JobBundle,
    part: PaintedPart,
    colour: str | None,
    aim: Aim | None = None,
    schools: Mapping[str, str] | None = None,
) -> Facts:
    """Facts of a part that is to get `colour`, under its own `schools` over the job's over the company's."""
    face = part.face
    takes_rest = isinstance(part.part, Zone) and part.part.area.kind == "face"
    return facts_of(
        part.substrate,
        part.condition,
        surface_m2=part.surface_m2,
        item_kind=part.item_kind,
        pieces=part.pieces,
        old_colour=part.colour_now,
        new_colour=colour,
        aim=aim,
        schools=resolved(bundle.company.schools, bundle.job.schools, schools or {}),
        lead=lead_presumed(bundle),
        wires=any(o.kind is ObstacleKind.WIRES for o in face.obstacles),
        openings=len(face.openings) if takes_rest and face.is_wall else 0,
        height_m=face.top_m if face.is_wall else 0.0,
        tilt_deg=face.tilt_deg,
    )
