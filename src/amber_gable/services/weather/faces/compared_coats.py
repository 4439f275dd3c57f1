"""A face's coat beside others that may take its place: how many hours each could be laid, and how sure they are."""

from dataclasses import dataclass, replace

import numpy as np

from amber_gable.core.specification.choices.candidates import goes_on
from amber_gable.core.weather.futures.members import Coat, odds
from amber_gable.domain.grid import SLOT_H, SLOT_S
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Product
from amber_gable.services.job.view import JobView
from amber_gable.services.weather.faces.face_odds import futures
from amber_gable.services.weather.faces.judged_faces import JudgedFace
from amber_gable.services.workspace import digest

DAYS, MOST = 6, 8


@dataclass(frozen=True)
class ComparedCoat:
    """hours: workable by the forecast in the days to come; likely: to be expected over the futures; sure: mean share of
    the futures over the workable hours (None where there are none)."""

    product: Product
    method: Method
    hours: float
    likely: float
    sure: float | None
    chosen: bool

    @property
    def sure_pct(self) -> float | None:
        return None if self.sure is None else 100 * self.sure


def compared_coats(view: JobView, row: JudgedFace) -> list[ComparedCoat]:
    """The coat itself first, then its other methods and other products of its family that may go on the surface, those
    first of which most hours are to be expected; at most `MOST`, from now on."""
    coat, series, site = row.step, view.weather.series, view.site
    if not isinstance(coat, Coat) or series is None or site is None:
        return []
    tags = coat.surface.substrate.tags
    others = [
        p
        for p in view.bundle.products
        if p.family is coat.product.family and p.code != coat.product.code and goes_on(p, tags)
    ]
    tried = [coat, *(replace(coat, method=m) for m in coat.product.methods if m is not coat.method)]
    tried += [replace(coat, product=p) for p in others if coat.method in p.methods]

    def found() -> list[ComparedCoat]:
        weather = futures(view)
        slots = weather.slots
        starts = slots.start + slots.length_s * np.arange(len(slots))
        to_come = (starts >= view.now.timestamp()) & (slots.day < DAYS)
        surface = next(s for s in site.surfaces if s.climate.faces[0] == coat.surface)
        below = next((s for s in site.surfaces if s.climate.faces[0] == coat.below), surface)
        out = []
        for one, known in zip(tried, odds(weather, tried, site.policy, view.bundle.job.crew), strict=True):
            windows = surface.coat(one.product, one.method, site.policy, view.bundle.job.crew, one.damp, below)
            open_ = windows.ok[0, : len(to_come)] & to_come
            sure = float(known.share[open_].mean()) if open_.any() else None
            likely = float(known.share[to_come].sum()) * SLOT_H
            out.append(ComparedCoat(one.product, one.method, float(open_.sum()) * SLOT_H, likely, sure, one is coat))
        return out

    quarter = int(view.now.timestamp()) // SLOT_S
    made = view.ctx.space.standing.get(
        "compared" + digest(view.bundle, series, quarter, row.face.id, repr(coat)), found
    )
    return [made[0], *sorted(made[1:], key=lambda c: -c.likely)][:MOST]
