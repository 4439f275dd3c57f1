"""The facts of one part of a job, with the job's lead presumption and the schools that hold for it."""

from collections.abc import Mapping

from amber_gable.core.specification.derived.facts import Facts, facts_of, surface_tags
from amber_gable.core.specification.derived.protection import protection
from amber_gable.core.survey.amounts.not_painted import beside
from amber_gable.core.survey.amounts.painted import PaintedPart
from amber_gable.core.survey.amounts.taped_edges import taped_edges
from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.house.items import ShutterPair
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Item, ObstacleKind, Zone
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.aims import KEEPS_COLOUR, Aim, allowed_aim


def part_lead(bundle: JobBundle, part: PaintedPart) -> bool:
    """What a test said of the part's own paint; without one what is presumed of its year."""
    found = part.condition.lead_found
    return lead_presumed(bundle, part.condition) if found is None else found


def lead_presumed(bundle: JobBundle, found: Condition | None = None) -> bool:
    """What the lead test of the house said; without one, whether the house, or the part that was `found` to have a year
    of its own, is older than the jurisdiction's year, or of unknown age. A part put up since then has no lead paint,
    whatever the house has."""
    place, cutoff = bundle.property, bundle.company.lead_cutoff_year
    built = found.built_year if found is not None else None
    if built is not None and built >= cutoff:
        return False
    if place.lead_found is not None:
        return place.lead_found
    year = built or place.year_built
    return year is None or year < cutoff


_HANGS = (ObstacleKind.LAMP, ObstacleKind.OTHER)
"""What a painter may take down; a meter stays."""
SHEETS_CLEAN_FROM = 1990
_OLD_SHEET_YEARS = 25.0


def asbestos_presumed(bundle: JobBundle, part: PaintedPart) -> bool:
    """A cement sheet that may be from before the 1990s, unless a laboratory said no. A sheet's own age counts before
    the house's; without either it is presumed old."""
    condition, built = part.condition, part.condition.built_year or bundle.property.year_built
    if SUBSTRATES[part.substrate].family != "cement" or condition.asbestos is not None:
        return bool(condition.asbestos)
    if condition.age_years is not None:
        return condition.age_years >= _OLD_SHEET_YEARS
    return built is None or built < SHEETS_CLEAN_FROM


TREATED_CLEAN_FROM = 2004
_OLD_TREATED_YEARS = 20.0


def treated_long_ago(bundle: JobBundle, part: PaintedPart) -> bool:
    """Timber that may have been treated while arsenic was usual. Its own age counts before the house's; without either
    it is presumed old."""
    if part.condition.age_years is not None:
        return part.condition.age_years >= _OLD_TREATED_YEARS
    built = part.condition.built_year or bundle.property.year_built
    return built is None or built < TREATED_CLEAN_FROM


def part_facts(
    bundle: JobBundle,
    part: PaintedPart,
    colour: str | None,
    aim: Aim | None = None,
    schools: Mapping[str, str] | None = None,
) -> Facts:
    """Facts of a part that is to get `colour`, under its own `schools` over the job's over the company's, with what is
    done for its face along with it."""

    own = _own_facts(bundle, part, colour, aim, schools)

    def by_itself(other: PaintedPart) -> Facts:
        if other.key == part.key:
            return own
        finish = bundle.finish_of(*other.key)
        assert finish is not None, "only what is worked on is asked about"
        return _own_facts(bundle, other, finish.colour, finish.aim, finish.schools)

    found = protection(bundle, part, by_itself)
    return own.protecting(first=found.first, contains=found.contains, dusty_days=found.dusty_days)


def _not_painted(bundle: JobBundle, part: PaintedPart) -> Mapping[str, object]:
    """What stays beside the zone that takes the rest of a face, and what was taken away from it, with the share of it
    that is bare behind that."""
    zone, found = part.part, beside(bundle, part.face)
    if not isinstance(zone, Zone) or not found.gone_m2:
        return found.facts
    bare = found.gone_m2 * zone.profile_factor / max(part.surface_m2, 0.01)
    return {**found.facts, "gone_pct": min(100.0, 100 * bare)}


def _taped(bundle: JobBundle, part: PaintedPart) -> Mapping[str, object]:
    """Metres of edge that are taped where edges are taped, and what the tape sits on."""
    if not isinstance(part.part, Zone):
        return {}
    edges = taped_edges(bundle, part.face, part.part)
    if not edges:
        return {}
    return {"taped_m": round(sum(e.length_m for e in edges), 1), "taped_on": ", ".join(e.on for e in edges)}


def _own_facts(
    bundle: JobBundle, part: PaintedPart, colour: str | None, aim: Aim | None, schools: Mapping[str, str] | None
) -> Facts:
    """A part by itself, without what is done once for its face."""
    face = part.face
    takes_rest = isinstance(part.part, Zone) and part.part.area.kind == "face"
    allowed = allowed_aim(aim, surface_tags(part.substrate, part.item_kind))
    return facts_of(
        part.substrate,
        part.condition,
        surface_m2=part.surface_m2,
        item_kind=part.item_kind,
        pieces=part.pieces,
        old_colour=part.colour_now,
        new_colour=part.colour_now if allowed in KEEPS_COLOUR else colour,
        aim=allowed,
        schools={**bundle.schools, **(schools or {})},
        lead=lead_presumed(bundle, part.condition),
        wires=any(o.kind is ObstacleKind.WIRES for o in face.obstacles),
        openings=len(face.openings) if takes_rest and face.is_wall else 0,
        height_m=face.top_m if face.is_wall else 0.0,
        tilt_deg=face.tilt_deg,
        old_sheet=asbestos_presumed(bundle, part),
        old_treated=treated_long_ago(bundle, part),
        obstacles={o.kind.value for o in face.obstacles},
        fixing=part.part.spec.fixing.value
        if isinstance(part.part, Item) and isinstance(part.part.spec, ShutterPair)
        else "",
        beside={**(_not_painted(bundle, part) if takes_rest else {}), **_taped(bundle, part)},
        tz=bundle.property.tz,
        hangs="; ".join(
            f"{o.name or o.kind.value} {o.x_m:.1f} m from the left, {o.y_m:.1f} m up"
            for o in face.obstacles
            if o.kind in _HANGS
        ),
    )
