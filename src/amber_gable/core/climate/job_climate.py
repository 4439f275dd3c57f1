"""The climate of a job's surfaces: one row for each part in each colour it has before, between and after the coats, in
place and where it is painted off its wall."""

from dataclasses import dataclass, replace
from datetime import datetime, tzinfo
from functools import cached_property

import numpy as np

from amber_gable.core.climate.part_surface import face_surface, lying
from amber_gable.core.specification.cautions.limits import moisture_limit
from amber_gable.core.survey.amounts.items import item_area
from amber_gable.core.survey.amounts.painted import Key, part_key
from amber_gable.core.survey.amounts.takeoff import face_areas
from amber_gable.core.survey.findings.moisture import daily_readings, judged_moisture
from amber_gable.core.weather.film.limits import Limit
from amber_gable.core.weather.futures.members import Coat, Preparation
from amber_gable.core.weather.judged.slots import Slots
from amber_gable.core.weather.judged.windows import Windows
from amber_gable.core.weather.wall.damp import Damp
from amber_gable.core.weather.wall.slot_climate import (
    Place,
    PlaceWeather,
    SurfaceClimate,
    place_weather,
    surfaces_through,
)
from amber_gable.core.weather.wall.steps import Steps
from amber_gable.core.weather.wall.substrate_moisture import MoistureEvent, dry_masonry
from amber_gable.core.weather.wall.surface import FaceSurface
from amber_gable.domain.errors import NoClimate
from amber_gable.domain.grid import STEP_S
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Face, Item, Property, Zone
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Product
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.work.aims import usual_aim
from amber_gable.domain.work.finish import Finish, coat_colour
from amber_gable.domain.work.operation import OperationKind, Where
from amber_gable.domain.work.working import Policy

Row = tuple[Key, str, Where | None]
"""A part, its colour, and where it is if not in place."""


def place_of(property_: Property) -> Place:
    """What the weather must know of where a property stands."""
    return Place(property_.latitude, property_.longitude, property_.altitude_m, property_.tz)


@dataclass(frozen=True)
class SiteClimate:
    """The climate of all surfaces of a job, found by part and colour."""

    bundle: JobBundle
    weather: PlaceWeather
    surfaces: tuple[SurfaceClimate, ...]
    row: dict[Row, int]

    @cached_property
    def policy(self) -> Policy:
        """What the job's coats are judged by in the weather."""
        return self.bundle.policy

    @property
    def steps(self) -> Steps:
        return self.weather.steps

    @property
    def slots(self) -> Slots:
        return self.weather.slots

    def knows(self, part: Zone | Item) -> bool:
        """Whether the part's surface was computed (`climate_parts`)."""
        return (part_key(part), part.colour_now, None) in self.row

    def surface_of(self, part: Zone | Item, colour: str, where: Where | None = None) -> SurfaceClimate:
        """A part in a colour, through the weather; in one not met before, as in its present colour. `where`: off its
        wall; a place it is not taken to is judged as its wall."""
        key = part_key(part)
        there = where if (key, part.colour_now, where) in self.row else None
        return self.surfaces[self.row.get((key, colour, there), self.row[key, part.colour_now, there])]

    def for_coat(
        self, part: Zone | Item, product: Product, method: Method, colour: str, *, asks_before: bool = True
    ) -> Windows:
        """Windows (1, S) for laying `product` on the part; a colour not met before is judged as the present one.
        `asks_before`: see `Damp`."""
        return self.windows(part, colour, self.coat_of(part, product, method, colour, asks_before=asks_before))

    def coat_of(
        self,
        part: Zone | Item,
        product: Product,
        method: Method,
        colour: str,
        *,
        bare: bool = True,
        where: Where | None = None,
        asks_before: bool = True,
    ) -> Coat:
        """The coat as the weather alone knows it. `asks_before`: see `Damp`."""
        limit = part_water_limit(self.bundle, part, product)
        damp = None if limit is None else self.damp(part, limit, bare=bare)
        damp = None if damp is None else replace(damp, asks_before=asks_before)
        # Until the coat is on, it is the old colour that the sun dries.
        surface, below = (self.surface_of(part, c, where).climate.faces[0] for c in (colour, part.colour_now))
        return Coat(surface, product, method, damp, below=below)

    def windows(self, part: Zone | Item, colour: str, coat: Coat, where: Where | None = None) -> Windows:
        """Windows (1, S) for a coat on the part, which gets `colour` by it."""
        below, crew = self.surface_of(part, part.colour_now, where), self.bundle.job.crew
        return self.surface_of(part, colour, where).coat(coat.product, coat.method, self.policy, crew, coat.damp, below)

    def damp(self, part: Zone | Item, limit: Limit, *, bare: bool = True) -> Damp | None:
        """What is known of the part's water; None where a film keeps the rain out and nobody metered it. A reading is
        carried on through the weather from its day; one of no known day lasts."""
        tz = self.bundle.property.tz
        read = daily_readings(part.condition.moisture, tz)
        if read:
            return Damp(limit, tuple(MoistureEvent(at.timestamp(), pct) for at, pct in read), bare=bare)
        lasting = judged_moisture(part.condition, tz)
        if lasting is not None:
            return Damp(limit, lasting=lasting)
        if "wood" in SUBSTRATES[part.substrate].tags:
            limit = replace(limit, source=f"{limit.source}; nobody metered it yet: read it before the coat")
        return Damp(limit) if bare else None

    def damp_since(self, part: Zone | Item, limit: Limit, moment: datetime) -> tuple[float, datetime | None] | None:
        """How wet the bare part is then, %, as a coat is to judge it (infinite where only what fell before the weather
        that is known could tell), and from when on it is first at its limit (None: not within the weather known); None
        where it holds no water, or nobody knows the day of its reading."""
        damp, steps = self.damp(part, limit), self.steps
        # What happened before the weather counts at its beginning.
        step = max(int((moment.timestamp() - steps.start) // STEP_S), 0)
        if damp is None or damp.lasting is not None or step >= len(steps):
            return None
        pct = self.surface_of(part, part.colour_now).damp_pct(damp)
        if pct is None:
            return None
        fit = np.flatnonzero(pct[0, step:] <= limit.value)
        at = datetime.fromtimestamp(float(steps.times[step + int(fit[0])]), self.slots.tz) if fit.size else None
        return float(pct[0, step]), at

    def for_preparation(
        self, part: Zone | Item, kind: OperationKind, wind_max: float | None = None, where: Where | None = None
    ) -> Windows:
        """Windows (1, S) for a step that lays no film; `wind_max` (m/s) where it bears less wind than a ladder does."""
        policy = self.policy.in_wind(wind_max)
        return self.surface_of(part, part.colour_now, where).preparation(kind, policy, self.bundle.job.crew)

    def preparation_of(
        self, part: Zone | Item, kind: OperationKind, wind_max: float | None = None, where: Where | None = None
    ) -> Preparation:
        """A step that lays no film as the weather alone knows it."""
        return Preparation(self.surface_of(part, part.colour_now, where).climate.faces[0], kind, wind_max=wind_max)


def part_moisture_limit(
    bundle: JobBundle, part: Zone | Item, product: Product | None = None, finish: Finish | None = None
) -> Limit | None:
    """How wet the part's wood may be under `product` (None: of which none is chosen yet), with the aim and the schools
    that hold for it; `finish` where it is at hand."""
    tags = SUBSTRATES[part.substrate].tags
    if "wood" not in tags:
        return None
    finish = finish or bundle.finish_of(*part_key(part))
    aim = (finish.aim if finish else None) or usual_aim(tags)
    schools = {**bundle.schools, **(finish.schools if finish else {})}
    return moisture_limit(tags, aim.value, schools, product.moisture_max_pct if product else None)


def part_water_limit(
    bundle: JobBundle, part: Zone | Item, product: Product | None = None, finish: Finish | None = None
) -> Limit | None:
    """How wet the part may be under a film, wood or masonry; None for what holds no water."""
    return part_moisture_limit(bundle, part, product, finish) or dry_masonry(SUBSTRATES[part.substrate])


def main_part(bundle: JobBundle, face: Face) -> Zone | Item | None:
    """What stands for a face: the zone that takes what the face has left, else its largest zone; on a face of which
    only items are worked on the largest of them, one with a finish before one without, one in place before one that
    lies elsewhere. What is not painted stands for nothing."""
    left = {x.part for x in bundle.job.left}
    zones = [z for z in bundle.property.zones_of(face.id) if part_key(z) not in left]
    rest = [z for z in zones if z.area.kind == "face"]
    if rest:
        return rest[0]
    if zones:
        areas = face_areas(bundle.property, face, bundle.deduction)
        return max(zones, key=lambda z: areas[z.id].plan_m2)
    items = [i for i in bundle.property.items_of(face.id) if part_key(i) not in left]
    wanted = [i for i in items if bundle.finish_of(*part_key(i)) is not None]
    return max(wanted or items, key=lambda i: (painted_where(bundle, i) is None, item_area(i.spec)), default=None)


def painted_where(bundle: JobBundle, part: Zone | Item) -> Where | None:
    """Where its films are laid; None in place, or where none is specified."""
    finish = bundle.finish_of(*part_key(part))
    films = [o for o in bundle.operations(finish) if o.kind.lays_film] if finish is not None else []
    return films[-1].where if films else None


def climate_parts(bundle: JobBundle) -> list[Zone | Item]:
    """Parts whose surfaces are computed: all zones, items that are to be finished, and all items of a face on which no
    zone is worked on."""
    place = bundle.property
    finished = {f.part for f in bundle.job.finishes}
    left = {x.part for x in bundle.job.left}
    zoned = {z.face for z in place.zones if part_key(z) not in left}
    items = [i for i in place.items if part_key(i) in finished or i.face not in zoned]
    return [*place.zones, *items]


def _colours(bundle: JobBundle, part: Zone | Item, finish: Finish | None) -> dict[str, float | None]:
    """The colours a part has and gets, each with the solar reflectance that a coat's sheet gives for it."""
    colours: dict[str, float | None] = {part.colour_now: None}
    if finish is not None:
        colours.setdefault(finish.colour, None)
        for o in bundle.operations(finish):
            product = None if o.product is None else bundle.product(o.product)
            # Through an untinted clear film the sun meets what is there now, as in any colour that has no row.
            if product is not None and (o.colour is not None or not product.clear):
                colours[coat_colour(o, product, finish.colour)] = product.solar_reflectance
    return colours


Surfaces = tuple[dict[Row, int], tuple[FaceSurface, ...]]


def site_surfaces(bundle: JobBundle) -> Surfaces:
    """Row numbers by part, colour and place, and what the heat balance must know of each row.

    Raises NoClimate when the job has nothing to paint.
    """
    parts = climate_parts(bundle)
    if not parts:
        raise NoClimate("the job has nothing to paint yet: add a face with a zone or an item in Survey")
    faces = {f.id: f for f in bundle.property.faces}
    finishes = {f.part: f for f in bundle.job.finishes}
    row: dict[Row, int] = {}
    rows: dict[FaceSurface, int] = {}
    for part in parts:
        finish = finishes.get(part_key(part))
        places = {o.where for o in bundle.operations(finish) if o.where} if finish is not None else set()
        for colour, reflects in _colours(bundle, part, finish).items():
            # Like surfaces share a row: five sashes on one face are computed once.
            surface = face_surface(faces[part.face], part.substrate, colour, reflects, bundle.property.terrain)
            if isinstance(part, Item) and part.spec.kind == "railing":
                surface = replace(surface, open_back=True)
            row[part_key(part), colour, None] = rows.setdefault(surface, len(rows))
            for where in sorted(places):
                row[part_key(part), colour, where] = rows.setdefault(lying(surface, where), len(rows))
    return row, tuple(rows)


def site_climate(
    bundle: JobBundle, series: WeatherSeries, begin: datetime, days: int, tz: tzinfo | None = None
) -> SiteClimate:
    """The job's surfaces through the weather. Raises NoClimate with nothing to paint, or no weather for the days."""
    row, surfaces = site_surfaces(bundle)
    weather = place_weather(place_of(bundle.property), series, begin, days, tz)
    return SiteClimate(bundle, weather, tuple(surfaces_through(weather, surfaces)), row)
