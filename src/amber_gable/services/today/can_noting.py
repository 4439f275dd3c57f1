"""What is left in a can, said on the ladder: which can is next, and whether the paint will do, follow from it."""

import uuid
from collections.abc import Mapping

from amber_gable.domain.errors import Refused
from amber_gable.domain.job.site_record import CanNoted
from amber_gable.domain.units import Quantity, UnitSystem, read, shown
from amber_gable.services.context import Context
from amber_gable.services.job.view import JobView
from amber_gable.services.today.cans import Cans
from amber_gable.services.today.noting import signed, touch_of
from amber_gable.store.job.site_record import append


def note_can(ctx: Context, view: JobView, form: Mapping[str, str], by: str, system: UnitSystem) -> None:
    """The can that `form["task"]` takes its paint from holds `form["left"]` more, or nothing where `form["empty"]` says
    so. A touch that is sent again is entered once. Raises Refused by field."""
    touch = touch_of(form)
    if touch in {can.touch for can in view.bundle.job.cans_noted}:
        return
    board = view.board
    task = next((s.task for s in board.tasks if s.task.id == form.get("task")), None) if board is not None else None
    cans = Cans(view)
    number = None if task is None else cans.number(task)
    if task is None or task.product is None or task.colour is None or number is None:
        raise Refused({"can": "nothing was bought for that work: look at the quantities"})
    text = "" if form.get("empty") else form.get("left", "").strip()
    if not text and not form.get("empty"):
        raise Refused({"left": "say how much is left in the can, or that it is used up"})
    try:
        left = read(Quantity.VOLUME, text, system) if text else 0.0
    except ValueError as error:
        raise Refused({"left": str(error)}) from None
    size = cans.size(task, number)
    if not 0 <= left <= size:
        raise Refused({"left": f"the can holds {shown(Quantity.VOLUME, size, system)}: say how much of that is left"})
    line = CanNoted(
        id=uuid.uuid4().hex,
        touch=touch,
        at=ctx.now,
        noted=ctx.now,
        by=signed(by),
        product=task.product,
        colour=task.colour,
        number=number,
        left_l=round(left, 3),
    )
    with ctx.writing() as session:
        append(session, view.bundle.job.id, [line])
