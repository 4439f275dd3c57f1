"""A face of a blocked-out house with its zones."""

import re

from amber_gable.domain.house.block_out import BlockOut, Side
from amber_gable.domain.house.outline import Outline
from amber_gable.domain.house.survey import Face, PlanPlace, Zone
from amber_gable.domain.house.zone_area import Band, FaceArea, Region, TrimArea, TrimPart, TrimRun, ZoneArea

CORNER_GIRTH_M, CORNER_COVER_M, FASCIA_GIRTH_M, CASING_GIRTH_M, CASING_COVER_M = 0.2, 0.1, 0.2, 0.15, 0.1
"""Usual trim: corner boards 100 mm to either side, fascia 200 mm, casings 100 mm with their edge. Assumptions, to be
set right on the drawing."""

Made = tuple[Face, tuple[Zone, ...]]


def made_face(
    block: BlockOut,
    side: Side,
    name: str,
    outline: Outline,
    tilt_deg: float = 90.0,
    *,
    overhang_m: float = 0.0,
    plan: tuple[float, float] | None = None,
) -> Face:
    """`plan`: where its left end stands, m east and north."""
    return Face(
        id=slug(name),
        name=name,
        building=block.building,
        azimuth_deg=(block.looks_deg + side.turned_deg) % 360,
        tilt_deg=tilt_deg,
        outline=outline,
        overhang_m=overhang_m,
        plan=PlanPlace(east_m=round(plan[0], 4), north_m=round(plan[1], 4)) if plan else None,
    )


def walled(block: BlockOut, face: Face, gable_m: tuple[float, float] | None, seen: Region | None = None) -> Made:
    """A wall with its siding, base and trim. `gable_m`: foot and top of its triangle, where it has one; `seen`: what of
    it no wing hides, where the foot is hidden all along."""
    siding: ZoneArea = seen or FaceArea()
    areas = [("Siding", block.substrate, siding, block.colour)]
    if block.base_substrate is not None and seen is None:
        areas.append(("Base", block.base_substrate, Band(from_m=0.0, to_m=block.base_m), block.colour))
    if gable_m and block.gable_substrate is not None and seen is None:
        areas.append(("Gable", block.gable_substrate, Band(from_m=gable_m[0], to_m=gable_m[1]), block.colour))
    if block.trim:
        areas.append(("Trim", "wood-trim", _trim(corners=seen is None), block.trim_colour))
    return face, tuple(_zone(face, *area) for area in areas)


def roofed(block: BlockOut, face: Face) -> Made:
    """A plane of the roof that is painted."""
    assert block.roof_substrate is not None
    return face, (_zone(face, "Roof", block.roof_substrate, FaceArea(), block.roof_colour),)


def _trim(*, corners: bool) -> TrimArea:
    boards = TrimRun(part=TrimPart.CORNER_BOARDS, girth_m=CORNER_GIRTH_M, cover_m=CORNER_COVER_M)
    return TrimArea(
        runs=(
            *((boards,) if corners else ()),
            TrimRun(part=TrimPart.FASCIA, girth_m=FASCIA_GIRTH_M),
            TrimRun(part=TrimPart.CASINGS, girth_m=CASING_GIRTH_M, cover_m=CASING_COVER_M),
        )
    )


def _zone(face: Face, name: str, substrate: str, area: ZoneArea, colour: str) -> Zone:
    return Zone(
        id=slug(f"{face.id} {name}"), name=name, face=face.id, substrate=substrate, area=area, colour_now=colour
    )


def slug(name: str) -> str:
    """A provisional id made of the letters of a name, in whatever script it is written."""
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:60].strip("-") or "part"
