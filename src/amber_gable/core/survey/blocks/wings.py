"""Wings of a blocked-out house: what they hide of the wall they stand against, and where their roof runs into its own.

Coordinates on a wall are m from its left corner as one stands before it, and up; on a roof m along the eave and up the
slope.
"""

from math import cos, radians, sin, tan

from shapely import Polygon, box, make_valid, transform, unary_union
from shapely.geometry.base import BaseGeometry
from shapely.geometry.polygon import orient

from amber_gable.domain.house.block_out import BlockOut, Roof, Side, Wing, WingRoof
from amber_gable.domain.house.outline import FreeOutline, Gable, LeanTo, Outline, Rectangle, RoofSlope

SLIVER_M2 = 1e-4
GRAIN_DIGITS = 4
"""Of metres, finer than any tape: corners that lie nearer are one."""


def wall_pieces(block: BlockOut, side: Side, outline: Outline) -> list[tuple[float, Outline, FreeOutline | None]]:
    """What the wings leave of a wall: where each piece begins, its outline, and, where its foot is hidden all along,
    the part of it that is seen. Raises ValueError for a wing that stands higher than the wall."""
    wings = [w for w in block.wings if w.side is side]
    if not wings:
        return [(0.0, outline, None)]
    wall = Polygon(outline.points(90.0))
    for wing in wings:
        _check(block, wing, wall)
    left = _rounded(wall.difference(unary_union([_section(w) for w in wings])))
    out: list[tuple[float, Outline, FreeOutline | None]] = []
    for piece in sorted(polygons(left), key=lambda p: p.bounds[0]):
        if piece.bounds[1] > SLIVER_M2:
            out.append((0.0, outline, _free(piece)))
        else:
            out.append((piece.bounds[0], _outline(piece), None))
    return out


def polygons(shape: BaseGeometry) -> list[Polygon]:
    """The pieces of a shape that are more than slivers."""
    parts = getattr(shape, "geoms", [shape])
    return [p for p in parts if isinstance(p, Polygon) and p.area > SLIVER_M2]


def _section(wing: Wing) -> Polygon:
    """What of the wall lies behind the wing."""
    left, right, eaves = wing.from_left_m, wing.from_left_m + wing.width_m, wing.eaves_m
    if wing.roof is WingRoof.GABLE_OUT:
        peak = ((left + right) / 2, eaves + wing.rise_m)
        return Polygon([(left, 0), (right, 0), (right, eaves), peak, (left, eaves)])
    return box(left, 0, right, eaves + (wing.rise_m if wing.roof is WingRoof.LEAN_TO else 0.0))


def _check(block: BlockOut, wing: Wing, wall: Polygon) -> None:
    section = _section(wing)
    if wing.roof is WingRoof.GABLE_OUT and has_slope(block, wing.side):
        ridge, most = wing.eaves_m + wing.rise_m, block.eaves_m + block.rise_m
        if ridge > most + 1e-6:
            raise ValueError(f"{wing.name}: its ridge ({ridge:.2f} m) stands above the house’s ({most:.2f} m)")
    elif section.difference(wall).area > SLIVER_M2:
        raise ValueError(
            f"{wing.name}: its roof reaches {section.bounds[3]:.2f} m and stands above the wall it meets; lower its "
            "eaves or its pitch"
        )


def has_slope(block: BlockOut, side: Side) -> bool:
    """Whether the house's roof falls to that side."""
    match block.roof:
        case Roof.GABLE_ALONG:
            return side in (Side.FRONT, Side.BACK)
        case Roof.GABLE_TO_STREET:
            return side in (Side.LEFT, Side.RIGHT)
        case Roof.HIP:
            return True
        case Roof.LEAN_TO:
            return side is Side.FRONT
        case Roof.FLAT:
            return False


def _outline(piece: Polygon) -> Outline:
    left, _, right, top = piece.bounds
    if abs(piece.area - (right - left) * top) < SLIVER_M2:
        return Rectangle(width_m=round(right - left, 6), height_m=round(top, 6))
    return _free(piece, left)


def _rounded(shape: BaseGeometry) -> BaseGeometry:
    return make_valid(transform(shape, lambda corners: corners.round(GRAIN_DIGITS)))


def _free(piece: Polygon, left: float = 0.0) -> FreeOutline:
    clean = max(polygons(_rounded(piece)), key=lambda p: p.area).simplify(1e-5)
    corners = list(orient(clean).exterior.coords)[:-1]
    return FreeOutline(corners=tuple((round(max(x - left, 0.0), 6), round(max(y, 0.0), 6)) for x, y in corners))


def wing_outlines(wing: Wing) -> tuple[Outline, Outline, Outline]:
    """Its outer wall, and its left and right wall as one stands before the outer one."""
    width, depth, eaves, rise = wing.width_m, wing.depth_m, wing.eaves_m, wing.rise_m
    level = Rectangle(width_m=depth, height_m=eaves)
    outer = Rectangle(width_m=width, height_m=eaves)
    match wing.roof:
        case WingRoof.LEAN_TO:
            left = LeanTo(width_m=depth, left_m=eaves + rise, right_m=eaves)
            return outer, left, LeanTo(width_m=depth, left_m=eaves, right_m=eaves + rise)
        case WingRoof.GABLE_OUT:
            return Gable(width_m=width, eave_height_m=eaves, rise_m=rise), level, level
        case WingRoof.RIDGE_ALONG:
            end = Gable(width_m=depth, eave_height_m=eaves, rise_m=rise)
            return outer, end, end
        case WingRoof.FLAT:
            return outer, level, level


def _over_eaves(block: BlockOut, wing: Wing) -> tuple[float, float]:
    """How high the wing's ridge stands above the house's eaves, and how far it runs on into the house's roof, level; 0
    where it does not."""
    if wing.roof is not WingRoof.GABLE_OUT or not has_slope(block, wing.side):
        return 0.0, 0.0
    high = max(wing.eaves_m + wing.rise_m - block.eaves_m, 0.0)
    return high, high / tan(radians(block.pitch_deg))


def slope_less_wings(block: BlockOut, side: Side, slope: RoofSlope, tilt_deg: float, corner_m: float) -> Outline:
    """A slope of the house without what lies under its wings' roofs; `corner_m`: where the wall's left corner is on the
    eave. Raises ValueError where a wing's roof does not meet it."""
    plane = Polygon(slope.points(tilt_deg))
    left: BaseGeometry = plane
    for wing in (w for w in block.wings if w.side is side):
        high, ext = _over_eaves(block, wing)
        if high <= 0:
            continue
        half = wing.width_m * high / wing.rise_m / 2
        middle = corner_m + wing.from_left_m + wing.width_m / 2
        wall, peak = (over / cos(radians(tilt_deg)) for over in (block.overhang_m, block.overhang_m + ext))
        under = [(middle - half, 0), (middle + half, 0), (middle + half, wall), (middle, peak), (middle - half, wall)]
        hidden = Polygon(under)
        if hidden.difference(plane.buffer(1e-6)).area > SLIVER_M2:
            raise ValueError(f"{wing.name}: its ridge runs past the house’s hip; move it or lower its pitch")
        left = left.difference(hidden)
    return slope if left.equals(plane) else _free(polygons(left)[0])


def wing_slopes(block: BlockOut, wing: Wing) -> list[tuple[Side, Outline, float]]:
    """The planes of its roof out to the eaves' edges: which side they fall to, outline, pitch."""
    out, pitch = block.overhang_m, wing.pitch_deg
    match wing.roof:
        case WingRoof.LEAN_TO:
            return [(wing.side, RoofSlope(eave_m=wing.width_m, run_m=wing.depth_m + out), pitch)]
        case WingRoof.RIDGE_ALONG:
            away, back = (RoofSlope(eave_m=wing.width_m, run_m=wing.run_m + o) for o in (out, 0.0))
            return [(wing.side, away, pitch), (wing.side.turn(2), back, pitch)]
        case WingRoof.FLAT:
            return [(wing.side, Rectangle(width_m=wing.width_m, height_m=wing.depth_m), 0.0)]
        case WingRoof.GABLE_OUT:
            high, ext = _over_eaves(block, wing)
            planes = []
            for quarter in (1, 3):
                plain = RoofSlope(eave_m=wing.depth_m, run_m=wing.run_m + out)
                outline: Outline = plain
                if high > 0:
                    outline = _into_the_roof(plain, pitch, high, ext, house_left=quarter == 1)
                planes.append((wing.side.turn(quarter), outline, pitch))
            return planes


def _into_the_roof(plain: RoofSlope, pitch: float, high: float, ext: float, *, house_left: bool) -> FreeOutline:
    """The slope of a wing whose ridge runs on into the house's roof, along the valley."""
    depth, length = plain.eave_m, plain.run_m / cos(radians(pitch))
    valley = max(length - high / sin(radians(pitch)), 0.0)
    corners = [(ext, 0.0), (ext + depth, 0.0), (ext + depth, length), (0.0, length)]
    if valley > 1e-6:
        corners.append((ext, valley))
    if not house_left:
        corners = [(ext + depth - x, y) for x, y in reversed(corners)]
    return FreeOutline(corners=tuple((round(x, 6), round(y, 6)) for x, y in corners))
