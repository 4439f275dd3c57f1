"""Everybody takes back their own steps; a colleague's is never taken back unseen."""

import pytest

from amber_gable.domain.errors import InputError
from amber_gable.services.context import Context
from amber_gable.services.job.undo import redo_step, steps_of, undo_step
from amber_gable.services.survey.surveying import place_part, remove_part
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.survey import live_part

RISE, HOUSE = "coopers-rise", "14-coopers-rise"


@pytest.fixture
def ada(ctx: Context) -> Context:
    return Context(ctx.space, "Ada")


@pytest.fixture
def ben(ctx: Context) -> Context:
    return Context(ctx.space, "Ben")


def _move(ctx: Context, opening: str, x_m: float) -> None:
    with ctx.reading() as session:
        row = live_part(session, RISE, "opening", opening)
        form = {"x_m": str(x_m), "y_m": str(row.y_m), "version": str(row.version)}
    place_part(ctx, RISE, "opening", opening, form)


def _x(ctx: Context, opening: str) -> float:
    with ctx.reading() as session:
        faces = load_bundle(session, RISE).property.faces
    return next(o.x_m for f in faces for o in f.openings if o.id == opening)


def test_each_sees_and_takes_back_their_own_step(ada: Context, ben: Context) -> None:
    door, window = _x(ada, "front-door"), _x(ada, "back-w1")
    _move(ada, "back-w1", window + 0.2)
    _move(ben, "front-door", door + 0.1)
    assert steps_of(ada, HOUSE).undo == "move Sash 7"
    assert steps_of(ben, HOUSE).undo == "move Entry door"
    assert undo_step(ada, RISE)
    assert (_x(ada, "back-w1"), _x(ada, "front-door")) == (window, door + 0.1), "Ben's step stands"
    assert steps_of(ada, HOUSE).undo is None
    assert redo_step(ada, RISE) and _x(ada, "back-w1") == window + 0.2


def test_what_a_colleague_changed_since_is_refused_with_their_name(ada: Context, ben: Context) -> None:
    at = _x(ada, "back-w1")
    _move(ada, "back-w1", at + 0.2)
    _move(ben, "back-w1", at + 0.4)
    with pytest.raises(InputError, match="was changed since by Ben"):
        undo_step(ada, RISE)
    assert _x(ada, "back-w1") == at + 0.4, "nothing of it was done"
    undo_step(ben, RISE)
    undo_step(ada, RISE)
    assert _x(ada, "back-w1") == at


def test_a_new_step_ends_only_ones_own_redo(ada: Context, ben: Context) -> None:
    _move(ada, "back-w1", _x(ada, "back-w1") + 0.2)
    undo_step(ada, RISE)
    remove_part(ben, RISE, "opening", "front-door")
    assert steps_of(ada, HOUSE).redo == "move Sash 7"
    _move(ada, "back-w2", _x(ada, "back-w2") - 0.1)
    assert steps_of(ada, HOUSE).redo is None


def test_a_step_that_nobody_is_named_for_is_everybodys(ctx: Context, ada: Context) -> None:
    _move(ctx, "back-w1", _x(ctx, "back-w1") + 0.2)
    assert steps_of(ada, HOUSE).undo == "move Sash 7"
    _move(ada, "front-door", _x(ctx, "front-door") + 0.1)
    assert steps_of(ctx, HOUSE).undo == "move Sash 7", "who is not named takes back nobody's but such steps"
