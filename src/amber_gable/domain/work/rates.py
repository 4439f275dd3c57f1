"""How fast the work goes: what one person does in an hour, and what makes it slower. The trade's medians (docs/trade.md
§17) are what a company begins with; it writes its own over them."""

from collections.abc import Mapping
from typing import Annotated

from pydantic import Field

from amber_gable.domain.base import Name, Record
from amber_gable.domain.work.operation import AmountUnit

_TRADE, _OURS = "the trade's median", "our own prior"
_SPREAD, _WIDE = 1.5, 1.7
"""Geometric standard deviations: docs/physics.md §11, and where nobody wrote a figure down."""


class Rate(Record):
    """What one person does in an hour, the median of many days; `spread` is the geometric standard deviation of it,
    `source` says whose figure it is."""

    code: str
    words: Name
    unit: AmountUnit
    per_hour: Annotated[float, Field(gt=0, le=10_000)]
    spread: Annotated[float, Field(ge=1, le=4)] = _SPREAD
    source: Name = _TRADE


class OwnRate(Record):
    """A company's own figure for a rate."""

    per_hour: Annotated[float, Field(ge=0.01, le=10_000)]
    spread: Annotated[float, Field(ge=1, le=4)] = _SPREAD
    source: Name = "the company's own"


FACTOR_LEAST, FACTOR_MOST = 0.3, 5.0
Times = Annotated[float, Field(ge=FACTOR_LEAST, le=FACTOR_MOST)]


class PaceFactor(Record):
    """What an hour's work is multiplied by where something holds."""

    code: str
    words: Name
    value: Times
    source: Name = _TRADE


_M2, _M, _N = AmountUnit.M2, AmountUnit.M, AmountUnit.PIECES


def _rows(unit: AmountUnit, source: str, *rows: tuple[str, str, float]) -> list[Rate]:
    spread = _SPREAD if source == _TRADE else _WIDE
    return [Rate(code=c, words=w, unit=unit, per_hour=r, spread=spread, source=source) for c, w, r in rows]


_ALL = [
    # Where docs/trade.md has one figure for two steps, it is shared so that both together come to it.
    *_rows(_M2, _TRADE,
           ("wash-pressure", "wash a wall by pressure or fan rinse", 70),
           ("wash-hose", "wash by hose and brush", 30),
           ("wash-deck", "wash a deck or floor", 40),
           ("growth", "bleach or fungicide: apply, dwell, rinse", 40),
           ("hepa-wipe", "HEPA vacuum and damp wipe", 25),
           ("blow", "blow or brush off dust", 120),
           ("scrape", "scrape failing paint (with feathering 5 m² of it an hour)", 7.5),
           ("feather", "feather the edges (with scraping 5 m² an hour; a fifth more is feathered than fails)", 18),
           ("sand", "sand sound surface", 20),
           ("spot-prime", "prime in spots", 10),
           ("brush", "brush siding and other surfaces", 11),
           ("roller", "roll", 28),
           ("airless", "spray airless", 90),
           ("back-rolled", "spray airless and back-roll", 40),
           ("pole-brush", "stain a deck by pole brush", 22),
           ("floor-roller", "roll a floor", 20),
           ("roof-spray", "spray a roof", 60)),
    *_rows(_M2, _OURS,
           ("denib", "de-nib a film by hand and wipe it off", 25),
           ("brighten", "brighten, scrub, rinse", 40),
           ("degrease", "degrease, scrub, rinse", 30),
           ("strip", "strip or restore with chemicals, a square metre at a time", 10),
           ("damp-wipe", "wipe damp", 25),
           ("dry-brush", "brush off dry and vacuum", 25),
           ("deglosser", "wipe with deglosser", 20),
           ("to-bare", "sand or strip to bare", 1.5),
           ("wire-brush", "wire brush rust and loose paint", 5),
           ("rot", "cut out, harden and fill rot", 0.5),
           ("render", "fill with base render", 10),
           ("roof-seams", "tighten fixings and seal seams of a roof", 60),
           ("look-over", "look over when dry, mend misses", 150),
           ("look-near", "look over at arm's length or from above, mend", 75),
           ("turbine", "spray with a turbine gun", 45),
           ("general", "other work by surface", 60)),
    *_rows(_M, _TRADE,
           ("trim-brush", "brush trim", 10),
           ("gutter-brush", "gutter and downspouts, both passes", 15),
           ("railing-brush", "brush a railing with balusters, both sides", 3),
           ("caulk-out", "cut old caulk out, 10 to 15 m an hour", 12),
           ("caulk-in", "caulk a joint", 25)),
    *_rows(_M, _OURS,
           ("trim-roller", "roll trim", 18),
           ("trim-spray", "spray trim", 40),
           ("gutter-spray", "spray gutter and downspouts", 40),
           ("railing-spray", "spray a railing, both sides", 12),
           ("putty-out", "cut failing putty out, 3 to 5 m an hour", 4),
           ("putty-in", "glaze with putty", 7),
           ("crack-open", "rake cracks out", 20),
           ("crack-dust", "vacuum opened cracks out", 60),
           ("crack-fill", "fill cracks", 20),
           ("edge-tape", "tape an edge", 40),
           ("edge-untape", "pull the tape off an edge", 200)),
    *_rows(_N, _TRADE,
           ("nail-head", "set a nail and clean its head (with filling 12 spots an hour)", 30),
           ("spot-fill", "fill a spot (with cleaning it 12 an hour)", 20),
           ("mask-spray", "mask an opening for spraying", 6),
           ("mask-brush", "mask an opening for brushing", 12),
           ("unmask", "unmask an opening and clear away", 40),
           ("sash-1", "sash window of one pane a sash, both sashes and frame", 1 / 0.6),
           ("sash-4", "sash window of two to four panes a sash, both sashes and frame", 1 / 0.9),
           ("sash-6", "sash window of six or more panes a sash, both sashes and frame", 1 / 1.25),
           ("sash-prep-1", "all preparation of a sash window of one pane a sash", 1 / 0.3),
           ("sash-prep-4", "all preparation of a sash window of two to four panes a sash", 1 / 0.55),
           ("sash-prep-6", "all preparation of a sash window of six or more panes a sash", 1 / 0.8),
           ("door-panelled", "a side of a panelled door", 1 / 0.75),
           ("shutter-spray", "spray a shutter, both sides", 1 / 0.15),
           ("shutter-hang", "a pair of shutters off and on again, numbered", 1 / 0.25),
           ("shutter-hang-high", "a pair of shutters off and on again, numbered, upstairs", 1 / 0.4),
           ("garage-spray", "spray a single garage door", 1 / 0.15),
           ("garage-roller", "roll a single garage door", 1),
           ("garage-ready", "wash, clear and mask a garage door, and back again", 1 / 1.5),
           ("cover", "cover ground and planting before a face", 1 / 0.375),
           ("contain", "lead containment of a face set up, 2 to 4 h", 1 / 3),
           ("daily-hepa", "daily HEPA clean-up of a face", 1 / 0.5),
           ("ladder-move", "move a ladder", 60 / 4),
           ("tower-move", "move a tower", 60 / 20),
           ("sprayer-day", "set up and clean a sprayer, a day", 1 / 0.5)),
    *_rows(_N, _OURS,
           ("lift-move", "move a lift", 60 / 5),
           ("extra-window", "clean a window outside", 1 / 0.15),
           ("extra-lamp", "change a lamp like for like", 1 / 0.4),
           ("extra-gutter", "clear a run of gutter and flush its downspout", 1 / 0.6),
           ("extra-furniture", "wash a piece of garden furniture and rinse it", 4),
           ("extra-cobwebs", "brush the cobwebs off a face", 1 / 0.25),
           ("leaf-off", "take a door leaf off, or hang it again", 1 / 0.4),
           ("sash-out", "take the sashes of a window out, or put them back", 1 / 0.6),
           ("shutter-carry", "carry a pair of shutters to where it is painted, or back", 1 / 0.1),
           ("sheets-again", "sheets of a contained face laid again: 1.5 h after rain, one day in three", 1 / 0.5),
           ("cut-back", "cut back planting before a face", 2),
           ("anchor", "drill an anchor into masonry and hang on it", 10),
           ("look", "look at a dry coat and decide", 10),
           ("fitting", "take a fitting down or put it back", 4),
           ("floor-edge", "mask the walls and posts round a floor", 4),
           ("sash-move", "move the sashes while the coat is soft", 20),
           ("stub", "cut a metal stub off and grind it flush", 1 / 0.15),
           ("final-check", "final check of a face for chips and dust", 4),
           ("door-flush", "a side of a flush door", 1 / 0.45),
           ("door-glazed", "a side of a glazed door", 1 / 0.7),
           ("door-spray", "spray a side of a door, glass masked", 1 / 0.35),
           ("shutter-brush", "brush a shutter, both sides", 1 / 0.4),
           ("scaffold", "put up a scaffold at a chimney and take it down", 1 / 2),
           ("furniture", "move a deck's furniture off and back", 1 / 0.5),
           ("vehicle", "have vehicles moved or sheeted before a sprayed face, a day", 4),
           ("fall-gear", "set up fall protection and take it down, a person and day", 1 / 0.4),
           ("walk-round", "walk round with the customer at the end", 1),
           ("travel", "travel there and back, a person and day", 1 / 0.5)),
]  # fmt: skip
RATES: Mapping[str, Rate] = {r.code: r for r in _ALL}

_FACTORS = [
    PaceFactor(code="wet", words="wet or shrouded, for lead or silica", value=1.5),
    PaceFactor(code="above-3", words="from a ladder above 3 m", value=1.15),
    PaceFactor(code="above-6", words="from a ladder above 6 m", value=1.35),
    PaceFactor(code="solo", words="alone on a ladder", value=1.25),
    PaceFactor(code="cold", words="colder than 8 °C", value=1.15),
    PaceFactor(code="heavy-texture", words="heavy texture (profile factor 1.5)", value=1.3),
    PaceFactor(code="heaviest-texture", words="heaviest texture (profile factor 1.8)", value=1.8),
    PaceFactor(code="pitch-20", words="on a roof of 20° or more", value=1.15, source=_OURS),
    PaceFactor(code="pitch-35", words="on a roof of 35° or more", value=1.35, source=_OURS),
    PaceFactor(code="louvred", words="louvred, by brush", value=1.4, source=_OURS),
    PaceFactor(code="misted", words="misted as it is cut out, for lead", value=1.2, source=_OURS),
    PaceFactor(code="stippled", words="stippled into the pores by brush", value=1.5, source=_OURS),
    PaceFactor(code="mixed-crew", words="a crew with learners in it", value=1.15, source=_OURS),
    PaceFactor(code="learning-crew", words="a crew that is learning", value=1.4, source=_OURS),
]
PACE_FACTORS: Mapping[str, PaceFactor] = {f.code: f for f in _FACTORS}


def factors_with(own: Mapping[str, float]) -> Mapping[str, PaceFactor]:
    """The trade's factors with a company's own values over them."""
    if not own:
        return PACE_FACTORS
    mine = {"source": OwnRate.model_fields["source"].default}
    return {**PACE_FACTORS} | {
        code: PACE_FACTORS[code].model_copy(update={"value": value} | mine)
        for code, value in own.items()
        if code in PACE_FACTORS
    }


def rates_with(own: Mapping[str, OwnRate]) -> Mapping[str, Rate]:
    """The trade's rates with a company's own over them."""
    if not own:
        return RATES
    return {**RATES} | {
        code: RATES[code].model_copy(update={"per_hour": o.per_hour, "spread": o.spread, "source": o.source})
        for code, o in own.items()
        if code in RATES
    }
