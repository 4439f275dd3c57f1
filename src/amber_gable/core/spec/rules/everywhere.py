"""Rules that hold on most surfaces: lead, dirt, mildew, gloss, chalk, joints, colour change, masking."""

from amber_gable.core.spec.rule import (
    Acts,
    Level,
    Rule,
    Source,
    Stage,
    Step,
    above,
    one_of,
)
from amber_gable.core.spec.safety import LEAD_FORBIDS
from amber_gable.domain.families import Family as F
from amber_gable.domain.operation import OperationKind as K
from amber_gable.domain.operation import Technique as T
from amber_gable.domain.operation import Unit
from amber_gable.domain.schools import Method


def _wash(name: str, wait_h: float, *techniques: T, note: str = "") -> Step:
    return Step("wash", Stage.WASH, K.WASH, name, note, techniques=techniques or (T.HOSE_WASH,), wait_h=wait_h,
                otherwise="Wash by hose and brush, rinse; no pressure")  # fmt: skip


_SUDS = "Detergent bottom to top in swaths of about 3 m, upper storey first; rinse top to bottom."
WASHING = (
    Rule("wash-siding", "there is a film of dirt even where it looks clean", "a coat on dirt peels with the dirt",
         on=("wood siding", "fibre-cement siding"), school=("wash", "hose"),
         steps=(_wash("Wash by hose and brush, rinse", 48, note=_SUDS + " Let the cleaner work 30 to 60 seconds, "
                      "then brush."),)),
    Rule("wash-siding-pressure", "there is a film of dirt even where it looks clean",
         "a coat on dirt peels with the dirt", on=("wood siding", "fibre-cement siding"), school=("wash", "pressure"),
         steps=(_wash("Wash at low pressure, rinse", 72, T.PRESSURE_WASH, T.HOSE_WASH,
                      note="Widest fan, 40° nozzle, never up under the laps. " + _SUDS),)),
    Rule("wash-small-wood", "hands, soot and weather leave a film", "a coat on dirt peels with the dirt",
         on=("wood", "fibre-cement"),
         off="deck siding roof", steps=(_wash("Wash with detergent and abrasive pad, rinse", 24),)),
    Rule("wash-masonry", "dust and growth sit in the pores", "paint holds to the dust, not to the wall",
         on=("masonry",), off="floor roof stucco limestone",
         steps=(_wash("Wash at 50 to 60 bar, rinse", 48, T.PRESSURE_WASH, T.HOSE_WASH,
                      note="Then until quite dry: a day or two in summer; a taped plastic sheet must stay clear "
                           "underneath overnight."),)),
    Rule("wash-render", "dust and growth sit in the pores", "paint holds to the dust, and water in thick render "
         "pushes it off", on=("masonry stucco",),
         steps=(_wash("Wash at 50 to 60 bar, rinse", 72, T.PRESSURE_WASH, T.HOSE_WASH,
                      note="A soaked thick render takes weeks to dry: meter or taped plastic sheet."),)),
    Rule("wash-limestone", "soft stone is worn by a jet", "a jet opens the face of the stone",
         on=("masonry limestone",),
         steps=(_wash("Wash by hose and soft brush", 72),)),
    Rule("wash-thin", "chalk, road film and grease sit on smooth panels", "smooth panels give dirt no second chance",
         on=("vinyl", "metal"), off="roof",
         steps=(_wash("Wash with detergent and pad, rinse, dry", 4, note="Bottom to top; rinse top to bottom."),)),
    Rule("wash-floor", "tyres, shoes and oil", "a floor coat lifts first where there was oil", on=("masonry floor",),
         steps=(_wash("Degrease and wash, rinse", 24, T.PRESSURE_WASH, T.HOSE_WASH,
                      note="Dry overnight or longer: a taped plastic sheet must stay clear underneath."),)),
    Rule("wash-roof", "moss, soot and chalk", "a roof coat on chalk washes off with it", on=("roof",),
         steps=(_wash("Wash from the ridge down, rinse", 24, T.PRESSURE_WASH, T.HOSE_WASH,
                      note="Start from the far side; fall protection as local code asks."),)),
)  # fmt: skip

_MILDEW = Acts(pct=("mildew_pct",))
GROWTH = (
    Rule("mildew-bleach", "mildew or algae on {mildew_pct} %", "it grows through the new coat",
         when=(above("mildew_pct", 0),), school=("mildew", "bleach"), source=Source.PRACTICE,
         steps=(Step("mildew", Stage.TREAT, K.WASH, "Kill mildew: bleach 1 : 3, dwell, rinse",
                     "Wet the planting first, rinse it after. Never with ammonia or acid.", _MILDEW, (T.BLEACH,)),)),
    Rule("mildew-fungicide", "mildew or algae on {mildew_pct} %", "it grows through the new coat",
         when=(above("mildew_pct", 0),), school=("mildew", "fungicide"), source=Source.SHEET,
         steps=(Step("mildew", Stage.STRIP, K.WASH, "Fungicidal wash, left on",
                     "After the wash; not rinsed, left for the time its sheet gives.", _MILDEW, (T.FUNGICIDE,),
                     wait_h=24),)),
)  # fmt: skip

_GLOSSY = (one_of("film", True, or_unknown=True), one_of("gloss", "satin", "gloss", or_unknown=True))
_DULL = "Glossy spots left are where it peels first."


def _dull(name: str, *techniques: T, note: str = _DULL, wait_h: float = 0.0) -> Step:
    return Step("dull", Stage.SAND, K.SAND, name, note, techniques=techniques, wait_h=wait_h)


GLOSS = (
    Rule("gloss-wood", "gloss is left: {gloss}", "a coat does not hold on gloss", on=("wood", "fibre-cement"),
         off="deck", when=_GLOSSY, school=("dull", "sand"),
         steps=(_dull("Sand dull, 120 to 150 grit with the grain", T.HAND_SAND, T.WET_SAND),)),
    Rule("gloss-wood-liquid", "gloss is left: {gloss}", "a coat does not hold on gloss", on=("wood", "fibre-cement"),
         off="deck", when=_GLOSSY, school=("dull", "deglosser"),
         steps=(_dull("Wipe with liquid deglosser", T.DEGLOSSER, note="Gloves and glasses; coat within its time."),)),
    Rule("gloss-metal", "gloss is left: {gloss}", "a coat does not hold on gloss", on=("metal",), off="roof",
         when=_GLOSSY, steps=(_dull("Key with medium abrasive", T.HAND_SAND, T.WET_SAND),)),
    Rule("gloss-vinyl", "gloss is left: {gloss}", "a coat does not hold on gloss", on=("vinyl",),
         when=(one_of("gloss", "satin", "gloss", or_unknown=True),),
         steps=(_dull("Scuff with 120 grit", T.HAND_SAND, T.WET_SAND),)),
    Rule("gloss-masonry", "the old paint is glossy", "a coat does not hold on gloss", on=("masonry", "roof"),
         when=(one_of("film", True, or_unknown=True), one_of("gloss", "satin", "gloss")),
         steps=(_dull("Abrade the glossy paint", T.HAND_SAND, T.WET_SAND),)),
)  # fmt: skip

CHALK = (
    Rule("chalk-light", "it chalks lightly", "loose powder parts the coats", when=(one_of("chalking", "light"),),
         level=Level.NOTE, todo="Rub again after washing: a clean finger, or bind it as heavy chalk."),
    Rule("chalk-heavy-masonry", "it chalks heavily", "loose powder parts the coats", on=("masonry", "fibre-cement"),
         off="roof floor", when=(one_of("chalking", "heavy"),),
         steps=(Step("prime", Stage.PRIME, K.PRIME, "Masonry conditioner over the chalk", "Let it dry a full day.",
                     families=(F.MASONRY_CONDITIONER,), method=Method.ROLLER, bare=True, strength=40),)),
    Rule("chalk-heavy-conditioner", "it chalks heavily", "loose powder parts the coats", on=("wood", "metal", "vinyl"),
         off="deck roof", when=(one_of("chalking", "heavy"),), school=("chalk", "conditioner"),
         steps=(Step("prime", Stage.PRIME, K.PRIME, "Bonding primer over the chalk", families=(F.BONDING_PRIMER,),
                     method=Method.BRUSH, strength=35),)),
    Rule("chalk-heavy-bonding", "it chalks heavily", "loose powder parts the coats", on=("wood",), off="deck roof",
         when=(one_of("chalking", "heavy"),), school=("chalk", "bonding"),
         steps=(Step("prime", Stage.PRIME, K.PRIME, "Peel-bonding primer over the chalk",
                     families=(F.PEEL_BONDING_PRIMER,), method=Method.BRUSH, strength=50, covers=("prime-spots",)),)),
)  # fmt: skip

_PAINTABLE = "deck floor roof"
COLOUR = (
    Rule("tint-undercoat", "the new colour alone needs {hiding_coats} coats to hide the old one",
         "each finish coat costs more than a primer tinted toward it", off=_PAINTABLE,
         when=(above("hiding_coats", 2),),
         steps=(Step("prime", Stage.PRIME, K.PRIME, "Primer tinted toward the finish",
                     families=(F.BONDING_PRIMER, F.HYBRID_UNDERCOAT, F.ACRYLIC_WOOD_PRIMER, F.MASONRY_UNDERCOAT),
                     method=Method.ROLLER, tinted=True, strength=20),)),
    Rule("prime-everything", "sound paint, primed for evenness", "one more coat for even sheen and suction",
         on=("wood", "masonry", "fibre-cement", "vinyl", "metal"), off=_PAINTABLE, school=("prime-sound", "everything"),
         steps=(Step("prime", Stage.PRIME, K.PRIME, "Primer all over", families=(F.BONDING_PRIMER, F.MASONRY_UNDERCOAT),
                     method=Method.ROLLER, tinted=True, strength=10),)),
    Rule("weak-colour", "the colour's pigments hide weakly", "clean reds and yellows need more coats than others",
         when=(one_of("weak_colour", True),), level=Level.NOTE,
         todo="Say it before the contract; the ladder of coats is on the colour sheet."),
    Rule("dark-hot", "a dark colour", "it runs hot in the sun: joints open, vinyl and doors move", off="roof",
         when=(one_of("dark_colour", True),), level=Level.NOTE, todo="See the peak temperature on the colour sheet."),
)  # fmt: skip

JOINTS = (
    Rule("dust", "washing and sanding leave dust", "dust parts the coat from the wall", off="roof",
         steps=(Step("dust", Stage.DUST, K.DUST, "Brush or blow off the dust", "",
                     techniques=(T.BLOW_OFF, T.HEPA_VACUUM), otherwise="Vacuum the dust off (HEPA), wipe damp"),)),
    Rule("caulk", "{caulk_m} m of joints are open or brittle", "water gets behind the coat", off="deck floor roof",
         when=(above("caulk_m", 0),),
         steps=(Step("caulk", Stage.CAULK, K.CAULK, "Old caulk out, new paintable caulk in", "After the bare joints "
                     "are primed. Leave the undersides of laps open.", Acts(fact="caulk_m", unit=Unit.M), wait_h=4),)),
    Rule("mask-spray", "openings and neighbours must be covered", "overspray travels with the wind",
         off="deck floor roof", school=("method", "spray"), when=(above("openings", 0),),
         steps=(Step("mask", Stage.MASK, K.MASK, "Mask openings and edges for spraying", "0.3 to 0.45 m of film round "
                     "the edges; tape off while the coat is soft.", Acts(fact="openings", unit=Unit.PIECES),
                     method=Method.AIRLESS),)),
    Rule("mask-hand", "openings are cut in against", "drips and smears on glass and stone", off="deck floor roof",
         school=("method", "hand"), when=(above("openings", 0),),
         steps=(Step("mask", Stage.MASK, K.MASK, "Cover and tape the openings", "",
                     Acts(fact="openings", unit=Unit.PIECES)),)),
)  # fmt: skip

LEAD = (
    Rule("lead", "lead paint is presumed", "dust and chips poison, children first of all",
         when=(one_of("lead", True), one_of("painted", True, or_unknown=True)), level=Level.CHECK,
         forbids=LEAD_FORBIDS, source=Source.STANDARD,
         todo="Test, or work wet and contained, with people certified where the law asks for it."),
    Rule("lead-pressure", "pressure washing is the company's way, and lead is presumed",
         "a jet spreads lead chips over the garden", on=("siding", "masonry", "roof"), off="stucco",
         when=(one_of("lead", True), one_of("painted", True, or_unknown=True)), school=("wash", "pressure"),
         level=Level.CHECK, source=Source.STANDARD, todo="Washed by hose and brush instead."),
)  # fmt: skip

RULES = (*LEAD, *WASHING, *GROWTH, *GLOSS, *CHALK, *COLOUR, *JOINTS)
