"""What a year at the place holds for each face's coat: a typical year kept beside the forecast."""

from dataclasses import dataclass
from datetime import datetime

from amber_gable.core.climate.job_climate import main_part, place_of
from amber_gable.core.climate.part_surface import face_surface
from amber_gable.core.weather.judged.outlook import FaceOutlook, outlook
from amber_gable.core.weather.wall.slot_climate import place_weather, surfaces_through
from amber_gable.domain.house.survey import Face
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.services.context import Context
from amber_gable.services.weather.faces.judged_faces import coat_on
from amber_gable.services.weather.told.year_outlook import COMMON_YEAR
from amber_gable.services.workspace import digest
from amber_gable.store.weather.series import load_series

DAYS = 365


@dataclass(frozen=True)
class FaceSeason:
    face: Face
    coat: str
    found: FaceOutlook


def kept_year(ctx: Context, property_id: str) -> WeatherSeries | None:
    """The year kept for the place, else the one in use as weather."""
    with ctx.reading() as session:
        year = load_series(session, property_id, "year")
        if year is not None:
            return year
        filed = load_series(session, property_id, "file")
    return filed if filed is not None and filed.typical_year else None


def face_seasons(ctx: Context, bundle: JobBundle, year: WeatherSeries) -> list[FaceSeason]:
    """Each face's coat through the year, on its main part, in the weather alone: what its substrate holds of water is
    not carried through a year that never was."""

    def worked_out() -> list[FaceSeason]:
        faces, coats, surfaces = [], [], []
        for face in bundle.property.faces:
            part = main_part(bundle, face)
            found = None if part is None else coat_on(bundle, part)
            if part is None or found is None:
                continue
            product, _, colour = found
            faces.append(face)
            coats.append(found)
            terrain = bundle.property.terrain
            surfaces.append(face_surface(face, part.substrate, colour, product.solar_reflectance, terrain))
        if not surfaces:
            return []
        tz = bundle.property.tz
        begin = datetime(COMMON_YEAR.year, COMMON_YEAR.month, COMMON_YEAR.day, tzinfo=tz)
        through = surfaces_through(place_weather(place_of(bundle.property), year, begin, DAYS), surfaces)
        out = []
        for face, (product, method, _), surface in zip(faces, coats, through, strict=True):
            windows = surface.coat(product, method, bundle.policy, bundle.job.crew)
            out.append(FaceSeason(face, f"{product.name}, {method.value}", outlook(windows, 0)))
        return out

    return ctx.space.standing.get("season" + digest(bundle, year), worked_out)
