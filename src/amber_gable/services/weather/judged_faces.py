"""Every face of a job judged for a coat: what the lanes and the why panel show."""

from dataclasses import dataclass

from amber_gable.core.climate.job_climate import SiteClimate, main_zone
from amber_gable.core.weather.surface import Climate
from amber_gable.core.weather.windows import SlotReadings, Windows, slot_readings
from amber_gable.domain.method import Method
from amber_gable.domain.product import Product
from amber_gable.domain.survey import Face
from amber_gable.services.job_view import JobView


@dataclass(frozen=True)
class JudgedFace:
    """A face as it is judged: its one-row climate, and the windows of one coat on its main zone."""

    face: Face
    climate: Climate
    windows: Windows
    product: Product
    method: Method

    def readings(self) -> SlotReadings:
        """What instruments held to the face would show in each slot."""
        return slot_readings(self.climate, self.windows.slots)


def judged_faces(
    view: JobView, site: SiteClimate, product: Product | None = None, method: Method | None = None
) -> list[JudgedFace]:
    """Every face by its main zone in the colour it will have: for `product`, else for each face's own last coat."""
    rows = []
    for face in view.bundle.property.faces:
        zone = main_zone(view.bundle, face)
        if zone is None:
            continue
        finish = view.bundle.finish_of("zone", zone.id)
        coat, by = product, method or Method.BRUSH
        if coat is None and finish is not None:
            films = [o for o in view.bundle.operations(finish) if o.kind.lays_film]
            if films and films[-1].product is not None:
                coat, by = view.bundle.product(films[-1].product), method or films[-1].method or by
        if coat is None and view.bundle.products:
            coat = view.bundle.products[0]
        if coat is None:
            continue
        colour = finish.colour if finish is not None else zone.colour_now
        rows.append(
            JudgedFace(
                face, site.climate.rows([site.row_of(zone, colour)]), site.for_coat(zone, coat, by, colour), coat, by
            )
        )
    return rows
