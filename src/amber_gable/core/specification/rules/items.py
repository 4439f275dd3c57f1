"""Doors, windows, shutters, garage doors, railings (docs/trade.md §9.4)."""

from amber_gable.core.specification.derived.rule import Acts, Coats, Phase, Rule, Step, above, at_most, none_of, one_of
from amber_gable.domain.paint.families import Family as F
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.operation import AmountUnit
from amber_gable.domain.work.operation import OperationKind as K
from amber_gable.domain.work.operation import Technique as T

_TRIM = (F.TRIM_ACRYLIC, F.HYBRID_SATIN, F.ALKYD_GLOSS)
_PIECES = Acts(fact="pieces", unit=AmountUnit.PIECES)


def _masked(what: str, note: str = "") -> tuple[Step, Step]:
    """Covered once it is washed, sanded and dusted, before the first film; off again while the last is soft."""
    return (
        Step("mask", Phase.MASK, K.MASK, f"Mask {what}", note, _PIECES),
        Step("unmask", Phase.UNMASK, K.CLEAN, "Tape off while the coat is soft", "", _PIECES, (T.UNMASK,)),
    )


def _fit(role: str, stage: Phase, name: str, note: str = "", way: T = T.FIT) -> Step:
    return Step(role, stage, K.FIT, name, note, _PIECES, (way,))


DOORS = (
    Rule("door-hardware", "a door has hardware and weather strip", "paint on hinges and strip binds and tears",
         on=("door",),
         steps=(_fit("take-down", Phase.TAKE_DOWN, "Take off the hardware that comes off, list it"),
                *_masked("glass, strip and what hardware stays", "Glass that gets new putty only once it has a skin."),
                _fit("refit", Phase.REFIT, "Refit hardware; close only when tack-free",
                     "Tack-free and some hours more before it is shut."))),
    Rule("door-dark", "a dark colour on a door", "in the sun it runs hot: panels shrink, joints open, it warps",
         on=("door",), when=(one_of("dark_colour", True),), level=Alert.CHECK,
         todo="See the computed peak on its colour sheet; offer a lighter colour; insulated and wooden doors may warp "
         "and void their warranty."),
    Rule("finish-wood-door", "a door is seen close and touched", "two thin coats in the order of its members",
         on=("wood door",), coats=Coats(_TRIM, 2, Method.BRUSH, "satin to semi-gloss", spray=Method.TURBINE,
                                        strength=5)),
)  # fmt: skip

_PUTTY_M = Acts(fact="putty_m", unit=AmountUnit.M)
_OUT = Step("putty-out", Phase.CUT_OUT, K.SCRAPE, "Cut the failing putty out", "Hacking knife, not into the glass.",
            _PUTTY_M, (T.CUT_OUT, T.WET_CUT_OUT), otherwise="Mist and cut the failing putty out wet")  # fmt: skip
_REBATE = Step("prime-rebates", Phase.REBATE_PRIME, K.PRIME, "Wood primer in the bared rebates",
               "A dry rebate draws the "
               "oil out of the putty.", Acts(least_pct=5), families=(F.ALKYD_WOOD_PRIMER, F.ACRYLIC_WOOD_PRIMER),
               method=Method.BRUSH, bare=True)  # fmt: skip


def _glaze(name: str, note: str, wait_h: float) -> Step:
    return Step("putty", Phase.PUTTY, K.PUTTY, name, note, _PUTTY_M, (T.GLAZE,), wait_h=wait_h,
                until="a skin has formed that a thumb does not mark")  # fmt: skip


_FIRST = one_of("painted", True, or_unknown=True)
WINDOWS = (
    Rule("window-free", "sashes are often painted shut", "a forced sash breaks its glass", on=("wood window",),
         when=(_FIRST,), school=("place", "in-place"),
         steps=(Step("free", Phase.CUT_OUT, K.SCRAPE, "Cut the sashes free, scrape the loose glazing edge",
                     "Mask cords, "
                     "runners and draught brushes: they stay unpainted.", _PIECES, (T.CUT_OUT, T.WET_CUT_OUT),
                     otherwise="Mist, cut the sashes free wet, scrape the loose glazing edge wet"),)),
    Rule("window-refit", "fresh sashes stick", "a sash left shut must be cut free", on=("window",),
         school=("place", "in-place"),
         steps=(_fit("refit", Phase.REFIT, "Move the sashes before the paint sticks; do not shut fully", "20 to 60 "
                     "minutes after each film.", T.MOVE),)),
    Rule("putty-oil", "{putty_m} m of putty is loose or cracked", "water gets behind the glass and rots the sash",
         on=("wood window", "wood door"), when=(above("putty_m", 0),), school=("putty", "putty"), steps=(_OUT, _REBATE,
         _glaze("New oil putty", "As soon as the bare wood is primed: its skin takes one to two weeks, while the walls "
         "are done. Later coats lap 1 to 2 mm onto the glass.", 240))),
    Rule("putty-acrylic", "{putty_m} m of putty is loose or cracked", "water gets behind the glass and rots the sash",
         on=("wood window", "wood door"), when=(above("putty_m", 0),), school=("putty", "acrylic"),
         steps=(_OUT, _REBATE, _glaze("New acrylic glazing compound", "Paint after its sheet's days.", 72))),
    Rule("window-undercoat", "the full build of a window", "closes the grain under the top coats", on=("wood window",),
         school=("windows", "traditional"),
         steps=(Step("undercoat", Phase.UNDERCOAT, K.PRIME, "Undercoat", "", families=(F.HYBRID_UNDERCOAT,
                     F.ACRYLIC_WOOD_PRIMER), method=Method.BRUSH, tinted=True),)),
    Rule("finish-window", "sashes slide and shed rain", "two top coats, cut onto the glass by 1 to 2 mm",
         on=("wood window",), coats=Coats((F.HYBRID_SATIN, F.TRIM_ACRYLIC, F.ALKYD_GLOSS), 2, Method.BRUSH,
                                          "satin to gloss", spray=Method.BRUSH, strength=5)),
)  # fmt: skip


_ELSEWHERE = (("stands", "on stands outside"), ("under-cover", "under cover"), ("shop", "in a heated shop"))


def _out(id_: str, on: tuple[str, ...], out: str, back: str, note: str, back_at: Phase = Phase.REFIT) -> list[Rule]:
    """Taken out to be painted elsewhere, and hung again: under either school of another place."""
    return [
        Rule(f"{id_}-{place}", f"it is painted {where}", "edges, backs and rebates are reached, and no ladder moves",
             on=on, off="garage-door", school=("place", place),
             steps=(_fit("take-out", Phase.TAKE_DOWN, out, note, T.TAKE_OUT),
                    _fit("hang", back_at, back, "", T.TAKE_OUT)))
        for place, where in _ELSEWHERE
    ]  # fmt: skip


SEEN = (
    Rule("de-nib", "nibs and dust stand in every film", "what is seen close and touched shows them",
         on=("door", "window", "shutter", "trim", "railing", "beam"), school=("between", "denib"), only_with="denib-",
         level=Alert.NOTE,
         todo="Within the recoat time, once the film does not clog the paper; edges spared."),
)  # fmt: skip

OFF = (
    *_out("door-out", ("wood door", "metal door", "glass-fibre door"), "Take the leaf off its hinges, number it, close "
          "the opening", "Hang the leaf; close only when tack-free", "Board or a spare leaf in the opening overnight."),
    *_out("sash-out", ("wood window",), "Cut the sashes free and take them out, number them, board the opening",
          "Put the sashes back, cords and beads too", "Beads off, cords tied off, pulleys listed; two people upstairs. "
          "Old paint is misted where it is cut, its chips caught. "
          "The frame is painted where it is, meanwhile."),
    *_out("shutter-out", ("shutter",), "Carry the shutters to their place, stacked on edge", "Carry the shutters back",
          "Number on the hinge edge.", Phase.UNMASK),
    *(Rule(f"glazing-edge-{place}", "the glazing edge lets go first", "water gets behind the glass",
           on=("wood window",), when=(_FIRST,), school=("place", place),
           steps=(Step("edge", Phase.CUT_OUT, K.SCRAPE, "Scrape the loose glazing edge", "", _PIECES,
                       (T.CUT_OUT, T.WET_CUT_OUT), otherwise="Mist and scrape the loose glazing edge wet"),))
      for place, _ in _ELSEWHERE),
)  # fmt: skip

_FIXINGS = Acts(fact="fixings", unit=AmountUnit.PIECES)


def _plugged(name: str, note: str = "") -> Step:
    return Step("plug-holes", Phase.TAKE_DOWN, K.REPAIR, name, note, _FIXINGS, (T.FILL,))


HUNG = (
    Rule("shutter-anchors", "nails do not hold twice in masonry", "a shutter that comes down in a storm hurts somebody",
         on=("shutter",), when=(one_of("fixing", "nailed-in-masonry"),),
         steps=(Step("anchors", Phase.REFIT, K.FIT, "Drill new anchors beside the old holes, three a leaf", "Hammer "
                     "drill into a capture; eyes and lungs protected. Into the brick, not its joint.", _FIXINGS,
                     (T.DRILL, T.FIT)),)),
    Rule("shutter-rescrewed", "nails that were pulled do not hold again", "a shutter that comes down in a storm hurts "
         "somebody", on=("shutter",), when=(one_of("fixing", "nailed-in-wood"),), level=Alert.NOTE,
         todo="Rehang with screws that do not rust, beside the plugged holes."),
)  # fmt: skip

REST = (
    *HUNG,
    Rule("shutter-down", "shutters hang before the wall", "painted in place, their backs and the wall stay bare",
         on=("shutter",),
         steps=(_fit("take-down", Phase.TAKE_DOWN, "Take down, number and list where it hangs; clean behind", "Upper "
                     "storey: a tall ladder and a second person."),
                _fit("refit", Phase.REFIT, "Rehang by number when tack-free"))),
    Rule("shutter-screw-holes", "screw holes wear", "a worn hole lets the shutter rattle and water in", on=("shutter",),
         when=(one_of("fixing", "screwed"),), steps=(_plugged("Plug worn screw holes, drill them anew on rehanging"),)),
    Rule("shutter-nail-holes", "the shutters are nailed to the wall", "open nail holes let water behind the wall",
         on=("shutter",), when=(one_of("fixing", "nailed-in-wood", "nailed-in-masonry"),),
         steps=(_plugged("Pull the nails, clean the holes in the wall out and plug them flush", "Pried over a board, "
                         "so that the wall keeps its face."),)),
    Rule("gutter-down", "a downspout is strapped to the wall", "painted in place, its back and the wall stay bare",
         on=("gutter",), off="trim",
         steps=(_fit("take-down", Phase.TAKE_DOWN, "Unstrap downspouts, number and list them; clear the gutter",
                     "Water "
                     "led away from the wall meanwhile."),
                _fit("refit", Phase.REFIT, "Strap the downspouts back by number"))),
    Rule("finish-shutter", "shutters have many edges", "sprayed flat, both sides", on=("wood shutter", "vinyl shutter",
         "metal shutter"), coats=Coats(_TRIM, 2, Method.BRUSH, "satin", spray=Method.TURBINE, strength=6)),
    Rule("garage-door-clear", "a garage door has a keypad, straps and a bottom gasket", "they come off in the paint",
         on=("garage-door",),
         steps=(_fit("take-down", Phase.TAKE_DOWN, "Clear the bay, vacuum it out; keypad and straps off"),
                *_masked("stone, jambs and bottom gasket; raise the door slightly for working height"),
                _fit("refit", Phase.REFIT, "Keypad and straps on; do not close until tack-free",
                     "Dried raised flat, so that heavy spots do not sag."))),
    Rule("finish-garage-door", "a sectional door folds as it moves", "two thin coats with the panel's grain",
         on=("garage-door",), coats=Coats(_TRIM, 2, Method.ROLLER, "satin", spray=Method.AIRLESS, strength=7)),
    Rule("garage-close", "a garage door must close at night", "closed wet, its sections and seals glue together",
         on=("garage-door",), level=Alert.NOTE, todo="Plan it so that it is dry to touch before it must close; seals "
         "stay unpainted."),
    Rule("one-coat-garage", "a sound metal door sprayed in about its own colour", "one even coat is enough",
         on=("metal garage-door",), school=("method", "spray"),
         when=(at_most("loose_pct", 0), at_most("rusty_pct", 0), none_of("coating", "bare", or_unknown=True)),
         coat_count=1),
    Rule("finish-railing", "railings are all edges and handled", "two thin coats", on=("wood railing",),
         when=(one_of("aim", "paint"),),
         coats=Coats(_TRIM, 2, Method.BRUSH, "satin", spray=Method.TURBINE, strength=5)),
    Rule("finish-sign", "a band is seen from afar", "an even film in a strong colour", on=("masonry sign",),
         coats=Coats((F.EXTERIOR_ACRYLIC, F.MASONRY_PAINT), 2, Method.ROLLER, "low lustre", strength=5)),
)  # fmt: skip
RULES = (*DOORS, *WINDOWS, *REST, *OFF, *SEEN)
