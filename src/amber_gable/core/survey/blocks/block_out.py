"""The faces and zones of a house that is blocked out: walls with the outlines the roof gives them, slopes, trim.

Seen from the street the left side looks a quarter turn clockwise of where the front looks.
"""

from amber_gable.core.survey.blocks.block_faces import Made, made_face, roofed, walled
from amber_gable.core.survey.blocks.wings import slope_less_wings, wall_pieces, wing_outlines, wing_slopes
from amber_gable.core.survey.drawing.house_plan import along, outward
from amber_gable.domain.house.block_out import BlockOut, Roof, Side, Wing
from amber_gable.domain.house.outline import Gable, LeanTo, Outline, Rectangle, RoofEdge, RoofSlope
from amber_gable.domain.house.zone_area import Region

FLAT_DEG = 2.0
"""Fall of a flat roof."""
NAMES = {Side.FRONT: "Front", Side.LEFT: "Left side", Side.BACK: "Back", Side.RIGHT: "Right side"}
FRONT, LEFT, BACK, RIGHT = NAMES.values()
Spot = tuple[float, float]


def blocked_out(block: BlockOut) -> list[Made]:
    """Front, left, back and right wall, then the wings' walls, then what of the roof is painted; ids are provisional.

    Raises ValueError where a wing cannot stand as it was told.
    """
    walls = [made for side in Side for made in _walls(block, side)]
    walls += [made for wing in block.wings for made in _wing_walls(block, wing)]
    return walls + (_slopes(block) if block.roof_substrate is not None else [])


def _outline(block: BlockOut, side: Side) -> Outline:
    across = side in (Side.FRONT, Side.BACK)
    width, eaves, rise = block.side_m(side), block.eaves_m, block.rise_m
    if (block.roof is Roof.GABLE_ALONG and not across) or (block.roof is Roof.GABLE_TO_STREET and across):
        return Gable(width_m=width, eave_height_m=eaves, rise_m=rise)
    if block.roof is Roof.LEAN_TO and side is Side.BACK:
        return Rectangle(width_m=width, height_m=eaves + rise)
    if block.roof is Roof.LEAN_TO and not across:
        # The back is high: seen from outside it lies to the left of the left side, to the right of the right one.
        ends = (eaves + rise, eaves) if side is Side.LEFT else (eaves, eaves + rise)
        return LeanTo(width_m=width, left_m=ends[0], right_m=ends[1])
    return Rectangle(width_m=width, height_m=eaves)


def _walls(block: BlockOut, side: Side) -> list[Made]:
    whole = _outline(block, side)
    gable = (block.eaves_m, block.eaves_m + block.rise_m) if isinstance(whole, Gable) else None
    pieces, made = wall_pieces(block, side, whole), []
    for number, (begins, outline, seen) in enumerate(pieces):
        name = NAMES[side] if len(pieces) == 1 else f"{NAMES[side]}, {('left', 'right')[number > 0]} of the wing"
        face = made_face(
            block,
            side,
            name,
            outline,
            overhang_m=0.0 if gable else block.overhang_m,
            plan=_from(_corner(block, side), block, side, begins) if block.wings else None,
        )
        made.append(walled(block, face, gable, Region(corners=seen.corners) if seen else None))
    return made


def _corner(block: BlockOut, side: Side) -> Spot:
    """Where a side's left corner stands, as one stands before it; the front's is at the origin."""
    at = (0.0, 0.0)
    for passed in (Side.FRONT, Side.RIGHT, Side.BACK):
        if side is passed:
            return at
        at = _from(at, block, passed, block.side_m(passed))
    return at


def _from(at: Spot, block: BlockOut, side: Side, run: float, out: float = 0.0) -> Spot:
    """So far along a side from a spot, and out from it."""
    looks = block.looks_deg + side.turned_deg
    (ax, ay), (ox, oy) = along(looks), outward(looks)
    return at[0] + ax * run + ox * out, at[1] + ay * run + oy * out


def _wing_walls(block: BlockOut, wing: Wing) -> list[Made]:
    outer, left, right = wing_outlines(wing)
    corner = _from(_corner(block, wing.side), block, wing.side, wing.from_left_m)
    far = _from(corner, block, wing.side, 0.0, wing.depth_m)
    other = _from(far, block, wing.side, wing.width_m)
    made, side = [], wing.side
    for outline, looks, spot in ((left, side.turn(1), corner), (outer, side, far), (right, side.turn(3), other)):
        gable = (wing.eaves_m, wing.eaves_m + wing.rise_m) if isinstance(outline, Gable) else None
        under = 0.0 if gable or isinstance(outline, LeanTo) else block.overhang_m
        name = f"{wing.name}, {NAMES[looks].lower()}"
        made.append(walled(block, made_face(block, looks, name, outline, overhang_m=under, plan=spot), gable))
    return made


def _slopes(block: BlockOut) -> list[Made]:
    """Roof planes out to the eaves' edges; verges without overhang."""
    pitch, run = block.pitch_deg, block.run_m
    out = block.overhang_m
    match block.roof:
        case Roof.FLAT:
            flat = Rectangle(width_m=block.width_m, height_m=block.depth_m)
            planes: list[tuple[Side, Outline, float]] = [(Side.FRONT, flat, FLAT_DEG)]
        case Roof.LEAN_TO:
            planes = [(Side.FRONT, RoofSlope(eave_m=block.width_m, run_m=run + out), pitch)]
        case Roof.GABLE_ALONG | Roof.GABLE_TO_STREET:
            along_street = block.roof is Roof.GABLE_ALONG
            slope = RoofSlope(eave_m=block.width_m if along_street else block.depth_m, run_m=run + out)
            sides = (Side.FRONT, Side.BACK) if along_street else (Side.LEFT, Side.RIGHT)
            planes = [(side, slope, pitch) for side in sides]
        case Roof.HIP:
            hips = {"left": RoofEdge.HIP, "right": RoofEdge.HIP}
            planes = [(s, RoofSlope(eave_m=block.side_m(s) + 2 * out, run_m=run + out, **hips), pitch) for s in Side]
    corner = out if block.roof is Roof.HIP else 0.0
    made: list[Made] = []
    for side, outline, tilt in planes:
        name = "Roof" if len(planes) == 1 else f"Roof, {NAMES[side].lower()}"
        if isinstance(outline, RoofSlope):
            outline = slope_less_wings(block, side, outline, tilt, corner)
        made.append(roofed(block, made_face(block, side, name, outline, tilt)))
    for wing in block.wings:
        for side, outline, tilt in wing_slopes(block, wing):
            name = f"{wing.name}, roof {NAMES[side].lower()}"
            made.append(roofed(block, made_face(block, side, name, outline, tilt or FLAT_DEG)))
    return made
