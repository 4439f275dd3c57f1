"""A project as the scheduling literature publishes it: activities, what each takes, and what comes before what."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Activity:
    """`duration` in periods, `demands` per period of each resource, `followers` by number from 0."""

    duration: int
    demands: tuple[int, ...]
    followers: tuple[int, ...]


@dataclass(frozen=True)
class Project:
    """`capacities` of renewable resources, per period."""

    activities: tuple[Activity, ...]
    capacities: tuple[int, ...]
