"""The clocks of a film that was laid: when it is dry to touch, rain-ready and fit for the next coat, and whether rain
fell on it before."""

from dataclasses import dataclass
from datetime import datetime, timedelta

import numpy as np

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.weather.film.drying import DryingStage, stage_at
from amber_gable.core.weather.judged.rules import RAIN_ON_FACE
from amber_gable.domain.grid import STEP_S
from amber_gable.domain.house.survey import Item, Zone
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.operation import Where


@dataclass(frozen=True)
class Film:
    """`known`: the weather since it was laid is known; a film older than that is taken as dry. Times beyond the weather
    that is known are None. `rained_at`: rain reached the face before the film was rain-ready."""

    product: Product
    laid_at: datetime
    known: bool
    touch_at: datetime | None
    rain_ready_at: datetime | None
    recoat_at: datetime | None
    latest_recoat: datetime | None
    rained_at: datetime | None

    @property
    def name(self) -> str:
        return self.product.name


def film_of(
    site: SiteClimate, part: Zone | Item, product: Product, colour: str, laid_at: datetime, where: Where | None = None
) -> Film:
    """The film laid on a part at that moment, through the weather as it is known now."""
    steps, slots = site.steps, site.slots
    latest = None if product.max_recoat_h is None else laid_at + timedelta(hours=product.max_recoat_h)
    at = int(np.ceil((laid_at.timestamp() - steps.start) / STEP_S))
    if not 0 <= at <= len(steps):
        return Film(product, laid_at, False, None, None, None, latest, None)
    surface = site.surface_of(part, colour, where)

    def when(stage: DryingStage) -> float:
        """Steps from the start of the weather; inf where it ends first."""
        rates, laid = surface.drying(product), np.array([at])
        return float(stage_at(rates, stage, product, laid, by_film=site.policy.by_film)[0, 0])

    def local(step: float) -> datetime | None:
        return slots.moment(steps.start + STEP_S * step)

    ready = when(DryingStage.RAIN_READY)
    fresh = surface.climate.wall_rain[0, at : int(min(np.ceil(ready), len(steps)))]
    wet = np.flatnonzero(fresh >= RAIN_ON_FACE)
    return Film(
        product=product,
        laid_at=laid_at,
        known=True,
        touch_at=local(when(DryingStage.TOUCH)),
        rain_ready_at=local(ready),
        recoat_at=local(when(DryingStage.RECOAT)),
        latest_recoat=latest,
        rained_at=local(at + float(wet[0])) if wet.size else None,
    )
