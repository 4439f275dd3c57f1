"""Rules that hold on most surfaces: lead, dirt, mildew, gloss, chalk, joints, colour change, masking."""

from amber_gable.core.specification.cautions.dangers import ARSENIC_FORBIDS, LEAD_FORBIDS
from amber_gable.core.specification.derived.rule import (
    Acts,
    Phase,
    Rule,
    Source,
    Step,
    above,
    at_most,
    none_of,
    one_of,
)
from amber_gable.domain.paint.families import Family as F
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.operation import AmountUnit
from amber_gable.domain.work.operation import OperationKind as K
from amber_gable.domain.work.operation import Technique as T

_ONCE = Acts(fact="pieces", unit=AmountUnit.PIECES)


def _wash(name: str, wait_h: float, *techniques: T, note: str = "", until: str = "", strength: int = 0) -> Step:
    return Step("wash", Phase.WASH, K.WASH, name, note, techniques=techniques or (T.HOSE_WASH,), wait_h=wait_h,
                until=until, otherwise="Wash by hose and soft brush, rinse; no pressure",
                strength=strength)  # fmt: skip


_BY_METER = "the meter reads {moisture_limit} % or less"
_BY_SHEET = "a taped plastic sheet stays clear underneath overnight"
_SUDS = "Detergent bottom to top in swaths of about 3 m, upper storey first; rinse top to bottom."
WASHING = (
    Rule("wash-siding", "there is a film of dirt even where it looks clean", "a coat on dirt peels with the dirt",
         on=("wood siding",), school=("wash", "hose"),
         steps=(_wash("Wash by hose and brush, rinse", 48, note=_SUDS + " Let the cleaner work 30 to 60 seconds, "
                      "then brush.", until=_BY_METER),)),
    Rule("wash-siding-pressure", "there is a film of dirt even where it looks clean",
         "a coat on dirt peels with the dirt", on=("wood siding",), school=("wash", "pressure"),
         steps=(_wash("Wash at low pressure, rinse", 72, T.PRESSURE_WASH, T.HOSE_WASH, until=_BY_METER,
                      note="Widest fan, 40° nozzle, never up under the laps. " + _SUDS),)),
    Rule("wash-cement", "there is a film of dirt even where it looks clean", "a coat on dirt peels with the dirt",
         on=("fibre-cement",), off="roof",
         steps=(_wash("Wash by hose and soft brush, rinse", 24, note=_SUDS),)),
    Rule("wash-small-wood", "hands, soot and weather leave a film", "a coat on dirt peels with the dirt",
         on=("wood",),
         off="deck siding roof", steps=(_wash("Wash with detergent and abrasive pad, rinse", 24, until=_BY_METER),)),
    Rule("wipe-new-joinery", "new bare joinery is clean but for dust", "a hose soaks what was dried for months",
         on=("wood",), off="deck siding roof", when=(one_of("coating", "bare"), at_most("age_years", 0.5)),
         steps=(_wash("Wipe down with a damp cloth", 1, T.DAMP_WIPE, until=_BY_METER, strength=4),)),
    Rule("wipe-new-siding", "new bare boards are clean but for dust", "a hose soaks what is dry", on=("wood siding",),
         when=(one_of("coating", "bare"), at_most("age_years", 0.1), none_of("greyed", True, or_unknown=True)),
         steps=(_wash("Brush down and wipe with a damp cloth", 1, T.DAMP_WIPE, until=_BY_METER, strength=4),)),
    Rule("wash-masonry", "dust and growth sit in the pores", "paint holds to the dust, not to the wall",
         on=("masonry",), off="floor roof stucco limestone",
         steps=(_wash("Wash at 50 to 60 bar, rinse", 48, T.PRESSURE_WASH, T.HOSE_WASH, until=_BY_SHEET,
                      note="A day or two in summer, longer in the cold."),)),
    Rule("wash-render", "dust and growth sit in the pores", "paint holds to the dust, and water in thick render "
         "pushes it off", on=("masonry stucco",),
         steps=(_wash("Wash at 50 to 60 bar, rinse", 72, T.PRESSURE_WASH, T.HOSE_WASH,
                      note="A soaked thick render takes weeks to dry.", until=_BY_SHEET),)),
    Rule("wash-limestone", "soft stone is worn by a jet", "a jet opens the face of the stone",
         on=("masonry limestone",),
         steps=(_wash("Wash by hose and soft brush", 72, until=_BY_SHEET, strength=2),)),
    Rule("wash-thin", "chalk, road film and grease sit on smooth panels", "smooth panels give dirt no second chance",
         on=("vinyl", "metal"), off="roof",
         steps=(_wash("Wash with detergent and pad, rinse, dry", 4, note="Bottom to top; rinse top to bottom."),)),
    Rule("wash-chimney", "soot and weather sit in the joints", "no one holds a jet on a roof", on=("chimney",),
         steps=(_wash("Wash by hose and soft brush from the scaffold, rinse", 48, until=_BY_SHEET, strength=3),)),
    Rule("wash-floor", "tyres, shoes and oil", "a floor coat lifts first where there was oil", on=("masonry floor",),
         steps=(_wash("Degrease and wash, rinse", 24, T.PRESSURE_WASH, T.HOSE_WASH,
                      note="Dry overnight or longer.", until=_BY_SHEET),)),
    Rule("wash-roof", "moss, soot and chalk", "a roof coat on chalk washes off with it", on=("metal roof",),
         steps=(_wash("Wash from the ridge down, rinse", 24, T.PRESSURE_WASH, T.HOSE_WASH,
                      note="Start from the far side; fall protection as local code asks."),)),
    Rule("wash-roof-soft", "moss, soot and dust", "a jet opens tiles, lifts seams and drives water under them",
         on=("roof",), off="metal",
         steps=(_wash("Wash soft from the ridge down, rinse", 48, note="Hose and soft brush, never up under tiles or "
                      "seams; fall protection as local code asks."),)),
)  # fmt: skip

_MILDEW = Acts(pct=("mildew_pct",))
GROWTH = (
    Rule("mildew-bleach", "mildew or algae on {mildew_pct} %", "it grows through the new coat",
         when=(above("mildew_pct", 0),), school=("mildew", "bleach"), source=Source.PRACTICE,
         steps=(Step("mildew", Phase.TREAT, K.WASH, "Kill mildew: bleach 1 : 3, dwell, rinse",
                     "Wet the planting first, rinse it after. Never with ammonia or acid.", _MILDEW, (T.BLEACH,
                     T.FUNGICIDE), otherwise="Kill mildew with a fungicidal wash, dwell, rinse well"),)),
    Rule("no-bleach-before-acid", "an acid cleaner follows on this wood", "bleach and acid together give off chlorine",
         on=("wood",), when=(above("mildew_pct", 0), one_of("acid_follows", True)), forbids=(T.BLEACH,),
         level=Alert.NOTE, source=Source.STANDARD, todo="A fungicidal wash instead of bleach; rinse well and let it "
         "dry before restorer or brightener."),
    Rule("mildew-fungicide", "mildew or algae on {mildew_pct} %", "it grows through the new coat",
         when=(above("mildew_pct", 0),), school=("mildew", "fungicide"), source=Source.SHEET,
         steps=(Step("mildew", Phase.LEAVE_ON, K.WASH, "Fungicidal wash, left on",
                     "After the wash; not rinsed, left for the time its sheet gives.", _MILDEW, (T.FUNGICIDE,),
                     wait_h=24),)),
    Rule("mildew-returns", "mildew or algae on {mildew_pct} %", "in shade and damp it comes back through any coat",
         when=(above("mildew_pct", 0),), level=Alert.NOTE, disclosure=True,
         todo="Look for the water: gutter, downspout, tap, sprinkler. Offer a mildewcide in the finish; cut back what "
         "shades the wall."),
)  # fmt: skip

_GLOSSY = (one_of("film", True, or_unknown=True), one_of("gloss", "satin", "gloss", or_unknown=True))
_DULL = "Glossy spots left are where it peels first."


def _dull(name: str, *techniques: T, note: str = _DULL, otherwise: str = "") -> Step:
    return Step("dull", Phase.SAND, K.SAND, name, note, techniques=techniques, otherwise=otherwise)


_LIQUID = "Dull with a liquid deglosser, nothing sanded"
_OIL = (one_of("coating", "oil"), one_of("aim", "paint"))
GLOSS = (
    Rule("gloss-wood", "gloss is left: {gloss}", "a coat does not hold on gloss", on=("wood",),
         off="deck", when=_GLOSSY, school=("dull", "sand"),
         steps=(_dull("Sand dull, 120 to 150 grit with the grain", T.HAND_SAND, T.WET_SAND,
                      otherwise="Sand dull wet, 120 to 150 grit, wipe clean"),)),
    Rule("gloss-wood-liquid", "gloss is left: {gloss}", "a coat does not hold on gloss", on=("wood",),
         off="deck", when=_GLOSSY, school=("dull", "deglosser"),
         steps=(_dull("Wipe with liquid deglosser", T.DEGLOSSER, note="Gloves and glasses; coat within its time."),)),
    Rule("gloss-cement", "gloss is left: {gloss}", "a coat does not hold on gloss", on=("fibre-cement",), off="roof",
         when=_GLOSSY, steps=(_dull("Dull wet with a fine pad, wipe clean", T.WET_SAND, T.DEGLOSSER,
                                    otherwise=_LIQUID),)),
    Rule("gloss-metal", "gloss is left: {gloss}", "a coat does not hold on gloss", on=("metal", "glass-fibre"),
         off="roof", when=_GLOSSY, steps=(_dull("Key with medium abrasive", T.HAND_SAND, T.WET_SAND, otherwise="Key "
         "wet with medium abrasive, wipe clean"),)),
    Rule("gloss-vinyl", "gloss is left: {gloss}", "a coat does not hold on gloss", on=("vinyl",),
         when=(one_of("gloss", "satin", "gloss", or_unknown=True),),
         steps=(_dull("Scuff by hand with 120 grit", T.HAND_SAND, T.WET_SAND,
                      otherwise="Scuff wet by hand with 120 grit"),)),
    Rule("gloss-masonry", "the old paint is glossy", "a coat does not hold on gloss", on=("masonry", "roof"),
         when=(one_of("film", True, or_unknown=True), one_of("gloss", "satin", "gloss")),
         steps=(_dull("Abrade the glossy paint wet", T.WET_SAND, T.DEGLOSSER, otherwise=_LIQUID),)),
    Rule("oil-under", "oil paint lies under a waterborne finish", "waterborne straight over glossy oil peels in sheets",
         on=("wood", "metal"), off="deck roof", when=(*_OIL, one_of("patch_made", False)), level=Alert.CHECK,
         unless=("prime",), todo="Test patch: dull, coat, a week later tape and pull. If it lifts, bonding primer all "
         "over."),
    Rule("oil-lifts", "the test patch lifted from the old oil paint", "the whole coat would", on=("wood", "metal"),
         off="deck roof", when=(*_OIL, one_of("adhesion", "lifts")),
         steps=(Step("prime", Phase.PRIME, K.PRIME, "Bonding primer over the old oil paint",
                     families=(F.BONDING_PRIMER,), method=Method.BRUSH, strength=33),)),
)  # fmt: skip

CHALK = (
    Rule("chalk-light", "it chalks lightly", "loose powder parts the coats", when=(one_of("chalking", "light"),),
         level=Alert.NOTE, todo="Rub again after washing: a clean finger, or bind it as heavy chalk."),
    Rule("chalk-heavy-masonry", "it chalks heavily", "loose powder parts the coats", on=("masonry", "fibre-cement"),
         off="roof floor", when=(one_of("chalking", "heavy"),),
         steps=(Step("prime", Phase.PRIME, K.PRIME, "Masonry conditioner over the chalk", "Let it dry a full day.",
                     families=(F.MASONRY_CONDITIONER,), method=Method.ROLLER, bare=True, strength=40,
                     covers=("prime-spots", "prime-joints")),)),
    Rule("chalk-heavy-smooth", "it chalks heavily", "loose powder parts the coats",
         on=("metal", "vinyl", "glass-fibre"),
         off="deck roof", when=(one_of("chalking", "heavy"),),
         steps=(Step("prime", Phase.PRIME, K.PRIME, "Bonding primer over the chalk", families=(F.BONDING_PRIMER,),
                     method=Method.BRUSH, strength=35),)),
    Rule("chalk-heavy-conditioner", "it chalks heavily", "loose powder parts the coats", on=("wood",),
         off="deck roof", when=(one_of("chalking", "heavy"),), school=("chalk", "conditioner"),
         steps=(Step("prime", Phase.PRIME, K.PRIME, "Bonding primer over the chalk", families=(F.BONDING_PRIMER,),
                     method=Method.BRUSH, strength=35),)),
    Rule("chalk-heavy-bonding", "it chalks heavily", "loose powder parts the coats", on=("wood",), off="deck roof",
         when=(one_of("chalking", "heavy"),), school=("chalk", "bonding"),
         steps=(Step("prime", Phase.PRIME, K.PRIME, "Peel-bonding primer over the chalk",
                     families=(F.PEEL_BONDING_PRIMER,), method=Method.BRUSH, strength=50, covers=("prime-spots",)),)),
)  # fmt: skip

_PAINTABLE = "deck floor roof"
COLOUR = (
    Rule("tint-undercoat", "the new colour alone needs {hiding_coats} coats to hide the old one",
         "each finish coat costs more than a primer tinted toward it", off=_PAINTABLE,
         when=(above("hiding_coats", 2), one_of("aim", "paint"), one_of("tint_saves", True)),
         steps=(Step("prime", Phase.PRIME, K.PRIME, "Primer tinted toward the finish",
                     families=(F.BONDING_PRIMER, F.HYBRID_UNDERCOAT, F.ACRYLIC_WOOD_PRIMER, F.MASONRY_UNDERCOAT),
                     method=Method.ROLLER, tinted=True, strength=20),)),
    Rule("tint-offer", "the new colour alone needs {hiding_coats} coats to hide the old one",
         "behind a primer tinted toward it as many coats in all, one of them cheaper", off=_PAINTABLE,
         when=(above("hiding_coats", 2), one_of("aim", "paint"), one_of("tint_saves", False)), level=Alert.NOTE,
         unless=("prime", "undercoat"), todo="Offer it: the ladder of coats on the part's sheet has both prices."),
    Rule("prime-everything", "sound paint, primed for evenness", "one more coat for even sheen and suction",
         on=("wood", "masonry", "fibre-cement", "vinyl", "metal"), off=_PAINTABLE, school=("prime-sound", "everything"),
         when=(one_of("aim", "paint"),),
         steps=(Step("prime", Phase.PRIME, K.PRIME, "Primer all over", families=(F.BONDING_PRIMER, F.MASONRY_UNDERCOAT),
                     method=Method.ROLLER, tinted=True, strength=10),)),
    Rule("weak-colour", "the colour's pigments hide weakly", "clean reds and yellows need more coats than others",
         when=(one_of("weak_colour", True), one_of("aim", "paint", "solid-stain")), level=Alert.NOTE, disclosure=True,
         todo="Say it before the contract; the ladder of coats is on the colour sheet."),
    Rule("dark-hot", "a dark colour", "it runs hot in the sun: joints open, vinyl and doors move",
         off="roof masonry fibre-cement",
         when=(one_of("dark_colour", True),), level=Alert.NOTE, todo="See the peak temperature on the colour sheet."),
)  # fmt: skip

_JOINTED = (above("caulk_m", 0),)
_CAULK_M = Acts(fact="caulk_m", unit=AmountUnit.M)
_NEW_CAULK = Step("caulk", Phase.CAULK, K.CAULK, "New paintable caulk into the joints",
                  "Over its primer and dry. Leave "
                  "the undersides of laps open.", _CAULK_M, wait_h=4)  # fmt: skip
_OLD_CAULK = Step("caulk-out", Phase.CUT_OUT, K.SCRAPE, "Cut the old caulk out", "", _CAULK_M,
                  (T.CUT_OUT, T.WET_CUT_OUT), otherwise="Mist and cut the old caulk out wet")  # fmt: skip


def _prime_joints(*families: F) -> Step:
    return Step("prime-joints", Phase.SPOT_PRIME, K.PRIME, "Prime the bared joints",
                "A dry joint draws the caulk's oil.",
                Acts(least_pct=1), families=families, method=Method.BRUSH, bare=True)  # fmt: skip


JOINTS = (
    Rule("dust", "washing and sanding leave dust", "dust parts the coat from the wall", off="roof masonry fibre-cement",
         steps=(Step("dust", Phase.DUST, K.DUST, "Brush or blow off the dust", "",
                     techniques=(T.BLOW_OFF, T.HEPA_VACUUM), otherwise="Vacuum the dust off (HEPA), wipe damp"),)),
    Rule("dust-mineral", "washing and abrading leave dust", "dust parts the coat from the wall, and it holds silica",
         on=("masonry", "fibre-cement"), off="roof",
         steps=(Step("dust", Phase.DUST, K.DUST, "Vacuum the dust off, wipe damp", "", techniques=(T.HEPA_VACUUM,
                     T.DAMP_WIPE), otherwise="Wipe the dust off damp"),)),
    Rule("caulk", "{caulk_m} m of joints are open or brittle", "water gets behind the coat", on=("wood",
         "fibre-cement"), off="deck roof", when=(*_JOINTED, one_of("aim", "paint", "solid-stain")),
         steps=(_OLD_CAULK, _prime_joints(F.ACRYLIC_WOOD_PRIMER, F.ALKYD_WOOD_PRIMER), _NEW_CAULK)),
    Rule("caulk-masonry", "{caulk_m} m of joints are open or brittle", "water gets behind the coat", on=("masonry",),
         off="floor roof", when=_JOINTED,
         steps=(_OLD_CAULK, _prime_joints(F.MASONRY_CONDITIONER, F.MASONRY_UNDERCOAT), _NEW_CAULK)),
    Rule("caulk-smooth", "{caulk_m} m of joints are open or brittle", "water gets behind the coat", on=("vinyl",
         "metal", "glass-fibre"), off="deck floor roof", when=_JOINTED, steps=(_OLD_CAULK, _NEW_CAULK)),
    Rule("mask-spray", "openings and neighbours must be covered", "overspray travels with the wind",
         off="deck floor roof", school=("method", "spray"), when=(above("openings", 0),),
         steps=(Step("mask", Phase.MASK, K.MASK, "Mask openings and edges for spraying", "0.3 to 0.45 m of film round "
                     "the edges, sheets over openings; running air conditioners free but while spraying.",
                     Acts(fact="openings", unit=AmountUnit.PIECES), method=Method.AIRLESS),)),
    Rule("mask-hand", "openings are cut in against", "drips and smears on glass and stone", off="deck floor roof",
         school=("method", "hand"), when=(above("openings", 0),),
         steps=(Step("mask", Phase.MASK, K.MASK, "Cover and tape the openings", "On the frame, "
                     "pressed down along its edge. Where it lets go: wipe off the dust, else a brush cuts in.",
                     Acts(fact="openings", unit=AmountUnit.PIECES)),)),
    Rule("unmask", "tape and film come off in time", "tape left on tears the fresh edge", off="deck floor roof",
         when=(above("openings", 0),),
         steps=(Step("unmask", Phase.UNMASK, K.CLEAN, "Tape off while the coat is soft, film and sheets away", "Score "
                     "the edge where it has set.", Acts(fact="openings", unit=AmountUnit.PIECES), (T.UNMASK,)),)),
    Rule("left-beside", "{left_names}: left as it is", "drips and mist on what nobody pays to clean",
         when=(above("left_edge_m", 0),),
         steps=(Step("mask-left", Phase.MASK, K.MASK, "Tape and cover what is left as it is: {left_names}",
                     "Where tape pulls the old paint off, a brush cuts in.",
                     Acts(fact="left_edge_m", unit=AmountUnit.M)),
                Step("unmask-left", Phase.UNMASK, K.CLEAN, "Tape and film off what is left, while the coat is soft", "",
                     Acts(fact="left_count", unit=AmountUnit.PIECES), (T.UNMASK,)))),
    Rule("edges-taped", "edges are taped here, on {taped_on}", "a brush line wavers where a hand is tired or the light "
         "is flat", off="deck floor roof", school=("edges", "taped"), when=(above("taped_m", 0),),
         steps=(Step("tape-edges", Phase.MASK, K.MASK, "Tape the edges: {taped_on}", "On what is not painted or is "
                     "dry, never on a fresh film. Where it lets go: wipe off the dust and press it on again, else on "
                     "the next edge, else a brush cuts in. In soil no tape: the paint line goes below the ground's.",
                     Acts(fact="taped_m", unit=AmountUnit.M), (T.TAPE,)),
                Step("untape-edges", Phase.UNMASK, K.CLEAN, "Tape off the edges while the coat is soft", "Slowly, back "
                     "on itself. Score the edge where it has set.", Acts(fact="taped_m", unit=AmountUnit.M),
                     (T.UNMASK,)))),
    Rule("taken-away", "{gone_names}: taken away for good", "holes, old sealant and a bare patch show through any coat",
         off="floor deck roof", when=(above("gone_holes", 0),),
         steps=(Step("patch-holes", Phase.FILL, K.REPAIR, "Pull plugs and old sealant, fill the holes "
                     "where {gone_names} was", "Flush, sanded when hard. The bare patch behind is spot-primed with the "
                     "rest.",
                     Acts(fact="gone_holes", unit=AmountUnit.PIECES), (T.FILL,), wait_h=4,
                     until="a thumbnail leaves no mark in the filler"),)),
    Rule("mask-floor-walls", "walls stand beside the floor", "a roller marks the wall it turns at", on=("floor",),
         steps=(Step("mask", Phase.MASK, K.MASK, "Mask the walls and posts round the floor", "", _ONCE),
                Step("unmask", Phase.UNMASK, K.CLEAN, "Tape off while the coat is soft", "", _ONCE, (T.UNMASK,)))),
)  # fmt: skip

_FIRST = one_of("first_on_face", True)
_COVER = "Cover the ground, planting and what stands before the face"
PROTECTION = (
    Rule("cover", "people, plants and ground lie below the work", "drips and chips do not come out of paving",
         when=(_FIRST,),
         steps=(Step("cover", Phase.PROTECT, K.PROTECT, _COVER, "Sheets that breathe over plants, off again every "
                     "evening.", _ONCE, (T.COVER,)),)),
    Rule("cover-wide", "mist drifts past the edges of a sprayed face", "overspray on cars and neighbours is forever",
         school=("method", "spray"), when=(_FIRST,), off="deck floor", steps=(Step("cover", Phase.PROTECT, K.PROTECT,
         f"{_COVER}, well past its edges", "Sheets that breathe over plants, off again every evening.", _ONCE,
         (T.COVER,), strength=5),)),
    Rule("spray-drifts", "mist drifts", "overspray on cars and neighbours is forever", school=("method", "spray"),
         when=(_FIRST,), off="deck floor", level=Alert.NOTE,
         todo="Vehicles moved or sheeted, also the neighbours'; tell them the day before."),
    Rule("planting", "planting stands against the face", "wet leaves touch the fresh coat, and no one can work behind",
         when=(_FIRST, one_of("near_planting", True)),
         steps=(Step("cut-back", Phase.PROTECT, K.PROTECT, "Cut back planting an arm's length from the face", "Ask the "
                     "customer first.", _ONCE, (T.CUT_BACK,)),)),
    Rule("fittings", "lamps and the like hang on the face", "painted round, they show the old colour",
         when=(_FIRST, one_of("fittings", True)),
         steps=(Step("fittings-down", Phase.TAKE_DOWN, K.FIT, "Take down what hangs on the face, number and list it",
                     "{hangs}. Lamps and keypads only with the current off; downspouts strapped aside. What cannot "
                     "come down is covered.", _ONCE),
                Step("fittings-back", Phase.REFIT, K.FIT, "Refit by the list what was taken down", "{hangs}.", _ONCE))),
    Rule("near-vehicles", "a vehicle stands close", "mist and drips find it", when=(_FIRST, one_of("near_vehicle",
         True)),
         level=Alert.NOTE, disclosure=True, todo="Have it moved, or sheet it; when spraying only with the wind away "
         "from it, else roll."),
    Rule("near-neighbour", "a neighbour's house, car or washing is close by", "drips, dust and mist know no fence",
         when=(_FIRST, one_of("near_neighbour", True)), level=Alert.NOTE, disclosure=True,
         todo="Tell them the day before; nothing sprayed or sanded dry with the wind towards them."),
    Rule("near-play", "children or pets are about", "dust, wet paint and ladders draw them",
         when=(_FIRST, one_of("near_children_or_pets", True)), level=Alert.CHECK,
         todo="Agree where they are kept on work days; the ground is cleaned before they come back."),
    Rule("near-meter", "a meter hangs on the face", "it belongs to the supplier and is live", source=Source.STANDARD,
         when=(_FIRST, one_of("near_meter", True)), level=Alert.NOTE,
         todo="Never take it down or open it: cut in round it, keep water and spray off."),
    Rule("near-conditioner", "an air conditioner stands here", "covered while it runs it overheats",
         when=(_FIRST, one_of("near_air_conditioner", True)), level=Alert.NOTE,
         todo="Switch it off before covering it; uncover it when the spraying is done."),
    Rule("wires-near", "wires come in at the face", "a ladder or pole that touches them kills",
         when=(_FIRST, one_of("wires", True)), level=Alert.CHECK, source=Source.STANDARD,
         todo="Have the line sheathed or cut off before any ladder goes up."),
)  # fmt: skip

LEAD_LAW_M2 = 1.8
"""Outdoors, from 20 square feet on: the least area from which any law known to us asks for certified people."""
_LEAD = (one_of("lead", True), one_of("painted", True, or_unknown=True))
_DAYS = Acts(fact="dusty_days", unit=AmountUnit.PIECES)
_NIGHTS = Acts(fact="contained_nights", unit=AmountUnit.PIECES)
LEAD = (
    Rule("lead", "lead paint is presumed", "dust and chips poison, children first of all",
         when=_LEAD, level=Alert.CHECK, forbids=LEAD_FORBIDS, source=Source.STANDARD,
         todo="Test, or work wet and contained, with people certified where the law asks for it."),
    Rule("lead-contain", "lead is presumed, and old paint is disturbed on this face", "chips stay in the soil for good",
         when=(one_of("lead", True), one_of("contains", True)), source=Source.STANDARD,
         steps=(Step("contain", Phase.PROTECT, K.PROTECT, "Contain: ground sheeted 3 m out, openings sealed, tape and "
                     "signs up", "Children and pets away. Chips bagged and sealed as the local authority says.", _ONCE,
                     (T.CONTAIN,), covers=("cover",)),
                Step("daily-clean", Phase.CLEAN_DAILY, K.CLEAN, "HEPA clean-up of sheets, ground and sills, every day",
                     "", _DAYS, (T.DAILY_CLEAN,)),
                Step("final-check", Phase.FINAL_CHECK, K.CLEAN, "Final check: no chip or dust left to see", "Look in "
                     "raking light along sills, paving and soil.", _ONCE, (T.FINAL_CHECK,)))),
    Rule("lead-contain-again", "the containment stays up overnight",
         "rain lifts the sheets and carries chips off them", source=Source.STANDARD,
         when=(one_of("lead", True), one_of("contains", True), above("contained_nights", 0)),
         steps=(Step("lay-again", Phase.CLEAN_DAILY, K.PROTECT, "Sheets looked over every morning, laid again after "
                     "rain", "Before rain the chips are off them.", _NIGHTS, (T.LAY_AGAIN,)),)),
    Rule("lead-large", "{disturbed_m2} m² of old paint comes off, and lead is presumed",
         "laws reckon by the area that is disturbed, not by how much of a wall it is",
         when=(*_LEAD, above("disturbed_m2", LEAD_LAW_M2)), level=Alert.CHECK, source=Source.STANDARD,
         todo="Ask whether the law wants a certified firm and certified people; price the containment by itself."),
    Rule("lead-open-floor", "lead is presumed, and what is washed off falls between the boards",
         "sludge and rinse water poison the soil below for good", on=("deck",), when=(*_LEAD, one_of("film", True)),
         level=Alert.CHECK, source=Source.STANDARD,
         todo="Sheet the soil below and catch what runs through, or take the film off with a poultice and pick it up "
         "dry."),
    Rule("lead-said", "the house may carry lead paint", "safe work is slower and is paid for",
         when=(*_LEAD, _FIRST), level=Alert.NOTE, disclosure=True, source=Source.STANDARD,
         todo="Lead rules may apply: say what they add before the contract."),
    Rule("lead-pressure", "pressure washing is the company's way, and lead is presumed",
         "a jet spreads lead chips over the garden", on=("siding", "masonry", "roof"), off="stucco",
         when=_LEAD, school=("wash", "pressure"),
         level=Alert.CHECK, source=Source.STANDARD, todo="Washed by hose and brush instead."),
)  # fmt: skip

ARSENIC = (
    Rule("arsenic", "old pressure-treated timber: presume arsenic", "its dust and its ash poison",
         on=("wood",), when=(one_of("old_treated", True),), forbids=ARSENIC_FORBIDS, level=Alert.CHECK,
         source=Source.STANDARD, todo="Ask for its year. Nothing sanded dry, blown or burnt; dust and cut-offs bagged. "
         "Ask the cleaner's and the brightener's sheet whether they may go on such timber."),
)  # fmt: skip

SAID = (
    Rule("weather-moves", "the work is outside", "rain, dew and cold decide the days", when=(_FIRST,),
         level=Alert.NOTE, disclosure=True, todo="Dates depend on weather: say it before the contract."),
    Rule("cold-weeks", "the paint is chosen for cold weeks", "the cold slows every film, and dew falls early",
         when=(_FIRST,), school=("season", "cold"), level=Alert.NOTE, todo="Paint and tools indoors overnight, the "
         "working pot wrapped and warm on the cold wall; last stroke an hour or two before the surface falls below the "
         "sheet's least."),
    Rule("chip-differs", "the colour was chosen from a chip", "in daylight and at size it looks different",
         when=(_FIRST, one_of("colour_changes", True)), level=Alert.NOTE, disclosure=True,
         todo="Paint sample boards and look at them on different faces and hours."),
)  # fmt: skip

RULES = (*LEAD, *ARSENIC, *PROTECTION, *WASHING, *GROWTH, *GLOSS, *CHALK, *COLOUR, *JOINTS, *SAID)
