"""One day of all faces, a line each: the answer now, the day's last stroke, when it is dry; and the same in words."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from itertools import groupby

import numpy as np

from amber_gable.domain.weather.letters import LETTERS
from amber_gable.services.weather.faces.face_day import DryFrom, FaceDay
from amber_gable.web.views.weather.lanes import LaneOf, lane_bearing

DOUBTFUL_BELOW = 0.5


@dataclass(frozen=True)
class DayFace:
    """`letter` stops it now ('' where it may be done); `last` the day's last stroke; `sure` how sure that is, in
    words of one figure; `what` it speaks of; dry: when the night's water is gone."""

    id: str
    name: str
    bearing: str
    href: str
    ok: bool
    letter: str
    answer: str
    what: str
    last: str
    sure: str
    doubtful: bool
    dry: str
    chosen: bool


def day_faces(days: Sequence[FaceDay], at: datetime, links: Sequence[str], chosen: str) -> list[DayFace]:
    out = []
    for day, href in zip(days, links, strict=True):
        row = day.row
        letter = str(row.letters[row.slot_of(at)])
        out.append(
            DayFace(
                id=row.face.id,
                name=row.face.name,
                bearing=lane_bearing(row.lane),
                href=href,
                ok=day.told.ok,
                letter="" if day.told.ok else letter or "B",
                answer=day.told.headline,
                what=row.what,
                last=f"{day.last:%H:%M}" if day.last else "",
                sure="" if day.sure is None else f"{day.sure * 100:.0f} %",
                doubtful=day.sure is not None and day.sure < DOUBTFUL_BELOW,
                dry=_dry(day.dry),
                chosen=row.face.id == chosen,
            )
        )
    return out


def _dry(dry: DryFrom | None) -> str:
    if dry is None:
        return "no water on it in the morning"
    if dry.at is None:
        return "wet until the afternoon"
    give = f" ± {dry.half_min} min" if dry.half_min else ""
    towel = f"; a towel brings {dry.towel:%H:%M}" if dry.towel is not None else ""
    return f"dry {dry.at:%H:%M}{give}{towel}"


def lane_sentence(row: LaneOf, first: int, days: int) -> list[str]:
    """What a lane shows, in words: a sentence for each day shown, hours outside the crew's day left out."""
    out = []
    for day in range(first, first + days):
        here = np.flatnonzero((row.slots.day == day) & (row.letters != "N"))
        if not here.size:
            continue
        date = row.slots.time(int(here[0]))
        runs = [list(run) for _, run in groupby(here.tolist(), key=lambda i: str(row.letters[i]))]
        said = [_stretch(row, run) for run in runs]
        out.append(f"{date:%A} {date.day} {date:%B}: {', then '.join(said)}.")
    return out


def _stretch(row: LaneOf, run: list[int]) -> str:
    letter = str(row.letters[run[0]])
    if letter:
        return LETTERS[letter]
    begin, end = row.slots.time(run[0]), row.slots.time(run[-1] + 1)
    share = None if row.share is None or run[-1] >= len(row.share) else float(row.share[run].mean())
    sure = "" if share is None else f", {share * 100:.0f} % sure"
    return f"workable {begin:%H:%M} to {end:%H:%M}{sure}"
