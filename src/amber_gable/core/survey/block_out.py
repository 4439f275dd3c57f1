"""The faces and zones of a house that is blocked out: walls with the outlines the roof gives them, slopes, trim.

Seen from the street the left side looks a quarter turn clockwise of where the front looks.
"""

from amber_gable.domain.block_out import BlockOut, Roof
from amber_gable.domain.outline import Gable, LeanTo, Outline, Rectangle, RoofEdge, RoofSlope
from amber_gable.domain.survey import Face, Zone
from amber_gable.domain.zone_area import Band, FaceArea, TrimArea, TrimPart, TrimRun, ZoneArea

FRONT, LEFT, BACK, RIGHT = "Front", "Left side", "Back", "Right side"
_TURNED = {FRONT: 0.0, LEFT: 90.0, BACK: 180.0, RIGHT: 270.0}
CORNER_GIRTH_M, CORNER_COVER_M, FASCIA_GIRTH_M, CASING_GIRTH_M, CASING_COVER_M = 0.2, 0.1, 0.2, 0.15, 0.1
"""Usual trim: corner boards 100 mm to either side, fascia 200 mm, casings 100 mm with their edge. Assumptions, to be
set right on the drawing."""
FLAT_DEG = 2.0
"""Fall of a flat roof."""

Made = tuple[Face, tuple[Zone, ...]]


def blocked_out(block: BlockOut) -> list[Made]:
    """Front, left, back and right wall, then what of the roof is painted; ids are provisional."""
    walls = [_wall(block, side) for side in (FRONT, LEFT, BACK, RIGHT)]
    return walls + (_slopes(block) if block.roof_substrate is not None else [])


def _outline(block: BlockOut, side: str) -> Outline:
    across = side in (FRONT, BACK)
    width, eaves, rise = (block.width_m if across else block.depth_m), block.eaves_m, block.rise_m
    if (block.roof is Roof.GABLE_ALONG and not across) or (block.roof is Roof.GABLE_TO_STREET and across):
        return Gable(width_m=width, eave_height_m=eaves, rise_m=rise)
    if block.roof is Roof.LEAN_TO and side == BACK:
        return Rectangle(width_m=width, height_m=eaves + rise)
    if block.roof is Roof.LEAN_TO and not across:
        # The back is high: seen from outside it lies to the left of the left side, to the right of the right one.
        ends = (eaves + rise, eaves) if side == LEFT else (eaves, eaves + rise)
        return LeanTo(width_m=width, left_m=ends[0], right_m=ends[1])
    return Rectangle(width_m=width, height_m=eaves)


def _wall(block: BlockOut, side: str) -> Made:
    outline = _outline(block, side)
    gable = isinstance(outline, Gable)
    face = _face(block, side, side, outline, 90.0, 0.0 if gable else block.overhang_m)
    areas: list[tuple[str, str, ZoneArea, str]] = [("Siding", block.substrate, FaceArea(), block.colour)]
    if block.base_substrate is not None:
        areas.append(("Base", block.base_substrate, Band(from_m=0.0, to_m=block.base_m), block.colour))
    if gable and block.gable_substrate is not None:
        top = Band(from_m=block.eaves_m, to_m=block.eaves_m + block.rise_m)
        areas.append(("Gable", block.gable_substrate, top, block.colour))
    if block.trim:
        areas.append(("Trim", "wood-trim", _trim(), block.trim_colour))
    return face, tuple(_zone(face, *area) for area in areas)


def _trim() -> TrimArea:
    return TrimArea(
        runs=(
            TrimRun(part=TrimPart.CORNER_BOARDS, girth_m=CORNER_GIRTH_M, cover_m=CORNER_COVER_M),
            TrimRun(part=TrimPart.FASCIA, girth_m=FASCIA_GIRTH_M),
            TrimRun(part=TrimPart.CASINGS, girth_m=CASING_GIRTH_M, cover_m=CASING_COVER_M),
        )
    )


def _slopes(block: BlockOut) -> list[Made]:
    """Roof planes out to the eaves' edges; verges without overhang."""
    pitch, run = block.pitch_deg, block.run_m
    out = block.overhang_m
    match block.roof:
        case Roof.FLAT:
            flat = Rectangle(width_m=block.width_m, height_m=block.depth_m)
            planes: list[tuple[str, Outline, float]] = [(FRONT, flat, FLAT_DEG)]
        case Roof.LEAN_TO:
            planes = [(FRONT, RoofSlope(eave_m=block.width_m, run_m=run + out), pitch)]
        case Roof.GABLE_ALONG | Roof.GABLE_TO_STREET:
            along = block.roof is Roof.GABLE_ALONG
            slope = RoofSlope(eave_m=block.width_m if along else block.depth_m, run_m=run + out)
            planes = [(side, slope, pitch) for side in ((FRONT, BACK) if along else (LEFT, RIGHT))]
        case Roof.HIP:
            hips = {"left": RoofEdge.HIP, "right": RoofEdge.HIP}
            sides = {FRONT: block.width_m, LEFT: block.depth_m, BACK: block.width_m, RIGHT: block.depth_m}
            planes = [
                (s, RoofSlope(eave_m=length + 2 * out, run_m=run + out, **hips), pitch) for s, length in sides.items()
            ]
    made: list[Made] = []
    for side, outline, tilt in planes:
        name = "Roof" if len(planes) == 1 else f"Roof, {side.lower()}"
        face = _face(block, side, name, outline, tilt, 0.0)
        assert block.roof_substrate is not None
        made.append((face, (_zone(face, "Roof", block.roof_substrate, FaceArea(), block.roof_colour),)))
    return made


def _face(block: BlockOut, side: str, name: str, outline: Outline, tilt: float, overhang: float) -> Face:
    return Face(
        id=_slug(name),
        name=name,
        building=block.building,
        azimuth_deg=(block.looks_deg + _TURNED[side]) % 360,
        tilt_deg=tilt,
        outline=outline,
        overhang_m=overhang,
    )


def _zone(face: Face, name: str, substrate: str, area: ZoneArea, colour: str) -> Zone:
    return Zone(
        id=_slug(f"{face.id} {name}"), name=name, face=face.id, substrate=substrate, area=area, colour_now=colour
    )


def _slug(name: str) -> str:
    return "-".join("".join(c if c.isalnum() else " " for c in name.lower()).split())
