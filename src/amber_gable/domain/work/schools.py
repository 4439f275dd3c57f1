"""Schools: points on which good painters differ, each with what it trades.

A choice is kept by topic and option code, at company, job and part level; the nearest one holds. Topics of survey and
weather are chosen for the whole house.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from types import MappingProxyType


class AskedBy(StrEnum):
    """Where the work asks a topic's question; only what the specification asks may be answered part by part."""

    SURVEY = "survey"
    SPECIFICATION = "specification"
    WEATHER = "weather"


@dataclass(frozen=True)
class School:
    """One option of a topic. `life` is a factor on the years a coating system lasts (docs/trade.md §16); `trades`
    says what it gives and takes, `risk` what goes wrong with it when it does."""

    code: str
    name: str
    trades: str
    risk: str
    life: float = 1.0


@dataclass(frozen=True)
class Topic:
    """A question with its schools. The first is the default."""

    code: str
    question: str
    schools: tuple[School, ...]
    asked: AskedBy = AskedBy.SPECIFICATION

    def school(self, code: str) -> School:
        """Raises ValueError naming the options."""
        for s in self.schools:
            if s.code == code:
                return s
        options = ", ".join(s.code for s in self.schools)
        raise ValueError(f"'{code}' is no school of '{self.code}'; one of: {options}")


_TOPICS = (
    Topic("deduction", "Are openings taken off the wall?", (
        School("threshold", "Openings over 1.5 m²", "Between the two: what small windows save, cutting in round them "
               "costs.", "A face of many small windows takes less paint than bought."),
        School("net", "Every opening", "Least paint; no allowance for cutting in round small windows.",
               "Hours too few on a face with many windows."),
        School("gross", "No opening", "Quick to measure; the cutting-in costs what the opening saves.",
               "Paint over-ordered on glassy faces."),
    ), AskedBy.SURVEY),
    Topic("sun", "When does direct sun stop a coat?", (
        School("shade-when-warm", "Shade when warm", "Direct sun stops the coat only from 18 °C air or above 32 °C at "
               "the surface.", "Lap marks on a dark wall in a cool wind."),
        School("follow-shade", "Always follow the shade", "Never a coat in direct sun: fewest lap marks, fewest hours.",
               "Cold mornings lost that would have held."),
        School("temperature", "Temperature decides", "The sheet's hottest surface alone, until the film is dry to "
               "touch: most hours.", "Lap marks in the sun."),
    ), AskedBy.WEATHER),
    Topic("rain", "Which rain stops a coat?", (
        School("anywhere", "Any rain", "Wherever it falls, until the coat is rain-ready; nothing to judge.",
               "Lee walls under eaves lose hours that they had."),
        School("face", "Rain that reaches the face", "The crew stops for any rain; a coat that is laid only for what "
               "the wind drives onto its face. Lee walls and deep eaves gain hours.",
               "A wind that turns wets what was counted dry; drips from above are not computed."),
    ), AskedBy.WEATHER),
    Topic("hold", "How long must the surface stay warm enough?", (
        School("touch-dry", "Until dry to touch, two hours at least", "Late enough for a working day in spring.",
               "A film that set and has not yet formed meets the cold night."),
        School("four-hours", "Four hours", "A margin over touch-dry; the last stroke comes earlier.",
               "Slow products are not formed by then."),
        School("overnight", "Overnight, fourteen hours", "Safest for the film; closes most of spring and autumn.",
               "Season lost."),
    ), AskedBy.WEATHER),
    Topic("dew", "How long must dew stay off?", (
        School("rain-ready", "Until rain-ready", "No leached or dull patches.", "Early end of the day in autumn."),
        School("touch-dry", "Until dry to touch", "Later last strokes.", "Dull or streaked patches."),
    ), AskedBy.WEATHER),
    Topic("recoat", "May a film be ready before its sheet says?", (
        School("sheet", "Never sooner than the sheet", "Rain-ready, recoat and walked on after the sheet's own "
               "hours at the least, however warm and dry it is.", "A hot afternoon's hours are not won."),
        School("film", "The film tells", "Warm, dry air brings the next coat forward as the computed film has it.",
               "A film that feels dry and is not takes up the next one's solvent: wrinkles, soft for weeks; the "
               "sheet's maker answers for nothing."),
    ), AskedBy.WEATHER),
    Topic("sure", "How sure must a Yes be before the crew goes?", (
        School("70", "Seven futures in ten", "Says “I would wait” where the coat holds in fewer: most days are used, "
               "few coats are lost.", "Of the coats just above it three in ten are laid again."),
        School("90", "Nine futures in ten", "For work that cannot be reached twice, and dark or dear coats.",
               "Days waited away that would have held."),
        School("50", "More likely than not", "For primers and small work that is quickly done again.",
               "Of the coats just above it every other one is laid again."),
    ), AskedBy.WEATHER),
    Topic("season", "For which weeks is the paint chosen?", (
        School("mild", "Mild weeks", "Of all that serves, what suits best and costs least.",
               "A week of colder days stops the job."),
        School("cold", "Cold weeks", "What may be laid a little above freezing comes first: dearer paint, days won in "
               "early spring and late autumn.", "Films dry at half the pace, and dew comes early."),
    )),
    Topic("wash", "How are walls washed?", (
        School("hose", "Never pressure wash siding", "Cleaner by hose, a minute's dwell and a brush: no water behind "
               "the boards, more brushing.", "Dirt left in corners where the brush was skipped."),
        School("pressure", "Pressure wash siding", "Wide fan at low pressure: fast on big walls; needs longer drying.",
               "Water driven behind the siding; gouged wood, broken glass.", 0.95),
    )),
    Topic("mildew", "What kills mildew and algae?", (
        School("bleach", "Bleach 1 : 3, rinsed", "Cheap, seen to work while you wait; must be rinsed.",
               "Burns planting; never with ammonia or acid."),
        School("fungicide", "Fungicidal wash, left on", "Stays in the pores and keeps working; dearer, needs its time.",
               "Growth comes back sooner where it was rinsed off by rain.", 1.05),
    )),
    Topic("failing", "What of failing but tight old paint?", (
        School("encapsulate", "Lock the edges down", "Scrape what is loose, bind the edges with peel-bonding primer: "
               "the least work that holds.", "Old layers beside them let go under the new film.", 1.0),
        School("encapsulate-all", "Lock all of it down", "Scrape what is loose, peel-bonding primer over the whole "
               "part: all that is old is held by one film.", "Litres and a day more; what lifts lifts in sheets.", 1.2),
        School("strip", "Strip to bare", "Off with all of it: the longest-lasting job, at many times the hours; much "
               "dust, and containment where lead is presumed.", "Damaged wood; lead dust.", 1.5),
    )),
    Topic("prime-sound", "Is sound paint primed?", (
        School("spots", "Bare spots only", "No primer over sound paint of the same kind: fewest hours and litres.",
               "Spots may flash through a thin finish."),
        School("everything", "Prime everything for evenness", "One more full coat: even sheen and suction.",
               "Hours and litres for looks alone.", 1.05),
    )),
    Topic("bare-wood", "Which primer on bare wood?", (
        School("acrylic", "Acrylic wood primer", "Recoat in hours, mild smell, stays flexible.",
               "Tannin may bleed through on cedar and knots."),
        School("alkyd", "Oil wood primer", "Blocks tannin best, binds old wood; a day to dry, strong fumes, oily rags.",
               "Slow in the cold; brittle with age."),
    )),
    Topic("damp-limit", "How damp may wood be under a film?", (
        School("15", "15 % at most", "The safe figure; waits longer after washing and rain.", "Days lost."),
        School("17", "17 % at most", "Starts a day or two earlier.", "Blisters where one board was wetter.", 0.95),
    )),
    Topic("timber", "When is new treated timber ready?", (
        School("test", "Test, not calendar", "Meter and water drop decide: may be weeks or months.",
               "Readings taken on the driest boards only."),
        School("season", "Leave it a season", "Three to four months whatever the meter says.",
               "The surface greys meanwhile and must be cleaned.", 1.0),
    )),
    Topic("deck-sand", "How are deck boards sanded before stain?", (
        School("open", "Open grain, 60 to 80 grit", "Raised fibre off, the grain left open: the stain goes in.",
               "A little rough underfoot."),
        School("smooth", "Smooth, 150 to 180 grit", "Raised fibre off, soft underfoot; takes up a little less stain.",
               "Closed grain where it was sanded too fine."),
        School("grip", "Leave for grip", "No sanding: more stain taken up, better grip in the wet.",
               "Splinters; fibre shows through the stain.", 0.95),
    )),
    Topic("brick", "Is bare brick primed?", (
        School("direct", "Masonry paint direct", "Brick with ordinary tooth takes masonry paint without primer.",
               "Uneven suction shows on the first coat."),
        School("prime", "Always prime bare masonry", "A masonry primer first: even suction, less finish paint.",
               "One more coat on something that cannot be undone.", 1.05),
    )),
    Topic("glaze", "How is hard, shiny masonry coated?", (
        School("abrade", "Abraded, adhesion primer", "The glaze is dulled wet, then a primer that holds on it: sure.",
               "A bright patch missed peels first."),
        School("conditioner", "Bonding conditioner", "No abrasion, one thin tinted coat.",
               "It soaks into nothing: all hangs on how clean the glaze is.", 0.9),
    )),
    Topic("soft-wall", "What of soft brick or stone that dusts?", (
        School("leave", "Leave it bare", "The wall dries and keeps its face; the usual answer where frost comes.",
               "It stays the colour it is, and keeps on dusting."),
        School("mineral", "Mineral coat", "A silicate coat lets water out again; only on bare wall, thinned into the "
               "dust.", "Flat and patchy; nothing but mineral holds on it later."),
        School("conditioner", "Conditioner and paint", "Binds the dust so that masonry paint holds; only on a dry wall "
               "that does not crumble.", "The film keeps water in, and frost takes the face of the wall.", 0.7),
    )),
    Topic("vinyl", "How dark may vinyl be painted?", (
        School("both", "Not darker, and cool by computation", "Must pass both the old colour and the computed peak.",
               "Refuses some colours a panel might bear."),
        School("not-darker", "A: never darker than now", "Simple and safe; no darker colour at all.",
               "Says nothing of a panel that is at its limit already."),
        School("rated", "B: only colours rated vinyl-safe", "Relies on the maker's rated colours, darker ones too.",
               "Warranty of the siding may still be void.", 0.95),
        School("computed", "C: computed peak below the softening limit", "Physics decides per face and colour.",
               "The design day or the colour's absorptance may be off.", 0.95),
    )),
    Topic("back-roll", "Are sprayed coats back-rolled?", (
        School("by-surface", "By substrate and condition", "First coat on bare or porous surfaces only.",
               "A porous patch missed."),
        School("always", "Everything", "Best penetration and an even film; less than half the spraying speed.",
               "Hours for little on sound, sealed walls.", 1.03),
        School("never", "Only where never painted before", "Fastest on sound walls that were back-rolled before.",
               "Pinholes on rough masonry.", 0.95),
    )),
    Topic("method", "By hand or by spray?", (
        School("hand", "Brush and roller", "Little masking, no overspray; slow on large walls.", "Lap marks."),
        School("spray", "Airless and turbine", "Three times a roller and more on open walls; masking, wind limits.",
               "Overspray, runs, skin injection."),
    )),
    Topic("dull", "How is gloss dulled?", (
        School("sand", "Sand it", "Sure and seen; dust.", "Edges sanded through."),
        School("deglosser", "Liquid deglosser", "No dust, gets into mouldings; gloves, glasses, ventilation.",
               "Bond depends on coating within its time.", 0.95),
    )),
    Topic("putty", "What glazes the windows?", (
        School("putty", "Oil putty", "The traditional bed; skins in one to two weeks before paint.",
               "Wrinkles when painted too soon.", 1.05),
        School("acrylic", "Gun-applied acrylic glazing compound", "Paint in days; dearer.",
               "Poor tooling shows.", 1.0),
    )),
    Topic("between", "Is a film rubbed down before the next coat?", (
        School("clean", "Not where it is clean", "Within its recoat time a film holds on the one below.",
               "Nibs and dust stay in the finish."),
        School("denib", "De-nib between coats", "A light rub with fine paper and a wipe before every coat on another "
               "film: smooth to the hand.", "Edges rubbed through; dust beside a wet film."),
    )),
    Topic("seen", "From where is it seen?", (
        School("street", "From the street", "Looked over with the whole job when it is dry.",
               "A nib is found by a hand, not by the eye."),
        School("near", "Near, and touched", "Rubbed down between coats where a hand goes, looked over at arm's length "
               "in raking light: twice the time.", "Hours for looks alone."),
        School("above", "From above too", "Looked over from the windows above while access stands.",
               "Misses that are found when the lift has gone."),
        School("nobody", "By nobody", "No rubbing down, no look for an even colour, no looking over at the end.",
               "A neighbour sees it after all."),
    )),
    Topic("look", "Is a coat looked at before the next is decided?", (
        School("counted", "As many coats as were counted", "Nothing is left to decide on the ladder.",
               "A coat too many, or one too few."),
        School("look", "Look, then decide", "Where one more coat may be wanted, or the last may not, somebody looks "
               "when it is dry. The possible coat is told apart, with its time kept free.",
               "Its price must be agreed before."),
    )),
    Topic("topcoat", "Does a clear coat go over the colour of floors and decks?", (
        School("colour", "Colour alone", "One product, one upkeep.", "Traffic and sun wear the colour itself."),
        School("clear", "A clear coat over it", "The clear coat wears instead of the colour, and is renewed by itself.",
               "Over dark colours it may look cloudy; a film is renewed in time, or it peels.", 1.25),
        School("tinted", "A clear coat with a little of the colour in it", "No cloudiness over dark colours.",
               "Stirred by eye, two batches differ: mix all of it at once.", 1.25),
    )),
    Topic("place", "Where are doors, sashes and shutters painted?", (
        School("in-place", "In place", "No carrying and nothing boarded up; in the weather of its wall.",
               "Edges and backs are hard to reach."),
        School("stands", "Taken down, on stands outside", "Flat on trestles in the shade, moved with it: no "
               "ladder, all edges, no runs.", "A shower or dew finds it lying flat.", 1.05),
        School("under-cover", "Taken down, under cover", "In a shed or garage: no rain, no sun, no ladder; work for "
               "wet days. It dries in the shed's air.", "Slow in a cold shed; fumes where nobody airs it.", 1.1),
        School("shop", "Taken down, in a heated shop", "Warm, dry air whatever the weather: work for the winter.",
               "Two ways with the van; the opening stays boarded for days.", 1.1),
    )),
    Topic("windows", "How many coats on windows?", (
        School("traditional", "Primer, undercoat, two top coats", "The full build: lasts, closes the grain.",
               "Sashes bind when the film grows thick.", 1.15),
        School("two-coat", "Spot primer and two top coats", "One coat less and a day less.",
               "Thin on edges and sills.", 1.0),
    )),
    Topic("chalk", "What binds chalk left after washing?", (
        School("conditioner", "Conditioner", "Soaks in and binds the dust; thin, quick to roll on.",
               "Leaves a shine where it was not taken up."),
        School("bonding", "Peel-bonding primer", "Bridges and binds; thick, slow to dry.",
               "Closes fine texture.", 1.05),
    )),
    Topic("edges", "How are edges on a wall kept straight by hand?", (
        School("cut-in", "Cut in with the brush", "Quick in a steady hand; openings alone are taped.",
               "A wavering line, paint on stone and trim."),
        School("taped", "Taped", "Against other colours, stone, trim and the ground: a straight line for every hand. "
               "Some 30 m an hour, putting on and taking off.", "Tape left too long tears the coat; on dust or rough "
               "stone paint creeps under it."),
    )),
    Topic("order", "Which goes first on a face?", (
        School("fields-first", "Fields first", "Siding, then windows and trim: trim is cut in over the field.",
               "Trim waits longest in the weather."),
        School("trim-first", "Trim first", "Trim sprayed or brushed free, then masked by the field's edge.",
               "Fresh trim under ladders and drips."),
    )),
)  # fmt: skip
TOPICS: Mapping[str, Topic] = MappingProxyType({t.code: t for t in _TOPICS})
DEFAULTS: Mapping[str, str] = MappingProxyType({t.code: t.schools[0].code for t in _TOPICS})


def topics_of(asked: AskedBy) -> list[Topic]:
    return [t for t in _TOPICS if t.asked is asked]


def checked_schools(chosen: Mapping[str, str]) -> dict[str, str]:
    """The choices of a company or a job as they are. Raises ValueError for a topic or school that is not known."""
    for topic, code in chosen.items():
        if topic not in TOPICS:
            raise ValueError(f"'{topic}' is no topic of schools; one of: {', '.join(TOPICS)}")
        TOPICS[topic].school(code)
    return dict(chosen)


def checked_part_schools(chosen: Mapping[str, str]) -> dict[str, str]:
    """The choices of one part as they are. Raises ValueError as above, and for a topic of the whole house."""
    for topic in checked_schools(chosen):
        if TOPICS[topic].asked is not AskedBy.SPECIFICATION:
            raise ValueError(f"'{topic}' is chosen for the whole job, not for one part")
    return dict(chosen)


def resolved(*levels: Mapping[str, str]) -> dict[str, str]:
    """Every topic's school, from company to job to part: what comes later holds."""
    out = dict(DEFAULTS)
    for level in levels:
        out |= level
    return out
