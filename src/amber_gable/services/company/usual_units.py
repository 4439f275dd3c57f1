"""Which units somebody is likely to think in who has not said so yet."""

from functools import cache
from importlib.resources import files

from amber_gable.domain.units import UnitSystem
from amber_gable.services.company.stores import usual_of
from amber_gable.services.context import Context
from amber_gable.store.changes import COMPANIES, HOUSES
from amber_gable.store.job.board import first_zone


@cache
def _us_zones() -> frozenset[str]:
    """Time zones of the United States and Puerto Rico, by the time zone database."""
    lines = (files("tzdata") / "zoneinfo" / "zone.tab").read_text(encoding="utf-8").splitlines()
    rows = [line.split("\t") for line in lines if line and not line.startswith("#")]
    return frozenset(row[2] for row in rows if row[0] in ("US", "PR"))


def units_for(ctx: Context) -> UnitSystem:
    """The reader's own choice, else what is usual here."""
    return ctx.units or usual_units(ctx)


def usual_units(ctx: Context) -> UnitSystem:
    """The company's, else by where its first house stands; metric before there is one."""
    usual = usual_of(ctx)
    if usual is not None:
        return usual.units
    with ctx.reading() as session:
        zone = session.kept.get(session, ("first zone", "own"), (COMPANIES, HOUSES), lambda: (first_zone(session),))[0]
    return UnitSystem.US if zone in _us_zones() else UnitSystem.METRIC
