"""Trees and neighbours sketched before a face."""

from collections.abc import Mapping

from pydantic import ValidationError

from amber_gable.core.survey.measures import UnitSystem, parse_length
from amber_gable.domain.survey import Block, Face
from amber_gable.services.editing import Faults
from amber_gable.services.surveying import change_part
from amber_gable.services.workspace import Workspace
from amber_gable.store.jobs import load_face

_LENGTHS = ("left_m", "width_m", "distance_m", "height_m")


def read_block(form: Mapping[str, str], system: UnitSystem) -> Block:
    """A block as typed; `left_m` may be negative. Raises Faults by field."""
    values: dict[str, object] = {"kind": form.get("kind", ""), "name": form.get("name", "").strip()}
    faults: dict[str, str] = {}
    for key in _LENGTHS:
        text = form.get(key, "").strip()
        sign = -1 if text[:1] in ("-", "−") else 1
        try:
            values[key] = sign * parse_length(text.lstrip("-−"), system)
        except ValueError as error:
            faults[key] = str(error) if text else "is needed"
    if faults:
        raise Faults(faults)
    try:
        return Block.model_validate(values)
    except ValidationError as error:
        found = {str(e["loc"][-1]): str(e["msg"]).replace("Input should be", "must be") for e in error.errors()}
        raise Faults(found) from None


def put_block(space: Workspace, job_id: str, face_id: str, number: int | None, block: Block) -> None:
    """Add a block, or put it in place of the one of that number. Raises KeyError, Faults."""
    face = _face(space, job_id, face_id)
    blocks = list(face.blocks)
    if number is None:
        blocks.append(block)
    elif 0 <= number < len(blocks):
        blocks[number] = block
    else:
        raise KeyError(number)
    _save(space, job_id, face, blocks, f"{block.kind.value} before {face.name}")


def drop_block(space: Workspace, job_id: str, face_id: str, number: int) -> None:
    face = _face(space, job_id, face_id)
    blocks = list(face.blocks)
    if not 0 <= number < len(blocks):
        raise KeyError(number)
    del blocks[number]
    _save(space, job_id, face, blocks, f"clear a view before {face.name}")


def _face(space: Workspace, job_id: str, face_id: str) -> Face:
    with space.database.reading() as session:
        return load_face(session, job_id, face_id).property.face(face_id)


def _save(space: Workspace, job_id: str, face: Face, blocks: list[Block], words: str) -> None:
    change_part(space, job_id, "face", face.id, words, blocks=[b.model_dump() for b in blocks])
