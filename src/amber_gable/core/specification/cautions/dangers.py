"""What each way of working does to people: the one table from which safety cards take what they forbid."""

from collections.abc import Mapping
from enum import StrEnum
from types import MappingProxyType

from amber_gable.domain.work.operation import Technique as T


class Danger(StrEnum):
    """DUST is dry dust of what is on the surface, not drawn off; EXTRACTED the same with shroud and HEPA vacuum or
    brushed with the vacuum beside it; ABRASION breaks the surface, wet as well; TREAD puts weight on it."""

    DUST = "dry dust"
    EXTRACTED = "extracted dust"
    ABRASION = "abrasion"
    JET = "jet"
    HEAT = "heat"
    CAUSTIC = "caustic"
    ACID = "acid"
    BLEACH = "bleach"
    BIOCIDE = "biocide"
    SOLVENT = "solvent"
    METHYLENE = "methylene chloride"
    SPARKS = "sparks"
    INJECTION = "injection"
    MIST = "spray mist"
    WATER = "water behind the boards"


D = Danger
_ROWS: dict[T, set[D]] = {
    T.FIT: set(),
    T.MOVE: set(),
    T.CUT_BACK: set(),
    T.COVER: set(),
    T.CONTAIN: set(),
    T.MASK: set(),
    T.TAPE: set(),
    T.UNMASK: set(),
    T.LAY_AGAIN: set(),
    T.TAKE_OUT: set(),
    # Only the new film is rubbed.
    T.DENIB: set(),
    T.DAILY_CLEAN: {D.EXTRACTED},
    T.FINAL_CHECK: set(),
    T.INSPECT: set(),
    T.LOOK_OVER: set(),
    T.HOSE_WASH: set(),
    T.DAMP_WIPE: set(),
    T.PRESSURE_WASH: {D.JET, D.WATER},
    T.BLEACH: {D.BLEACH},
    T.FUNGICIDE: {D.BIOCIDE},
    T.STRIPPER: {D.CAUSTIC},
    T.SOLVENT_STRIPPER: {D.SOLVENT, D.METHYLENE},
    T.MILD_STRIPPER: {D.SOLVENT},
    T.POULTICE: {D.CAUSTIC},
    T.RESTORER: {D.ACID},
    T.BRIGHTENER: {D.ACID},
    T.DEGREASE: set(),
    T.ACID_ETCH: {D.ACID},
    T.ROTARY_NOZZLE: {D.JET, D.ABRASION, D.WATER},
    T.WET_SCRAPE: {D.ABRASION},
    T.DRY_SCRAPE: {D.DUST, D.ABRASION},
    T.WIRE_BRUSH: {D.DUST, D.ABRASION},
    T.WET_WIRE_BRUSH: {D.ABRASION},
    T.CUT_OUT: {D.DUST, D.ABRASION},
    T.WET_CUT_OUT: {D.ABRASION},
    T.RAKE_OUT: {D.DUST, D.ABRASION},
    T.WET_RAKE_OUT: {D.ABRASION},
    T.DRILL: {D.DUST, D.ABRASION},
    T.GRIND: {D.DUST, D.ABRASION, D.SPARKS},
    T.HEPA_GRIND: {D.EXTRACTED, D.ABRASION, D.SPARKS},
    T.GRIND_METAL: {D.SPARKS},
    T.HEAT_GUN: {D.HEAT},
    T.OPEN_FLAME: {D.HEAT},
    T.WET_SAND: {D.ABRASION},
    T.HAND_SAND: {D.DUST, D.ABRASION},
    T.POWER_SAND: {D.DUST, D.ABRASION},
    T.HEPA_SAND: {D.EXTRACTED, D.ABRASION},
    T.DEGLOSSER: {D.SOLVENT},
    T.DRY_BRUSH: {D.EXTRACTED},
    T.BLOW_OFF: {D.DUST},
    T.HEPA_VACUUM: {D.EXTRACTED},
    T.FILL: set(),
    T.GLAZE: set(),
    T.BEAD: set(),
    T.SEAL: set(),
    T.BRUSH_ON: set(),
    T.ROLL_ON: set(),
    T.STIPPLE: set(),
    T.SPRAY_ON: {D.INJECTION, D.MIST},
    T.AIR_SPRAY_ON: {D.MIST},
}
DANGERS: Mapping[T, frozenset[D]] = MappingProxyType({t: frozenset(d) for t, d in _ROWS.items()})


def with_danger(*dangers: D, but: tuple[T, ...] = ()) -> tuple[T, ...]:
    """Techniques with any of the dangers, in the order of the vocabulary."""
    return tuple(t for t in T if DANGERS[t] & set(dangers) and t not in but)


LEAD_FORBIDS = (*with_danger(D.DUST, D.JET, D.HEAT, D.METHYLENE), T.DRY_BRUSH)
"""Lead: no dry dust without a HEPA shroud, no jet, no heat, no methylene chloride."""
ARSENIC_FORBIDS = (*with_danger(D.DUST, D.HEAT), T.DRY_BRUSH)
"""Timber treated with arsenic: no dry dust without a HEPA shroud, nothing blown, nothing burnt."""
SILICA_FORBIDS = with_danger(D.DUST)
"""Mineral ground: wet or extracted ways only."""
ASBESTOS_FORBIDS = with_danger(D.DUST, D.ABRASION, D.EXTRACTED, D.JET, D.HEAT, but=(T.DAILY_CLEAN,))
"""Old cement sheet: nothing that breaks its face, wet or dry, and no jet."""
SOFT_STONE_FORBIDS = (*with_danger(D.JET, D.ACID, D.SPARKS), T.POWER_SAND, T.HEPA_SAND, T.ROTARY_NOZZLE)
"""Not a danger to people: what ruins limestone and soft brick."""
