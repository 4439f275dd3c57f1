"""The climate of a job's surfaces: one row for each zone in each colour it has before, between and after the coats."""

from dataclasses import dataclass, field
from datetime import datetime, tzinfo

import numpy as np

from amber_gable.core.estimate.quantities import coat_colour
from amber_gable.core.spec.colour import solar_absorptance
from amber_gable.core.spec.limits import Limit, moisture_limit
from amber_gable.core.survey.horizon import face_horizon
from amber_gable.core.survey.moisture import judged_moisture
from amber_gable.core.survey.painted import Key, part_key
from amber_gable.core.survey.takeoff import face_areas
from amber_gable.core.weather.slots import Slots, make_slots
from amber_gable.core.weather.steps import to_steps
from amber_gable.core.weather.surface import Climate, FaceSurface, surface_climate
from amber_gable.core.weather.typical import stretch
from amber_gable.core.weather.windows import Windows, film_windows, preparation_windows
from amber_gable.domain.aims import usual_aim
from amber_gable.domain.finish import Finish
from amber_gable.domain.job import CrewDay, JobBundle, Policy
from amber_gable.domain.operation import OperationKind
from amber_gable.domain.product import Product
from amber_gable.domain.schools import Method
from amber_gable.domain.spec_schools import resolved
from amber_gable.domain.substrates import SUBSTRATES
from amber_gable.domain.survey import Face, Item, Property, Zone
from amber_gable.domain.weather import WeatherSeries


@dataclass(frozen=True)
class SlotClimate:
    """Surfaces through the weather, the slots they are judged in, and the windows judged so far."""

    climate: Climate
    slots: Slots
    _known: dict[tuple[object, ...], Windows] = field(default_factory=dict, repr=False)

    def coat(
        self,
        row: int,
        product: Product,
        method: Method,
        policy: Policy,
        crew: CrewDay,
        moisture_pct: float | None,
        moisture: Limit | None = None,
    ) -> Windows:
        """Windows (1, S) for laying `product` on the surface of that row."""
        key = (row, product, method, policy, crew, moisture_pct, moisture)
        if key not in self._known:
            reading = np.array([np.nan if moisture_pct is None else moisture_pct])
            self._known[key] = film_windows(
                self.climate.rows([row]), self.slots, product, method, policy, crew, reading, moisture
            )
        return self._known[key]

    def preparation(self, row: int, kind: OperationKind, policy: Policy, crew: CrewDay) -> Windows:
        """Windows (1, S) for a step that lays no film."""
        key = (row, kind, policy, crew)
        if key not in self._known:
            self._known[key] = preparation_windows(self.climate.rows([row]), self.slots, kind, policy, crew)
        return self._known[key]


@dataclass(frozen=True)
class SiteClimate:
    """A job on its climate: rows found by (part, colour)."""

    bundle: JobBundle
    base: SlotClimate
    row: dict[tuple[Key, str], int]

    @property
    def climate(self) -> Climate:
        return self.base.climate

    @property
    def slots(self) -> Slots:
        return self.base.slots

    def knows(self, part: Zone | Item) -> bool:
        """Whether the part's surface was computed: every zone's was, an item's once it has a finish."""
        return (part_key(part), part.colour_now) in self.row

    def row_of(self, part: Zone | Item, colour: str) -> int:
        """The climate's row of a part in a colour; in one not met before, that of its present colour."""
        key = part_key(part)
        return self.row.get((key, colour), self.row[key, part.colour_now])

    def for_coat(self, part: Zone | Item, product: Product, method: Method, colour: str) -> Windows:
        """Windows (1, S) for laying `product` on the part; a colour not met before is judged as the present one."""
        job = self.bundle.job
        row = self.row_of(part, colour)
        damp = part_moisture_limit(self.bundle, part, product)
        return self.base.coat(row, product, method, job.policy, job.crew, judged_moisture(part.condition), damp)

    def for_preparation(self, part: Zone | Item, kind: OperationKind) -> Windows:
        """Windows (1, S) for a step that lays no film."""
        job = self.bundle.job
        return self.base.preparation(self.row_of(part, part.colour_now), kind, job.policy, job.crew)


def part_moisture_limit(bundle: JobBundle, part: Zone | Item, product: Product | None = None) -> Limit | None:
    """How wet the part's wood may be under `product` (None: of which none is chosen yet), with the aim and the schools
    that hold for it."""
    finish = bundle.finish_of(*part_key(part))
    tags = SUBSTRATES[part.substrate].tags
    aim = (finish.aim if finish else None) or usual_aim(tags)
    schools = resolved(bundle.company.schools, bundle.job.schools, finish.schools if finish else {})
    return moisture_limit(tags, aim.value, schools, product.moisture_max_pct if product else None)


def face_surface(face: Face, substrate_code: str, colour: str) -> FaceSurface:
    """What the heat balance needs of a face with that surface in that colour."""
    return FaceSurface(
        azimuth_deg=face.azimuth_deg,
        tilt_deg=face.tilt_deg,
        substrate=SUBSTRATES[substrate_code],
        absorptance=solar_absorptance(colour),
        exposure=face.exposure,
        rain_exposure=face.rain_exposure,
        horizon=face_horizon(face),
    )


def main_zone(bundle: JobBundle, face: Face) -> Zone | None:
    """The zone that stands for a face: the one that takes what the face has left, else its largest."""
    zones = bundle.property.zones_of(face.id)
    rest = [z for z in zones if z.area.kind == "face"]
    if rest or not zones:
        return rest[0] if rest else None
    areas = face_areas(bundle.property, face, bundle.job.deduction)
    return max(zones, key=lambda z: areas[z.id].plan_m2)


def _colours(bundle: JobBundle, part: Zone | Item, finish: Finish | None) -> list[str]:
    colours = [part.colour_now]
    if finish is not None:
        colours.append(finish.colour)
        for o in bundle.operations(finish):
            if o.product is not None:
                colours.append(coat_colour(o, bundle.product(o.product), finish.colour))
    return list(dict.fromkeys(colours))


def site_surfaces(bundle: JobBundle) -> tuple[dict[tuple[Key, str], int], tuple[FaceSurface, ...]]:
    """Row numbers by (part, colour), and what the heat balance must know of each row: all zones, and the items that
    are to be finished.

    Raises ValueError when the job has no zones.
    """
    if not bundle.property.zones:
        raise ValueError("the job has no zones yet: add a face and a zone in Survey")
    faces = {f.id: f for f in bundle.property.faces}
    finishes = {f.part: f for f in bundle.job.finishes}
    parts: list[Zone | Item] = [*bundle.property.zones]
    parts += [i for i in bundle.property.items if part_key(i) in finishes]
    row: dict[tuple[Key, str], int] = {}
    rows: dict[FaceSurface, int] = {}
    for part in parts:
        for colour in _colours(bundle, part, finishes.get(part_key(part))):
            # Like surfaces share a row: five sashes on one face are computed once.
            surface = face_surface(faces[part.face], part.substrate, colour)
            row[part_key(part), colour] = rows.setdefault(surface, len(rows))
    return row, tuple(rows)


def slot_climate(
    place: Property,
    surfaces: tuple[FaceSurface, ...],
    series: WeatherSeries,
    begin: datetime,
    days: int,
    tz: tzinfo | None = None,
) -> SlotClimate:
    """Run the weather over the surfaces for `days` days from the local date of `begin`.

    Raises ValueError when the weather does not cover the days.
    """
    zone_info = tz or place.tz
    part = stretch(series, begin.astimezone(zone_info).date(), days)
    steps = to_steps(part, place.latitude, place.longitude, place.altitude_m)
    return SlotClimate(surface_climate(steps, surfaces), make_slots(steps, begin, days, zone_info))


def site_climate(
    bundle: JobBundle, series: WeatherSeries, begin: datetime, days: int, tz: tzinfo | None = None
) -> SiteClimate:
    """The job's surfaces through the weather. Raises ValueError without zones or without weather for the days."""
    row, surfaces = site_surfaces(bundle)
    return SiteClimate(bundle, slot_climate(bundle.property, surfaces, series, begin, days, tz), row)
