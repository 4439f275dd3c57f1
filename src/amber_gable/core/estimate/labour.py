"""First labour estimate: person-hours from the trade's median rates (handbook §17)."""

from amber_gable.domain.product import Operation, OperationKind
from amber_gable.domain.schools import Method

# m² of the acted-on surface per person and hour.
_PREPARATION_RATE = {
    OperationKind.WASH: 70.0,
    OperationKind.SCRAPE: 5.0,
    OperationKind.SAND: 20.0,
    OperationKind.REPAIR: 10.0,
    OperationKind.CAULK: 60.0,
    OperationKind.MASK: 60.0,
}
_FILM_RATE = {Method.BRUSH: 11.0, Method.ROLLER: 28.0, Method.AIRLESS: 90.0, Method.TURBINE: 45.0}
_DECK_BRUSH_RATE = 22.0
_PATCHED = 0.5
"""Share of a zone below which a primer goes on in spots, at 10 m²/h whatever the method."""
_SPOT_RATE = 10.0


def height_factor(height_m: float) -> float:
    """Slower above 3 m and 6 m from a ladder."""
    if height_m > 6:
        return 1.35
    return 1.15 if height_m > 3 else 1.0


def texture_factor(texture: str, profile_factor: float) -> float:
    """Heavy texture takes longer: 1.3 from a profile factor of 1.3, up to 1.8 at 1.8; 1 on the rest."""
    return min(profile_factor, 1.8) if texture == "stucco" and profile_factor >= 1.3 else 1.0


def rate_m2_h(operation: Operation, *, level: bool = False) -> float:
    """Acted-on m² one person does in an hour; `level` for decks and floors."""
    if not operation.kind.lays_film or operation.method is None:
        return _PREPARATION_RATE[operation.kind]
    if operation.share < _PATCHED:
        return _SPOT_RATE
    if level and operation.method is Method.BRUSH:
        return _DECK_BRUSH_RATE
    return _FILM_RATE[operation.method]


def person_hours(operation: Operation, surface_m2: float, height_m: float, texture: float, *, level: bool) -> float:
    """Hours one person needs for the operation on a zone of that surface (its share included), height in m."""
    return surface_m2 * operation.share / rate_m2_h(operation, level=level) * height_factor(height_m) * texture
