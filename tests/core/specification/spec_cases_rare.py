"""Surfaces met less often, factory coats, lime wash, deposits, who is about; each expected before the rule was run."""

from tests.core.specification.spec_case import SOUND, WALL, Case, case

_BARE = {"coating": "bare", "gloss": "dull", "loose_pct": 0, "greyed": False, "moisture": 12}
_PANEL = {"coating": "waterborne", "gloss": "dull", "loose_pct": 0}
_FACTORY = {"coating": "factory-coat", "gloss": "dull", "loose_pct": 0}
_PRIMED = {"coating": "factory-primer", "loose_pct": 0, "moisture": 12}

CASES: list[Case] = [
    # Factory coats: a patch, and until it held a bonding primer; what held takes a coat.
    case("coil-coated roof, no patch", "metal-roof", _FACTORY,
         "wash/pressure-wash~24 seams/seal-seams~4 dull/hand-sand prime=bonding-primer coat-1 coat-2", "roof-coat",
         checks="factory-patch"),
    case("coil-coated roof, the patch held", "metal-roof", _FACTORY | {"adhesion": "holds"},
         "wash/pressure-wash~24 seams/seal-seams~4 coat-1 coat-2", "roof-coat"),
    case("baked aluminium siding, the patch lifted", "aluminium-siding", _FACTORY | {"adhesion": "lifts",
         "age_years": 12}, "wash/hose-wash~4 dull/hand-sand prime=bonding-primer coat-1 coat-2", "exterior-acrylic"),
    case("prefinished cement boards, no patch", "fibre-cement-lap", _FACTORY,
         "wash/hose-wash~24 dull/wet-sand~1 prime=bonding-primer coat-1 coat-2", "exterior-acrylic",
         checks="factory-patch", notes="fibre-cement-dust"),
    # Boards primed at the works: wiped and touched up while fresh, sanded and primed once weathered.
    case("primed siding of last month", "wood-lap", _PRIMED | {"age_years": 0.1},
         "wash/damp-wipe~1 prime-spots=acrylic-wood-primer coat-1 coat-2", "exterior-acrylic"),
    case("primed siding a year in the weather", "wood-lap", _PRIMED | {"age_years": 1},
         "wash/hose-wash~48 dull/hand-sand prime=acrylic-wood-primer coat-1 coat-2", "exterior-acrylic"),
    case("primed trim nobody knows how old", "wood-trim", _PRIMED,
         "wash/hose-wash~24 dull/hand-sand prime=acrylic-wood-primer coat-1 coat-2", "trim-acrylic"),
    case("primed cement boards of last month", "fibre-cement-lap", {"coating": "factory-primer", "loose_pct": 0,
         "age_years": 0.1}, "wash/damp-wipe~1 prime-spots=acrylic-wood-primer coat-1 coat-2", "exterior-acrylic",
         notes="fibre-cement-dust"),
    # Lime wash: brushed off and bound, or left mineral.
    case("lime-washed render", "stucco-smooth", WALL | {"coating": "lime-wash"},
         "wash/pressure-wash~72 scrape/wet-wire-brush~4 prime=masonry-conditioner coat-1 coat-2", "masonry-paint",
         checks="lime-wash-mineral"),
    case("lime-washed brick, a third rubs off", "brick", WALL | {"coating": "lime-wash", "loose_pct": 30},
         "wash/pressure-wash~48 scrape/wet-wire-brush~4 prime=masonry-conditioner coat-1 coat-2", "masonry-paint",
         checks="lime-wash-mineral", says="peeling-extra"),
    # What lies on it.
    case("siding beside a chimney, sooty", "wood-lap", SOUND | {"deposit": "soot"},
         "degrease-dirt/degrease wash/hose-wash~48 prime-stains=stain-blocker coat-1 coat-2", "exterior-acrylic"),
    case("render by the sea", "stucco-smooth", WALL | {"deposit": "sea-salt"}, "wash/pressure-wash~72 coat-1 coat-2",
         "masonry-paint", checks="sea-salt", notes="painted-sound"),
    case("steel railing by the sea, rusting", "metal-railing", _PANEL | {"rust_pct": 10, "deposit": "sea-salt"},
         "wash/hose-wash~4 scrape/wire-brush prime-spots=metal-primer coat-1 coat-2", "trim-acrylic", item="railing",
         checks="sea-salt", says="steel-rust-returns"),
    case("painted block with graffiti", "block", WALL | {"deposit": "graffiti"},
         "degrease-dirt/degrease wash/pressure-wash~48 prime-stains=stain-blocker coat-1 coat-2",
         "high-build-masonry", notes="painted-sound"),
    case("garage door with graffiti", "metal-door", _PANEL | {"deposit": "graffiti"},
         "take-down degrease-dirt/degrease wash/hose-wash~4 mask prime-stains=stain-blocker coat-1 coat-2 refit",
         "trim-acrylic", item="garage-door", notes="steel-sound garage-close"),
    case("waxed front door", "wood-trim", SOUND | {"deposit": "wax", "gloss": "satin"},
         "take-down dewax/deglosser wash/hose-wash~24 dull/hand-sand mask coat-1 coat-2 refit", "trim-acrylic",
         item="panelled-door"),
    case("nothing lies on it", "wood-lap", SOUND | {"deposit": "none"}, "wash/hose-wash~48 coat-1 coat-2",
         "exterior-acrylic"),
    # Lead, tested surface by surface.
    case("old siding, presumed lead, tested free", "wood-lap", SOUND | { "loose_pct" : 10, "lead_found" : False },
         "cover/cover wash/hose-wash~48 scrape/dry-scrape feather/power-sand prime-spots=peel-bonding-primer coat-1 "
         "coat-2", "exterior-acrylic", lead=True, first=True, says="weather-moves chip-differs hidden-rot"),
    case("young house, old door leaf tested positive", "wood-trim", SOUND | {"gloss": "gloss", "lead_found": True},
         "take-down wash/hose-wash~24 dull/wet-sand~4 mask coat-1 coat-2 refit", "trim-acrylic", item="panelled-door",
         checks="lead"),
    # Rarer woods.
    case("bare rough-sawn plywood", "rough-plywood", _BARE | {"age_years": 1},
         "wash/hose-wash~48 prime=acrylic-wood-primer coat-1 coat-2", "exterior-acrylic",
         notes="rough-bare plywood-edges"),
    case("grooved plywood, parted at the foot", "grooved-plywood", SOUND | {"rot_m2": 0.2},
         "wash/hose-wash~48 rot/cut-out~1 sand-fillings/hand-sand prime-fillings=acrylic-wood-primer coat-1 coat-2",
         "exterior-acrylic", checks="plywood-parted", notes="plywood-edges", says="rot-goes-on"),
    case("stained logs with checks", "log-wall", {"coating": "penetrating-stain", "loose_pct": 0, "greyed": False,
         "moisture": 13, "crack_mm": 8, "crack_m": 6},
         "wash/hose-wash~48 brighten/acid-brightener~72 caulk-checks~24 coat-1", "deck-stain",
         aim="semi-transparent", checks="cracks-showing crack-cause"),
    case("hardwood deck, two years grey", "hardwood-deck", {"coating": "bare", "greyed": True, "age_years": 2,
         "moisture": 12, "loose_pct": 0},
         "wash/hose-wash~24 restore/deck-restorer brighten/acid-brightener~72 fibre/power-sand coat-1", "deck-stain",
         aim="semi-transparent", checks="hardwood-deck", says="deck-foot"),
    case("wood shingle roof, grey", "wood-shingle-roof", {"coating": "bare", "greyed": True, "moisture": 12,
         "loose_pct": 0, "age_years": 8}, "wash/hose-wash~48 brighten/acid-brightener~72 coat-1", "deck-stain",
         aim="semi-transparent", says="shingle-roof"),
    # Plastics.
    case("composite deck, faded", "composite-deck", {"coating": "bare", "loose_pct": 0},
         "wash/hose-wash~4 coat-1 coat-2", "solid-stain", aim="solid-stain", stops="composite-deck"),
    case("composite deck whose coat lets go", "composite-deck", _PANEL | {"loose_pct": 20},
         "wash/hose-wash~4 coat-1 coat-2", "solid-stain", aim="solid-stain", stops="composite-deck",
         checks="composite-loose"),
    case("cellular plastic trim", "plastic-trim", {"coating": "bare", "gloss": "satin", "vinyl": "sound",
         "loose_pct": 0}, "wash/hose-wash~4 dull/hand-sand coat-1 coat-2", "trim-acrylic", notes="plastic-trim",
         says="vinyl-warranty"),
    case("new glass-fibre door", "glass-fibre-door", {"coating": "bare", "loose_pct": 0},
         "take-down wash/hose-wash~4 dull/hand-sand mask prime=bonding-primer coat-1 coat-2 refit", "trim-acrylic",
         item="flush-door"),
    case("painted glass-fibre door, glossy", "glass-fibre-door", _PANEL | {"gloss": "gloss"},
         "take-down wash/hose-wash~4 dull/hand-sand mask coat-1 coat-2 refit", "trim-acrylic", item="flush-door"),
    case("painted glass-fibre door, a tenth loose", "glass-fibre-door", _PANEL | {"loose_pct": 10},
         "take-down wash/hose-wash~4 scrape/dry-scrape feather/hand-sand mask prime-spots=bonding-primer coat-1 coat-2 "
         "refit", "trim-acrylic", item="flush-door"),
    case("painted copper flashing, worn through in places", "copper-trim", _PANEL | {"bare_pct": 20},
         "wash/hose-wash~4 prime-spots=bonding-primer coat-1 coat-2", "trim-acrylic"),
    # Rarer metals and roofs.
    case("bare copper downspout", "copper-trim", {"coating": "bare", "loose_pct": 0},
         "take-down wash/hose-wash~4 dull/hand-sand prime=bonding-primer coat-1 coat-2 refit", "trim-acrylic",
         item="gutter", checks="copper"),
    case("bare zinc sheet roof", "zinc-roof", {"coating": "bare", "loose_pct": 0, "age_years": 10},
         "degrease/degrease~4 seams/seal-seams~4 prime=bonding-primer coat-1 coat-2", "roof-coat",
         checks="zinc-sheet"),
    case("standing seams, coil coat that held", "standing-seam-roof", _FACTORY | {"adhesion": "holds"},
         "wash/pressure-wash~24 coat-1 coat-2", "roof-coat", notes="seam-moves"),
    case("bitumen roof", "bitumen-roof", {"coating": "bare", "loose_pct": 0}, "wash/hose-wash~48 coat-1 coat-2",
         "roof-coat", checks="roof-membrane bitumen"),
    case("single-ply roof", "single-ply-roof", {"coating": "bare", "loose_pct": 0}, "wash/hose-wash~48 coat-1 coat-2",
         "roof-coat", checks="roof-membrane single-ply"),
    # Who is about.
    case("first face, a neighbour and children close by", "wood-lap", SOUND, "cover/cover wash/hose-wash~48 coat-1 "
         "coat-2", "exterior-acrylic", first=True, near="neighbour children-or-pets", checks="near-play",
         says="near-neighbour weather-moves chip-differs"),
]  # fmt: skip
