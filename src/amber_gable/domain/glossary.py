"""Words of the trade and of our pages, told once for all who meet them the first time."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Term:
    """`forms`: how it stands in a sentence, beside the word itself. A word that means another thing elsewhere (the
    spread of paint, an air conditioner), or stands in the names of walls and windows, is written out here: it is not
    explained there."""

    word: str
    meaning: str
    forms: tuple[str, ...] = ()

    @property
    def written(self) -> tuple[str, ...]:
        return self.word, *self.forms


_TERMS = (
    # the weather
    Term("dew point", "The temperature to which air must cool before water settles out of it. A wall colder than that "
         "gets wet."),
    Term("relative humidity", "How much water the air holds of what it could hold at its temperature, in per cent.",
         ("humidity",)),
    Term("spread above the dew point", "How much warmer a surface is than the dew point. At nothing it is wet; "
         "painters want a few degrees."),
    Term("headroom", "How far a value is on the good side of its limit."),
    Term("last stroke", "The last minute at which a coat may be laid and still hold through what comes after."),
    Term("touch-dry", "When a finger no longer lifts any paint. Rain, dew and frost can still spoil the film.",
         ("dry to touch", "touch dry")),
    Term("rain-ready", "When rain no longer marks or washes the film."),
    Term("recoat", "When the next coat may be laid on this one: not before, or the two wrinkle; for some not long "
         "after, or they do not bond."),
    Term("drying tail", "The line behind a brush stroke on the lanes: the time the coat takes to dry, with marks at "
         "touch, rain and recoat."),
    Term("wet edge", "The edge of what was just laid, still open. Paint joined to it does not show where one began."),
    Term("lap marks", "Stripes where fresh paint went over an edge that had dried already.", ("lap mark",)),
    # the film
    Term("sheen", "How much a film shines, from flat to gloss."),
    Term("solids", "What stays on the wall of what was in the can; the rest goes into the air.", ("solids by volume",)),
    Term("absorptance", "The share of the sun’s heat that a colour takes up. Dark walls take most and get hot."),
    Term("bleed", "A stain from below that comes through new paint.", ("bleeds", "bleed-through")),
    Term("pinholes", "Tiny holes in a film over rough or porous ground, where sprayed paint bridged the pores."),
    Term("boxing", "Pouring cans of one colour together before painting, so that no wall shows where a can ended.",
         ("boxed",)),
    # preparation
    Term("feathering", "Sanding the edge of old paint down to nothing, so that it does not show through the new coat.",
         ("feather", "feathered", "feathers")),
    Term("chalking", "Old paint turning to powder. What rubs off on the hand would come off under new paint.",
         ("chalk", "chalks")),
    Term("efflorescence", "White salts that water brings out of masonry. They go on coming until the water stops."),
    Term("tannin", "Brown dye in cedar, redwood and knots, which water carries through light paint."),
    Term("raised fibre", "Wood hairs that stand up after washing or weathering; sanded off, or a stain is rough."),
    Term("HEPA", "A filter fine enough for lead dust. A common vacuum blows it back into the air."),
    Term("encapsulate", "To lock old sound paint down under a binding coat instead of taking it off.",
         ("encapsulated",)),
    Term("peel-bonding primer", "A thick primer that glues the edges of old flaking paint down and levels them."),
    Term("deglosser", "A liquid that dulls shiny paint so that the next coat grips."),
    Term("masonry conditioner", "A thin liquid that soaks into a powdery surface and binds it."),
    Term("putty", "What holds window glass in its sash; it needs days to skin over before paint."),
    Term("caulk", "A soft filler for joints, which stays soft and moves with them.", ("caulked", "caulking")),
    Term("bare wood", "Wood with no paint left on it. It wants a primer of its own, soon: sun spoils it in weeks."),
    # laying it
    Term("cutting in", "Painting along an edge by brush, before the roller or sprayer fills the field.", ("cut in",)),
    Term("back-rolling", "Rolling over sprayed paint while it is wet, to work it into the surface.",
         ("back-rolled", "back-roll")),
    Term("airless", "A sprayer that presses the paint itself through a small hole: fast, for large walls."),
    Term("turbine", "A sprayer that carries the paint on warm air: slow and fine, for doors and trim."),
    Term("overspray", "Fine paint that drifts past what was aimed at: onto cars, glass, planting."),
    # the house
    Term("eave", "The lower edge of a roof, where the gutter hangs."),
    Term("verge", "The sloping edge of a roof over a gable."),
    Term("gable (of a wall)", "The three-cornered top of a wall under a roof’s two slopes."),
    Term("soffit", "The underside of a roof’s overhang."),
    Term("fascia", "The board along the edge of the roof that the gutter is fixed to."),
    Term("sash (of a window)", "The frame that holds the glass of a window and slides or swings."),
    Term("casing", "The flat boards round a window or door."),
    Term("corner boards", "The upright boards at the corners of a wall, into which the siding runs.",
         ("corner board",)),
    Term("clapboard", "Long wooden boards, thicker at the lower edge, each lapping over the one below."),
)  # fmt: skip


def glossary() -> tuple[Term, ...]:
    """By the alphabet."""
    return tuple(sorted(_TERMS, key=lambda t: t.word.casefold()))
