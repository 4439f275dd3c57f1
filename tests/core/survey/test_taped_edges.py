"""Edges that are taped by hand: which side of an edge is taped, on what, and along how many metres.

The wall is 10 m wide and 6 m high; its windows, cased or not, are covered by steps of their own."""

from typing import Any

import pytest

from amber_gable.core.specification.derived.completing import completed
from amber_gable.core.survey.amounts.taped_edges import taped_edges
from amber_gable.domain.job.job import JobBundle
from tests.jobs import one_wall

GREY, RED, WHITE = "#808080", "#8a2020", "#f0f0f0"
DOOR = {"id": "door", "kind": "door", "x_m": 4.0, "y_m": 0.0, "width_m": 1.0, "height_m": 2.1}
WINDOW = {"id": "window", "x_m": 1.0, "y_m": 1.0, "width_m": 1.2, "height_m": 1.2}
PLINTH = {"kind": "band", "from_m": 0.0, "to_m": 0.5}
GABLE = {"kind": "band", "from_m": 4.0, "to_m": 6.0}
SIGN = {"kind": "region", "corners": [[2.0, 2.5], [8.0, 2.5], [8.0, 3.0], [2.0, 3.0]]}
BOARDS = {"kind": "own", "area_m2": 3.0, "trim_m": 20.0}


def _wall(
    areas: dict[str, Any], colours: dict[str, str | None], openings: tuple[dict[str, Any], ...] = (), **job: Any
) -> JobBundle:
    """The wall with its field and zones of these areas. Without a colour a zone is left; unnamed it is undecided."""
    raw = one_wall(width_m=10.0, height_m=6.0, openings=openings).model_dump(mode="json")
    field, finish = raw["property"]["zones"][0], raw["job"]["finishes"][0]
    named = {"field": field["id"], **{name: name for name in areas}}
    raw["property"]["zones"] = [
        *({**field, "id": name, "name": name, "area": area, "profile": None} for name, area in areas.items()),
        {**field, "name": "field"},
    ]
    painted = {n: c for n, c in colours.items() if c is not None}
    raw["job"]["finishes"] = [{**finish, "zone": named[n], "colour": c} for n, c in painted.items()]
    raw["job"]["left"] = [{"zone": named[n]} for n in colours if n not in painted]
    raw["job"] |= job
    return JobBundle.model_validate(raw)


@pytest.mark.parametrize(
    ("areas", "colours", "openings", "job", "taped"),
    [
        # A wall alone: along the ground, without the door that stands on it.
        ({}, {"field": GREY}, (DOOR, WINDOW), {}, {"field": {"the ground": 9.0}}),
        # A stone plinth that stays as it is: the tape sits on the stone, and no paint comes near the ground.
        ({"plinth": PLINTH}, {"field": GREY, "plinth": None}, (), {}, {"field": {"plinth": 10.0}}),
        # Nobody decided on the plinth yet: nothing is known of that edge.
        ({"plinth": PLINTH}, {"field": GREY}, (), {}, {"field": {}}),
        # A painted plinth comes after the field: taped on the dry field and along the ground.
        ({"plinth": PLINTH}, {"field": GREY, "plinth": RED}, (), {},
         {"field": {}, "plinth": {"field": 10.0, "the ground": 10.0}}),
        # In the field's own colour there is no edge between them.
        ({"plinth": PLINTH}, {"field": GREY, "plinth": GREY}, (), {},
         {"field": {}, "plinth": {"the ground": 10.0}}),
        # A sign band in the middle has all its edges on the field; one that is left is taped round by the field.
        ({"sign": SIGN}, {"field": GREY, "sign": RED}, (), {},
         {"field": {"the ground": 10.0}, "sign": {"field": 13.0}}),
        ({"sign": SIGN}, {"field": GREY, "sign": None}, (), {}, {"field": {"sign": 13.0, "the ground": 10.0}}),
        # Of two bands the later one is taped, once.
        ({"gable": GABLE, "middle": {"kind": "band", "from_m": 2.0, "to_m": 4.0}},
         {"field": GREY, "gable": WHITE, "middle": RED}, (), {},
         {"gable": {}, "middle": {"gable": 10.0, "field": 10.0}}),
        # Trim follows the field, and is taped on it; trim that goes first is taped by the field.
        ({"boards": BOARDS}, {"field": GREY, "boards": WHITE}, (), {},
         {"field": {"the ground": 10.0}, "boards": {"field": 20.0}}),
        ({"boards": BOARDS}, {"field": GREY, "boards": WHITE}, (), {"schools": {"order": "trim-first"}},
         {"field": {"boards": 20.0, "the ground": 10.0}, "boards": {}}),
        # Trim that is left is taped by the field, and a field that is left by the trim.
        ({"boards": BOARDS}, {"field": GREY, "boards": None}, (), {},
         {"field": {"boards": 20.0, "the ground": 10.0}}),
        ({"boards": BOARDS}, {"field": None, "boards": WHITE}, (), {"schools": {"order": "trim-first"}},
         {"boards": {"field": 20.0}}),
    ],
)  # fmt: skip
def test_an_edge_is_taped_once_by_what_is_painted_later(
    areas: dict[str, Any],
    colours: dict[str, str | None],
    openings: tuple[dict[str, Any], ...],
    job: dict[str, Any],
    taped: dict[str, dict[str, float]],
) -> None:
    bundle = _wall(areas, colours, openings, **job)
    face = bundle.property.faces[0]
    zones = {zone.name: zone for zone in bundle.property.zones_of(face.id)}
    for name, expected in taped.items():
        told = {e.on: e.length_m for e in taped_edges(bundle, face, zones[name])}
        assert told == pytest.approx(expected, abs=0.01), name


def test_the_step_says_where_the_tape_sits_and_takes_its_metres() -> None:
    bundle = _wall({"plinth": PLINTH}, {"field": GREY, "plinth": RED}, schools={"edges": "taped"})
    raw = bundle.model_dump(mode="json")
    for finish in raw["job"]["finishes"]:
        finish |= {"operations": [], "system": None}
    plinth = completed(JobBundle.model_validate(raw)).finish_of("zone", "plinth")
    assert plinth is not None
    tape = next(o for o in plinth.operations if o.id == "tape-edges")
    assert (tape.name, tape.amount) == ("Tape the edges: field, the ground", 20.0)
    assert "a brush cuts in" in tape.note
