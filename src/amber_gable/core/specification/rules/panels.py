"""Vinyl and fibre cement (docs/trade.md §3 to §5)."""

from amber_gable.core.specification.cautions.dangers import ASBESTOS_FORBIDS, SILICA_FORBIDS
from amber_gable.core.specification.derived.rule import (
    BARE_SPOTS,
    LOOSE,
    Coats,
    Phase,
    Rule,
    Source,
    Step,
    above,
    none_of,
    one_of,
)
from amber_gable.core.specification.rules.smooth import PEELS, WALLS, peeling, prime, spots
from amber_gable.domain.paint.families import Family as F
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.operation import OperationKind as K
from amber_gable.domain.work.operation import Technique as T

VINYL = (
    Rule("vinyl-sound", "the vinyl is sound", "it takes paint without primer", on=("vinyl siding",),
         when=(one_of("vinyl", "sound"),), level=Alert.NOTE, unless=("prime",), todo="No primer."),
    Rule("vinyl-pitted", "the vinyl is pitted or porous", "it drinks the coat in spots", on=("vinyl",),
         when=(one_of("vinyl", "pitted"),), steps=(prime("Sealing primer all over", "", 35, F.BONDING_PRIMER),)),
    Rule("vinyl-warped", "panels are warped already", "paint hides nothing and holds nothing straight", on=("vinyl",),
         when=(one_of("vinyl", "warped"),), level=Alert.STOP, todo="Replace the warped panels first."),
    Rule("vinyl-unknown", "the vinyl was not felt over", "primer for nothing, or none where it was needed",
         on=("vinyl siding",), when=(one_of("vinyl_known", False),), level=Alert.CHECK,
         todo="Feel for pits and look along it for warp.",
         steps=(prime("Sealing primer until the vinyl is felt over", "", 30, F.BONDING_PRIMER),)),
    Rule("vinyl-windows", "vinyl windows are shinier than siding", "a coat slides off the shine", on=("vinyl trim",
         "vinyl window"), off="cellular",
         steps=(prime("Bonding primer", "", 32, F.BONDING_PRIMER),)),
    peeling("vinyl-peeling", "vinyl", grit="120 grit",
             primer=spots("Bonding primer on the bared places", "", F.BONDING_PRIMER)),
    Rule("vinyl-made-unknown", "the colour the vinyl was made in is not known",
         "today's colour is faded or painted: it "
         "proves nothing of what the panel bears", on=("vinyl siding",),
         when=(one_of("made_colour_known", False), one_of("darker", True)), level=Alert.CHECK,
         todo="Find the made colour under trim or behind a fitting; until then only the computed peak speaks for the "
         "new one."),
    Rule("vinyl-warranty", "the vinyl is to be painted", "a colour darker than made may warp it and void its warranty",
         on=("vinyl siding", "vinyl trim", "vinyl window"), level=Alert.NOTE, disclosure=True,
         todo="Say it before the contract; gaskets and seals stay unpainted."),
    Rule("finish-vinyl", "vinyl moves with the heat", "a flexible acrylic in two thin coats", on=("vinyl siding",),
         coats=Coats(WALLS, 2, Method.BRUSH, "low lustre")),
    Rule("finish-vinyl-trim", "vinyl frames move with the heat", "a flexible acrylic in two thin coats",
         on=("vinyl",), coats=Coats((F.TRIM_ACRYLIC, F.EXTERIOR_ACRYLIC), 2, Method.BRUSH, "satin", strength=-5)),
)  # fmt: skip

CEMENT = (
    Rule("fibre-cement-bare", "bare fibre cement", "cut edges and faces drink", on=("fibre-cement siding",),
         when=(one_of("coating", "bare"),),
         steps=(prime("Alkali-resistant primer all over, cut edges twice", "", 40, F.MASONRY_UNDERCOAT,
                       F.ACRYLIC_WOOD_PRIMER, F.MASONRY_CONDITIONER, method=Method.ROLLER),)),
    Rule("fibre-cement-peeling", "{loose_pct} % is loose", "a new coat comes off with the old one", on=("fibre-cement "
         "siding",), when=(*PEELS, none_of("asbestos", True)), steps=(Step("scrape", Phase.REMOVE, K.SCRAPE, "Scrape "
         "wet what is loose: mist, scrape, wipe", "", LOOSE, (T.WET_SCRAPE,)), Step("prime-spots", Phase.SPOT_PRIME,
         K.PRIME, "Primer on the bared places", "", BARE_SPOTS, families=(F.MASONRY_UNDERCOAT, F.ACRYLIC_WOOD_PRIMER,
         F.MASONRY_CONDITIONER), method=Method.BRUSH, bare=True, strength=10))),
    Rule("fibre-cement-dust", "fibre cement", "its dust holds silica", on=("fibre-cement",), level=Alert.NOTE,
         forbids=SILICA_FORBIDS, source=Source.STANDARD, todo="Wet or extracted methods only."),
    Rule("asbestos-sound", "the sheet may hold asbestos", "its fibres kill years later", on=("fibre-cement",),
         off="roof", when=(one_of("asbestos", True),), level=Alert.CHECK, forbids=ASBESTOS_FORBIDS,
         source=Source.STANDARD, todo="Presume asbestos until a laboratory says no, on a sample taken by licensed "
         "people. Sound sheets: wet gently and encapsulate, break nothing."),
    Rule("asbestos-failing", "coating or sheet fails where it may hold asbestos", "nothing may be scraped or sanded",
         on=("fibre-cement",), off="roof", when=(one_of("asbestos", True), above("failing_pct", 0)), level=Alert.STOP,
         source=Source.STANDARD, todo="A laboratory's no, or licensed people for everything that comes off."),
    Rule("asbestos-roof", "a roof sheet that may hold asbestos",
         "its fibres kill years later, and the sheet carries no "
         "one", on=("fibre-cement roof",), when=(one_of("asbestos", True),), level=Alert.STOP,
         forbids=ASBESTOS_FORBIDS, source=Source.STANDARD, todo="Licensed people, or leave it; a laboratory's no lifts "
         "this. Nobody walks on it either way."),
    Rule("sheet-fragile", "fibre-cement roof sheets", "they break under a foot", on=("fibre-cement roof",),
         level=Alert.CHECK, source=Source.STANDARD,
         todo="Work from a lift or crawl boards with fall arrest; never step "
         "on a sheet."),
    Rule("finish-fibre-cement", "fibre cement is stable", "two coats last long on it", on=("fibre-cement",), off="roof",
         coats=Coats(WALLS, 2, Method.BRUSH, "low lustre")),
)  # fmt: skip

RULES = (*VINYL, *CEMENT)
