"""What is painted: a table of substrates with their thermal and surface figures.

Heat capacity and U are per m² of face (physics.md §4); emissivity is that of a painted surface, bare metal by table.
Profile factor is true surface per plan area (handbook §7). Absorption is what a bare first coat takes more than a
sealed one (handbook §8).
"""

from typing import Annotated

from pydantic import Field

from amber_gable.domain.base import Fraction, Name, Record
from amber_gable.domain.profile import BattenProfile, LapProfile


class Substrate(Record):
    """One kind of surface. Units: heat capacity J/(m² K), U W/(m² K), moisture limit % of dry mass."""

    code: str
    name: Name
    family: str
    heat_capacity: Annotated[float, Field(gt=0)]
    u_behind: Annotated[float, Field(ge=0)]
    emissivity: Fraction
    profile_factor: Annotated[float, Field(ge=1, le=3)]
    absorption_bare: Annotated[float, Field(ge=1, le=2)]
    texture: str
    moisture_limit_pct: float | None = None

    @property
    def is_trim(self) -> bool:
        """Painted after the field it frames (school "fields first")."""
        return self.code.endswith("-trim")


def _lap(exposure_m: float, butt_m: float) -> float:
    return LapProfile(exposure_m=exposure_m, butt_m=butt_m).factor


def _batten(pitch_m: float, thickness_m: float) -> float:
    return BattenProfile(pitch_m=pitch_m, batten_width_m=0.05, batten_thickness_m=thickness_m).factor


_WOOD_LIMIT = 15.0
_ROWS = [
    # code, name, family, C, U, eps, profile, absorption, texture, moisture limit
    ("wood-lap", "Wood lap siding", "wood", 10e3, 0.5, 0.90, _lap(0.150, 0.012), 1.15, "lap", _WOOD_LIMIT),
    ("wood-shingle", "Wood shingle", "wood", 10e3, 0.5, 0.90, 1.22, 1.20, "shingle", _WOOD_LIMIT),
    ("board-batten", "Board and batten", "wood", 14e3, 0.5, 0.90, _batten(0.300, 0.020), 1.15, "batten", 15.0),
    ("wood-trim", "Wood trim and fascia", "wood", 14e3, 0.5, 0.90, 1.00, 1.10, "plain", _WOOD_LIMIT),
    ("fibre-cement-lap", "Fibre-cement lap", "cement", 14e3, 0.5, 0.90, _lap(0.150, 0.008), 1.10, "lap", None),
    ("vinyl-siding", "Vinyl siding", "vinyl", 2e3, 0.5, 0.85, _lap(0.110, 0.012), 1.00, "lap", None),
    ("aluminium-siding", "Aluminium siding", "metal", 4e3, 0.5, 0.90, _lap(0.200, 0.012), 1.00, "lap", None),
    ("metal-door", "Steel or aluminium door", "metal", 4e3, 1.5, 0.90, 1.10, 1.00, "plain", None),
    ("metal-roof", "Profiled metal roofing", "metal", 4e3, 0.3, 0.85, 1.12, 1.00, "rib", None),
    ("stucco-smooth", "Stucco, smooth", "masonry", 35e3, 0.5, 0.90, 1.10, 1.30, "stucco", None),
    ("stucco-medium", "Stucco, medium texture", "masonry", 35e3, 0.5, 0.90, 1.30, 1.40, "stucco", None),
    ("stucco-heavy", "Stucco, heavy texture", "masonry", 35e3, 0.5, 0.90, 1.65, 1.50, "stucco", None),
    ("brick", "Brick", "masonry", 140e3, 1.2, 0.90, 1.15, 1.30, "brick", None),
    ("block", "Concrete block", "masonry", 150e3, 1.5, 0.90, 1.20, 1.50, "brick", None),
    ("concrete-slab", "Concrete porch or slab", "masonry", 200e3, 0.0, 0.90, 1.05, 1.30, "plain", None),
    ("wood-deck", "Wood deck", "wood", 18e3, 0.0, 0.90, 1.08, 1.35, "board", 17.0),
]
SUBSTRATES: dict[str, Substrate] = {
    row[0]: Substrate(
        code=row[0],
        name=row[1],
        family=row[2],
        heat_capacity=row[3],
        u_behind=row[4],
        emissivity=row[5],
        profile_factor=row[6],
        absorption_bare=row[7],
        texture=row[8],
        moisture_limit_pct=row[9],
    )
    for row in _ROWS
}


def substrate(code: str) -> Substrate:
    """The substrate of that code. Raises ValueError naming the known codes."""
    try:
        return SUBSTRATES[code]
    except KeyError:
        raise ValueError(f"substrate '{code}' is not known; one of: {', '.join(SUBSTRATES)}") from None
