"""Wood: what shows through a stain, what is walked on, rough-sawn, new and treated wood, each expected before the rule
was run."""

from tests.core.specification.spec_case import SOUND, Case, case

_BARE = {"coating": "bare", "gloss": "dull", "loose_pct": 0, "greyed": False, "moisture": 12}
_NEW = {"coating": "bare", "greyed": False, "age_years": 0.1, "timber": "pressure-treated"}
_FILM = {"coating": "film-stain", "moisture": 13, "loose_pct": 0}
_FLOOR_PAINT = "floor-waterborne"

CASES: list[Case] = [
    # Under a stain that shows the wood: no filler, no primer; boards are replaced.
    case("stained siding, rot", "wood-lap", _BARE | {"rot_m2": 0.3},
         "wash/hose-wash~48 brighten/acid-brightener~72 rot/cut-out coat-1", "deck-stain", aim="semi-transparent",
         says="rot-goes-on"),
    case("stained siding, rusting nails", "wood-lap", _BARE | {"nails": 20},
         "wash/hose-wash~48 brighten/acid-brightener~72 nails/take-down-and-refit coat-1", "deck-stain",
         aim="semi-transparent"),
    case("stained beam, cracked", "wood-beam", _BARE | {"crack_mm": 1, "crack_m": 3},
         "wash/hose-wash~24 brighten/acid-brightener~72 coat-1", "deck-stain", aim="semi-transparent",
         checks="cracks-showing"),
    case("stained siding, open joints", "wood-lap", _BARE | {"caulk_m": 6},
         "wash/hose-wash~48 brighten/acid-brightener~72 caulk-out/cut-out caulk~4 coat-1", "deck-stain",
         aim="translucent"),
    case("siding under a solid stain, open joints", "wood-lap", SOUND | {"caulk_m": 6},
         "wash/hose-wash~48 caulk-out/cut-out prime-joints=acrylic-wood-primer caulk~4 coat-1 coat-2", "solid-stain",
         aim="solid-stain"),
    case("deck, a rotten board", "wood-deck", _FILM | {"rot_m2": 0.4},
         "wash/hose-wash~72 scrape/dry-scrape rot/cut-out dull/power-sand coat-1 coat-2", "solid-stain",
         aim="solid-stain", says="rot-goes-on deck-foot"),
    case("deck, rot over more than a square metre", "wood-deck", _FILM | {"rot_m2": 2},
         "wash/hose-wash~72 scrape/dry-scrape rot/cut-out dull/power-sand coat-1 coat-2", "solid-stain",
         aim="solid-stain", stops="rot-large", says="rot-goes-on deck-foot"),
    # Walked on: floor product, slip, feet.
    case("painted wooden steps, worn dull", "wood-trim", SOUND, "wash/hose-wash~24 coat-1 coat-2", _FLOOR_PAINT,
         item="stair", says="floor-slip floor-foot"),
    case("painted porch boards, glossy", "porch-boards", SOUND | {"gloss": "gloss"},
         "wash/hose-wash~24 dull/hand-sand mask coat-1 coat-2", _FLOOR_PAINT, says="floor-slip floor-foot"),
    case("bare porch boards of last year", "porch-boards", _BARE | {"age_years": 1},
         "wash/hose-wash~24 dull/hand-sand mask prime=acrylic-wood-primer coat-1 coat-2", _FLOOR_PAINT,
         says="floor-slip floor-foot"),
    case("porch boards, peeling", "porch-boards", SOUND | {"loose_pct": 15},
         "wash/hose-wash~24 scrape/dry-scrape feather/power-sand mask prime-spots=acrylic-wood-primer coat-1 coat-2",
         _FLOOR_PAINT, says="hidden-rot floor-slip floor-foot"),
    case("wooden steps to be stained", "wood-trim", _BARE | {"age_years": 3},
         "wash/hose-wash~24 brighten/acid-brightener~72 coat-1", "deck-stain", item="stair", aim="semi-transparent"),
    # Rough-sawn wood is not sanded; what is grey in its saw marks is taken out by restorer.
    case("new sawn shingles", "wood-shingle", _BARE | {"age_years": 1},
         "wash/hose-wash~48 prime=acrylic-wood-primer coat-1 coat-2", "exterior-acrylic", notes="rough-bare"),
    case("grey bare lap siding", "wood-lap", _BARE | {"greyed": True, "age_years": 4},
         "wash/hose-wash~48 grey/power-sand prime=acrylic-wood-primer coat-1 coat-2", "exterior-acrylic"),
    case("painted shingles, a fifth loose", "wood-shingle", SOUND | {"loose_pct": 20},
         "wash/hose-wash~48 scrape/dry-scrape feather/power-sand prime-spots=peel-bonding-primer coat-1 coat-2",
         "exterior-acrylic", says="hidden-rot"),
    case("grey shingles with mildew: no bleach before the acid", "wood-shingle", _BARE | {"greyed": True,
         "mildew_pct": 10},
         "mildew/fungicide wash/hose-wash~48 grey/deck-restorer~72 prime=acrylic-wood-primer coat-1 coat-2",
         "exterior-acrylic", notes="no-bleach-before-acid", says="mildew-returns"),
    # New and clean: wiped, not hosed.
    case("new bare door", "wood-trim", _BARE | {"age_years": 0.1},
         "take-down wash/damp-wipe~1 dull/hand-sand mask prime=acrylic-wood-primer coat-1 coat-2 refit",
         "trim-acrylic", item="panelled-door"),
    case("bare door of two years", "wood-trim", _BARE | {"age_years": 2},
         "take-down wash/hose-wash~24 dull/hand-sand mask prime=acrylic-wood-primer coat-1 coat-2 refit",
         "trim-acrylic", item="panelled-door"),
    case("siding put up last week", "wood-lap", _BARE | {"age_years": 0.02},
         "wash/damp-wipe~1 dull/hand-sand prime=acrylic-wood-primer coat-1 coat-2", "exterior-acrylic"),
    # Treated timber that was metered ready is ready; its water is its own, not a leak.
    case("new treated deck, dry and soaking", "wood-deck", _NEW | {"moisture": 14, "absorbency": "soaks"},
         "wash/hose-wash brighten/acid-brightener~72 fibre/power-sand coat-1", "deck-stain",
         aim="semi-transparent", says="deck-foot"),
    case("new treated deck, dry by the meter, no drop", "wood-deck", _NEW | {"moisture": 14},
         "wash/hose-wash brighten/acid-brightener~72 fibre/power-sand coat-1", "deck-stain",
         aim="semi-transparent", checks="deck-metered", says="deck-foot"),
    case("new treated deck, neither metered nor sprinkled", "wood-deck", _NEW,
         "wash/hose-wash brighten/acid-brightener~72 fibre/power-sand coat-1", "deck-stain",
         aim="semi-transparent", stops="deck-test-meter", checks="deck-not-metered", says="deck-foot"),
    case("new treated railing at 24 %", "wood-trim", _NEW | {"moisture": 24, "absorbency": "soaks"},
         "wash/damp-wipe~1 brighten/acid-brightener~72 coat-1", "deck-stain", item="railing",
         aim="semi-transparent", stops="wet-treated"),
    case("painted siding at 24 %: a leak", "wood-lap", SOUND | {"moisture": 24}, "wash/hose-wash~48 coat-1 coat-2",
         "exterior-acrylic", stops="wet-wood"),
    # Stripping is priced by the share that is loose.
    case("siding, six tenths loose", "wood-lap", SOUND | {"loose_pct": 60},
         "wash/hose-wash~48 scrape/dry-scrape feather/power-sand prime-spots=peel-bonding-primer coat-1 coat-2",
         "exterior-acrylic", checks="price-stripping", says="hidden-rot"),
    case("siding, three tenths of six coats loose", "wood-lap", SOUND | {"loose_pct": 30, "coats": 6},
         "wash/hose-wash~48 scrape/dry-scrape feather/power-sand prime-spots=peel-bonding-primer coat-1 coat-2",
         "exterior-acrylic", checks="thick-old-coats", notes="", says="hidden-rot"),
    case("siding, six tenths loose, to be stripped", "wood-lap", SOUND | {"loose_pct": 60},
         "wash/hose-wash~48 strip/power-sand fibre/power-sand prime=acrylic-wood-primer coat-1 coat-2",
         "exterior-acrylic", schools={"failing": "strip"}, says="hidden-rot"),
    # What binds chalk goes on before a stain blocker.
    case("bleeding siding that chalks heavily", "wood-lap", SOUND | {"tannin": True, "chalking": "heavy"},
         "wash/hose-wash~48 prime=bonding-primer prime-stains=stain-blocker coat-1 coat-2", "exterior-acrylic",
         says="tannin-returns"),
    case("bleeding siding, chalk bound by peel-bonding primer", "wood-lap", SOUND | {"tannin": True,
         "chalking": "heavy"},
         "wash/hose-wash~48 prime=peel-bonding-primer prime-stains=stain-blocker coat-1 coat-2", "exterior-acrylic",
         schools={"chalk": "bonding"}, says="tannin-returns"),
    # A sash: all repair and sanding, then all bare wood primed, then putty.
    case("bare sash with open putty", "wood-trim", _BARE | { "putty_m" : 5, "age_years" : 30 }, "wash/hose-wash~24 "
         "putty-out/cut-out dull/hand-sand prime=acrylic-wood-primer move-prime/move-while-fresh putty~240 "
         "undercoat=hybrid-undercoat move-undercoat/move-while-fresh coat-1 move-coat-1/move-while-fresh "
         "coat-2 refit/move-while-fresh", "hybrid-satin", item="sash-window"),
    case("sash with rot and open putty: rot first", "wood-trim", SOUND | {"rot_m2": 0.05, "putty_m": 5},
         "wash/hose-wash~24 free/cut-out putty-out/cut-out rot/cut-out~1 sand-fillings/hand-sand "
         "prime-fillings=acrylic-wood-primer prime-rebates=alkyd-wood-primer putty~240 "
         "undercoat=hybrid-undercoat move-undercoat/move-while-fresh "
         "coat-1 move-coat-1/move-while-fresh coat-2 refit/move-while-fresh", "hybrid-satin", item="sash-window",
         says="rot-goes-on"),
    # Whole walks: what stands together on one surface keeps its order.
    case("weathered fence of treated boards, arsenic", "board-batten", {"coating": "bare", "greyed": False,
         "timber": "pressure-treated", "age_years": 30, "moisture": 14, "loose_pct": 0, "gloss": "dull"},
         "wash/hose-wash~48 brighten/acid-brightener~72 coat-1", "deck-stain", aim="semi-transparent",
         old_treated=True, checks="arsenic"),
    case("lead, siding with nails, cracks and joints", "wood-lap", SOUND | {"coating": "oil", "nails": 10,
         "crack_mm": 1, "crack_m": 4, "caulk_m": 8, "adhesion": "holds"},
         "wash/hose-wash~48 caulk-out/wet-cut-out nails/wet-wire-brush~4 prime-nails=metal-primer fill-nails~4 "
         "cracks~12 sand-fillings/hepa-sand prime-joints=acrylic-wood-primer prime-fillings=acrylic-wood-primer "
         "caulk~4 coat-1 coat-2", "exterior-acrylic", lead=True, checks="lead"),
    case("painted porch boards with rot", "porch-boards", SOUND | {"rot_m2": 0.2},
         "wash/hose-wash~24 rot/cut-out~1 sand-fillings/hand-sand mask prime-fillings=acrylic-wood-primer coat-1 "
         "coat-2", _FLOOR_PAINT, says="rot-goes-on floor-slip floor-foot"),
    case("painted steps, mildew and gloss", "wood-trim", SOUND | {"gloss": "gloss", "mildew_pct": 10},
         "mildew/bleach wash/hose-wash~24 dull/hand-sand coat-1 coat-2", _FLOOR_PAINT, item="stair",
         says="mildew-returns floor-slip floor-foot"),
    case("painted beam, a knot that bleeds", "wood-beam", SOUND | {"tannin": True},
         "wash/hose-wash~24 prime-stains=stain-blocker coat-1 coat-2", "trim-acrylic", says="tannin-returns"),
    case("shutters, a tenth loose", "wood-trim", SOUND | {"loose_pct": 10},
         "take-down wash/hose-wash~24 scrape/dry-scrape feather/power-sand prime-spots=acrylic-wood-primer coat-1 "
         "coat-2 refit", "trim-acrylic", item="shutter-pair", says="hidden-rot"),
    case("deck under a failing film", "wood-deck", _FILM | {"loose_pct": 40},
         "wash/hose-wash~24 strip/caustic-stripper brighten/acid-brightener~72 fibre/power-sand coat-1 coat-2",
         "solid-stain", aim="solid-stain", says="hidden-rot deck-foot"),
]  # fmt: skip
