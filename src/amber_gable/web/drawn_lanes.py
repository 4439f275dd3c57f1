"""The face lanes as they are shown: each drawn once for its climate and the plan, the present and the cursor laid over
them."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import TYPE_CHECKING
from urllib.parse import urlencode

from markupsafe import Markup

from amber_gable.services.job.view import JobView
from amber_gable.services.weather.faces.judged_faces import JudgedFace
from amber_gable.services.workspace import digest
from amber_gable.web.pages import rendered
from amber_gable.web.views.units import Units
from amber_gable.web.views.weather.lanes import Lane, LaneOf, Lanes, lane_of, zero_line
from amber_gable.web.views.weather.timescale import TimeScale

if TYPE_CHECKING:
    from amber_gable.core.weather.futures.members import Odds


@dataclass(frozen=True)
class Chart:
    """Lanes with what changes at every look: where now is, and the slot that is asked about."""

    lanes: Lanes
    drawn: list[Markup]
    now_x: float | None
    cursor: tuple[float, float] | None


def lane_link(job_id: str, query: dict[str, str], page: str = "weather") -> Callable[[str, datetime], str]:
    """The address that asks why, or another page of a face and a moment."""

    asked = f"/jobs/{job_id}/{page}?" + (f"{urlencode(query)}&" if query else "")

    def link(face_id: str, t: datetime) -> str:
        # A face's id needs no quoting, nor does a time but for its sign.
        return f"{asked}face={face_id}&at={t.isoformat().replace('+', '%2B')}"

    return link


def lanes_of(rows: Sequence[JudgedFace], odds: Sequence[Odds | None] = ()) -> list[LaneOf]:
    """`odds`: of each row, where they are worked out."""
    known = odds or [None] * len(rows)
    shares = [None if o is None else r.share(o) for r, o in zip(rows, known, strict=True)]
    return [
        LaneOf(r.lane, r.windows.slots, r.sun, r.spread, r.ok, r.letters, s) for r, s in zip(rows, shares, strict=True)
    ]


def chart(
    view: JobView,
    units: Units,
    rows: Sequence[LaneOf],
    query: dict[str, str],
    scale: TimeScale,
    chosen: tuple[str, datetime] | None = None,
) -> Chart:
    """rows: each face with what may be done on it, as `query` asks."""
    kept, bundle = view.kept, view.bundle
    tasks = kept.plan.tasks if kept is not None else ()
    own = frozenset(key for row in rows for key in row.lane.keys)
    link = lane_link(bundle.job.id, query)

    def drawn(index: int, row: LaneOf) -> tuple[Lane, Markup]:
        face, slots = row.face, row.slots

        planned = [t for t in tasks if row.lane.takes(t, own)]

        def draw() -> tuple[Lane, Markup]:
            lane = lane_of(index, row, planned, scale, link)
            context = {"l": lane, "width": scale.width, "zero": zero_line()}
            return lane, Markup(rendered("svg/lane_row.html", context, units))

        seen = (row.ok, row.letters, row.spread, row.sun, row.share)
        who = (bundle.job.id, bundle.property.time_zone, index, face.id, face.name, face.azimuth_deg, face.tilt_deg)
        told = "".join(t.model_dump_json() for t in planned)
        key = "lane" + digest(*who, *seen, slots.start, told, query, units.system, scale)
        return view.ctx.space.drawings.get(key, draw)

    found = [drawn(i, row) for i, row in enumerate(rows)]
    lanes = Lanes(scale, [lane for lane, _ in found])
    cursor = lanes.cursor(*chosen) if chosen is not None else None
    return Chart(lanes, [markup for _, markup in found], scale.at(view.now), cursor)
