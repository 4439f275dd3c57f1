"""The house from above: walls where they stand, which way they look, and north."""

from dataclasses import dataclass
from math import hypot

from amber_gable.core.survey.drawing.house_plan import closing_gap_m, house_plan, outward
from amber_gable.domain.house.survey import Face
from amber_gable.web.views.weather.lanes import bearing

WIDTH, HEIGHT, MARGIN = 330.0, 250.0, 52.0
ROOM_PX = 24.0


@dataclass(frozen=True)
class DrawnWall:
    id: str
    name: str
    number: str
    line: tuple[float, float, float, float]
    tick: tuple[float, float, float, float]
    label: tuple[float, float, str]
    says: str
    guessed: bool
    selected: bool
    east_m: float
    north_m: float


@dataclass(frozen=True)
class PlanDrawing:
    walls: list[DrawnWall]
    width: float
    height: float
    scale: float
    gap_m: float


def draw_plan(faces: tuple[Face, ...], selected: str = "") -> PlanDrawing | None:
    """None without walls. North is up; y grows downwards on paper."""
    walls = house_plan(faces)
    if not walls:
        return None
    ends = [p for w in walls for p in (w.start, w.end)]
    low = (min(x for x, _ in ends), min(y for _, y in ends))
    high = (max(x for x, _ in ends), max(y for _, y in ends))
    span = (max(high[0] - low[0], 1.0), max(high[1] - low[1], 1.0))
    scale = min((WIDTH - 2 * MARGIN) / span[0], (HEIGHT - 2 * MARGIN) / span[1], 40.0)
    centre = ((low[0] + high[0]) / 2, (low[1] + high[1]) / 2)

    def px(point: tuple[float, float]) -> tuple[float, float]:
        return WIDTH / 2 + (point[0] - centre[0]) * scale, HEIGHT / 2 - (point[1] - centre[1]) * scale

    numbers = {f.id: n for n, f in enumerate(faces, 1)}
    drawn = []
    for w in walls:
        (x0, y0), (x1, y1), (mx, my) = px(w.start), px(w.end), px(w.middle)
        out = outward(w.face.azimuth_deg)
        tip = (mx + out[0] * 13, my - out[1] * 13)
        # The number stands inside, where no wing comes in its way.
        name_at = (mx - out[0] * 15, my + out[1] * 15 + 5)
        drawn.append(
            DrawnWall(
                id=w.face.id,
                name=w.face.name,
                # On a crowded plan a number without room would only be a blot; the wall still says its name.
                number=str(numbers[w.face.id]) if hypot(x1 - x0, y1 - y0) > ROOM_PX else "",
                line=(x0, y0, x1, y1),
                tick=(mx, my, *tip),
                label=(*name_at, "middle"),
                says=f"{w.face.name}, looks {bearing(w.face.azimuth_deg)} {w.face.azimuth_deg:.0f}°",
                guessed=w.guessed,
                selected=w.face.id == selected,
                east_m=w.start[0],
                north_m=w.start[1],
            )
        )
    return PlanDrawing(drawn, WIDTH, HEIGHT, scale, closing_gap_m(walls))
