"""Surfaces met less often: plywood, logs, dense and plastic boards, rarer metals and roofs (docs/trade.md §3 to §5)."""

from amber_gable.core.specification.derived.rule import Acts, Coats, Phase, Rule, Source, Step, above, one_of
from amber_gable.domain.paint.families import Family as F
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.operation import AmountUnit
from amber_gable.domain.work.operation import OperationKind as K
from amber_gable.domain.work.operation import Technique as T

_BARE = one_of("coating", "bare")

WOOD = (
    Rule("plywood-edges", "plywood", "its edges and grooves drink, and it parts where they stay open", on=("wood "
         "plywood",), level=Alert.NOTE, todo="Edges and grooves twice, by brush; the drip edge and the laps stay "
         "open."),
    Rule("plywood-parted", "{rot_m2} m² of the sheet is soft or parted", "a filler does not glue plies together",
         on=("wood plywood",), when=(above("rot_m2", 0),), level=Alert.CHECK, todo="Have the sheets replaced."),
    Rule("log-checks", "checks in the logs, {crack_m} m", "water stands in those that look up", on=("wood log",),
         when=(above("crack_m", 0),),
         steps=(Step("caulk-checks", Phase.CAULK, K.CAULK, "Backer rod and flexible sealant into checks that look up",
                     "From about 6 mm; those that look down stay open.", Acts(fact="crack_m", unit=AmountUnit.M),
                     wait_h=24),)),
    Rule("hardwood-deck", "dense boards", "they take little stain, and what stays on top turns sticky", on=("wood "
         "hardwood",), level=Alert.CHECK, todo="A stain named for dense wood, one thin coat; what stands after its "
         "minutes is wiped off. Try a board first."),
    Rule("shingle-roof", "wood shingles on a roof", "under a film they stay wet and rot", on=("wood roof",),
         level=Alert.NOTE, disclosure=True, todo="A stain only, and only on shingles that dry; ask the insurer about "
         "fire.", coats=Coats((F.DECK_STAIN,), 1, Method.BRUSH, "flat", spray=Method.BRUSH, strength=9,
                             bare_first=True)),
)  # fmt: skip

_COMPOSITE = ("composite deck",)
PLASTIC = (
    Rule("wash-plastic", "dirt and growth sit in the grain", "a coat on dirt peels with the dirt",
         on=("composite deck", "glass-fibre"),
         steps=(Step("wash", Phase.WASH, K.WASH, "Wash with detergent and soft brush, rinse, dry", "",
                     techniques=(T.HOSE_WASH,), wait_h=4),)),
    Rule("composite-deck", "composite boards", "plastic sheds stain, and a coat may end the warranty", on=_COMPOSITE,
         level=Alert.STOP, source=Source.SHEET, todo="Only where the boards' maker allows a coat and names it.",
         coats=Coats((F.SOLID_STAIN,), 2, Method.ROLLER, "flat", spray=Method.ROLLER)),
    Rule("composite-loose", "{loose_pct} % of a coat is loose on composite boards", "it never held, and the next one "
         "will not", on=_COMPOSITE, when=(above("loose_pct", 0),), level=Alert.CHECK,
         todo="Take the old coat off by what the boards' maker names, and leave them bare."),
    Rule("plastic-trim", "cellular plastic trim", "it needs paint only for its colour, and swells in the sun",
         on=("vinyl cellular",), level=Alert.NOTE, unless=("prime",), todo="No primer; joints glued, not caulked."),
    Rule("glass-fibre-bare", "bare glass fibre", "its gel coat is hard and may carry release wax", on=("glass-fibre",),
         when=(_BARE,),
         steps=(Step("dull", Phase.SAND, K.SAND, "Scuff with a fine pad, wipe clean", "",
                     techniques=(T.HAND_SAND, T.WET_SAND)),
                Step("prime", Phase.PRIME, K.PRIME, "Bonding primer all over", "", families=(F.BONDING_PRIMER,),
                     method=Method.BRUSH, strength=35, covers=("prime-spots",)))),
    Rule("finish-glass-fibre", "glass-fibre doors move with the heat", "two thin coats, the edges too",
         on=("glass-fibre",), coats=Coats((F.TRIM_ACRYLIC, F.EXTERIOR_ACRYLIC), 2, Method.BRUSH,
                                          "satin to semi-gloss", spray=Method.TURBINE)),
)  # fmt: skip

METAL = (
    Rule("copper", "copper", "bare it outlasts any paint; its green runs down what is below", on=("metal copper",),
         when=(_BARE,), level=Alert.CHECK, todo="Ask whether it may stay bare.",
         steps=(Step("dull", Phase.SAND, K.SAND, "Dull the copper with a fine pad, wipe clean", "",
                     techniques=(T.HAND_SAND, T.WET_SAND), strength=2),
                Step("prime", Phase.PRIME, K.PRIME, "Bonding primer all over", "The same day.",
                     families=(F.BONDING_PRIMER,), method=Method.BRUSH, strength=36, covers=("prime-spots",)))),
    Rule("zinc-sheet", "zinc sheet", "bare it makes its own coat; painted it must be painted for good",
         on=("metal zinc",), when=(_BARE,), level=Alert.CHECK, todo="Ask whether it may stay bare."),
    Rule("seam-moves", "standing seams", "they slide as the sheet warms: what bridges them tears", on=("metal seam",),
         level=Alert.NOTE, todo="No sealant and no thick film across seams and clips."),
)  # fmt: skip

ROOFING = (
    Rule("bitumen", "bitumen", "its oils come up brown, and solvents soften it", on=("membrane bitumen",),
         level=Alert.CHECK, source=Source.SHEET, todo="Only a waterborne roof coat that names bitumen, with the "
         "blocking primer its sheet asks for; new bitumen weathers a season first."),
    Rule("single-ply", "a single-ply sheet", "its softeners and the powder on it shed most coats",
         on=("membrane single-ply",), level=Alert.CHECK, source=Source.SHEET,
         todo="Which plastic is it? Only a coat whose sheet names it, with its cleaner and primer; patch first."),
)  # fmt: skip

RULES = (*WOOD, *PLASTIC, *METAL, *ROOFING)
