"""Our drawing office's symbols: textures of substrates, openings, items and obstacles, as strokes in px.

A symbol is a list of (class, path) within a box of width w and height h from its top left corner.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from amber_gable.domain.house.items import ShutterPair
from amber_gable.domain.house.profile import BoardRun, DeckProfile, LapProfile
from amber_gable.domain.house.survey import Item, ObstacleKind, OpeningKind, Zone

Strokes = list[tuple[str, str]]


@dataclass(frozen=True)
class Pattern:
    """A texture's tile in px and the strokes in it."""

    width: float
    height: float
    strokes: str
    turn: float = 0.0


_TURNS = {BoardRun.ACROSS: 0.0, BoardRun.AWAY: 90.0, BoardRun.DIAGONAL: 45.0}
_COURSES = {"lap": 0.15, "shingle": 0.13, "batten": 0.30, "brick": 0.075, "board": 0.14, "rib": 0.25}


def texture(zone: Zone, kind: str, scale: float) -> Pattern:
    """The tile of a zone's texture, its courses as wide as its profile says."""
    profile = zone.profile
    course = _COURSES.get(kind, 0.1)
    turn = 0.0
    if isinstance(profile, LapProfile):
        course = profile.exposure_m
    elif isinstance(profile, DeckProfile):
        course, turn = profile.board_m + profile.gap_m, _TURNS[profile.run]
    elif profile is not None:
        course = getattr(profile, "pitch_m", course)
    step = max(course * scale, 2.5)
    if kind in ("lap", "board"):
        return Pattern(40, step, "M0 .5h40", turn)
    if kind in ("batten", "rib"):
        return Pattern(step, 40, "M.5 0v40", turn)
    if kind in ("shingle", "brick"):
        width = step * (1.4 if kind == "shingle" else 3)
        joints = f"M.5 0v{step:.1f}M{width / 2:.1f} {step:.1f}v{step:.1f}"
        return Pattern(width, 2 * step, f"M0 .5h40M0 {step:.1f}h40{joints}")
    return Pattern(9, 9, "M1 2h1M5 1h1M7 5h1M3 6h1M6 8h1M1 8h1" if kind == "stucco" else "")


def _box(x: float, y: float, w: float, h: float) -> str:
    return f"M{x:.1f} {y:.1f}h{w:.1f}v{h:.1f}h{-w:.1f}z"


def _levels(w: float, h: float, count: int) -> str:
    return "".join(f"M0 {h * k / count:.1f}h{w:.1f}" for k in range(1, count))


def _uprights(x: float, y: float, w: float, h: float, count: int) -> str:
    return "".join(f"M{x + w * k / count:.1f} {y:.1f}v{h:.1f}" for k in range(1, count))


def _panels(w: float, h: float, rows: int = 2) -> str:
    """Panels two abreast, the lower ones taller."""
    tall = 0.84 / (rows + 0.25)
    tops = [0.08 + tall * k for k in range(rows)]
    heights = [tall - 0.05] * (rows - 1) + [tall * 1.25 - 0.05]
    return "".join(_box(w * x, h * y, w * 0.3, h * t) for x in (0.14, 0.56) for y, t in zip(tops, heights, strict=True))


def opening_glyph(kind: OpeningKind, w: float, h: float, casing: float) -> Strokes:
    """An opening with its casing round it (no casing under what stands on the ground)."""
    under = casing if kind in (OpeningKind.WINDOW, OpeningKind.VENT) else 0.0
    out = [("casing", _box(-casing, -casing, w + 2 * casing, h + casing + under))] if casing else []
    out.append(("pane", _box(0, 0, w, h)))
    bars = {
        OpeningKind.WINDOW: f"M0 {h / 2:.1f}h{w:.1f}M{w / 2:.1f} 0v{h:.1f}",
        OpeningKind.DOOR: _panels(w, h),
        OpeningKind.GARAGE_DOOR: _levels(w, h, 4),
        OpeningKind.VENT: _levels(w, h, 5),
    }
    return [*out, ("bar", bars[kind])]


def _shutters(spec: ShutterPair, w: float, h: float) -> Strokes:
    """Two leaves, at the sides of the window between them."""
    leaf = w * spec.leaf_width_m / (2 * spec.leaf_width_m + spec.apart_m)
    body = lines = ""
    for left in (0.0, w - leaf):
        body += _box(left, 0, leaf, h)
        if spec.louvred:
            lines += "".join(f"M{left + 1:.1f} {h * k / 11:.1f}h{leaf - 2:.1f}" for k in range(1, 11))
        else:
            lines += _box(left + leaf * 0.2, h * 0.07, leaf * 0.6, h * 0.4)
            lines += _box(left + leaf * 0.2, h * 0.53, leaf * 0.6, h * 0.4)
    return [("body", body), ("bar", lines)]


def item_glyph(item: Item, w: float, h: float) -> Strokes:
    """An item in its box."""
    spec: Any = item.spec
    body = ("body", _box(0, 0, w, h))
    if isinstance(spec, ShutterPair):
        return _shutters(spec, w, h)
    if spec.kind == "railing":
        count = max(2, min(120, round(spec.length_m / spec.pitch_m)))
        return [("bar", f"M0 0h{w:.1f}M0 {h:.1f}h{w:.1f}{_uprights(0, 0, w, h, count)}")]
    simple: dict[str, Callable[[], str]] = {
        "panelled-door": lambda: _panels(w, h, max(1, min(spec.panels // 2, 4))),
        "glazed-door": lambda: _box(w * 0.18, h * 0.1, w * 0.64, h * 0.5),
        "sash-window": lambda: (
            f"M0 {h / 2:.1f}h{w:.1f}" + _uprights(0, 0, w, h, spec.panes_across) + _levels(w, h, 2 * spec.panes_down)
        ),
        "casement": lambda: _uprights(0, 0, w, h, spec.leaves * spec.panes_across) + _levels(w, h, spec.panes_down),
        "garage-door": lambda: _levels(w, h, spec.sections),
        "stair": lambda: _levels(w, h, spec.treads),
        "chimney": lambda: _levels(w, h, 8),
        "sign-band": lambda: _box(w * 0.03, h * 0.15, w * 0.94, h * 0.7),
    }
    return [body, ("bar", simple.get(spec.kind, lambda: "")())]


def obstacle_glyph(kind: ObstacleKind, w: float, h: float) -> Strokes:
    """What stands in front, in light strokes so that the wall stays visible."""
    if kind is ObstacleKind.PLANTING:
        # Scallops along the top of a bed, as on a landscape plan.
        count = max(2, round(w / 16))
        r = w / count / 2
        tops = "".join(f"a{r:.1f} {min(r, h * 0.6):.1f} 0 0 1 {2 * r:.1f} 0" for _ in range(count))
        return [("bush", f"M0 {h:.1f}V{min(r, h * 0.6):.1f}{tops}V{h:.1f}z")]
    if kind is ObstacleKind.WIRES:
        return [("wire", f"M0 {h * 0.2:.1f}q{w / 2:.1f} {h * 0.8:.1f} {w:.1f} 0")]
    if kind is ObstacleKind.LAMP:
        return [
            ("thing", f"M{w / 2:.1f} 0l{w / 2:.1f} {h / 2:.1f}l{-w / 2:.1f} {h / 2:.1f}l{-w / 2:.1f} {-h / 2:.1f}z")
        ]
    if kind is ObstacleKind.AIR_CONDITIONER:
        return [("thing", _box(0, 0, w, h)), ("thing-line", _levels(w, h, 4))]
    if kind is ObstacleKind.VEHICLE:
        roof = f"l{w * 0.12:.1f} {-h * 0.5:.1f}h{w * 0.4:.1f}l{w * 0.12:.1f} {h * 0.5:.1f}"
        body = f"M0 {h:.1f}V{h * 0.5:.1f}h{w * 0.2:.1f}{roof}H{w:.1f}V{h:.1f}z"
        return [("thing", body)]
    return [("thing", _box(0, 0, w, h)), ("thing-line", f"M0 0L{w:.1f} {h:.1f}M{w:.1f} 0L0 {h:.1f}")]
