"""Masonry, glaze, slabs and metal: what the ground asks for before a coat, each expected before the rule was run."""

from tests.core.specification.spec_case import WALL, Case, case

_BARE = {"coating": "bare", "masonry": "normal", "loose_pct": 0}
_SLAB = _BARE | {"age_years": 8, "absorbency": "soaks"}
_PANEL = {"coating": "waterborne", "gloss": "dull", "loose_pct": 0}
_WALKED = "floor-slip floor-foot"

CASES: list[Case] = [
    # Cracks: raked, dusted, filled; mortar burns a coat and is primed; no jet goes into an open crack.
    case("render, fine cracks filled with mastic", "stucco-smooth", WALL | {"crack_mm": 0.5, "crack_m": 6},
         "wash/hose-wash~72 open-cracks/wet-rake-out~4 dust-cracks/hepa-vacuum cracks~24 coat-1 coat-2",
         "masonry-paint", notes="painted-sound"),
    case("render, cracks wide enough for mortar", "stucco-smooth", WALL | {"crack_mm": 1.2, "crack_m": 6},
         "wash/hose-wash~72 open-cracks/wet-rake-out~4 dust-cracks/hepa-vacuum cracks~24 "
         "prime-mortar=masonry-undercoat coat-1 coat-2", "masonry-paint"),
    case("render, hair cracks alone, washed as ever", "stucco-smooth", WALL | {"crack_mm": 0.2},
         "wash/pressure-wash~72 coat-1 coat-2", "masonry-paint", notes="hair-cracks painted-sound"),
    case("brick, a crack of 2 mm in the joints", "brick", WALL | {"crack_mm": 2, "crack_m": 3},
         "wash/pressure-wash~48 open-cracks/wet-rake-out~4 dust-cracks/hepa-vacuum cracks~24 "
         "prime-mortar=masonry-undercoat coat-1", "masonry-paint", checks="moving-cracks"),
    case("brick, a crack of 6 mm", "brick", WALL | {"crack_mm": 6, "crack_m": 3},
         "wash/pressure-wash~48 open-cracks/wet-rake-out~4 dust-cracks/hepa-vacuum cracks~24 "
         "prime-mortar=masonry-undercoat coat-1", "masonry-paint", stops="wide-cracks"),
    case("painted limestone, a mortar joint of 2 mm", "limestone", WALL | {"crack_mm": 2, "crack_m": 3},
         "wash/hose-wash~72 open-cracks/wet-rake-out~4 dust-cracks/hepa-vacuum cracks~24 coat-1 coat-2",
         "masonry-paint", checks="moving-cracks soft-stone", notes="painted-sound"),
    case("slab, a crack of 1.2 mm", "concrete-slab", WALL | {"crack_mm": 1.2, "crack_m": 2},
         "wash/pressure-wash~24 open-cracks/wet-rake-out~4 dust-cracks/hepa-vacuum cracks~24 dull/hepa-sand mask "
         "coat-1 coat-2", "floor-waterborne", checks="floor-damp-test", says=_WALKED),
    case("bare render, cracks wide enough for mortar", "stucco-smooth", _BARE | {"age_years": 9, "crack_mm": 2,
         "crack_m": 5},
         "wash/hose-wash~72 open-cracks/wet-rake-out~4 dust-cracks/hepa-vacuum cracks~24 prime=masonry-undercoat "
         "coat-1 coat-2", "masonry-paint", checks="moving-cracks"),
    # What is friable meets no jet, neither to wash nor to take paint off.
    case("dusty block", "block", WALL | {"masonry": "dusty"},
         "wash/hose-wash~48 prime=masonry-conditioner coat-1 coat-2", "high-build-masonry"),
    case("dusty painted render, a tenth loose", "stucco-smooth", WALL | {"masonry": "dusty", "loose_pct": 10},
         "wash/hose-wash~72 scrape/wet-scrape~4 prime=masonry-conditioner coat-1 coat-2", "masonry-paint"),
    case("cracked render, a tenth loose", "stucco-smooth", WALL | {"loose_pct": 10, "crack_mm": 0.5, "crack_m": 4},
         "wash/hose-wash~72 scrape/wet-scrape open-cracks/wet-rake-out~4 dust-cracks/hepa-vacuum cracks~24 "
         "prime-spots=masonry-conditioner coat-1 coat-2", "masonry-paint"),
    case("sound render, a tenth loose", "stucco-smooth", WALL | {"loose_pct": 10},
         "wash/pressure-wash~72 scrape/rotary-nozzle~72 prime-spots=masonry-conditioner coat-1 coat-2",
         "masonry-paint"),
    # Soft brick and stone that dusts: left bare, mineral, or bound with its risk said.
    case("soft bare brick", "brick", _BARE | {"masonry": "dusty"}, "wash/hose-wash~48 coat-1 coat-2",
         "masonry-paint", stops="soft-leave", checks="damp-source", says="brick-for-good"),
    case("soft bare brick, mineral", "brick", _BARE | {"masonry": "dusty"}, "wash/hose-wash~48 coat-1 coat-2",
         "silicate-paint", schools={"soft-wall": "mineral"}, checks="damp-source soft-mineral",
         says="brick-for-good"),
    case("soft bare brick, conditioner", "brick", _BARE | {"masonry": "dusty"},
         "wash/hose-wash~48 prime=masonry-conditioner coat-1 coat-2", "masonry-paint",
         schools={"soft-wall": "conditioner"}, checks="damp-source", says="soft-bound brick-for-good"),
    case("soft bare brick that crumbles, conditioner", "brick", _BARE | {"masonry": "dusty", "loose_pct": 40},
         "wash/hose-wash~48 prime=masonry-conditioner coat-1 coat-2", "masonry-paint",
         schools={"soft-wall": "conditioner"}, stops="soft-crumbles", checks="damp-source bare-or-not",
         says="soft-bound brick-for-good"),
    case("soft bare limestone", "limestone", _BARE | {"masonry": "dusty"}, "wash/hose-wash~72 coat-1 coat-2",
         "masonry-paint", stops="soft-leave", checks="soft-stone", says="stone-for-good"),
    case("soft bare limestone, mineral", "limestone", _BARE | {"masonry": "dusty"}, "wash/hose-wash~72 coat-1 coat-2",
         "silicate-paint", schools={"soft-wall": "mineral"}, checks="soft-stone soft-mineral", says="stone-for-good"),
    case("limestone nobody put a finger on", "limestone", {"coating": "bare", "loose_pct": 0},
         "wash/hose-wash~72 prime=masonry-conditioner coat-1 coat-2", "masonry-paint",
         checks="masonry-unknown soft-stone", says="stone-for-good"),
    # Glaze is dulled; a conditioner soaks into nothing and is a school.
    case("glazed brick under the school of the conditioner", "brick", _BARE | {"masonry": "shiny"},
         "wash/pressure-wash~48 prime=masonry-conditioner coat-1", "masonry-paint", schools={"glaze": "conditioner"},
         says="brick-for-good"),
    case("shiny painted block", "block", WALL | {"masonry": "shiny"},
         "wash/pressure-wash~48 dull/wet-sand~4 prime=bonding-primer coat-1 coat-2", "high-build-masonry"),
    case("painted brick, sound, under the school that primes bare brick", "brick", WALL,
         "wash/pressure-wash~48 coat-1", "masonry-paint", schools={"brick": "prime"}, notes="painted-sound"),
    # Bare and of unknown age: asked.
    case("bare block of unknown age", "block", _BARE, "wash/pressure-wash~48 coat-1 coat-2", "high-build-masonry",
         checks="age-unknown", notes="block-self"),
    case("bare render of 5 years", "stucco-smooth", _BARE | {"age_years": 5},
         "wash/pressure-wash~72 prime=masonry-undercoat coat-1 coat-2", "masonry-paint"),
    # Slabs: profile, sealer off, first coat thinned; young concrete takes no oil.
    case("bare slab that takes water", "concrete-slab", _SLAB,
         "wash/pressure-wash~24 dull/extracted-grind mask coat-1 coat-2", "floor-waterborne",
         checks="floor-damp-test", says=_WALKED),
    case("bare slab, sealed", "concrete-slab", _SLAB | {"absorbency": "beads"},
         "wash/pressure-wash~24 dull/extracted-grind mask coat-1 coat-2", "floor-waterborne",
         checks="beads floor-damp-test", says=_WALKED),
    case("slab, steel-trowelled", "concrete-slab", _SLAB | {"masonry": "shiny"},
         "wash/pressure-wash~24 dull/extracted-grind mask coat-1 coat-2", "floor-waterborne",
         checks="floor-trowelled floor-damp-test", says=_WALKED),
    case("slab of four months", "concrete-slab", _SLAB | {"age_years": 0.3},
         "wash/pressure-wash~24 dull/extracted-grind mask coat-1 coat-2", "floor-waterborne",
         checks="floor-damp-test", notes="finish-floor-young", says=_WALKED),
    # Cement sheets take their own primer, not that of wood.
    case("bare cement panel", "fibre-cement-panel", {"coating": "bare", "loose_pct": 0},
         "wash/hose-wash~24 prime=masonry-undercoat coat-1 coat-2", "exterior-acrylic", notes="fibre-cement-dust"),
    # Metal: dulled where it is bright, alkyd never on zinc, sheet roofs taken as zinc.
    case("new mill aluminium soffit", "aluminium-trim", {"coating": "bare", "gloss": "gloss", "loose_pct": 0,
         "age_years": 1}, "wash/hose-wash~4 dull/hand-sand prime=bonding-primer coat-1 coat-2", "trim-acrylic"),
    case("new sheet roof", "metal-roof", {"coating": "bare", "age_years": 0.5, "loose_pct": 0},
         "degrease/degrease~4 seams/seal-seams~4 prime=bonding-primer coat-1 coat-2", "roof-coat"),
    case("painted sheet roof, sound", "metal-roof", _PANEL, "wash/pressure-wash~24 seams/seal-seams~4 coat-1 coat-2",
         "roof-coat"),
    case("painted zinc gutter, red rust", "galvanised-trim", _PANEL | {"rust_pct": 15},
         "take-down wash/hose-wash~4 scrape/wire-brush prime-rust=metal-primer prime-spots=bonding-primer coat-1 "
         "coat-2 refit", "trim-acrylic", item="gutter"),
    # One rule for dark to light on every ground: how many coats hide it.
    case("steel door, somewhat lighter", "metal-door", _PANEL,
         "take-down wash/hose-wash~4 mask coat-1 coat-2 refit", "trim-acrylic", item="flush-door", old="#6d6a63",
         new="#a9a69c", notes="steel-sound"),
    case("wood siding, somewhat lighter", "wood-lap", _PANEL | {"moisture": 12}, "wash/hose-wash~48 coat-1 coat-2",
         "exterior-acrylic", old="#6d6a63", new="#a9a69c"),
    # A dark masonry wall runs hot and nothing follows from it.
    case("render going dark", "stucco-smooth", WALL, "wash/pressure-wash~72 coat-1 coat-2", "masonry-paint",
         old="#8a8f86", new="#3a4046", notes="painted-sound"),
    # Whole walks.
    case("painted brick, salt, open joints", "brick", WALL | {"efflorescence": "dry-bloom", "caulk_m": 5},
         "bloom/brush-and-vacuum wash/pressure-wash~48 caulk-out/wet-cut-out~4 prime-joints=masonry-conditioner "
         "caulk~4 coat-1", "masonry-paint", checks="bloom-watch", notes="painted-sound"),
    case("presumed lead on cracked render", "stucco-smooth", WALL | {"loose_pct": 10, "crack_mm": 2, "crack_m": 5},
         "wash/hose-wash~72 scrape/wet-scrape open-cracks/wet-rake-out~4 dust-cracks/hepa-vacuum cracks~24 "
         "prime-spots=masonry-conditioner prime-mortar=masonry-undercoat coat-1 coat-2", "masonry-paint", lead=True,
         checks="lead lead-large moving-cracks"),
    case("aluminium gutter, rust from its screws", "aluminium-trim", _PANEL | {"rust_pct": 5, "age_years": 15},
         "take-down wash/hose-wash~4 coat-1 refit", "trim-acrylic", item="gutter", checks="rust-runs",
         notes="aluminium-weathered"),
    case("sprayed slab edge: a floor is rolled all the same", "concrete-slab", WALL,
         "wash/pressure-wash~24 dull/hepa-sand mask coat-1 coat-2", "floor-waterborne", schools={"method": "spray"},
         checks="floor-damp-test", says=_WALKED),
    case("bare cast wall of thirty years, form oil", "concrete-wall", _BARE | {"age_years": 30},
         "degrease/degrease wash/pressure-wash~48 prime=masonry-undercoat coat-1 coat-2", "masonry-paint"),
]  # fmt: skip
