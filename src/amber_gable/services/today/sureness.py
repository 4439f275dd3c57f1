"""How sure the Yes of a card is: in how many of the futures drawn around the forecast its coat would hold."""

from dataclasses import dataclass

from amber_gable.domain.grid import SLOT_S
from amber_gable.services.job.view import JobView
from amber_gable.services.weather.faces.face_odds import face_odds


@dataclass(frozen=True)
class Sureness:
    """`share` of the futures, 0 to 1, in which the coat would hold; below `floor`, the house's school, it is better to
    wait."""

    share: float
    floor: float

    @property
    def wait(self) -> bool:
        return self.share < self.floor


def sureness(view: JobView, task_id: str) -> Sureness | None:
    """Of a coat that may be laid now, else None: what is stopped or waits is not asked how sure it is."""
    state = view.asked_task(task_id)
    if state is None or not state.workable or not state.task.kind.lays_film or state.judged is None:
        return None
    work, slots = state.judged.work, state.judged.slots
    (odds,) = face_odds(view, [work])
    slot = int((view.now.timestamp() - slots.start) // SLOT_S)
    if not 0 <= slot < len(odds.share):
        return None
    return Sureness(float(odds.share[slot]), int(view.bundle.schools["sure"]) / 100)
