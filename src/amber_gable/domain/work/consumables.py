"""What a job uses up beside paint: how much for how much work (our own priors, where docs/trade.md §8 is silent).
Prices come with the price of a job."""

from collections.abc import Mapping
from typing import NamedTuple

from amber_gable.domain.work.operation import Technique as T

Driver = str | T
"""A rate (domain/work/rates.py), by its amount, or a technique, by its m²."""


class Consumable(NamedTuple):
    """`per`: units used for one unit of a driver's amount. `pack`: units it is bought in. `spread`: geometric standard
    deviation."""

    code: str
    words: str
    unit: str
    pack: float
    per: Mapping[Driver, float]
    spread: float = 1.3


_SASHES = {f"sash-{n}": 1 / 15 for n in (1, 4, 6)}
_SASH_PREP = [f"sash-prep-{n}" for n in (1, 4, 6)]
_DOORS = {"door-panelled": 1 / 12, "door-flush": 1 / 12, "door-glazed": 1 / 12}
_ROWS = [
    # A tube of 300 mL makes 9 to 12 m of a 6 mm bead (docs/trade.md §8).
    Consumable("caulk", "Paintable caulk, tubes of 300 mL", "tubes", 1, {"caulk-in": 1 / 10.5}, 1.12),
    Consumable("filler", "Exterior filler", "L", 0.5, {"spot-fill": 0.02, "crack-fill": 0.05}),
    Consumable("render", "Base render", "kg", 25, {"render": 12.0}),
    Consumable("wood-filler", "Two-part wood filler and hardener", "L", 0.5, {"rot": 8.0}, 1.5),
    Consumable("putty", "Glazing putty or compound", "kg", 0.5, {"putty-in": 0.12}, 1.2),
    Consumable(
        "tape", "Masking tape, rolls of 50 m", "rolls", 1,
        {"floor-edge": 0.3, "contain": 0.4, "edge-tape": 0.02},
    ),
    Consumable("film", "Masking film", "m²", 50, {"contain": 30.0, "daily-hepa": 6.0}),
    Consumable("paper", "Masking paper", "m", 50, {"mask-spray": 3.0, "garage-ready": 3.0}),
    Consumable(
        "sleeves", "Roller sleeves", "", 1,
        {"roller": 1 / 120, "floor-roller": 1 / 60, "back-rolled": 1 / 100, "garage-roller": 1 / 6,
         "trim-roller": 1 / 100},
    ),
    Consumable(
        "wall-brushes", "Brushes, 100 mm, for walls and decks", "", 1,
        {"brush": 1 / 150, "pole-brush": 1 / 80, "spot-prime": 1 / 80},
    ),
    Consumable(
        "trim-brushes", "Brushes, 65 mm, for trim, doors and gutters", "", 1,
        {"trim-brush": 1 / 200, "gutter-brush": 1 / 150, "railing-brush": 1 / 60, "shutter-brush": 1 / 20, **_DOORS},
    ),
    Consumable("sash-brushes", "Brushes, 40 mm angled, for sashes", "", 1, _SASHES),
    Consumable("detergent", "Detergent, undiluted (1 : 20)", "L", 1, {"wash-hose": 0.02, "wash-pressure": 0.01}, 1.4),
    Consumable("deck-cleaner", "Deck cleaner", "L", 2.5, {"wash-deck": 0.1}),
    # 0.2 L of the mixture for a square metre; one part bleach to three of water.
    Consumable("bleach", "Bleach, to be mixed 1 : 3", "L", 1, {T.BLEACH: 0.05}),
    Consumable("fungicide", "Fungicidal wash", "L", 1, {T.FUNGICIDE: 0.1}),
    Consumable(
        "stripper", "Chemical stripper", "L", 5,
        {T.STRIPPER: 0.25, T.SOLVENT_STRIPPER: 0.3, T.MILD_STRIPPER: 0.4, T.POULTICE: 0.5}, 1.5,
    ),
    Consumable("restorer", "Wood restorer", "L", 5, {T.RESTORER: 0.15}),
    Consumable("brightener", "Wood brightener", "L", 2.5, {T.BRIGHTENER: 0.1}),
    Consumable("degreaser", "Degreaser or etch", "L", 1, {T.DEGREASE: 0.05, T.ACID_ETCH: 0.15}),
    Consumable("deglosser", "Liquid deglosser", "L", 1, {T.DEGLOSSER: 0.06}),
    Consumable("rags", "Rags", "kg", 1, {"hepa-wipe": 0.02, "damp-wipe": 0.02, "deglosser": 0.03, "brush": 0.002}),
    Consumable(
        "blades", "Scraper blades", "", 1, {"scrape": 1 / 15, "putty-out": 1 / 20, **dict.fromkeys(_SASH_PREP, 0.1)}
    ),
    Consumable("wire-wheels", "Wire brushes and wheels", "", 1, {"wire-brush": 1 / 6, "nail-head": 1 / 60}),
    Consumable("bags", "Waste bags, to be sealed", "", 10, {"contain": 3.0, "daily-hepa": 1.0, "strip": 0.05}),
    Consumable("hepa", "Bags for the HEPA vacuum", "", 1, {"hepa-wipe": 1 / 150, "daily-hepa": 1 / 10}, 1.4),
]  # fmt: skip
TAPE_ROLL_M = 50.0
CONSUMABLES: Mapping[str, Consumable] = {c.code: c for c in _ROWS}

ABRASIVE_PER_M2 = {"feather": 0.4, "sand": 0.15, "to-bare": 4.0, **dict.fromkeys(_SASH_PREP, 0.4)}
"""Sheets or discs for a unit of work, by rate."""
TIP_L, FILTER_L = 100.0, 60.0
"""Wall paint through one tip (60 to 150 L, docs/trade.md §9.3) and through one filter."""
DUST_MASK_H, VAPOUR_MASK_H = 8.0, 20.0
"""Hours that filters of a respirator serve: dust of sanding and scraping, mist of spraying."""


class Additive(NamedTuple):
    """What may be stirred into finish coats: mL for a litre (our own priors; its own sheet comes first), what it is for
    and what it trades."""

    code: str
    words: str
    ml_per_l: float
    what_for: str
    trades: str


_ADDITIVES = [
    Additive("mildewcide", "Mildewcide", 8.0, "growth comes later in shade and damp",
             "A poison that washes out in some years; gloves and goggles."),
    Additive("insect-repellent", "Insect repellent", 5.0, "fewer insects on the fresh coat and under eaves",
             "A poison: nothing over water, bees or a kitchen garden."),
    Additive("extender", "Extender for waterborne paint", 60.0, "keeps the edge wet in warm, dry air",
             "Thinner film and a later rain-ready: no more than its sheet says, never for hiding."),
]  # fmt: skip
ADDITIVES: Mapping[str, Additive] = {a.code: a for a in _ADDITIVES}
