"""Work that belongs to the job and to none of its parts: every day's beginning and end, the way there, what is moved
out of the way, looking over, the walk round with the customer (docs/trade.md §12, §17)."""

from collections.abc import Mapping

from amber_gable.core.estimate.edges import sprays, taped_edges
from amber_gable.core.estimate.site_days import SiteDays, site_days
from amber_gable.core.survey.amounts.painted import Key, PaintedPart
from amber_gable.core.work.labour import Labour
from amber_gable.core.work.pace import Pace
from amber_gable.core.work.record import PartWork, SideLine
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import ObstacleKind
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.extras import EXTRAS
from amber_gable.domain.work.operation import AmountUnit, Technique
from amber_gable.domain.work.rates import Rate
from amber_gable.domain.work.working import CrewDay


def site_work(
    bundle: JobBundle, work: Mapping[Key, PartWork], parts: Mapping[Key, PaintedPart], pace: Pace
) -> tuple[SiteDays, tuple[SideLine, ...]]:
    """The days of a job and what every one of them takes beside the work on the parts; nothing for a job without
    work."""
    if not work:
        return SiteDays(0, bundle.job.crew.people, 0, None, 0, 0), ()
    unseen = frozenset(f.part for f in bundle.job.finishes if bundle.part_schools(f)["seen"] == "nobody")
    extras = bundle.job.estimating.extras
    asked = [_line(EXTRAS[code], amount, code, pace) for code, amount in sorted(extras.items())]
    once = [*_once(work, parts, pace, unseen), *asked, *taped_edges(bundle, work, parts, pace)]
    products = {p.code: p for p in bundle.products}
    roofs = frozenset(k for k in work if "roof" in SUBSTRATES[parts[k].substrate].tags)
    days = site_days(work, parts, products, bundle.job.crew, roofs=roofs, once_h=sum(line.hours for line in once))
    return days, (*once, *_daily(bundle, work, parts, pace, days))


FALL_GEAR_M2 = 200.0
"""A larger roof takes more anchors and more moving of ropes, up to twice as much."""


def _once(
    work: Mapping[Key, PartWork], parts: Mapping[Key, PaintedPart], pace: Pace, unseen: frozenset[Key]
) -> list[SideLine]:
    """What is done once in a job. `unseen`: parts that nobody sees."""
    out = []
    decks = {parts[k].face.id for k in work if "deck" in SUBSTRATES[parts[k].substrate].tags}
    if decks:
        out.append(_line("Move the furniture off the deck and back", len(decks), "furniture", pace))
    chimneys = sum(parts[k].item_kind == "chimney" for k in work)
    if chimneys:
        out.append(_line("Put up the scaffold at the chimney, take it down", chimneys, "scaffold", pace))
    coated = sum(parts[k].surface_m2 for k, w in work.items() if _looked_over(w) and k not in unseen)
    if coated:
        out.append(_line("Look over when dry, mend misses and light spots", coated, "look-over", pace))
    out.append(_line("Walk round with the customer at the end", 1, "walk-round", pace))
    return out


def _looked_over(work: PartWork) -> bool:
    """Whether the part has a film and no looking over among its own steps."""
    own = any(line.operation.technique is Technique.LOOK_OVER for line in work.lines)
    return not own and any(line.operation.kind.lays_film for line in work.lines)


def _daily(
    bundle: JobBundle,
    work: Mapping[Key, PartWork],
    parts: Mapping[Key, PaintedPart],
    pace: Pace,
    days: SiteDays,
) -> list[SideLine]:
    """What every day takes, by the person and by the sprayer."""
    out = []
    crew = bundle.job.crew
    if crew.setup_h + crew.cleanup_h > 0:
        rate = _of_the_crew(crew)
        out.append(SideLine("Set up in the morning, clean up in the evening", _labour(days.person_days, rate, pace)))
    travel = bundle.job.estimating.travel_h
    if travel is None or travel > 0:
        rate = pace.rates["travel"]
        if travel is not None:
            rate = rate.model_copy(update={"per_hour": 1 / travel, "source": "this job's way there and back"})
        out.append(SideLine("The way there and back", Labour(days.person_days, rate)))
    if days.spray_days:
        out.append(_line("Set the sprayer up, flush and clean it", days.spray_days, "sprayer-day", pace))
        near = [f for f in bundle.property.faces if any(o.kind is ObstacleKind.VEHICLE for o in f.obstacles)]
        sprayed = {parts[k].face.id for k, w in work.items() if sprays(w)}
        moved = [f for f in near if f.id in sprayed]
        if moved:
            words = "Have vehicles moved or sheeted before the spraying"
            out.append(_line(words, len(moved) * days.spray_days, "vehicle", pace))
    if days.roof_days:
        area = sum(parts[k].surface_m2 for k in work if "roof" in SUBSTRATES[parts[k].substrate].tags)
        larger = min(max(area / FALL_GEAR_M2, 1.0), 2.0)
        words = "Put up fall protection, check it, take it down"
        out.append(_line(words, days.roof_days * days.people * larger, "fall-gear", pace))
    return out


def _line(words: str, amount: float, code: str, pace: Pace) -> SideLine:
    return SideLine(words, _labour(amount, pace.rates[code], pace))


def _labour(amount: float, rate: Rate, pace: Pace) -> Labour:
    return Labour(amount, rate, pace.on_everything())


def _of_the_crew(crew: CrewDay) -> Rate:
    """The crew's own day says how long it takes to begin and to end."""
    return Rate(
        code="day",
        words="set up and clean up, a person and day",
        unit=AmountUnit.PIECES,
        per_hour=1 / (crew.setup_h + crew.cleanup_h),
        spread=1.3,
        source="the crew's day",
    )
