"""The facts of one part of a job, with the job's lead presumption and the schools that hold for it."""

from collections.abc import Mapping

from amber_gable.core.specification.derived.facts import Facts, facts_of
from amber_gable.core.survey.amounts.painted import PaintedPart, part_key
from amber_gable.domain.findings.condition import Coating, Condition, Gloss
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Item, ObstacleKind, Zone
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.aims import Aim


def lead_presumed(bundle: JobBundle) -> bool:
    """What the lead test said; without one, whether the house is older than the jurisdiction's year, or of unknown
    age."""
    place = bundle.property
    if place.lead_found is not None:
        return place.lead_found
    return place.year_built is None or place.year_built < bundle.company.lead_cutoff_year


_HANGS = (ObstacleKind.LAMP, ObstacleKind.OTHER)
"""What a painter may take down; a meter stays."""
SHEETS_CLEAN_FROM = 1990
_OLD_SHEET_YEARS = 25.0


def asbestos_presumed(bundle: JobBundle, part: PaintedPart) -> bool:
    """A cement sheet that may be from before the 1990s, unless a laboratory said no. A sheet's own age counts before
    the house's; without either it is presumed old."""
    condition, built = part.condition, bundle.property.year_built
    if SUBSTRATES[part.substrate].family != "cement" or condition.asbestos is not None:
        return bool(condition.asbestos)
    if condition.age_years is not None:
        return condition.age_years >= _OLD_SHEET_YEARS
    return built is None or built < SHEETS_CLEAN_FROM


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
        schools={**bundle.schools, **(schools or {})},
        lead=lead_presumed(bundle),
        wires=any(o.kind is ObstacleKind.WIRES for o in face.obstacles),
        openings=len(face.openings) if takes_rest and face.is_wall else 0,
        height_m=face.top_m if face.is_wall else 0.0,
        tilt_deg=face.tilt_deg,
        old_sheet=asbestos_presumed(bundle, part),
        first_on_face=_first_on_face(bundle, part),
        face_disturbed=any(_disturbed(p.condition) for p in _on_face(bundle, part)),
        obstacles={o.kind.value for o in face.obstacles},
        tz=bundle.property.tz,
        hangs="; ".join(
            f"{o.name or o.kind.value} {o.x_m:.1f} m from the left, {o.y_m:.1f} m up"
            for o in face.obstacles
            if o.kind in _HANGS
        ),
    )


def _on_face(bundle: JobBundle, part: PaintedPart) -> list[Zone | Item]:
    place, face = bundle.property, part.face.id
    return [*place.zones_of(face), *place.items_of(face)]


def _disturbed(c: Condition) -> bool:
    """Whether old paint will be scraped, sanded or cut; what was not looked at counts."""
    found = (c.loose_pct, c.bare_pct, c.caulk_m, c.crack_m, c.putty_m, c.nails, c.rot_m2, c.greyed, c.rust_pct)
    return c.coating is not Coating.BARE and (any(found) or c.gloss is not Gloss.DULL)


def _first_on_face(bundle: JobBundle, part: PaintedPart) -> bool:
    """Covering and containment are set up once for a face: with the zone that takes its rest, else with its first."""
    place, face = bundle.property, part.face.id
    zones = place.zones_of(face)
    rest = [z for z in zones if z.area.kind == "face"]
    first: list[Zone | Item] = [*rest, *zones, *place.items_of(face)]
    return part_key(first[0]) == part.key
