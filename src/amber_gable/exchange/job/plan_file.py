"""A plan as `amber-gable plan --json` writes it."""

import json
from datetime import date
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from amber_gable.domain.errors import InputError, first_words
from amber_gable.domain.job.plan import Plan, Task, Unplaced


class PlanFile(BaseModel):
    """The plan, and what it was made for: the first day, how many days were looked at, and the hands."""

    model_config = ConfigDict(frozen=True, extra="ignore")

    start: date
    days: Annotated[int, Field(ge=1, le=366)]
    people: Annotated[int, Field(ge=1, le=40)]
    tasks: tuple[Task, ...]
    unplaced: tuple[Unplaced, ...] = ()

    @property
    def plan(self) -> Plan:
        return Plan(tasks=self.tasks, unplaced=self.unplaced, finish=max((t.end for t in self.tasks), default=None))


def read_plan(text: str, name: str) -> PlanFile:
    """Raises InputError naming the file and the place in it."""
    try:
        return PlanFile.model_validate(json.loads(text))
    except json.JSONDecodeError as error:
        raise InputError(name, f"is no JSON (line {error.lineno})", "write it with plan --json") from None
    except ValidationError as error:
        raise InputError(name, ": ".join(first_words(error)), "write it with plan --json") from None
