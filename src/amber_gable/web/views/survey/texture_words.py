"""How a texture's factor comes about, in words and figures."""

from amber_gable.domain.house.profile import (
    BattenProfile,
    DeckProfile,
    DeckReach,
    FixedProfile,
    LapProfile,
    SineProfile,
    TrapezoidProfile,
)
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Zone
from amber_gable.web.views.units import Units


def texture_words(zone: Zone, units: Units) -> str:
    """The factor's arithmetic with the zone's own sizes, or where its table value comes from."""
    profile, size = zone.profile, units.fine
    if profile is None:
        return f"table: {SUBSTRATES[zone.substrate].name.lower()}"
    if isinstance(profile, FixedProfile):
        return "judged by eye"
    if isinstance(profile, LapProfile):
        return f"({size(profile.exposure_m)} + {size(profile.butt_m)}) ÷ {size(profile.exposure_m)}"
    if isinstance(profile, BattenProfile):
        return f"({size(profile.pitch_m)} + 2 × {size(profile.batten_thickness_m)}) ÷ {size(profile.pitch_m)}"
    if isinstance(profile, SineProfile):
        return f"arc of a wave {size(profile.pitch_m)} long, {size(profile.depth_m)} deep"
    if isinstance(profile, TrapezoidProfile):
        flats = f"{size(profile.pitch_m)} − {size(profile.base_m)} + {size(profile.crest_m)}"
        half = size((profile.base_m - profile.crest_m) / 2)
        return f"({flats} + 2 √({half}² + {size(profile.depth_m)}²)) ÷ {size(profile.pitch_m)}"
    return _deck(profile, units)


def _deck(profile: DeckProfile, units: Units) -> str:
    size = units.fine
    parts = [size(profile.board_m)]
    if profile.reach is not DeckReach.TOP:
        parts.append(f"2 × {size(profile.thickness_m)}")
    if profile.reach is DeckReach.SIX_SIDED:
        parts.append(size(profile.board_m))
    return f"({' + '.join(parts)}) ÷ ({size(profile.board_m)} + {size(profile.gap_m)})"
