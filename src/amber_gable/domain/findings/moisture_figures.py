"""How substrates take up water and give it off again (docs/physics.md §6)."""

from dataclasses import dataclass

from amber_gable.domain.house.substrates import Substrate


@dataclass(frozen=True)
class WoodFigures:
    """A board near the meter's pins: hours in which it comes to 1/e of the way to its air at 20 °C, % of dry mass it
    reads when washed, kg/m² of water that raise it by 1 %."""

    time_h: float
    washed_pct: float
    water_per_pct: float


@dataclass(frozen=True)
class MasonryFigures:
    """The zone that takes part in days: kg/m² of water it holds full, and how full a washing leaves it (0-1)."""

    holds_kg: float
    washed: float


MoistureFigures = WoodFigures | MasonryFigures
OPEN_BELOW = 0.8
"""A board that dries from both sides takes this share of the time of one that dries from one."""
_WOOD = {
    "wood-lap": WoodFigures(60.0, 18.0, 0.09),
    "wood-shingle": WoodFigures(45.0, 19.0, 0.06),
    "board-batten": WoodFigures(65.0, 18.0, 0.10),
    "wood-trim": WoodFigures(60.0, 17.0, 0.09),
    "wood-beam": WoodFigures(120.0, 18.0, 0.20),
    "engineered-lap": WoodFigures(90.0, 16.0, 0.08),
    "wood-deck": WoodFigures(140.0, 20.0, 0.13),
    "rough-plywood": WoodFigures(55.0, 19.0, 0.07),
    "grooved-plywood": WoodFigures(55.0, 19.0, 0.07),
    "log-wall": WoodFigures(200.0, 18.0, 0.35),
    "wood-shingle-roof": WoodFigures(45.0, 22.0, 0.06),
    "hardwood-deck": WoodFigures(220.0, 16.0, 0.16),
    "porch-boards": WoodFigures(110.0, 18.0, 0.11),
}
"""Times of docs/physics.md §6; the rest are assumptions of ours: mass of a board of its usual thickness at 450 kg/m³,
and what a meter reads in siding and decks on the day after they were washed."""
_MASONRY = {
    "stucco-smooth": MasonryFigures(3.0, 0.85),
    "stucco-medium": MasonryFigures(4.0, 0.9),
    "stucco-heavy": MasonryFigures(8.0, 0.9),
    "brick": MasonryFigures(3.0, 0.9),
    "block": MasonryFigures(4.0, 0.95),
    "limestone": MasonryFigures(3.0, 0.9),
    "concrete-wall": MasonryFigures(2.5, 0.8),
    "concrete-slab": MasonryFigures(3.0, 0.9),
    "tile-roof": MasonryFigures(2.0, 0.9),
    "concrete-tile-roof": MasonryFigures(2.5, 0.9),
    "fibre-cement-lap": MasonryFigures(1.0, 0.7),
    "fibre-cement-panel": MasonryFigures(1.0, 0.7),
    "fibre-cement-roof": MasonryFigures(1.0, 0.8),
}
"""Brick 2 to 4 kg/m², thick render 6 to 10 (docs/physics.md §6); the others lie between by how they drink:
assumptions."""


def moisture_figures(substrate: Substrate, *, open_below: bool = False) -> MoistureFigures | None:
    """None for what holds no water. open_below: a deck with air under it."""
    wood = _WOOD.get(substrate.code)
    if wood is not None and open_below:
        return WoodFigures(wood.time_h * OPEN_BELOW, wood.washed_pct, wood.water_per_pct)
    return wood or _MASONRY.get(substrate.code)
