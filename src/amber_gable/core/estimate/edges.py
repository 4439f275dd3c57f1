"""Edges that are taped because what is beside them gets, or keeps, another colour (docs/trade.md §4.4, §9). By hand an
edge is cut in, which the rates of brush and roller have in them, or taped by a step of the part's own."""

from collections.abc import Iterator, Mapping

from amber_gable.core.survey.amounts.painted import Key, PaintedPart
from amber_gable.core.survey.drawing.geometry import face_regions, outline_polygon
from amber_gable.core.work.labour import Labour
from amber_gable.core.work.pace import Pace
from amber_gable.core.work.record import PartWork, SideLine
from amber_gable.domain.house.survey import Face, Zone
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.operation import Technique
from amber_gable.domain.work.scope import Leaving

_HAIR_M = 0.001


def taped_edges(
    bundle: JobBundle, work: Mapping[Key, PartWork], parts: Mapping[Key, PaintedPart], pace: Pace
) -> Iterator[SideLine]:
    """Face by face: a sprayed band or patch against the field round it, and trim against a sprayed field: such as is
    left as it is, and, where trim goes first, such as already has its own colour."""
    for face in bundle.property.faces:
        zones = bundle.property.zones_of(face.id)
        field = next((z for z in zones if z.area.kind == "face"), None)
        if field is None:
            continue
        yield from _bands(bundle, work, face, field, pace)
        mine = work.get(("zone", field.id))
        if mine is not None and sprays(mine) and not _taped(mine):
            yield from _trim(bundle, parts, field, zones, pace)


def _taped(work: PartWork) -> bool:
    """Whether its edges are taped by a step of its own, where edges are taped by hand too."""
    return any(line.operation.technique is Technique.TAPE for line in work.lines)


def sprays(work: PartWork) -> bool:
    """Whether any film of the part is sprayed."""
    films = [line.operation.method for line in work.lines if line.operation.kind.lays_film]
    return any(method is not None and method.sprays for method in films)


def _bands(bundle: JobBundle, work: Mapping[Key, PartWork], face: Face, field: Zone, pace: Pace) -> Iterator[SideLine]:
    regions = face_regions(face, bundle.property.zones_of(face.id)).regions
    rest = bundle.finish_of("zone", field.id)
    for id_, region in regions.items():
        key, finish = ("zone", id_), bundle.finish_of("zone", id_)
        if finish is None or rest is None or key not in work or finish.colour == rest.colour:
            continue
        if sprays(work[key]) and not _taped(work[key]):
            inside = region.boundary.difference(outline_polygon(face).boundary.buffer(_HAIR_M)).length
            yield _line("Tape the edge against the other colour", inside, pace, key)


def _trim(
    bundle: JobBundle, parts: Mapping[Key, PaintedPart], field: Zone, zones: tuple[Zone, ...], pace: Pace
) -> Iterator[SideLine]:
    own = bundle.finish_of("zone", field.id)
    first = bundle.schools["order"] == "trim-first"
    for zone in zones:
        part = parts.get(("zone", zone.id))
        if part is None or part.trim_m <= 0 or zone.id == field.id:
            continue
        left, finish = bundle.left_of("zone", zone.id), bundle.finish_of("zone", zone.id)
        stays = left is not None and left.leaving is Leaving.AS_IT_IS
        other = finish is not None and own is not None and finish.colour != own.colour
        if stays or (first and other):
            why = "which stays as it is" if stays else "which is painted"
            yield _line(f"Mask {zone.name}, {why}, beside the spray", part.trim_m, pace, ("zone", field.id))


def _line(words: str, metres: float, pace: Pace, part: Key) -> SideLine:
    return SideLine(words, Labour(metres, pace.rates["edge-tape"], pace.on_everything()), part)
