"""The clock by which a weather file labels its hours, where its offset from UTC changes inside."""

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta, tzinfo

Change = tuple[int, float]
"""From which moment on, epoch s, which offset from UTC holds, h."""


@dataclass(frozen=True)
class LabelledZone(tzinfo):
    """`first_h`: offset before the first of the `changes`, which are in the order of their moments."""

    first_h: float
    changes: tuple[Change, ...]

    def __reduce__(self) -> tuple[type["LabelledZone"], tuple[float, tuple[Change, ...]]]:
        return LabelledZone, (self.first_h, self.changes)

    def utcoffset(self, when: datetime | None) -> timedelta:
        """Of a time that comes twice the first, with `fold` the second; of one that is left out the offset before the
        change, with `fold` that after it."""
        if when is None:
            return timedelta(hours=self.first_h)
        local, fold = when.replace(tzinfo=UTC, fold=0).timestamp(), when.fold
        moments = sorted(local - 3600 * h for h in {self.first_h, *(h for _, h in self.changes)})
        told = [m for m in moments if local - m == 3600 * self._at(m)]
        if told:
            return timedelta(seconds=local - told[min(fold, len(told) - 1)])
        # Left out: one clock takes it for before the change, the other for after.
        return timedelta(hours=self._at(moments[0] if fold == 0 else moments[-1]))

    def dst(self, _when: datetime | None) -> timedelta:
        return timedelta(0)

    def tzname(self, when: datetime | None) -> str:
        hours = self.utcoffset(when).total_seconds() / 3600
        return f"UTC{hours:+g}"

    def fromutc(self, when: datetime) -> datetime:
        hours = self._at(when.replace(tzinfo=UTC).timestamp())
        local = (when + timedelta(hours=hours)).replace(fold=0)
        again = local.utcoffset() != timedelta(hours=hours)
        return local.replace(fold=1) if again else local

    def _at(self, epoch: float) -> float:
        return next((h for at, h in reversed(self.changes) if at <= epoch), self.first_h)
