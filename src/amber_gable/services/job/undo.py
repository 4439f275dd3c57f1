"""One line of steps for everything that is done to a job, survey and specification alike: taken back in the order it
was done, and done again. What was noted on site is taken back by a line of its own (today/noting.py)."""

import re
from collections.abc import Callable, Iterator
from contextlib import contextmanager

from amber_gable.domain.errors import NotFound
from amber_gable.services.context import Context
from amber_gable.services.specification.customer_changes import note_changes
from amber_gable.store.job import journal, survey
from amber_gable.store.job.jobs import live_job, load_bundle
from amber_gable.store.tables import PropertyRow
from amber_gable.store.transaction import Transaction
from amber_gable.store.weather.series import drop_series

SAME_WEATHER_DEG = 0.2
"""Within some 20 km a forecast stays what it was."""
Move = Callable[[Transaction, str], journal.StepMoved]
_OF_A_PART = re.compile(r"/(face|opening|obstacle|zone|item)/([a-z0-9-]+)")


@contextmanager
def job_step(ctx: Context, job_id: str, words: str) -> Iterator[Transaction]:
    """One transaction on a job that can be taken back whole; `words` say what was done, as in "undo …"."""
    with ctx.writing() as session, journal.step(session, job_id, words):
        yield session


def steps_of(ctx: Context, property_id: str) -> journal.Undoable:
    """What undo and redo would do to the job on a property."""
    with ctx.reading() as session:
        return journal.steps(session, property_id)


def undo_step(ctx: Context, job_id: str, meant: str = "") -> bool:
    """False, and nothing is done, where the last step is not the one that was `meant`. Raises InputError where nothing
    is left or it no longer applies."""
    return _step(ctx, job_id, journal.undo, meant)


def redo_step(ctx: Context, job_id: str, meant: str = "") -> bool:
    return _step(ctx, job_id, journal.redo, meant)


def _step(ctx: Context, job_id: str, move: Move, meant: str) -> bool:
    with ctx.writing() as session:
        property_id = live_job(session, job_id).property_id
        next_ = journal.steps(session, property_id)
        if meant and meant != (next_.undo if move is journal.undo else next_.redo):
            return False
        house = session.get_one(PropertyRow, property_id)
        stood, before = (house.latitude, house.longitude), load_bundle(session, job_id)
        moved = move(session, property_id)
        survey.check_faces(session, job_id, moved.faces)
        if moved.beside_survey:
            survey.check_references(session, job_id)
            note_changes(ctx, session, before)
            forget_weather(ctx, session, house, stood)
    return True


def forget_weather(ctx: Context, session: Transaction, house: PropertyRow, stood: tuple[float, float]) -> None:
    """What was forecast for another place (degrees) says nothing of this one, however young it is."""
    if max(abs(house.latitude - stood[0]), abs(house.longitude - stood[1])) > SAME_WEATHER_DEG:
        drop_series(session, house.id, "forecast")
        ctx.space.asked.pop(house.id, None)


def still_there(ctx: Context, job_id: str, path: str) -> bool:
    """Whether the part that a page of the job is about is there."""
    found = _OF_A_PART.search(path)
    if found is None or found[2] == "new":
        return True
    try:
        with ctx.reading() as session:
            survey.live_part(session, job_id, found[1], found[2])
    except NotFound:
        return False
    return True
