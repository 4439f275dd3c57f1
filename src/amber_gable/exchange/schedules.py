"""Published schedules in the two common text formats: `.sm` (sections with headings, activities from 1) and `.rcp`
(figures alone, activities from 1). Only projects with one mode for each activity are read."""

import re
from collections.abc import Iterator

from amber_gable.domain.errors import InputError
from amber_gable.domain.project import Activity, Project

MOST = 2000
"""Activities."""


def read_project(text: str, name: str) -> Project:
    """Raises InputError naming the file."""
    try:
        project = _sm(text) if "PRECEDENCE RELATIONS" in text else _rcp(text)
    except (ValueError, IndexError, StopIteration) as error:
        raise InputError(
            name, f"cannot be read as .sm or .rcp ({str(error) or 'it ends too soon'})", "check it"
        ) from None
    _check(project, name)
    return project


def _check(project: Project, name: str) -> None:
    if not project.activities:
        raise InputError(name, "there is no activity in it", "choose an .sm or .rcp file")
    for number, activity in enumerate(project.activities, start=1):
        if any(not 0 <= f < len(project.activities) for f in activity.followers):
            raise InputError(name, f"activity {number} is followed by one that is not there", "check the file")
        if activity.duration < 0 or any(d < 0 for d in activity.demands):
            raise InputError(name, f"activity {number} has a figure below 0", "check the file")
        if any(d > c for d, c in zip(activity.demands, project.capacities, strict=True)):
            raise InputError(name, f"activity {number} takes more than there is", "check the file")


def _figures(line: str) -> list[int]:
    return [int(word) for word in line.split()]


def _rows(lines: list[str], heading: str) -> Iterator[list[int]]:
    """The lines of figures below a heading, up to the next rule of stars or end."""
    at = next((n for n, line in enumerate(lines) if line.strip().startswith(heading)), None)
    if at is None:
        raise ValueError(f"“{heading}” is missing")
    for line in lines[at + 1 :]:
        if line.startswith("*"):
            return
        if re.fullmatch(r"[\d\s]+", line) and line.strip():
            yield _figures(line)


def _sm(text: str) -> Project:
    lines = text.splitlines()
    followers: dict[int, tuple[int, ...]] = {}
    for number, modes, count, *after in _rows(lines, "PRECEDENCE RELATIONS"):
        if modes != 1:
            raise ValueError(f"activity {number} has {modes} modes")
        if len(after) != count:
            raise ValueError(f"activity {number} names {len(after)} followers of {count}")
        followers[number] = tuple(f - 1 for f in after)
    takes = {row[0]: row[2:] for row in _rows(lines, "REQUESTS/DURATIONS")}
    (capacities,) = _rows(lines, "RESOURCEAVAILABILITIES")
    if sorted(followers) != list(range(1, len(followers) + 1)) or set(takes) != set(followers):
        raise ValueError("the activities of its sections are not the same")
    activities = tuple(Activity(takes[n][0], tuple(takes[n][1:]), followers[n]) for n in sorted(followers))
    if any(len(a.demands) != len(capacities) for a in activities):
        raise ValueError("an activity names more or fewer resources than there are")
    return Project(activities, tuple(capacities))


def _rcp(text: str) -> Project:
    figures = iter(_figures(text))
    count, resources = next(figures), next(figures)
    if not 1 <= count <= MOST or not 0 <= resources <= 100:
        raise ValueError(f"{count} activities on {resources} resources")
    capacities = tuple([next(figures) for _ in range(resources)])
    activities = []
    for _ in range(count):
        duration = next(figures)
        demands = tuple([next(figures) for _ in range(resources)])
        followers = tuple([next(figures) - 1 for _ in range(next(figures))])
        activities.append(Activity(duration, demands, followers))
    return Project(tuple(activities), capacities)
