"""Tasks placed in time."""

from datetime import datetime

from amber_gable.domain.base import Id, Record
from amber_gable.domain.method import Method
from amber_gable.domain.operation import OperationKind, Technique
from amber_gable.domain.site_record import Extent


class Task(Record):
    """One operation (or preparations done in one go) on one section of a zone, or on like items of a face (`item`, and
    `zone` is then the first item's id), placed. `steps` and `extent` say what the record of the site must hold for it
    to be done; plans of older versions lack them. `why` and `blocked_by` are sentences for the crew."""

    id: str
    face: str
    face_name: str
    zone: str
    zone_name: str
    item: bool = False
    section: str
    operation: str
    kind: OperationKind
    techniques: tuple[Technique, ...] = ()
    steps: tuple[Id, ...] = ()
    extent: Extent | None = None
    product: str | None = None
    colour: str | None = None
    method: Method | None = None
    area_m2: float
    litres: float | None = None
    crew_hours: float
    start: datetime
    end: datetime
    touch_at: datetime | None = None
    rain_ready_at: datetime | None = None
    ready_at: datetime | None
    why: str
    blocked_by: tuple[str, ...] = ()

    @property
    def part(self) -> tuple[str, str]:
        """Kind and id of the zone or (first) item it is done on."""
        return ("item" if self.item else "zone", self.zone)


class Unplaced(Record):
    """A task that found no place, and what would free it. `cause` is the same for all that wait for one and the same
    thing; `behind` says that it waits only for another of them."""

    id: str
    face_name: str
    zone_name: str
    section: str
    operation: str
    why: str
    cause: str = ""
    behind: bool = False


class Plan(Record):
    tasks: tuple[Task, ...] = ()
    unplaced: tuple[Unplaced, ...] = ()
    finish: datetime | None = None
