"""What the heat balance must know of a part: its face, its substrate, its colour, and where it lies."""

from dataclasses import replace

from amber_gable.core.specification.colour.absorptance import absorptance_of
from amber_gable.core.survey.drawing.horizon import face_horizon
from amber_gable.core.weather.wall.surface import FaceSurface
from amber_gable.domain.house.exposure import Eave, Exposure, Terrain
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Face
from amber_gable.domain.work.operation import Where


def face_surface(
    face: Face,
    substrate_code: str,
    colour: str,
    solar_reflectance: float | None = None,
    terrain: Terrain = Terrain.SUBURB,
) -> FaceSurface:
    """What the heat balance needs of a face with that surface in that colour; `solar_reflectance` by the sheet of what
    gives it; `terrain`: the land round the house."""
    taken = absorptance_of(colour, solar_reflectance)
    return FaceSurface(
        azimuth_deg=face.azimuth_deg,
        tilt_deg=face.tilt_deg,
        substrate=SUBSTRATES[substrate_code],
        absorptance=taken.likely,
        absorptance_band=(taken.low, taken.high),
        exposure=face.exposure,
        rain_exposure=face.rain_exposure,
        horizon=face_horizon(face),
        # Judged at the wall's middle, as its horizon is.
        eave=Eave(face.overhang_m, face.top_m / 2) if face.is_wall and face.overhang_m > 0 else None,
        terrain=terrain,
        open_back=bool(SUBSTRATES[substrate_code].tags & OPEN_BACKED),
    )


OPEN_BACKED = frozenset({"deck", "beam"})
"""Tags of what has the air behind it too; railings have."""


def lying(surface: FaceSurface, where: Where) -> FaceSurface:
    """The same surface taken off its wall: flat on stands under the open sky, which are moved with the shade, under
    cover, or in a heated shop."""
    return replace(
        surface,
        azimuth_deg=0.0,
        tilt_deg=0.0,
        exposure=Exposure.OPEN,
        rain_exposure=1.0,
        horizon=(),
        eave=None,
        under_cover=where is not Where.STANDS,
        heated=where is Where.SHOP,
        shaded=where is Where.STANDS,
        open_back=True,
    )
