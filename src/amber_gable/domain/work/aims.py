"""What the customer wants to see on a surface."""

from enum import StrEnum


class Aim(StrEnum):
    """PAINT is an opaque film; stains let the wood show by degrees; CLEAR is a clear coat on bare or stripped wood. The
    last four keep up what is there, in the colour it has: washed, stripped and left, its clear coat or its stain laid
    anew."""

    PAINT = "paint"
    SOLID_STAIN = "solid-stain"
    SEMI_TRANSPARENT = "semi-transparent"
    TRANSLUCENT = "translucent"
    CLEAR = "clear"
    WASH_ONLY = "wash-only"
    STRIP_ONLY = "strip-only"
    CLEAR_ANEW = "clear-anew"
    REFRESH = "refresh"


AIM_NAMES = {
    Aim.PAINT: "Paint",
    Aim.SOLID_STAIN: "Solid stain",
    Aim.SEMI_TRANSPARENT: "Semi-transparent stain",
    Aim.TRANSLUCENT: "Translucent stain",
    Aim.CLEAR: "Clear coat",
    Aim.WASH_ONLY: "Wash only",
    Aim.STRIP_ONLY: "Strip only",
    Aim.CLEAR_ANEW: "Clear coat anew",
    Aim.REFRESH: "Refresh the stain",
}
KEEPS_UP = frozenset({Aim.WASH_ONLY, Aim.STRIP_ONLY, Aim.CLEAR_ANEW, Aim.REFRESH})
"""What is there stays: no other colour, and a lighter specification than a new finish."""
KEEPS_COLOUR = KEEPS_UP | {Aim.CLEAR}


SHINGLE_ROOF = frozenset({"wood", "roof"})


def usual_aim(tags: frozenset[str]) -> Aim:
    """A deck and a shingle roof are stained, composite boards opaquely; all else is painted."""
    if "composite" in tags:
        return Aim.SOLID_STAIN
    return Aim.SEMI_TRANSPARENT if "deck" in tags or tags >= SHINGLE_ROOF else Aim.PAINT


def based_on(aim: Aim, tags: frozenset[str]) -> Aim:
    """The finish by whose rules what is kept up is worked on."""
    if aim is Aim.WASH_ONLY:
        return usual_aim(tags)
    if aim is Aim.CLEAR_ANEW:
        return Aim.CLEAR
    return Aim.SEMI_TRANSPARENT if aim in (Aim.STRIP_ONLY, Aim.REFRESH) else aim


def aims_for(tags: frozenset[str]) -> tuple[Aim, ...]:
    """What can be asked for: stains on wood only, translucent ones where there is no paint tradition; everything can be
    washed, a deck be stripped or kept up."""
    return (*_finishes(tags), Aim.WASH_ONLY, *((Aim.STRIP_ONLY, Aim.CLEAR_ANEW, Aim.REFRESH) if _keeps(tags) else ()))


def _keeps(tags: frozenset[str]) -> bool:
    return "deck" in tags and "composite" not in tags


def _finishes(tags: frozenset[str]) -> tuple[Aim, ...]:
    if tags >= SHINGLE_ROOF:
        return (Aim.SEMI_TRANSPARENT, Aim.TRANSLUCENT)
    if "composite" in tags:
        return (Aim.SOLID_STAIN,)
    if "deck" in tags:
        return (Aim.SEMI_TRANSPARENT, Aim.TRANSLUCENT, Aim.SOLID_STAIN, Aim.CLEAR)
    if "wood" in tags and tags & {"railing", "stair", "beam", "siding"}:
        return (Aim.PAINT, Aim.SOLID_STAIN, Aim.SEMI_TRANSPARENT)
    return (Aim.PAINT,)


def allowed_aim(aim: Aim | None, tags: frozenset[str]) -> Aim | None:
    """The aim, or None where such a surface cannot have it: the usual one is taken then."""
    return aim if aim is None or aim in aims_for(tags) else None
