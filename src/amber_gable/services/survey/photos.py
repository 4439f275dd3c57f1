"""Photos of a survey: taken in, marked, measured, and what was measured sent to the drawing."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Annotated, Any, get_args

from pydantic import ValidationError

from amber_gable.core.survey.drawing.homography import WallMap, to_plane, wall_map
from amber_gable.domain.errors import NotFound, Refused, first_words
from amber_gable.domain.house.photo import KnownLength, Photo, PhotoMarks, PhotoPart, PhotoPartKind
from amber_gable.domain.house.survey import Face, Part, Property
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.units import UnitSystem
from amber_gable.exchange.job.photos import clean_photo
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form, Reads
from amber_gable.services.forms.types import Length
from amber_gable.services.survey.surveying import change_part, free_name, save_part
from amber_gable.store.job import journal, photos
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.survey import part_names

Point = tuple[float, float]
CORNERS = ("c1", "c2", "c3", "c4")
SHOWN: tuple[PhotoPartKind, ...] = get_args(PhotoPartKind)
CORNER_NAMES = ("lower left", "lower right", "upper right", "upper left")


@dataclass(frozen=True)
class PhotoMeasure:
    """What a marked photo tells: the wall's size, and the box between the two measuring points, m."""

    wall: WallMap
    x_m: float
    y_m: float
    width_m: float
    height_m: float
    distance_m: float


def find_photo(property_: Property, id_: str) -> Photo:
    """Raises NotFound."""
    for photo in property_.photos:
        if photo.id == id_:
            return photo
    raise NotFound("photo", id_)


def picture(ctx: Context, job_id: str, id_: str) -> bytes:
    """A photo's JPEG. Raises NotFound."""
    with ctx.reading() as session:
        return photos.photo_bytes(session, job_id, id_)


def without_picture(ctx: Context, shown: Iterable[Photo]) -> set[str]:
    """Ids of the photos whose picture is not beside the database."""
    return {p.id for p in shown if not ctx.space.database.pictures.is_there(p.sha256)}


def add_photo(ctx: Context, job_id: str, shows: str, data: bytes, name: str) -> str:
    """Take a picture in of what it shows, as `read_shown` reads it. Returns its id. Raises InputError, NotFound."""
    clean = clean_photo(data, name)
    with ctx.writing() as session, journal.step(session, job_id, "add a photo"):
        property_ = load_bundle(session, job_id).property
        face, part = read_shown(property_, shows)
        number = len(property_.photos) + 1
        taken = set(photos.all_ids(session, job_id))
        while f"photo-{number}" in taken:
            number += 1
        photo = Photo(
            id=f"photo-{number}",
            name=name[:100] or f"Photo {number}",
            face=face,
            part=part,
            taken_on=ctx.now.astimezone(property_.tz).date(),
            width_px=clean.width_px,
            height_px=clean.height_px,
            sha256=clean.sha256,
        )
        photos.add_photo(session, job_id, photo, clean.data)
        journal.call_step(session, f"add photo {photo.name}")
    return photo.id


def delete_photo(ctx: Context, job_id: str, id_: str) -> None:
    with ctx.writing() as session:
        name = photos.live_photo(session, job_id, id_).name
        with journal.step(session, job_id, f"delete photo {name}"):
            photos.delete_photo(session, job_id, id_)


def read_point(text: str) -> Point:
    """`x, y` in pixels from the picture's top left. Raises ValueError."""
    halves = text.split(",")
    try:
        x, y = (round(float(h), 2) for h in halves)
    except ValueError:
        raise ValueError(f"“{text[:24]}” is not a point; set its mark on the picture") from None
    if not (abs(x) < 40_000 and abs(y) < 40_000):
        raise ValueError("the point lies far off the picture")
    return x, y


Marked = Annotated[Point, Reads(lambda text, _: read_point(text), "set its mark on the picture")]


class MarksForm(Form):
    """The four corners, one known length with its ends, and a second where it is given."""

    c1: Marked
    c2: Marked
    c3: Marked
    c4: Marked
    a: Marked
    b: Marked
    length: Length
    a2: Marked | None = None
    b2: Marked | None = None
    length2: Length | None = None


def read_marks(form: Mapping[str, str], system: UnitSystem) -> PhotoMarks:
    """Raises Refused by field."""
    typed, second = MarksForm.read(form, system), None
    try:
        if typed.length2 is not None:
            if typed.a2 is None or typed.b2 is None:
                raise Refused({"length2": "its two ends are not marked"})
            second = KnownLength(a=typed.a2, b=typed.b2, length_m=typed.length2)
        corners = (typed.c1, typed.c2, typed.c3, typed.c4)
        known = KnownLength(a=typed.a, b=typed.b, length_m=typed.length)
        return PhotoMarks(corners=corners, known=known, second=second)
    except ValidationError as error:
        raise Refused({"length": first_words(error)[1]}) from None


def measure(photo: Photo, marks: PhotoMarks, first: Point, last: Point) -> PhotoMeasure:
    """Sizes on the wall. Raises Refused when the marks cannot give them."""
    second = marks.second
    try:
        wall = wall_map(
            marks.corners,
            (photo.width_px, photo.height_px),
            (marks.known.a, marks.known.b, marks.known.length_m),
            (second.a, second.b, second.length_m) if second else None,
        )
        (x0, y0), (x1, y1) = to_plane(wall.matrix, first), to_plane(wall.matrix, last)
    except ValueError as error:
        raise Refused({"": str(error)}) from None
    return PhotoMeasure(wall, min(x0, x1), min(y0, y1), abs(x1 - x0), abs(y1 - y0), wall.distance_m(first, last))


def save_marks(ctx: Context, job_id: str, id_: str, marks: PhotoMarks) -> None:
    with ctx.writing() as session:
        name = photos.live_photo(session, job_id, id_).name
        with journal.step(session, job_id, f"mark photo {name}"):
            photos.change_photo(session, job_id, id_, marks=marks.model_dump(mode="json"))


def send_opening(ctx: Context, job_id: str, photo: Photo, found: PhotoMeasure, kind: str) -> str:
    """Put the measured box on the face's drawing. Returns the opening's id. Raises Refused."""
    if photo.face is None:
        raise Refused({"": "say first which face the photo shows"})
    with ctx.reading() as session:
        names = part_names(session, job_id)
    form = {
        "face": photo.face,
        "name": free_name(names, kind.replace("-", " ").capitalize()),
        "kind": kind,
        "x_m": f"{max(found.x_m, 0):.3f} m",
        "y_m": f"{max(found.y_m, 0) if found.y_m > 0.02 else 0:.3f} m",
        "width_m": f"{found.width_m:.3f} m",
        "height_m": f"{found.height_m:.3f} m",
    }
    return save_part(ctx, job_id, "opening", form, None)


def send_wall(ctx: Context, job_id: str, photo: Photo, found: PhotoMeasure) -> str:
    """Give the face the measured width and height; a gable or other shape keeps what it has above its eave."""
    if photo.face is None:
        raise Refused({"": "say first which face the photo shows"})
    sizes = {"width_m": found.wall.width_m, "height_m": found.wall.height_m, "eave_height_m": found.wall.height_m}

    def change(_: JobBundle, face: Part) -> tuple[str, dict[str, Any]]:
        assert isinstance(face, Face)
        outline = face.outline.model_dump()
        outline |= {k: round(v, 3) for k, v in sizes.items() if k in outline}
        return f"size of {face.name} from a photo", {"outline": outline}

    change_part(ctx, job_id, "face", photo.face, change)
    return photo.face


def read_shown(property_: Property, text: str) -> tuple[str | None, PhotoPart | None]:
    """The face and the part on it that `FACE` or `FACE/KIND/ID` name; neither of empty text. Raises NotFound."""
    if not text:
        return None, None
    face, _, rest = text.partition("/")
    property_.face(face)
    if not rest:
        return face, None
    kind, _, id_ = rest.partition("/")
    for known in SHOWN:
        if kind == known and property_.shows(face, (known, id_)):
            return face, (known, id_)
    raise NotFound("part", rest)


def set_shown(ctx: Context, job_id: str, id_: str, shows: str) -> None:
    """Say what a photo shows, as `read_shown` reads it. Raises NotFound for what is not there."""
    with ctx.writing() as session:
        face, part = read_shown(load_bundle(session, job_id).property, shows)
        name = photos.live_photo(session, job_id, id_).name
        with journal.step(session, job_id, f"place photo {name}"):
            photos.change_photo(session, job_id, id_, face_id=face, part=list(part) if part else None)
