"""A lap of the house: where to stop, what to do there, and what of it shows as done in the record already."""

from dataclasses import dataclass

from amber_gable.core.survey.findings.essentials import open_tests
from amber_gable.domain.house.survey import Face, Property
from amber_gable.domain.job.job import JobBundle

START, END = "start", "end"


@dataclass(frozen=True)
class WalkStep:
    """`found` is what the record holds, in words; `settled` that it answers the step by itself."""

    code: str
    ask: str
    found: str
    settled: bool


@dataclass(frozen=True)
class WalkPoint:
    """`place` is a face's id, or the start or end of the lap."""

    place: str
    name: str
    steps: tuple[WalkStep, ...]


def lap(property_: Property) -> list[Face]:
    """Walls clockwise round the house from the first, then roofs and decks as listed; building by building."""
    out: list[Face] = []
    for building in dict.fromkeys(f.building for f in property_.faces):
        faces = [f for f in property_.faces if f.building == building]
        walls = [f for f in faces if f.is_wall]
        first = walls[0].azimuth_deg if walls else 0.0
        out += sorted(walls, key=lambda f: (f.azimuth_deg - first) % 360)
        out += [f for f in faces if not f.is_wall]
    return out


def stops(bundle: JobBundle) -> list[WalkPoint]:
    """Every stop of the lap with its steps."""
    property_ = bundle.property
    built = property_.year_built
    start = (
        WalkStep("built", "Year built", f"{built}" if built else "not known: lead is presumed", built is not None),
        WalkStep("danger", "Wires, roof edges and soft ground looked at", "", False),
        WalkStep("wish", "What the customer wants changed", bundle.job.note[:80], bool(bundle.job.note)),
    )
    end = (
        WalkStep("gates", "Taps, power and a place for the gear", "", False),
        WalkStep("photos", "Photos of the whole", _count(len(property_.photos), "photo"), bool(property_.photos)),
    )
    middle = [WalkPoint(f.id, f.name, _steps(property_, f)) for f in lap(property_)]
    return [WalkPoint(START, "Before the lap", start), *middle, WalkPoint(END, "Before you leave", end)]


def _steps(property_: Property, face: Face) -> tuple[WalkStep, ...]:
    zones, items = property_.zones_of(face.id), property_.items_of(face.id)
    wall = face.is_wall
    todo = sum(len(open_tests(z)) for z in zones)
    photos = len([p for p in property_.photos if p.face == face.id])
    size = WalkStep("size", "Width and heights taken" if wall else "Length and width taken", "", False)
    out = [size]
    if wall:
        out.append(WalkStep("openings", "Openings", _count(len(face.openings), "opening"), bool(face.openings)))
    out.append(WalkStep("zones", "What it is made of", ", ".join(z.name for z in zones), bool(zones)))
    tested = "all essential tests recorded" if zones and not todo else _count(todo, "test") + " to do"
    out.append(WalkStep("tests", "Tests", tested, bool(zones) and not todo))
    if wall:
        out.append(WalkStep("items", "Doors, windows, shutters, gutters", _count(len(items), "item"), bool(items)))
        out.append(
            WalkStep("front", "What stands in front", _count(len(face.obstacles), "thing"), bool(face.obstacles))
        )
    blocks = _count(len(face.blocks), "block") if face.blocks else "typed" if face.horizon else "open all round"
    out.append(WalkStep("around", "Trees and neighbours", blocks, bool(face.blocks or face.horizon)))
    out.append(WalkStep("photo", "A photo", _count(photos, "photo"), bool(photos)))
    return tuple(out)


def _count(number: int, what: str) -> str:
    return f"{number or 'no'} {what}{'' if number == 1 else 's'}"
