"""Every face of a job judged for a step: what the lanes and the why panel show."""

from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum

import numpy as np
import numpy.typing as npt

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.climate.lane_parts import LanePart, lane_parts
from amber_gable.core.state.answers import AnswerWords, told
from amber_gable.core.state.judgement import Answer, Judged, weather_answer
from amber_gable.core.survey.amounts.painted import part_key
from amber_gable.core.weather.film.drying import DryingStage, stage_at, stage_rates
from amber_gable.core.weather.futures.members import Coat, Odds, Preparation
from amber_gable.core.weather.judged.slots import mean
from amber_gable.core.weather.judged.windows import SlotReadings, Windows, slot_readings
from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.weather.wall.surface import Climate
from amber_gable.core.work.pace import pace_of
from amber_gable.core.work.waits import asks_before
from amber_gable.core.work.wet_edge import LAPS_BELOW_M2, section_m2_per_minute
from amber_gable.domain.grid import SLOT_S, STEP_S
from amber_gable.domain.house.survey import Face, Item, Zone
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.finish import Finish
from amber_gable.services.job.view import JobView


class Which(StrEnum):
    """Which step of a face is asked about, where no product is named."""

    NEXT = "next"
    COAT = "coat"
    LAST = "last"


_SHOWN = (DryingStage.TOUCH, DryingStage.RAIN_READY, DryingStage.RECOAT, DryingStage.FOOT, DryingStage.FURNITURE)


@dataclass(frozen=True)
class JudgedFace:
    """A face, or items with a lane of their own, as judged: its one-row climate, and for every slot whether the step
    may be done or what stops it. `judged` holds the part's state too; without it the weather alone is shown, for a coat
    that is asked about. `by_film`: its film may be ready before its sheet says. `lane`: what the row stands for."""

    lane: LanePart
    what: str
    climate: Climate
    windows: Windows
    ok: npt.NDArray[np.bool_]
    letters: npt.NDArray[np.str_]
    product: Product | None
    method: Method | None
    step: Coat | Preparation
    judged: Judged | None = None
    section_m2_per_minute: float | None = None
    people: int = 1
    by_film: bool = False

    @property
    def face(self) -> Face:
        return self.lane.face

    def slot_of(self, t: datetime) -> int:
        """The slot that holds a moment, kept inside the slots there are."""
        slots = self.windows.slots
        return int(np.clip((t.timestamp() - slots.start) // SLOT_S, 0, len(slots) - 1))

    def answer(self, at: datetime) -> Answer:
        """May the step be done at a moment? Where the part's state is not asked for, the weather answers alone."""
        slot = self.slot_of(at)
        if self.judged is None:
            return weather_answer(self.windows, slot)
        return self.judged.answer(max(at, self.windows.slots.time(slot)))

    def told(self, at: datetime) -> AnswerWords:
        """The answer in words."""
        return told(self.answer(at), self.windows.slots.tz)

    def share(self, odds: Odds) -> Array:
        """Of the futures, in which a slot is open to the step, for as many slots as `odds` tell; none while the part
        waits for something else than the weather."""
        share = odds.share[: len(self.ok)]
        if self.judged is None:
            return share
        slots = self.windows.slots
        ends = slots.start + SLOT_S * (np.arange(len(share)) + 1.0)
        return np.where(ends > self.judged.ready, share, 0.0)

    def section_m2(self, slot: int) -> float | None:
        """What the crew keeps wet in a slot; None where nothing is brushed or rolled on the face."""
        edge = self.windows.wet_edge_min
        if edge is None or self.section_m2_per_minute is None:
            return None
        return float(edge[0, slot]) * self.section_m2_per_minute

    def shows_laps(self, slot: int) -> bool:
        """Whether less stays wet than each of them reaches without moving."""
        section = self.section_m2(slot)
        return section is not None and section < LAPS_BELOW_M2 * self.people

    def stages(self, slot: int) -> list[tuple[DryingStage, datetime | None]]:
        """When a film whose last stroke is at the slot's end comes to its stages, as far as they are of use on it; None
        where the weather ends first. Empty for work that lays none."""
        if self.product is None:
            return []
        slots, rates = self.windows.slots, stage_rates(self.climate, self.product)
        laid = slots.end[slot : slot + 1]
        out = []
        for stage in _SHOWN:
            hours = stage.hours(self.product)
            if np.isfinite(hours):
                step = float(stage_at(rates, stage, self.product, laid, by_film=self.by_film)[0, 0])
                out.append((stage, slots.moment(self.climate.steps.start + STEP_S * step)))
        return out

    @property
    def sun(self) -> Array:
        """Direct sun on the face in each slot, W/m²."""
        return np.asarray(mean(self.climate.poa_direct, self.windows.slots)[0])

    @property
    def spread(self) -> Array:
        """Of its surface above the dew point in each slot, K."""
        return np.asarray(mean(self.climate.dew_margin, self.windows.slots)[0])

    def readings(self) -> SlotReadings:
        """What instruments held to the face would show in each slot."""
        return slot_readings(self.climate, self.windows.slots)


def judged_faces(
    view: JobView,
    site: SiteClimate,
    product: Product | None = None,
    method: Method | None = None,
    which: Which = Which.NEXT,
) -> list[JudgedFace]:
    """Every lane (core/climate/lane_parts.py): for `product` in the colour it will have, else for the step that is
    asked about."""
    rows = []
    for lane in lane_parts(view.bundle):
        found = None
        if product is None and which is not Which.LAST and view.state is not None:
            judged = view.state.judged(part_key(lane.part), film=which is Which.COAT)
            found = None if judged is None else of_step(site, lane, judged)
        row = found or _of_coat(view, site, lane, product, method)
        if row is not None:
            rows.append(row)
    return rows


def of_step(site: SiteClimate, lane: LanePart, judged: Judged) -> JudgedFace:
    """A lane by a step of one of its parts."""
    part, work, pace = judged.state.part.part, judged.work, pace_of(site.bundle)
    return JudgedFace(
        lane=lane,
        what=f"{work.stint.name}: {judged.state.part.name}",
        climate=site.surface_of(part, work.colour or part.colour_now, work.stint.first.where).climate,
        windows=work.windows,
        ok=judged.ok,
        letters=judged.letters,
        product=work.product,
        method=work.stint.first.method,
        step=work.step,
        judged=judged,
        section_m2_per_minute=section_m2_per_minute(judged.state.part, work.stint.first, pace),
        people=pace.people,
        by_film=site.policy.by_film,
    )


def coat_on(
    bundle: JobBundle, part: Zone | Item, product: Product | None = None, method: Method | None = None
) -> tuple[Product, Method, str] | None:
    """What is asked about on a part where no step is, and its colour: a product, else the part's own last coat, else
    the first on the shelf."""
    finish = bundle.finish_of(*part_key(part))
    coat, by = product, method
    if coat is None:
        coat, by = _last_coat(bundle, finish)
        by = method or by
    if coat is None and bundle.products:
        coat = bundle.products[0]
    if coat is None:
        return None
    colour = part.colour_now if finish is None or coat.clear else finish.colour
    return coat, by or Method.BRUSH, colour


def _of_coat(
    view: JobView, site: SiteClimate, lane: LanePart, product: Product | None, method: Method | None
) -> JudgedFace | None:
    """A lane in the weather alone."""
    part, where = lane.part, lane.where
    found = coat_on(view.bundle, part, product, method)
    if found is None:
        return None
    coat, by, colour = found
    # A coat of its own lies on what its steps have washed.
    finish = view.bundle.finish_of(*part_key(part)) if product is None else None
    asks = finish is None or asks_before(view.bundle.operations(finish))
    step = site.coat_of(part, coat, by, colour, where=where, asks_before=asks)
    windows = site.windows(part, colour, step, where)
    climate = site.surface_of(part, colour, where).climate
    letters = windows.first_letters()[0]
    return JudgedFace(
        lane,
        f"{coat.name}, {by.value}",
        climate,
        windows,
        windows.ok[0],
        letters,
        coat,
        by,
        step,
        by_film=site.policy.by_film,
    )


def _last_coat(bundle: JobBundle, finish: Finish | None) -> tuple[Product | None, Method | None]:
    films = [o for o in bundle.operations(finish) if o.kind.lays_film] if finish is not None else []
    if not films or films[-1].product is None:
        return None, None
    return bundle.product(films[-1].product), films[-1].method


@dataclass(frozen=True)
class LaneQuestion:
    """`product`: a sheet's code, or a `Which`; what is not known counts as not said."""

    product: str = ""
    method: str = ""

    @property
    def which(self) -> Which:
        return Which(self.product) if self.product in set(Which) else Which.NEXT

    @property
    def by(self) -> Method | None:
        return Method(self.method) if self.method in set(Method) else None

    def sheet(self, view: JobView) -> Product | None:
        return next((p for p in view.bundle.products if p.code == self.product), None)

    def rows(self, view: JobView) -> list[JudgedFace]:
        """Every face judged; none without a climate."""
        return [] if view.site is None else judged_faces(view, view.site, self.sheet(view), self.by, self.which)

    @property
    def query(self) -> dict[str, str]:
        """As it stands in an address."""
        return {k: v for k, v in (("product", self.product), ("method", self.method)) if v}
