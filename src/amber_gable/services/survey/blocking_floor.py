"""A deck, porch or fence blocked out from one form, as one step."""

from collections.abc import Callable, Mapping
from typing import Any, TypeVar

from pydantic import BaseModel, ValidationError

from amber_gable.core.survey.amounts.measures import parse_length
from amber_gable.core.survey.blocks.block_faces import Made
from amber_gable.core.survey.blocks.block_floor import fence_made, floor_made
from amber_gable.core.survey.drawing.compass import parse_bearing
from amber_gable.domain.errors import Refused
from amber_gable.domain.fault_words import by_field
from amber_gable.domain.house.block_floor import FenceBlock, FloorBlock
from amber_gable.domain.house.survey import Item
from amber_gable.domain.units import UnitSystem
from amber_gable.services.context import Context
from amber_gable.services.survey.blocking_out import put_up

M = TypeVar("M", bound=BaseModel)
R = TypeVar("R")
_PLAIN = ("name", "substrate", "colour", "boards", "rail_substrate", "rail_colour")


def _read(
    form: Mapping[str, str], needed: tuple[str, ...], lengths: tuple[str, ...], system: UnitSystem
) -> tuple[dict[str, Any], dict[str, str]]:
    """What can be read of the form, and what cannot, by field."""
    values: dict[str, Any] = {k: form[k].strip() for k in _PLAIN if form.get(k, "").strip()}
    faults = {name: "is needed" for name in needed if not form.get(name, "").strip()}
    reads: list[tuple[str, str, Callable[[str], Any]]] = [(n, n, lambda t: parse_length(t, system)) for n in lengths]
    for name, field, read in [*reads, ("looks", "looks_deg", parse_bearing)]:
        try:
            if form.get(name, "").strip():
                values[field] = read(form[name])
        except ValueError as error:
            faults[name] = str(error)
    return values, faults


def _made(
    model: type[M], values: dict[str, Any], faults: dict[str, str], form: Mapping[str, str], build: Callable[[M], R]
) -> R:
    if faults:
        raise Refused(faults)
    try:
        return build(model.model_validate({k: v for k, v in values.items() if k in model.model_fields}))
    except ValidationError as error:
        raise Refused({k if k in form else "": words for k, words in by_field(error).items()}) from None


def floor_tried(form: Mapping[str, str], system: UnitSystem) -> tuple[Made, tuple[Item, ...]]:
    """The deck or porch as it would be. Raises Refused by field."""
    lengths = ("width_m", "depth_m", "rail_height_m", "tread_width_m")
    values, faults = _read(form, ("name", "width_m", "depth_m", "looks"), lengths, system)
    values["closed"] = form.get("closed") == "on"
    treads = form.get("treads", "").strip()
    if treads and not treads.isdigit():
        faults["treads"] = f"“{treads[:20]}” is no number of treads: write such as 4"
    elif treads:
        values["treads"] = int(treads)
    if "width_m" in values and "depth_m" in values:
        try:
            values["rails_m"] = _rails(form.get("rails", ""), values["width_m"], values["depth_m"], system)
        except ValueError as error:
            faults["rails"] = str(error)
    values.setdefault("rail_colour", values.get("colour"))
    return _made(FloorBlock, values, faults, form, floor_made)


def _rails(text: str, width: float, depth: float, system: UnitSystem) -> list[float]:
    """Lengths of the railing runs, m, from lengths and sides: `4.4; left`, `all`. Raises ValueError."""
    runs: list[float] = []
    for piece in text.replace("\n", ";").split(";"):
        said = piece.strip().lower()
        if not said:
            continue
        sides = {"outer": [width], "left": [depth], "right": [depth], "all": [depth, width, depth]}
        runs += sides.get(said) or [parse_length(piece, system)]
    return runs


def fence_tried(form: Mapping[str, str], system: UnitSystem) -> list[Made]:
    """The fence's sides as they would be. Raises Refused by field."""
    values, faults = _read(form, ("name", "length_m", "height_m", "looks"), ("length_m", "height_m"), system)
    values["both_sides"] = form.get("both_sides") == "on"
    return _made(FenceBlock, values, faults, form, fence_made)


def block_floor(ctx: Context, job_id: str, form: Mapping[str, str], system: UnitSystem) -> list[str]:
    """Add a deck or porch. Returns the id of its face. Raises Refused by field; nothing is saved then."""
    made, items = floor_tried(form, system)
    with ctx.writing() as session:
        return put_up(session, job_id, [made], items, f"block out {made[0].name}")


def block_fence(ctx: Context, job_id: str, form: Mapping[str, str], system: UnitSystem) -> list[str]:
    """Add a fence. Returns the ids of its sides. Raises Refused by field; nothing is saved then."""
    made = fence_tried(form, system)
    with ctx.writing() as session:
        return put_up(session, job_id, made, (), f"block out {made[0][0].name}")
