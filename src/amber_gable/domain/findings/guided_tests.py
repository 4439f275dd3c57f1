"""The small tests of a survey (docs/trade.md §3): what each finds out, on what, and how it is done."""

from collections.abc import Collection
from enum import StrEnum
from typing import Any, get_args

from amber_gable.domain.base import Name, Record
from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.units import Quantity


class GuidedTest(Record):
    """Which field of Condition the reading fills, on which families of substrate (none: on all), and what to do."""

    code: str
    field: str
    name: Name
    families: tuple[str, ...]
    how: str

    @property
    def answers(self) -> tuple[str, ...]:
        """What a test of few answers can say; empty where a figure is typed."""
        annotation: Any = Condition.model_fields[self.field].annotation
        kinds = (annotation, *get_args(annotation))
        if bool in kinds:
            return ("yes", "no")
        choice = next((k for k in kinds if isinstance(k, type) and issubclass(k, StrEnum)), None)
        return tuple(choice) if choice is not None else ()

    def answers_on(self, families: Collection[str]) -> tuple[str, ...]:
        """Those that can be true on substrates of these families."""
        return tuple(a for a in self.answers if not _ONLY_ON.get(a) or _ONLY_ON[a] & set(families))

    def fits(self, family: str) -> bool:
        return not self.families or family in self.families


_ONLY_ON = {
    "film-stain": {"wood", "masonry"},
    "penetrating-stain": {"wood"},
    "factory-coat": {"wood", "metal", "cement", "composite"},
    "factory-primer": {"wood", "cement"},
    "lime-wash": {"masonry"},
}
"""Families of substrate on which an answer can be true; the others can be anywhere."""
_WOOD, _HARD = ("wood",), ("masonry",)
_ROWS: list[tuple[str, str, str, tuple[str, ...], str]] = [
    # code, field, name, families, how
    ("coating", "coating", "What is on it now", (),
     "Rub a hidden spot with a rag and methylated spirit: waterborne paint softens and comes off on the rag, oil paint "
     "does not. A penetrating stain has no film to lift with a blade. A factory coat is even into every corner, "
     "factory primer flat white or grey; lime wash rubs off white and drinks water."),
    ("coats", "coats", "Old coats, if known", (),
     "Cut a small crater and sand it: the rings can be counted. Many thick coats crack and let go of the wall."),
    ("scrape", "loose_pct", "Loose or peeling", (),
     "Pull a blade over it, flat side down. What a scraper will not lift may stay. Judge the share of the area, or "
     "paint it on the drawing."),
    ("rub", "chalking", "Chalking", (),
     "Rub with a dark cloth or a finger. A trace is light; a white finger is heavy."),
    ("sheen", "gloss", "Gloss left", (),
     "Look along the surface toward the light. What is glossy must be dulled before a coat."),
    ("bleach", "mildew_pct", "Mildew or algae", (),
     "A drop of one part household bleach in three of water, eyes and gloves on: mildew turns pale, dirt stays. Never "
     "bleach together with ammonia or acid."),
    ("dirt", "dirt", "Dirt, soot, cobwebs", (),
     "Wipe with a white cloth. A film is there even where it looks clean: it is always washed."),
    ("deposit", "deposit", "Soot, sea salt, graffiti, wax", (),
     "Soot smears black on a wet cloth; salt by the sea tastes and feels sticky; polish and wax shed a drop of water "
     "though the paint is dull."),
    ("bare", "bare_pct", "Bare areas", (),
     "Where the old coating is gone: the share of the area, or paint it on the drawing."),
    ("grey", "greyed", "Grey weathered wood", _WOOD,
     "Scratch bare wood with a nail: a silver layer of dead fibre over bright wood must come off."),
    ("tape", "raised_fibre", "Raised fibre", _WOOD,
     "Press strong packing tape on bare wood, pull it off, look for fibres on it."),
    ("water", "absorbency", "Absorbency", ("wood", "masonry", "cement"),
     "Sprinkle water: soaking in within about a minute, slowly, or standing in beads."),
    ("meter", "moisture", "Wood moisture", _WOOD,
     "Pins along the grain, several spots, low boards and end grain among them. Film paint wants 15 % or less, deck "
     "stain 12–17 %; nothing is coated above 18 %."),
    ("finger", "masonry", "Masonry surface", _HARD,
     "Draw a finger over it: dust comes off, it feels normal, or it is hard and shiny."),
    ("cracks", "crack_mm", "Widest crack", ("masonry", "wood", "cement"),
     "By feeler or card. Up to 0.2 mm the coat bridges; wider ones are opened and filled."),
    ("crack-run", "crack_m", "Cracks to open", ("masonry", "wood", "cement"),
     "Pace off the cracks wider than 0.2 mm."),
    ("probe", "rot_m2", "Rot", _WOOD,
     "Push an awl in at sills, ends and joints. Soft wood is treated, rebuilt or replaced before any coat."),
    ("joints", "caulk_m", "Old caulk to renew", (),
     "Pace off joints that are brittle, open or missing."),
    ("putty", "putty_m", "Old putty to renew", _WOOD,
     "Press with a thumbnail along the glass; measure what is loose or cracked."),
    ("age", "age_years", "Years since made", (),
     "Aluminium weathered ten years or more takes paint without primer, newer needs one; new render and concrete wait "
     "a month, new treated timber for months or tests."),
    ("vinyl", "vinyl", "Vinyl", ("vinyl",),
     "Feel for pits and look along it for panels already warped."),
    ("bloom", "efflorescence", "White bloom", _HARD,
     "Brush a patch dry with a stiff brush and look again after rain and a dry week: does the salt come back? Then "
     "water is still coming through. Never wash it in."),
    ("bleed", "tannin", "Brown bleed or knots", _WOOD,
     "Cedar and redwood kinds and pine knots: brown tears or resin rings through the old paint, or a damp white rag "
     "laid on bare wood for a minute turns brown."),
    ("rust", "rust_pct", "Rust", ("metal",),
     "The share of the surface that is rusty, at laps, fixings and edges first. Press a blade on it: does it flake?"),
    ("timber", "timber", "How the wood came", _WOOD,
     "The stamp on an end or the yard's slip: pressure-treated, kiln-dried after treatment, or untreated. Treated wood "
     "holds its water for months."),
    ("patch", "adhesion", "Test patch on old oil paint or a factory coat", ("wood", "metal", "cement", "composite"),
     "Dull and coat a hand's breadth with the new paint; a week later cut a cross, press tape on, pull. Nothing comes "
     "off: it holds."),
    ("made", "made_colour", "Colour as made", ("vinyl",),
     "Look under trim, behind a lamp or a shutter, where no sun came: that is the colour the panel was made in. "
     "Leave it open where no such spot can be seen."),
    ("laboratory", "asbestos", "Asbestos, by laboratory", ("cement",),
     "Sheets made before the 1990s may hold asbestos. Break nothing off: have licensed people take the sample. 'Yes' "
     "or 'no' only by a laboratory's paper."),
    ("built", "built_year", "Year it was put up", (),
     "Where it is not as old as the house: an extension, new siding, a door put in later. Lead, asbestos and arsenic "
     "are presumed by it."),
    ("lead", "lead_found", "Lead, by test", (),
     "By a laboratory, or a kit used as its sheet says, down to the oldest coat. Where none was tested "
     "it counts as the house does."),
    ("stubs", "stubs", "Metal stubs in a floor", _HARD,
     "Count what is left of cut-off posts, anchors and bolts standing out of the slab."),
    ("nails", "nails", "Nails proud or rusting", _WOOD,
     "Count what stands proud or bleeds rust on one square metre and multiply."),
]  # fmt: skip
GUIDED_TESTS = tuple(GuidedTest(code=c, field=f, name=n, families=fam, how=how) for c, f, n, fam, how in _ROWS)


def quantity_of_test(test: GuidedTest) -> Quantity | None:
    """What a typed reading is of, where its unit depends on the system; lengths are typed in feet and inches."""
    if test.field.endswith("_mm"):
        return Quantity.SMALL_LENGTH
    return Quantity.AREA if test.field.endswith("_m2") else None
