"""What is painted: a table of substrates with their thermal and surface figures.

Heat capacity and U are per m² of face (docs/physics.md §4); emissivity is that of a painted surface, bare metal by
table.
Profile factor is true surface per plan area (docs/trade.md §7). Absorption is what a bare first coat takes more than a
sealed one (docs/trade.md §8).
"""

from collections.abc import Iterator
from typing import Annotated

from pydantic import Field

from amber_gable.domain.base import Fraction, Name, Record
from amber_gable.domain.errors import UnknownCode
from amber_gable.domain.house.profile import BattenProfile, LapProfile


class Substrate(Record):
    """One kind of surface. Units: heat capacity J/(m² K), U W/(m² K)."""

    code: str
    name: Name
    family: str
    heat_capacity: Annotated[float, Field(gt=0)]
    u_behind: Annotated[float, Field(ge=0)]
    emissivity: Fraction
    profile_factor: Annotated[float, Field(ge=1, le=3)]
    absorption_bare: Annotated[float, Field(ge=1, le=2)]
    texture: str
    tags: frozenset[str] = frozenset()

    def __repr_args__(self) -> Iterator[tuple[str | None, object]]:
        # Digests are taken of this, and a set has no order that the next run would know.
        for name, value in super().__repr_args__():
            yield name, sorted(value) if isinstance(value, frozenset) else value

    @property
    def is_trim(self) -> bool:
        """Painted after the field it frames (school "fields first")."""
        return self.code.endswith("-trim")


def _lap(exposure_m: float, butt_m: float) -> float:
    return LapProfile(exposure_m=exposure_m, butt_m=butt_m).factor


def _batten(pitch_m: float, thickness_m: float) -> float:
    return BattenProfile(pitch_m=pitch_m, batten_width_m=0.05, batten_thickness_m=thickness_m).factor


_ROWS = [
    # code, name, family, C, U, eps, profile, absorption, texture
    ("wood-lap", "Wood lap siding", "wood", 10e3, 0.5, 0.90, _lap(0.150, 0.012), 1.15, "lap"),
    ("wood-shingle", "Wood shingle", "wood", 10e3, 0.5, 0.90, 1.22, 1.20, "shingle"),
    ("board-batten", "Board and batten", "wood", 14e3, 0.5, 0.90, _batten(0.300, 0.020), 1.15, "batten"),
    ("rough-plywood", "Rough-sawn plywood", "wood", 10e3, 0.5, 0.90, 1.08, 1.25, "plain"),
    ("grooved-plywood", "Grooved plywood", "wood", 10e3, 0.5, 0.90, _batten(0.300, 0.006), 1.20, "batten"),
    ("log-wall", "Log wall", "wood", 80e3, 0.6, 0.90, 1.30, 1.20, "lap"),
    ("wood-trim", "Wood trim and fascia", "wood", 14e3, 0.5, 0.90, 1.00, 1.10, "plain"),
    ("fibre-cement-lap", "Fibre-cement lap", "cement", 14e3, 0.5, 0.90, _lap(0.150, 0.008), 1.10, "lap"),
    ("vinyl-siding", "Vinyl siding", "vinyl", 2e3, 0.5, 0.85, _lap(0.110, 0.012), 1.00, "lap"),
    ("plastic-trim", "Cellular plastic trim", "vinyl", 6e3, 0.5, 0.90, 1.00, 1.00, "plain"),
    ("aluminium-siding", "Aluminium siding", "metal", 4e3, 0.5, 0.90, _lap(0.200, 0.012), 1.00, "lap"),
    ("metal-door", "Steel or aluminium door", "metal", 4e3, 1.5, 0.90, 1.10, 1.00, "plain"),
    ("glass-fibre-door", "Glass-fibre door", "composite", 5e3, 1.2, 0.90, 1.10, 1.00, "plain"),
    ("metal-roof", "Profiled metal roofing", "metal", 4e3, 0.3, 0.85, 1.12, 1.00, "rib"),
    ("stucco-smooth", "Stucco, smooth", "masonry", 35e3, 0.5, 0.90, 1.10, 1.30, "stucco"),
    ("stucco-medium", "Stucco, medium texture", "masonry", 35e3, 0.5, 0.90, 1.30, 1.40, "stucco"),
    ("stucco-heavy", "Stucco, heavy texture", "masonry", 120e3, 0.5, 0.90, 1.65, 1.50, "stucco"),
    ("brick", "Brick", "masonry", 140e3, 1.2, 0.90, 1.15, 1.30, "brick"),
    ("block", "Concrete block", "masonry", 150e3, 1.5, 0.90, 1.20, 1.50, "brick"),
    ("concrete-slab", "Concrete porch or slab", "masonry", 200e3, 0.0, 0.90, 1.05, 1.30, "plain"),
    ("wood-beam", "Wood beam or post", "wood", 18e3, 0.0, 0.90, 1.00, 1.15, "plain"),
    ("engineered-lap", "Engineered wood lap", "wood", 12e3, 0.5, 0.90, _lap(0.180, 0.010), 1.05, "lap"),
    ("fibre-cement-panel", "Fibre-cement panel", "cement", 14e3, 0.5, 0.90, 1.02, 1.10, "plain"),
    ("vinyl-trim", "Vinyl windows or soffit", "vinyl", 2e3, 0.5, 0.85, 1.05, 1.00, "plain"),
    ("aluminium-trim", "Aluminium soffit or gutter", "metal", 4e3, 0.5, 0.90, 1.05, 1.00, "plain"),
    ("metal-railing", "Metal railing", "metal", 6e3, 0.0, 0.90, 1.00, 1.00, "plain"),
    ("galvanised-trim", "Galvanised gutter or flashing", "metal", 4e3, 0.5, 0.90, 1.05, 1.00, "plain"),
    ("galvanised-roof", "Galvanised roof sheet", "metal", 4e3, 0.3, 0.85, 1.12, 1.00, "rib"),
    ("standing-seam-roof", "Standing-seam steel roof", "metal", 4e3, 0.3, 0.85, 1.10, 1.00, "rib"),
    ("zinc-roof", "Zinc sheet roof", "metal", 4e3, 0.3, 0.85, 1.08, 1.00, "rib"),
    ("copper-trim", "Copper gutter or flashing", "metal", 4e3, 0.5, 0.90, 1.05, 1.00, "plain"),
    ("limestone", "Limestone", "masonry", 140e3, 1.2, 0.90, 1.10, 1.30, "brick"),
    ("concrete-wall", "Poured concrete wall", "masonry", 150e3, 1.5, 0.90, 1.05, 1.25, "plain"),
    ("tile-roof", "Clay tile roof", "masonry", 40e3, 0.3, 0.90, 1.40, 1.30, "shingle"),
    ("concrete-tile-roof", "Concrete tile roof", "masonry", 45e3, 0.3, 0.90, 1.35, 1.40, "shingle"),
    ("fibre-cement-roof", "Fibre-cement roof sheets", "cement", 14e3, 0.3, 0.90, 1.15, 1.20, "rib"),
    ("membrane-roof", "Low-slope membrane roof", "membrane", 8e3, 0.3, 0.90, 1.00, 1.00, "plain"),
    ("wood-shingle-roof", "Wood shingle roof", "wood", 9e3, 0.3, 0.90, 1.25, 1.35, "shingle"),
    ("bitumen-roof", "Bitumen roof", "membrane", 8e3, 0.3, 0.90, 1.05, 1.00, "plain"),
    ("single-ply-roof", "Single-ply roof", "membrane", 4e3, 0.3, 0.90, 1.00, 1.00, "plain"),
    ("hardwood-deck", "Hardwood deck", "wood", 24e3, 0.0, 0.90, 1.08, 1.10, "board"),
    ("composite-deck", "Composite deck", "composite", 22e3, 0.0, 0.90, 1.08, 1.00, "board"),
    ("porch-boards", "Wooden porch floor", "wood", 18e3, 0.0, 0.90, 1.03, 1.20, "board"),
    ("wood-deck", "Wood deck", "wood", 18e3, 0.0, 0.90, 1.08, 1.35, "board"),
]
_TAGS = {
    "wood-lap": "wood siding",
    "wood-shingle": "wood siding rough",
    "board-batten": "wood siding",
    "rough-plywood": "wood siding rough plywood",
    "grooved-plywood": "wood siding rough plywood",
    "log-wall": "wood siding log",
    "wood-trim": "wood trim",
    "wood-beam": "wood beam",
    "engineered-lap": "wood siding engineered",
    "fibre-cement-lap": "fibre-cement siding",
    "fibre-cement-panel": "fibre-cement siding",
    "vinyl-siding": "vinyl siding",
    "vinyl-trim": "vinyl trim",
    "plastic-trim": "vinyl trim cellular",
    "aluminium-siding": "metal aluminium siding",
    "aluminium-trim": "metal aluminium trim gutter",
    "metal-door": "metal steel door",
    "glass-fibre-door": "glass-fibre door",
    "metal-railing": "metal steel railing",
    "metal-roof": "metal steel roof",
    "galvanised-trim": "metal galvanised trim gutter",
    "galvanised-roof": "metal galvanised roof",
    "standing-seam-roof": "metal steel roof seam",
    "zinc-roof": "metal galvanised roof zinc",
    "copper-trim": "metal copper trim gutter",
    "stucco-smooth": "masonry stucco",
    "stucco-medium": "masonry stucco",
    "stucco-heavy": "masonry stucco",
    "brick": "masonry brick",
    "block": "masonry block",
    "limestone": "masonry limestone",
    "concrete-wall": "masonry concrete",
    "concrete-slab": "masonry concrete floor",
    "tile-roof": "masonry roof tile clay",
    "concrete-tile-roof": "masonry roof tile",
    "fibre-cement-roof": "fibre-cement roof",
    "membrane-roof": "membrane roof",
    "wood-shingle-roof": "wood roof rough",
    "bitumen-roof": "membrane roof bitumen",
    "single-ply-roof": "membrane roof single-ply",
    "hardwood-deck": "wood deck hardwood",
    "composite-deck": "composite deck",
    "porch-boards": "wood floor",
    "wood-deck": "wood deck",
}
"""What rules and data sheets ask of a surface."""

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
        tags=frozenset(_TAGS[row[0]].split()),
    )
    for row in _ROWS
}


def substrate(code: str) -> Substrate:
    """The substrate of that code. Raises ValueError naming the known codes."""
    try:
        return SUBSTRATES[code]
    except KeyError:
        raise UnknownCode(f"substrate '{code}' is not known; one of: {', '.join(SUBSTRATES)}") from None
