"""The climate of a job's surfaces: one row for each zone in each colour it has before, between and after the coats."""

from dataclasses import dataclass, field
from datetime import datetime, tzinfo

import numpy as np

from amber_gable.core.estimate.quantities import coat_colour
from amber_gable.core.spec.colour import solar_absorptance
from amber_gable.core.weather.slots import Slots, make_slots
from amber_gable.core.weather.steps import to_steps
from amber_gable.core.weather.surface import Climate, FaceSurface, surface_climate
from amber_gable.core.weather.typical import stretch
from amber_gable.core.weather.windows import Windows, film_windows, preparation_windows
from amber_gable.domain.job import JobBundle
from amber_gable.domain.product import OperationKind, Product
from amber_gable.domain.schools import Method
from amber_gable.domain.substrates import SUBSTRATES
from amber_gable.domain.survey import Face, FaceArea, Zone
from amber_gable.domain.weather import WeatherSeries


@dataclass(frozen=True)
class SiteClimate:
    """Climate rows of a job, found by (zone id, colour), and the slots they are judged in."""

    bundle: JobBundle
    climate: Climate
    slots: Slots
    row: dict[tuple[str, str], int]
    _known: dict[tuple[object, ...], Windows] = field(default_factory=dict, repr=False)

    def for_coat(self, zone: Zone, product: Product, method: Method, colour: str) -> Windows:
        """Windows (1, S) for laying `product` on the zone; a colour not met before is judged as the present one."""
        i = self.row.get((zone.id, colour), self.row[zone.id, zone.colour_now])
        key = (i, product, method)
        if key not in self._known:
            job = self.bundle.job
            reading = zone.condition.wood_moisture_pct
            self._known[key] = film_windows(
                self.climate.rows([i]),
                self.slots,
                product,
                method,
                job.policy,
                job.crew,
                np.array([np.nan if reading is None else reading]),
            )
        return self._known[key]

    def for_preparation(self, zone: Zone, kind: OperationKind) -> Windows:
        """Windows (1, S) for a step that lays no film."""
        i = self.row[zone.id, zone.colour_now]
        key = (i, kind)
        if key not in self._known:
            job = self.bundle.job
            self._known[key] = preparation_windows(self.climate.rows([i]), self.slots, kind, job.policy, job.crew)
        return self._known[key]


def face_surface(face: Face, substrate_code: str, colour: str) -> FaceSurface:
    """What the heat balance needs of a face with that surface in that colour."""
    return FaceSurface(
        azimuth_deg=face.azimuth_deg,
        tilt_deg=face.tilt_deg,
        substrate=SUBSTRATES[substrate_code],
        absorptance=solar_absorptance(colour),
        exposure=face.exposure,
        rain_exposure=face.rain_exposure,
        horizon=face.horizon,
    )


def main_zone(bundle: JobBundle, face: Face) -> Zone | None:
    """The zone that stands for a face: the one that takes what the face has left, else its largest."""
    zones = [z for z in bundle.property.zones if z.face == face.id]
    rest = [z for z in zones if isinstance(z.area, FaceArea)]
    if rest:
        return rest[0]
    return max(zones, key=lambda z: z.area.area_m2 if not isinstance(z.area, FaceArea) else 0.0, default=None)


def _colours(bundle: JobBundle, zone: Zone) -> list[str]:
    colours = [zone.colour_now]
    for finish in bundle.job.finishes:
        if finish.zone == zone.id:
            colours.append(finish.colour)
            for o in bundle.system(finish.system).operations:
                if o.product is not None:
                    colours.append(coat_colour(o, bundle.product(o.product), finish.colour))
    return list(dict.fromkeys(colours))


def site_climate(
    bundle: JobBundle, series: WeatherSeries, begin: datetime, days: int, tz: tzinfo | None = None
) -> SiteClimate:
    """Run the weather over every zone of the job for `days` days from the local date of `begin`.

    Raises ValueError when the job has no zones or the weather does not cover the days.
    """
    property_ = bundle.property
    if not property_.zones:
        raise ValueError("the job has no zones yet: add a face and a zone in Survey")
    zone_info = tz or property_.tz
    part = stretch(series, begin.astimezone(zone_info).date(), days)
    steps = to_steps(part, property_.latitude, property_.longitude, property_.altitude_m)
    faces = {f.id: f for f in property_.faces}
    keys = [(z, colour) for z in property_.zones for colour in _colours(bundle, z)]
    climate = surface_climate(steps, tuple(face_surface(faces[z.face], z.substrate, c) for z, c in keys))
    return SiteClimate(
        bundle=bundle,
        climate=climate,
        slots=make_slots(steps, begin, days, zone_info),
        row={(z.id, c): i for i, (z, c) in enumerate(keys)},
    )
