"""What the customer wants to see on a surface."""

from enum import StrEnum


class Aim(StrEnum):
    """PAINT is an opaque film; stains let the wood show by degrees; CLEAR renews a clear coat."""

    PAINT = "paint"
    SOLID_STAIN = "solid-stain"
    SEMI_TRANSPARENT = "semi-transparent"
    TRANSLUCENT = "translucent"
    CLEAR = "clear"


AIM_NAMES = {
    Aim.PAINT: "Paint",
    Aim.SOLID_STAIN: "Solid stain",
    Aim.SEMI_TRANSPARENT: "Semi-transparent stain",
    Aim.TRANSLUCENT: "Translucent stain",
    Aim.CLEAR: "Clear coat",
}


SHINGLE_ROOF = frozenset({"wood", "roof"})


def usual_aim(tags: frozenset[str]) -> Aim:
    """A deck and a shingle roof are stained, composite boards opaquely; all else is painted."""
    if "composite" in tags:
        return Aim.SOLID_STAIN
    return Aim.SEMI_TRANSPARENT if "deck" in tags or tags >= SHINGLE_ROOF else Aim.PAINT


def aims_for(tags: frozenset[str]) -> tuple[Aim, ...]:
    """What can be asked for: stains on wood only, translucent ones where there is no paint tradition."""
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
