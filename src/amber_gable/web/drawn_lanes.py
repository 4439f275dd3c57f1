"""The face lanes as they are shown: drawn once for a climate and a plan, the present and the cursor laid over them."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime
from urllib.parse import urlencode

from markupsafe import Markup

from amber_gable.core.weather.surface import Climate
from amber_gable.core.weather.windows import Windows
from amber_gable.domain.survey import Face
from amber_gable.services.job_view import JobView
from amber_gable.services.workspace import digest
from amber_gable.web.pages import rendered
from amber_gable.web.views.lanes import Lanes, lanes_of
from amber_gable.web.views.units import Units

LANE_DAYS = 10


@dataclass(frozen=True)
class Chart:
    """Lanes with what changes at every look: where now is, and the slot that is asked about."""

    lanes: Lanes
    drawn: Markup
    now_x: float | None
    cursor: tuple[float, float] | None


def lane_link(job_id: str, query: dict[str, str]) -> Callable[[str, datetime], str]:
    """The address that asks why, for a face and a moment."""

    asked = f"/jobs/{job_id}/weather?" + (f"{urlencode(query)}&" if query else "")

    def link(face_id: str, t: datetime) -> str:
        # A face's id needs no quoting, nor does a time but for its sign.
        return f"{asked}face={face_id}&at={t.isoformat().replace('+', '%2B')}"

    return link


def chart(
    view: JobView,
    units: Units,
    rows: Sequence[tuple[Face, Climate, Windows]],
    query: dict[str, str],
    chosen: tuple[str, datetime] | None = None,
) -> Chart:
    """rows: each face with its one-row climate and windows of the coat that `query` names."""
    kept, bundle = view.kept, view.bundle
    made = (kept.planned_at, kept.job_changed) if kept is not None else None
    key = "lanes" + digest(bundle, view.weather.series, view.now.date(), made, query, units.system)

    def draw() -> tuple[Lanes, Markup]:
        tasks = kept.plan.tasks if kept is not None else ()
        lanes = lanes_of(rows, tasks, LANE_DAYS, lane_link(bundle.job.id, query))
        return lanes, Markup(rendered("svg/lane_rows.html", {"c": lanes}, units))

    lanes, drawn = view.space.drawings.get(key, draw)
    cursor = lanes.cursor(*chosen) if chosen is not None else None
    return Chart(lanes, drawn, lanes.scale.at(view.now), cursor)
