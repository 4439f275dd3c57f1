"""Published schedules: read in both formats, solved to the known optimum, and refused in words."""

from pathlib import Path

import pytest

from amber_gable.core.plan.benchmark import solve_project
from amber_gable.domain.errors import InputError
from amber_gable.domain.project import Activity, Project
from amber_gable.exchange.schedules import read_project

J30 = (Path(__file__).parent / "schedules" / "j301_1.sm").read_text()
"""Instance 1 of set J30 of the project scheduling library (Kolisch and Sprecher, European Journal of Operational
Research 96, 1997), whose optimum is known to be 43."""
# Two activities of 2 and 3 periods that need the same machine, between a start and an end.
TWO = "4 1\n1\n0 0 2 2 3\n2 1 1 4\n3 1 1 4\n0 0 0\n"


def _as_rcp(project: Project) -> str:
    rows = [f"{len(project.activities)} {len(project.capacities)}", " ".join(map(str, project.capacities))]
    for a in project.activities:
        rows.append(" ".join(map(str, (a.duration, *a.demands, len(a.followers), *(f + 1 for f in a.followers)))))
    return "\n".join(rows)


def test_a_published_schedule_is_solved_to_its_known_optimum() -> None:
    project = read_project(J30, "j301_1.sm")
    assert (len(project.activities), project.capacities) == (32, (12, 13, 4, 12))
    assert read_project(_as_rcp(project), "j301_1.rcp") == project, "the same in both formats"
    found = solve_project(project)
    assert (found.makespan, found.bound, found.status) == (43, 43, "optimal")


def test_one_machine_takes_the_sum_and_two_take_the_longer() -> None:
    one = read_project(TWO, "two.rcp")
    assert one.activities[1] == Activity(2, (1,), (3,))
    assert solve_project(one).makespan == 5
    assert solve_project(Project(one.activities, (2,))).makespan == 3


WRONG = [
    ("", "ends too soon"),
    ("4 1\n1\n0 0 2 2 3", "ends too soon"),
    ("4 1", "ends too soon"),
    ("hello", "invalid literal"),
    (TWO.replace("2 1 1 4", "2 1 1 9"), "activity 2 is followed by one that is not there"),
    (TWO.replace("3 1 1 4", "3 7 1 4"), "activity 3 takes more than there is"),
    (TWO.replace("3 1 1 4", "-3 1 1 4"), "activity 3 has a figure below 0"),
    (J30.replace("REQUESTS/DURATIONS", "x"), "“REQUESTS/DURATIONS” is missing"),
    (J30.replace("   2        1          3 ", "   2        2          3 "), "activity 2 has 2 modes"),
    (J30.replace("   2        1          3 ", "   2        1          4 "), "activity 2 names 3 followers of 4"),
]


@pytest.mark.parametrize(("text", "words"), WRONG, ids=[w[1] for w in WRONG])
def test_what_cannot_be_read_is_refused_in_words(text: str, words: str) -> None:
    with pytest.raises(InputError, match="given") as error:
        read_project(text, "given")
    assert words in str(error.value)
