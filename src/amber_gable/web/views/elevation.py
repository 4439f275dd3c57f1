"""Faces drawn to scale."""

from dataclasses import dataclass

from amber_gable.domain.job import JobBundle
from amber_gable.domain.substrates import SUBSTRATES
from amber_gable.domain.survey import Face, FaceArea, Opening
from amber_gable.web.views.lanes import bearing

MARGIN_LEFT, MARGIN_RIGHT, MARGIN_TOP, MARGIN_BOTTOM = 46.0, 14.0, 14.0, 34.0
WIDTH_MAX, SCALE_MAX = 420.0, 46.0


@dataclass(frozen=True)
class DrawnOpening:
    id: str
    name: str
    kind: str
    x: float
    y: float
    width: float
    height: float
    casing: tuple[float, float, float, float]
    lines: list[tuple[float, float, float, float]]
    selected: bool


@dataclass(frozen=True)
class Pattern:
    """A texture's tile in px and the strokes in it."""

    width: float
    height: float
    strokes: str


@dataclass(frozen=True)
class Drawing:
    """Everything the SVG template needs, in px."""

    face: Face
    bearing: str
    width: float
    height: float
    outline: str
    texture: str
    pattern: Pattern
    fill: str
    trim: str
    trim_width: float
    corners: tuple[float, float]
    openings: list[DrawnOpening]
    ground_y: float
    left: float
    right: float
    eave_y: float
    ridge_y: float
    scale: float
    plane: bool
    ground: tuple[float, float]
    dimension_paths: str
    labels: list[tuple[float, float, str, str]]
    size: str


def drawing_scale(faces: tuple[Face, ...], width: float = WIDTH_MAX) -> float:
    """px per metre at which the widest face fits: one scale for all faces of a sheet, so that they compare."""
    widest = max((f.width_m for f in faces), default=10.0)
    return min(SCALE_MAX, (width - MARGIN_LEFT - MARGIN_RIGHT) / widest)


_COURSES = {"lap": 0.15, "shingle": 0.13, "batten": 0.30, "brick": 0.075, "board": 0.14, "rib": 0.25}


def draw(bundle: JobBundle, face: Face, scale: float, *, finished: bool = False, selected: str = "") -> Drawing:
    """The face with its present colours, or with `finished` in the colours it will get."""
    zones = [z for z in bundle.property.zones if z.face == face.id]
    finishes = {f.zone: f.colour for f in bundle.job.finishes} if finished else {}
    field = next((z for z in zones if isinstance(z.area, FaceArea)), zones[0] if zones else None)
    trim = next((z for z in zones if SUBSTRATES[z.substrate].is_trim), None)
    texture = SUBSTRATES[field.substrate].texture if field else "plain"
    left, ground = MARGIN_LEFT, MARGIN_TOP + (face.eave_height_m + face.gable_rise_m) * scale
    right, eave, ridge = left + face.width_m * scale, ground - face.eave_height_m * scale, MARGIN_TOP
    middle = (left + right) / 2
    corners = [(left, ground), (left, eave), (right, eave), (right, ground)]
    if face.gable_rise_m:
        corners.insert(2, (middle, ridge))
    return Drawing(
        face=face,
        bearing=bearing(face.azimuth_deg),
        width=right + MARGIN_RIGHT,
        height=ground + MARGIN_BOTTOM,
        outline=" ".join(f"{x:.1f},{y:.1f}" for x, y in corners),
        texture=texture,
        pattern=_pattern(texture, _COURSES.get(texture, 0.1) * scale),
        fill=finishes.get(field.id, field.colour_now) if field else "#ffffff",
        trim=finishes.get(trim.id, trim.colour_now) if trim else "",
        trim_width=0.12 * scale,
        corners=(left + 0.06 * scale, right - 0.06 * scale),
        openings=[_opening(o, left, ground, scale, o.id == selected) for o in face.openings],
        ground_y=ground,
        left=left,
        right=right,
        eave_y=eave,
        ridge_y=ridge,
        scale=scale,
        plane=face.tilt_deg < 85,
        ground=(left - 24, right + 12),
        dimension_paths=_dimension_paths(left, right, ground, eave, ridge if face.gable_rise_m else eave),
        labels=_labels(face, left, right, ground, eave, ridge),
        size=f"{face.width_m:.2f} by {face.eave_height_m:.2f} m",
    )


def _pattern(texture: str, course: float) -> Pattern:
    if texture in ("lap", "board"):
        return Pattern(40, course, "M0 .5h40")
    if texture in ("batten", "rib"):
        return Pattern(course, 40, "M.5 0v40")
    if texture in ("shingle", "brick"):
        width = course * (1.4 if texture == "shingle" else 3)
        joints = f"M.5 0v{course:.1f}M{width / 2:.1f} {course:.1f}v{course:.1f}"
        return Pattern(width, 2 * course, f"M0 .5h40M0 {course:.1f}h40{joints}")
    return Pattern(9, 9, "M1 2h1M5 1h1M7 5h1M3 6h1M6 8h1M1 8h1" if texture == "stucco" else "")


def _dimension_paths(left: float, right: float, ground: float, eave: float, ridge: float) -> str:
    """Extension ticks and dimension lines under the face and left of it."""
    under = f"M{left:.1f} {ground + 8:.1f}v10M{right:.1f} {ground + 8:.1f}v10M{left:.1f} {ground + 13:.1f}H{right:.1f}"
    ticks = "".join(f"M{left - 20:.1f} {y:.1f}h10" for y in dict.fromkeys((ground, eave, ridge)))
    return f"{under}{ticks}M{left - 15:.1f} {ground:.1f}V{ridge:.1f}"


def _labels(
    face: Face, left: float, right: float, ground: float, eave: float, ridge: float
) -> list[tuple[float, float, str, str]]:
    """(x, y, anchor, text) of each dimension."""
    out = [
        ((left + right) / 2, ground + 27, "middle", f"{face.width_m:.2f}"),
        (left - 18, (ground + eave) / 2 + 4, "end", f"{face.eave_height_m:.2f}"),
    ]
    if face.gable_rise_m:
        out.append((left - 18, (ridge + eave) / 2 + 4, "end", f"{face.gable_rise_m:.2f}"))
    return out


def _opening(o: Opening, left: float, ground: float, scale: float, selected: bool) -> DrawnOpening:
    x, w, h = left + o.x_m * scale, o.width_m * scale, o.height_m * scale
    y = ground - (o.y_m + o.height_m) * scale
    lines: list[tuple[float, float, float, float]] = []
    if o.kind == "window":
        lines = [(x, y + h / 2, x + w, y + h / 2), (x + w / 2, y, x + w / 2, y + h / 2)]
    elif o.kind == "door":
        lines = [
            (x + w * a, y + h * b, x + w * c, y + h * b) for a, c in ((0.15, 0.45), (0.55, 0.85)) for b in (0.12, 0.48)
        ]
        lines += [(x + w * a, y + h * 0.55, x + w * a, y + h * 0.9) for a in (0.15, 0.45, 0.55, 0.85)]
    else:
        count = 4 if o.kind == "garage-door" else 5
        lines = [(x, y + h * k / count, x + w, y + h * k / count) for k in range(1, count)]
    c = 0.09 * scale
    return DrawnOpening(o.id, o.name, o.kind.value, x, y, w, h, (x - c, y - c, w + 2 * c, h + 2 * c), lines, selected)
