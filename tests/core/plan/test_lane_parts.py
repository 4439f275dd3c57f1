"""Parts with a lane of weather of their own: what lies elsewhere, and where no wall is painted each kind of item."""

from collections.abc import Callable

import pytest

from amber_gable.core.climate.lane_parts import lane_parts
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.plan import Task
from tests.small_jobs import cold_front, door_and_shutters, five_shutters, shop_front, two_sashes

LANES: list[tuple[str, Callable[[], JobBundle], list[str]]] = [
    ("a wall alone", cold_front, ["front"]),
    ("five alike in place: the face stands for all", five_shutters, ["street-front"]),
    ("five alike on stands too", lambda: five_shutters("stands"), ["street-front"]),
    ("items in their own wall have the wall's weather", shop_front, ["street"]),
    ("a sash taken out of its wall lies elsewhere", lambda: shop_front(schools={"place": "shop"}),
     ["street", "item.sash Sash, in the shop"]),
    ("two sashes alike", two_sashes, ["street-front"]),
    ("a door in place stands for its face before larger shutters on stands", door_and_shutters,
     ["street-front", "item.shutters Shutters, on stands"]),
]  # fmt: skip


@pytest.mark.parametrize("make, expected", [case[1:] for case in LANES], ids=[case[0] for case in LANES])
def test_lanes_of_a_job(make: Callable[[], JobBundle], expected: list[str]) -> None:
    told = [f"{x.face.id} {x.face.name}" if x.keys else x.face.id for x in lane_parts(make())]
    assert told == expected


def test_a_task_stands_in_one_lane_only() -> None:
    lanes = lane_parts(shop_front(schools={"place": "shop"}))
    own = frozenset(k for lane in lanes for k in lane.keys)
    for part, lane in ((("item", "sash"), 1), (("zone", "wall"), 0)):
        task = Task.model_construct(face="street", extent=_Parts((part,)))
        assert [n for n, x in enumerate(lanes) if x.takes(task, own)] == [lane]


class _Parts:
    def __init__(self, parts: tuple[tuple[str, str], ...]) -> None:
        self.parts = parts
