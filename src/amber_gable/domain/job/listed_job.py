"""A job as the list shows it."""

from dataclasses import dataclass
from zoneinfo import ZoneInfo

from amber_gable.domain.house.survey import Face, Property

Colours = dict[tuple[str, str], str]


@dataclass(frozen=True)
class Front:
    """The first face with what is on it, the outlines of all, and the colours parts will have. `stamp` changes with
    what is drawn."""

    faces: tuple[Face, ...]
    property: Property
    colours: Colours
    stamp: str


@dataclass(frozen=True)
class Coming:
    """Of a job's plan: the task under way or next (operation, face, epoch s), the end of the last, and how many tasks
    could not be placed. `next_words` is empty when all is past."""

    next_words: str
    next_at: int
    finish_at: int
    unplaced: int


@dataclass(frozen=True)
class ListedJob:
    """A line of the jobs list; `house` is the id of its property, `surveyed`: it has a face; `sample`: brought in to be
    looked at."""

    id: str
    name: str
    customer: str
    place: str
    tz: ZoneInfo
    house: str
    surveyed: bool
    coming: Coming | None
    sample: bool = False

    @property
    def upcoming(self) -> bool:
        """Whether any of its plan lies ahead."""
        return self.coming is not None and bool(self.coming.next_words)
