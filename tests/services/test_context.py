"""One context a request: one moment read, one transaction written, and everything signed by who asks."""

from datetime import timedelta

import pytest
from sqlalchemy import event
from sqlalchemy.exc import IntegrityError

from amber_gable.domain.errors import Refused
from amber_gable.domain.units import UnitSystem
from amber_gable.services.clock import DemoClock
from amber_gable.services.company.usual_units import units_for
from amber_gable.services.context import Context
from amber_gable.store.database import Database
from amber_gable.store.job.jobs import live_job
from tests.fixtures import unchanged

RISE = "coopers-rise"


def _note(ctx: Context) -> str:
    with ctx.reading() as session:
        return live_job(session, RISE).note


def _set_note(ctx: Context, words: str) -> None:
    with ctx.writing() as session:
        live_job(session, RISE).note = words


def _transactions(database: Database) -> list[str]:
    begun: list[str] = []

    def note(_c: object, _cursor: object, statement: str, *_: object) -> None:
        if statement.startswith("BEGIN"):
            begun.append(statement)

    event.listen(database.engine, "before_cursor_execute", note)
    return begun


def test_a_request_reads_one_moment_whatever_others_write(ctx: Context) -> None:
    other = Context(ctx.space)
    before = _note(ctx)
    with Context(ctx.space) as asking:
        assert _note(asking) == before
        _set_note(other, "written meanwhile")
        assert _note(asking) == before
        asking.look_again()
        assert _note(asking) == "written meanwhile"


def test_a_request_opens_one_transaction_to_read_and_one_to_write(ctx: Context) -> None:
    begun = _transactions(ctx.space.database)
    with Context(ctx.space) as asking:
        for _ in range(3):
            _note(asking)
        with asking.writing():
            _set_note(asking, "first")
            _set_note(asking, "second")
            assert _note(asking) == "second", "inside a writing one sees what one wrote"
    assert begun == ["BEGIN", "BEGIN IMMEDIATE"]
    assert _note(ctx) == "second"


def test_what_was_written_is_read_after_it(ctx: Context) -> None:
    with Context(ctx.space) as asking:
        _note(asking)
        _set_note(asking, "mine")
        assert _note(asking) == "mine"


def test_a_part_that_failed_saves_nothing_even_if_it_is_caught(ctx: Context) -> None:
    """Who catches the refusal of one part must not save the half of the whole."""

    def half() -> None:
        with ctx.writing() as session:
            live_job(session, RISE).customer = "half"
            raise Refused({"": "no"})

    with unchanged(ctx), pytest.raises(RuntimeError, match="none of it may be saved"), ctx.writing():
        _set_note(ctx, "other half")
        with pytest.raises(Refused):
            half()
    _set_note(ctx, "the next one is another")
    assert _note(ctx) == "the next one is another"


def test_every_row_says_who_made_it_and_who_changed_it_last(ctx: Context) -> None:
    ada, ben = Context(ctx.space, "Ada"), Context(ctx.space, "Ben")
    with ada.writing() as session:
        job = live_job(session, RISE)
        made = type(job)(**{c.key: getattr(job, c.key) for c in job.__table__.columns} | {"id": "other"})
        session.add(made)
    with ben.writing() as session:
        live_job(session, "other").note = "by Ben"
    with ctx.reading() as session:
        row = live_job(session, "other")
        assert (row.created_by, row.updated_by) == ("Ada", "Ben")
    with pytest.raises(IntegrityError), ada.writing() as session:
        session.add(type(row)(**{c.key: getattr(row, c.key) for c in row.__table__.columns}))


def test_the_clock_is_read_once_a_request(ctx: Context) -> None:
    assert isinstance(ctx.space.clock, DemoClock)
    with Context(ctx.space) as asking:
        first = asking.now
        ctx.space.clock.step(2)
        assert asking.now == first
        assert ctx.now - first == timedelta(hours=2), "who is not in a request sees the present"


def test_units_are_the_readers_choice_before_what_is_usual(ctx: Context) -> None:
    assert units_for(ctx) is UnitSystem.METRIC
    assert units_for(Context(ctx.space, units=UnitSystem.US)) is UnitSystem.US
