"""A deck, porch or fence blocked out from one form, as one step."""

from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from typing import Annotated, Any

from pydantic import ValidationError

from amber_gable.core.survey.amounts.measures import parse_length
from amber_gable.core.survey.blocks.block_faces import Made
from amber_gable.core.survey.blocks.block_floor import fence_made, floor_made
from amber_gable.domain.errors import Refused, by_field
from amber_gable.domain.house.block_floor import FenceBlock, FloorBlock
from amber_gable.domain.house.survey import Item
from amber_gable.domain.units import UnitSystem
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form
from amber_gable.services.forms.types import Bearing, Length, Tick, whole_number
from amber_gable.services.survey.blocking_out import put_up


class SizedForm(Form):
    """What a deck, porch or fence is called, and which way it looks."""

    name: str
    looks: Bearing
    substrate: str | None = None
    colour: str | None = None

    def record(self) -> dict[str, Any]:
        """What is told, by the names of the record; what is left out is as the record says."""
        return {
            ("looks_deg" if k == "looks" else k): v
            for k, v in self.model_dump(exclude_none=True, exclude={"rails"}).items()
        }


class FloorForm(SizedForm):
    """A deck or porch with its railing and stair. `rails`: lengths and sides, such as `4.4; left` or `all`."""

    width_m: Length
    depth_m: Length
    boards: str | None = None
    rails: str = ""
    rail_height_m: Length | None = None
    rail_substrate: str | None = None
    rail_colour: str | None = None
    treads: Annotated[int, whole_number(0, 999, "a number of treads: write such as 4")] | None = None
    tread_width_m: Length | None = None
    closed: Tick = False


class FenceForm(SizedForm):
    """A straight fence."""

    length_m: Length
    height_m: Length
    both_sides: Tick = False


def floor_tried(form: Mapping[str, str], system: UnitSystem) -> tuple[Made, tuple[Item, ...]]:
    """The deck or porch as it would be. Raises Refused by field."""
    typed = FloorForm.read(form, system)
    try:
        rails = _rails(typed.rails, typed.width_m, typed.depth_m, system)
    except ValueError as error:
        raise Refused({"rails": str(error)}) from None
    with _by_field(form):
        return floor_made(
            FloorBlock.model_validate({"rail_colour": typed.colour} | typed.record() | {"rails_m": rails})
        )


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
    typed = FenceForm.read(form, system)
    with _by_field(form):
        return fence_made(FenceBlock.model_validate(typed.record()))


@contextmanager
def _by_field(form: Mapping[str, str]) -> Iterator[None]:
    """A record that cannot be is refused beside the form's fields."""
    try:
        yield
    except ValidationError as error:
        raise Refused({k if k in form else "": words for k, words in by_field(error).items()}) from None


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
