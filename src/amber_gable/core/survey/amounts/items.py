"""What there is to paint on an item: its parts, with counts and areas m², after docs/trade.md §7."""

from dataclasses import dataclass

from amber_gable.domain.house.items import (
    Casement,
    Chimney,
    DoorItem,
    GarageDoor,
    GutterRun,
    ItemSpec,
    Railing,
    SashWindow,
    ShutterPair,
    SignBand,
    Stair,
)

PANEL_FACTOR_STEP, PANEL_FACTOR_MOST = 0.05, 1.30
LOUVRE_FACTOR = 1.75
SECTION_FACTOR = 1.10
SASH_GIRTH_M, BAR_GIRTH_M = 0.09, 0.05
SHUTTER_EDGE_M = 0.032


@dataclass(frozen=True)
class Part:
    """`count` pieces of `sizes` (m) each, times `factor`. An area when sizes has two members, else a length × girth."""

    name: str
    count: int
    sizes: tuple[float, float]
    factor: float = 1.0

    @property
    def area_m2(self) -> float:
        return self.count * self.sizes[0] * self.sizes[1] * self.factor


def item_parts(spec: ItemSpec) -> tuple[Part, ...]:
    """The parts of an item in the order in which they are painted."""
    if isinstance(spec, DoorItem):
        return _door(spec)
    if isinstance(spec, SashWindow | Casement):
        return _window(spec)
    if isinstance(spec, ShutterPair):
        both = 2 * (LOUVRE_FACTOR if spec.louvred else 1.0)
        around = 2 * (spec.leaf_width_m + spec.height_m)
        return (
            Part("leaves, both sides", 2, (spec.leaf_width_m, spec.height_m), both),
            Part("edges", 2, (around, SHUTTER_EDGE_M)),
        )
    if isinstance(spec, GarageDoor):
        return (Part("sections", spec.sides, (spec.width_m, spec.height_m), SECTION_FACTOR * (1 - spec.glazed)),)
    if isinstance(spec, Railing):
        return (
            Part("balusters, 2 sides × openness", 2, (spec.length_m, spec.height_m), openness(spec)),
            Part("top and bottom rail", 2, (spec.length_m, spec.rail_girth_m)),
        )
    if isinstance(spec, GutterRun):
        gutter = Part("gutter", 1, (spec.length_m, spec.girth_m))
        down = Part("downspouts", spec.downspouts, (spec.downspout_m, spec.downspout_girth_m))
        return (gutter, down) if spec.downspouts else (gutter,)
    if isinstance(spec, SignBand):
        edge = Part("edges", 1, (2 * (spec.width_m + spec.height_m), spec.depth_m))
        return (Part("band", 1, (spec.width_m, spec.height_m)), *((edge,) if spec.depth_m else ()))
    if isinstance(spec, Stair):
        return _stair(spec)
    return _chimney(spec)


def item_area(spec: ItemSpec) -> float:
    """Surface to paint on an item, m²."""
    return sum(p.area_m2 for p in item_parts(spec))


def openness(spec: Railing) -> float:
    """Painted surface of square balusters per side and plan area: half their girth per pitch, 2 b / p."""
    return 2 * spec.baluster_m / spec.pitch_m


def _door(spec: DoorItem) -> tuple[Part, ...]:
    factor = min(1 + PANEL_FACTOR_STEP * spec.panels, PANEL_FACTOR_MOST) * (1 - spec.glazed)
    around = 2 * spec.height_m + spec.width_m
    return (
        Part("leaf", spec.sides, (spec.width_m, spec.height_m), factor),
        Part("frame", spec.sides, (around, spec.frame_girth_m)),
    )


def _window(spec: SashWindow | Casement) -> tuple[Part, ...]:
    """Linear method: members by length × girth, glass left out."""
    if isinstance(spec, SashWindow):
        leaves, leaf_w, leaf_h, name = 2, spec.width_m, spec.height_m / 2, "sashes"
    else:
        leaves, leaf_w, leaf_h, name = spec.leaves, spec.width_m / spec.leaves, spec.height_m, "leaves"
    bars = (spec.panes_across - 1) * leaf_h + (spec.panes_down - 1) * leaf_w
    parts = [Part(name, leaves * spec.sides, (2 * (leaf_w + leaf_h), SASH_GIRTH_M))]
    if bars:
        parts.append(Part("glazing bars", leaves * spec.sides, (bars, BAR_GIRTH_M)))
    parts.append(Part("frame and sill", spec.sides, (2 * (spec.width_m + spec.height_m), spec.frame_girth_m)))
    return tuple(parts)


def _stair(spec: Stair) -> tuple[Part, ...]:
    sides = 1 if spec.closed else 2
    treads = Part(
        "treads" if spec.closed else "treads, top and under", spec.treads * sides, (spec.width_m, spec.going_m)
    )
    slope = (spec.going_m**2 + spec.rise_m**2) ** 0.5 * spec.treads
    strings = Part("strings, outer and inner", 4, (slope, 0.25))
    if not spec.closed:
        return (treads, strings)
    return (treads, Part("risers", spec.treads, (spec.width_m, spec.rise_m)), strings)


def _chimney(spec: Chimney) -> tuple[Part, ...]:
    return (
        Part("front and back", 2, (spec.width_m, spec.height_m)),
        Part("sides", 2, (spec.depth_m, spec.height_m)),
    )
