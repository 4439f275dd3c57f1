"""Faces drawn to scale, in millimetres of drawing per metre of wall."""

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
    casing: float
    lines: list[tuple[float, float, float, float]]
    selected: bool


@dataclass(frozen=True)
class Drawing:
    """Everything the SVG template needs, in px."""

    face: Face
    bearing: str
    width: float
    height: float
    outline: str
    texture: str
    course: float
    fill: str
    trim: str
    trim_width: float
    openings: list[DrawnOpening]
    ground_y: float
    left: float
    right: float
    eave_y: float
    ridge_y: float
    scale: float
    plane: bool
    dimensions: dict[str, str]


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
        course=_COURSES.get(texture, 0.1) * scale,
        fill=finishes.get(field.id, field.colour_now) if field else "#ffffff",
        trim=finishes.get(trim.id, trim.colour_now) if trim else "",
        trim_width=0.12 * scale,
        openings=[_opening(o, left, ground, scale, o.id == selected) for o in face.openings],
        ground_y=ground,
        left=left,
        right=right,
        eave_y=eave,
        ridge_y=ridge,
        scale=scale,
        plane=face.tilt_deg < 85,
        dimensions={
            "width": f"{face.width_m:.2f}",
            "eave": f"{face.eave_height_m:.2f}",
            "rise": f"{face.gable_rise_m:.2f}" if face.gable_rise_m else "",
        },
    )


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
    return DrawnOpening(o.id, o.name, o.kind.value, x, y, w, h, 0.09 * scale, lines, selected)
