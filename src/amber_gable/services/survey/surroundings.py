"""Trees and neighbours sketched before a face."""

from collections.abc import Callable, Mapping
from typing import Annotated, Any

from pydantic import ValidationError

from amber_gable.core.survey.amounts.measures import parse_length
from amber_gable.domain.errors import NotFound, Refused, by_field
from amber_gable.domain.house.survey import Block, Face, Part
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.units import UnitSystem
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form, Reads
from amber_gable.services.forms.types import Length
from amber_gable.services.survey.surveying import change_part


def _to_a_side(text: str, system: UnitSystem) -> float:
    sign = -1 if text[:1] in ("-", "−") else 1
    return sign * parse_length(text.lstrip("-−"), system)


class BlockForm(Form):
    """A tree or neighbour; `left_m` is less than nothing to the right of the face's middle line."""

    kind: str = ""
    name: str = ""
    left_m: Annotated[float, Reads(_to_a_side)]
    width_m: Length
    distance_m: Length
    height_m: Length


def read_block(form: Mapping[str, str], system: UnitSystem) -> Block:
    """A block as typed; `left_m` may be negative. Raises Refused by field."""
    try:
        return Block.model_validate(BlockForm.read(form, system).model_dump())
    except ValidationError as error:
        raise Refused(by_field(error)) from None


def put_block(ctx: Context, job_id: str, face_id: str, number: int | None, block: Block) -> None:
    """Add a block, or put it in place of the one of that number. Raises NotFound, Refused."""

    def edit(blocks: list[Block]) -> None:
        if number is None:
            blocks.append(block)
        else:
            blocks[_place(blocks, number)] = block

    _change(ctx, job_id, face_id, f"{block.kind.value} before", edit)


def drop_block(ctx: Context, job_id: str, face_id: str, number: int) -> None:
    """Take a block out by its place in the list. Raises NotFound."""

    def edit(blocks: list[Block]) -> None:
        del blocks[_place(blocks, number)]

    _change(ctx, job_id, face_id, "clear the view before", edit)


def _place(blocks: list[Block], number: int) -> int:
    if not 0 <= number < len(blocks):
        raise NotFound("block", number)
    return number


def _change(ctx: Context, job_id: str, face_id: str, words: str, edit: Callable[[list[Block]], None]) -> None:
    def change(_: JobBundle, face: Part) -> tuple[str, dict[str, Any]]:
        assert isinstance(face, Face)
        blocks = list(face.blocks)
        edit(blocks)
        return f"{words} {face.name}", {"blocks": [b.model_dump() for b in blocks]}

    change_part(ctx, job_id, "face", face_id, change)
