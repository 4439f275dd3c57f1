"""Where a gutter usually hangs: along the eave, from one end of the wall to the other."""

from dataclasses import dataclass

from amber_gable.domain.house.survey import Face

UNDER_EAVE_M, OVER_GROUND_M = 0.12, 0.3
"""The gutter hangs before the fascia; its downspout ends over the drain. Usual, to be set right on the drawing."""


@dataclass(frozen=True)
class UsualGutter:
    """Its run and its downspout, m, and how high it hangs over the wall's foot."""

    length_m: float
    downspout_m: float
    y_m: float


def usual_gutter(face: Face) -> UsualGutter:
    """Along the lower end of what the roof leaves of the wall."""
    points = face.points
    ends = (min(x for x, _ in points), max(x for x, _ in points))
    eave = min(max(y for x, y in points if abs(x - end) < 1e-6) for end in ends)
    return UsualGutter(
        round(face.width_m, 4), round(max(eave - OVER_GROUND_M, 0.1), 4), round(max(eave - UNDER_EAVE_M, 0.0), 4)
    )
