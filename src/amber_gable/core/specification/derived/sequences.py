"""The order in which special things are painted (docs/trade.md §9.4): members drawn with their numbers, steps with
their minutes. Minutes for one coat by one person."""

from collections.abc import Sequence as Many
from math import ceil

from amber_gable.core.specification.derived.order_drawn import Figure, Member, OrderStep, PaintingOrder
from amber_gable.core.specification.derived.wall_orders import wall_order
from amber_gable.core.survey.amounts.painted import PaintedPart
from amber_gable.core.work.item_pace import coat_hours
from amber_gable.domain.house.items import DoorItem, GarageDoor, SashWindow, ShutterPair
from amber_gable.domain.house.profile import BoardRun, DeckProfile
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Face, Item, Zone
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.operation import Operation

STILE_M, RAIL_M, PANEL_GAP_M = 0.11, 0.14, 0.09
BOARD_M, BOARDS_AT_ONCE = 0.145, 3


def painting_order(
    part: PaintedPart, others: Many[Item] = (), operations: Many[Operation] = ()
) -> PaintingOrder | None:
    """The order for a part that has one; `others` are the items of its face, for shutters to be numbered among.
    What lays no film by its `operations` has none, nor sashes that they take out: those swap no places."""
    item = part.part
    if operations and not any(o.kind.lays_film for o in operations):
        return None
    if isinstance(item, Item):
        if isinstance(item.spec, DoorItem):
            return _door(item.spec)
        if isinstance(item.spec, SashWindow):
            return None if any(o.where for o in operations) else _sash(item.spec)
        if isinstance(item.spec, ShutterPair):
            return _shutters(item, part.face, others)
        if isinstance(item.spec, GarageDoor):
            return _garage(item.spec)
        return None
    tags = SUBSTRATES[part.substrate].tags
    if "deck" in tags:
        return _deck(item, part.face)
    if "roof" in tags:
        return _roof(part.face)
    return wall_order(item, part.face, tags, operations)


def _timed(hours: float, rows: Many[tuple[str, float, str]]) -> tuple[OrderStep, ...]:
    """Steps with their share of the hours for one coat."""
    return tuple(
        OrderStep(n, words, hours * 60 * share if share else None, wait)
        for n, (words, share, wait) in enumerate(rows, 1)
    )


def _door(spec: DoorItem) -> PaintingOrder:
    """Mouldings and panels, then rails side to side, stiles up and down, edges last."""
    w, h = spec.width_m, spec.height_m
    count = spec.panels if spec.kind == "panelled-door" else 0
    across = 2 if count % 2 == 0 and count >= 2 else 1
    down = max(1, count // across) if count else 0
    members: list[Member] = []
    number = 1
    inner_w = w - 2 * STILE_M
    if down:
        panel_w = (inner_w - (across - 1) * PANEL_GAP_M) / across
        panel_h = (h - 2 * RAIL_M - (down - 1) * RAIL_M) / down
        for row in reversed(range(down)):
            for column in range(across):
                x, y = STILE_M + column * (panel_w + PANEL_GAP_M), RAIL_M + row * (panel_h + RAIL_M)
                members.append(Member(number, "panel and moulding", x, y, panel_w, panel_h, "up"))
                number += 1
        for row in reversed(range(down + 1)):
            y = row * (panel_h + RAIL_M)
            members.append(Member(number, "rail", STILE_M, y, inner_w, RAIL_M, "across"))
            number += 1
    else:
        members.append(Member(number, "face, in three bands", STILE_M, 0, inner_w, h, "up"))
        number += 1
    members += [
        Member(number, "stile", 0, 0, STILE_M, h, "up"),
        Member(number + 1, "stile", w - STILE_M, 0, STILE_M, h, "up"),
    ]
    rows = [
        ("Degloss, sand, wipe; seals taped or left, glass masked or scraped after with a blade", 0.0, ""),
        ("Mouldings and panels, top ones first", 0.45, ""),
        ("Rails, side to side, top to bottom", 0.25, ""),
        ("Stiles, up and down in one sweep", 0.20, ""),
        ("Edges, each in the colour of the side it shows with, and the frame last", 0.10, ""),
        (
            "Leave it ajar, a board across: dogs and children come through",
            0.0,
            "tack-free and some hours more before it is shut",
        ),
    ]
    if not down:
        rows[1:3] = [("The face in three bands, wet into wet", 0.70, "")]
    return PaintingOrder("The door, member by member", (Figure("numbered in order", w, h, tuple(members)),),
                         _timed(coat_hours(spec, Method.BRUSH), rows))  # fmt: skip


def _sash(spec: SashWindow) -> PaintingOrder:
    """Swapped to reach the meeting rails, then back."""
    w, h = spec.width_m, spec.height_m
    half, rail = h / 2, 0.05
    lifted = 0.3 * h
    swapped = (
        Member(1, "meeting rail of the top sash, pulled down", rail, lifted - rail, w - 2 * rail, rail, "across"),
        Member(2, "lower part of the top sash", 0, 0, w, lifted - rail, "up"),
        Member(3, "bottom sash, pushed up: all of it", 0, h - half, w, half, "up"),
    )
    back = (
        Member(4, "upper part of the top sash", 0, half, w, half, "up"),
        Member(5, "frame and sill", -0.08, -0.08, w + 0.16, 0.08, "across"),
    )
    rows = [
        ("Blade round the glass, loose glazing edge off; sanded shut, so that the dust stays outside", 0.0, ""),
        ("Swap: bottom sash up, top sash down; runners wiped", 0.0, ""),
        ("Meeting rail and lower part of the top sash", 0.25, ""),
        ("Bottom sash: glazing bars, rails, stiles, thin; no top coat on faces that slide", 0.35, ""),
        (
            "Back, 10 cm open at both ends; upper part of the top sash",
            0.20,
            "waterborne an hour or two first; oil cannot wait: scuffs are touched up",
        ),
        ("Frame and sill; runners and cords stay unpainted, draught brushes are cut in round", 0.20, ""),
        ("Cut onto the glass by 1 to 2 mm: it seals", 0.0, ""),
        ("Move both sashes, after every coat", 0.0, "20 to 60 minutes on; not shut fully while fresh"),
    ]
    figures = (Figure("swapped", w, h, swapped), Figure("back, both a little open", w, h, back))
    return PaintingOrder("The sash window, swap positions", figures, _timed(coat_hours(spec, Method.BRUSH), rows))


def _shutters(item: Item, face: Face, others: Many[Item]) -> PaintingOrder:
    """Where each leaf hangs: numbered on the face from the left, top row first."""
    pairs = [i for i in others if isinstance(i.spec, ShutterPair)] or [item]
    pairs.sort(key=lambda i: (-round(i.y_m, 1), i.x_m))
    members = []
    for n, pair in enumerate(pairs):
        spec = pair.spec
        assert isinstance(spec, ShutterPair)
        for side, x in enumerate((pair.x_m, pair.x_m + spec.leaf_width_m + spec.apart_m)):
            name = f"{pair.name}, {'left' if side == 0 else 'right'}"
            members.append(Member(2 * n + side + 1, name, x, pair.y_m, spec.leaf_width_m, spec.height_m))
    rows = [
        ("Take down; write the number on the back of each leaf", 0.0, ""),
        ("Clean behind", 0.0, ""),
        ("Spray or brush flat: backs first", 0.5, "touch-dry before turning"),
        ("Fronts and edges", 0.5, "tack-free before rehanging"),
        ("Rehang by number; upper storey with a tall ladder and a second person", 0.0, ""),
    ]
    hours = sum(coat_hours(pair.spec, Method.TURBINE) for pair in pairs)
    figure = Figure("where they hang", face.width_m, face.top_m, tuple(members))
    return PaintingOrder("The shutters, numbered", (figure,), _timed(hours, rows))


def _garage(spec: GarageDoor) -> PaintingOrder:
    """Section by section from the top, with the panel's grain."""
    each = spec.height_m / spec.sections
    members = tuple(
        Member(n + 1, f"section {n + 1}", 0, spec.height_m - (n + 1) * each, spec.width_m, each, "across")
        for n in range(spec.sections)
    )
    rows = [
        (
            "Clear and vacuum the bay; keypad and straps off; wash, then mask stone and bottom gasket; sheet the floor",
            0.0,
            "",
        ),
        ("Raise it slightly for working height", 0.0, ""),
        ("Sections from the top, with the panel's grain", 1.0, ""),
        ("Raise it to dry flat, so heavy spots do not sag", 0.0, "as the product's sheet says"),
        ("Trim after, in its colour", 0.0, ""),
    ]
    return PaintingOrder("The garage door, section by section",
                         (Figure("numbered in order", spec.width_m, spec.height_m, members),),
                         _timed(coat_hours(spec, Method.ROLLER), rows))  # fmt: skip


def _deck(zone: Zone, face: Face) -> PaintingOrder:
    """Runs of two or three boards full length, toward the exit at the lower edge."""
    profile = zone.profile if isinstance(zone.profile, DeckProfile) else None
    board = profile.board_m + profile.gap_m if profile else BOARD_M
    along_width = profile is None or profile.run is BoardRun.ACROSS
    w, h = face.width_m, face.top_m
    span = h if along_width else w
    runs = ceil(span / (board * BOARDS_AT_ONCE))
    step = span / runs
    members = []
    for n in range(runs):
        # The run farthest from the way out comes first.
        if along_width:
            members.append(Member(n + 1, "boards, full length", 0, h - (n + 1) * step, w, step, "across"))
        else:
            members.append(Member(n + 1, "boards, full length", w - (n + 1) * step, 0, step, h, "up"))
    rows = [
        ("Start at the house, farthest from the way out", 0.0, ""),
        (
            f"{runs} runs of {BOARDS_AT_ONCE} boards, full length, with the grain; keep the edge along the board wet",
            0.0,
            "",
        ),
        ("Work the stain in with a brush on a pole; wipe what is wet after 15 to 30 minutes", 0.0, ""),
        ("Ends and edges as you pass them", 0.0, ""),
        ("Out by the steps; close the way", 0.0, "24 h before shoes, 72 h before furniture"),
    ]
    return PaintingOrder("The deck, run by run",
                         (Figure("from the house to the way out", w, h, tuple(members), (w * 0.85, 0.0)),),
                         _timed(0.0, rows))  # fmt: skip


def _roof(face: Face) -> PaintingOrder:
    """Bands from the ridge down, the last one at the ladder."""
    bands = max(1, round(face.top_m / 1.5))
    each = face.top_m / bands
    members = tuple(
        Member(n + 1, "band", 0, face.top_m - (n + 1) * each, face.width_m, each, "up") for n in range(bands)
    )
    rows = [
        ("Fall protection first; dry, cool surface; start early", 0.0, ""),
        ("From the ridge down, and from the far side toward the ladder", 0.0, ""),
        ("Never step on fresh coating; keep the way down free", 0.0, "foot-dry as the sheet says"),
    ]
    figure = Figure("from the ridge down", face.width_m, face.top_m, members)
    return PaintingOrder("The roof, band by band", (figure,), _timed(0.0, rows))
