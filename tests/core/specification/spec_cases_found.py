"""Findings that a surface's own rules do not ask for: each is answered by a step, a check or a note."""

from tests.core.specification.spec_case import SOUND, WALL, Case, case

_BARE_WOOD = {"coating": "bare", "gloss": "dull", "loose_pct": 0, "greyed": False, "moisture": 12}
_PRIMED_BARE = "wash/hose-wash~48 dull/hand-sand prime=acrylic-wood-primer coat-1 coat-2"
_FILM_DECK = {"coating": "film-stain", "moisture": 13, "loose_pct": 0}
_PANEL = {"coating": "waterborne", "gloss": "dull", "loose_pct": 0}
_FLOOR = "wash/pressure-wash~24 dull/hepa-sand mask coat-1 coat-2"
_RENDER = "wash/pressure-wash~72 coat-1 coat-2"
_DECK = "wash/hose-wash~72 scrape/dry-scrape dull/power-sand coat-1 coat-2"

CASES: list[Case] = [
    # Heavy dirt is degreased first; the wash that follows rinses it.
    case("siding, heavy dirt", "wood-lap", SOUND | {"dirt": "heavy"},
         "degrease-dirt/degrease wash/hose-wash~48 coat-1 coat-2", "exterior-acrylic"),
    # The degreaser is rinsed off before the bleach: the other way round they would meet on the wall.
    case("siding, heavy dirt and mildew", "wood-lap", SOUND | {"dirt": "heavy", "mildew_pct": 5},
         "degrease-dirt/degrease mildew/bleach wash/hose-wash~48 coat-1 coat-2",
         "exterior-acrylic", says="mildew-returns"),
    case("siding, light dirt", "wood-lap", SOUND | {"dirt": "light"},
         "wash/hose-wash~48 coat-1 coat-2", "exterior-acrylic"),
    case("limestone, heavy dirt", "limestone", WALL | {"dirt": "heavy"},
         "degrease-dirt/degrease wash/hose-wash~72 coat-1 coat-2",
         "masonry-paint", checks="soft-stone", notes="painted-sound"),
    # Level surfaces that chalk, bloom or shine.
    case("painted tiles, heavy chalk", "concrete-tile-roof", WALL | {"chalking": "heavy"},
         "wash/hose-wash~48 coat-1 coat-2", "roof-coat", checks="chalk-level", says="roof-frost"),
    case("coated slab, heavy chalk", "concrete-slab", WALL | {"chalking": "heavy"},
         _FLOOR, "floor-waterborne", checks="floor-damp-test chalk-level", says="floor-slip floor-foot"),
    case("deck film, heavy chalk", "wood-deck", _FILM_DECK | {"chalking": "heavy"},
         _DECK, "solid-stain", aim="solid-stain", checks="chalk-level", says="deck-foot"),
    case("painted tiles, salt bloom", "concrete-tile-roof", WALL | {"efflorescence": "dry-bloom"},
         "wash/hose-wash~48 coat-1 coat-2", "roof-coat", checks="salt-on-roof", says="roof-frost"),
    case("glazed tiles", "concrete-tile-roof", WALL | {"masonry": "shiny"},
         "wash/hose-wash~48 coat-1 coat-2", "roof-coat", checks="glazed-tiles", says="roof-frost"),
    # What takes no water takes no coat.
    case("new siding, water beads", "wood-lap", _BARE_WOOD | {"absorbency": "beads"},
         _PRIMED_BARE, "exterior-acrylic", checks="beads-bare"),
    case("bare render, water beads, no finger test", "stucco-smooth",
         {"coating": "bare", "loose_pct": 0, "absorbency": "beads"},
         "wash/pressure-wash~72 prime=masonry-conditioner coat-1 coat-2",
         "masonry-paint", checks="age-unknown masonry-unknown beads-bare"),
    case("new siding, water soaks in slowly", "wood-lap", _BARE_WOOD | {"absorbency": "slow"},
         _PRIMED_BARE, "exterior-acrylic", notes="soaks-slowly"),
    case("painted siding, water beads", "wood-lap", SOUND | {"absorbency": "beads"},
         "wash/hose-wash~48 coat-1 coat-2", "exterior-acrylic"),
    # Old films.
    case("siding painted a fortnight ago", "wood-lap", SOUND | {"age_years": 0.05},
         "wash/hose-wash~48 coat-1 coat-2", "exterior-acrylic", checks="young-paint"),
    case("waterborne paint, the test patch lifted", "wood-lap", SOUND | {"adhesion": "lifts"},
         "wash/hose-wash~48 coat-1 coat-2", "exterior-acrylic", checks="film-lifts"),
    case("six sound coats", "wood-lap", SOUND | {"coats": 6},
         "wash/hose-wash~48 coat-1 coat-2", "exterior-acrylic", notes="many-coats"),
    # Cracks and what stands in the surface.
    case("cement sheet, cracked", "fibre-cement-lap", WALL | {"crack_mm": 1, "crack_m": 3},
         "wash/hose-wash~24 coat-1 coat-2", "exterior-acrylic", checks="cracked-sheet", notes="fibre-cement-dust"),
    case("cement sheet, cracked wide", "fibre-cement-lap", WALL | {"crack_mm": 4, "crack_m": 2},
         "wash/hose-wash~24 coat-1 coat-2",
         "exterior-acrylic", checks="cracked-sheet crack-cause", notes="fibre-cement-dust"),
    case("render, cracks whose length nobody told", "stucco-smooth", WALL | {"crack_mm": 0.5},
         "wash/hose-wash~72 coat-1 coat-2", "masonry-paint", checks="crack-length", notes="painted-sound"),
    case("deck, split boards", "wood-deck", _FILM_DECK | {"crack_mm": 0.5, "crack_m": 3},
         _DECK, "solid-stain", aim="solid-stain", checks="deck-splits", says="deck-foot"),
    case("deck, proud nails", "wood-deck", _FILM_DECK | {"nails": 12},
         "wash/hose-wash~72 scrape/dry-scrape nails/take-down-and-refit dull/power-sand coat-1 coat-2",
         "solid-stain", aim="solid-stain", says="deck-foot"),
    case("brick, old fixings", "brick", WALL | {"stubs": 2},
         "wash/pressure-wash~48 coat-1", "masonry-paint", checks="tile-stubs", notes="painted-sound"),
    case("slab, open joints", "concrete-slab", WALL | {"caulk_m": 5},
         _FLOOR, "floor-waterborne", checks="floor-damp-test joints-level", says="floor-slip floor-foot"),
    # Bare places in an old coat drink the finish: they are primed by their share, and the wall is not "sound".
    case("render, six tenths bare", "stucco-smooth", WALL | {"bare_pct": 60},
         "wash/pressure-wash~72 prime-spots=masonry-undercoat coat-1 coat-2", "masonry-paint"),
    case("cement sheet, a fifth bare", "fibre-cement-lap", WALL | {"bare_pct": 20},
         "wash/hose-wash~24 prime-spots=masonry-undercoat coat-1 coat-2",
         "exterior-acrylic", notes="fibre-cement-dust"),
    case("aluminium, a tenth bare", "aluminium-siding", _PANEL | {"bare_pct": 10, "age_years": 10},
         "wash/hose-wash~4 prime-spots=bonding-primer coat-1", "exterior-acrylic", notes="aluminium-weathered"),
    case("slab, a fifth worn bare", "concrete-slab", WALL | {"bare_pct": 20},
         _FLOOR, "floor-waterborne", checks="floor-damp-test bare-share-level", says="floor-slip floor-foot"),
    case("render said to be bare, and loose", "stucco-smooth", { "coating" : "bare", "masonry" : "normal", "loose_pct" :
         10 }, "wash/pressure-wash~72 prime=masonry-undercoat coat-1 coat-2", "masonry-paint", checks="age-unknown "
         "bare-or-not"),
    case("aluminium, rust runs over it", "aluminium-siding", _PANEL | {"rust_pct": 10, "age_years": 10},
         "wash/hose-wash~4 coat-1", "exterior-acrylic", checks="rust-runs", notes="aluminium-weathered"),
    # Where zinc is gone the steel is primed as steel, the same day; the bonding primer goes over all.
    case("bare zinc, red rust", "galvanised-trim", { "coating" : "bare", "rust_pct" : 10 }, "degrease/degrease~4 "
         "scrape/wire-brush prime-rust=metal-primer prime=bonding-primer coat-1 coat-2", "trim-acrylic"),
]  # fmt: skip
