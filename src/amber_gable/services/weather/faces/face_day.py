"""One day of a face at a glance: may it be coated now, its last stroke and how sure that is, when it is dry."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

import numpy as np

from amber_gable.core.state.answers import AnswerWords, told
from amber_gable.core.weather.futures.members import Odds
from amber_gable.core.weather.judged.helps import SMALL
from amber_gable.core.weather.wall.dry_off import dry_from
from amber_gable.core.weather.wall.surface import TOWEL_DAMP_S
from amber_gable.domain.work.working import CrewDay
from amber_gable.services.weather.faces.judged_faces import JudgedFace


@dataclass(frozen=True)
class DryFrom:
    """From when in the morning no water stands on a face: local time, None where it stands all morning; give or take
    minutes where the futures are known. towel: what wiping it when the day begins would bring it to."""

    at: datetime | None
    half_min: int | None
    towel: datetime | None


@dataclass(frozen=True)
class FaceDay:
    """`told`: the answer at the moment asked about. last: the end of the day's last open slot, in `sure` of the
    futures (None: not worked out). dry: None where no water stands that morning."""

    row: JudgedFace
    told: AnswerWords
    last: datetime | None
    sure: float | None
    dry: DryFrom | None


def face_days(rows: Sequence[JudgedFace], odds: Sequence[Odds | None], at: datetime, crew: CrewDay) -> list[FaceDay]:
    """Each face on the day of `at`; rows are on the same slots, `odds` of each where they are worked out."""
    return [_face_day(row, known, at, crew) for row, known in zip(rows, odds, strict=True)]


def _face_day(row: JudgedFace, known: Odds | None, at: datetime, crew: CrewDay) -> FaceDay:
    slots = row.windows.slots
    slot = row.slot_of(at)
    day = int(slots.day[slot])
    open_ = np.flatnonzero(row.ok & (slots.day == day))
    last = int(open_[-1]) if open_.size else None
    share = None if known is None else row.share(known)
    return FaceDay(
        row=row,
        told=told(row.answer(at), slots.tz),
        last=None if last is None else slots.time(last + 1),
        sure=None if last is None or share is None or last >= len(share) else float(share[last]),
        dry=_dry_from(row, known, day, crew),
    )


def _dry_from(row: JudgedFace, known: Odds | None, day: int, crew: CrewDay) -> DryFrom | None:
    slots = row.windows.slots
    if known is None or day >= known.dry_from.shape[1]:
        early = likely = late = float(dry_from(row.climate, slots)[0, day])
    else:
        early, likely, late = (float(t) for t in known.dry_from[:, day])
    if likely == -np.inf:
        return None
    half = None
    if known is not None and np.isfinite(likely):
        # A morning that may stay dry, or wet, is as uncertain as the half of its band that is known.
        sides = [abs(likely - side) for side in (early, late) if np.isfinite(side)]
        half = round(max(sides) / 60) if sides else None
    return DryFrom(slots.moment(likely), half, _towel(row, likely, day, crew))


def _towel(row: JudgedFace, dry_at: float, day: int, crew: CrewDay) -> datetime | None:
    """Only of what can be wiped, where it would gain something."""
    if not row.climate.faces[0].substrate.tags & SMALL:
        return None
    slots = row.windows.slots
    begin = slots.time(int(np.argmax(slots.day == day))).replace(hour=0, minute=0)
    wiped = begin.timestamp() + 3600 * crew.first_h + TOWEL_DAMP_S
    return slots.moment(wiped) if wiped < dry_at else None
