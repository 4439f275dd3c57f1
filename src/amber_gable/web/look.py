"""What of the weather is looked at, as an address says it."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated
from urllib.parse import urlencode

from fastapi import Depends, Request

from amber_gable.services.weather.faces.judged_faces import LaneQuestion
from amber_gable.web.views.weather.lanes import ZOOMS

USUAL_DAYS = 3


@dataclass(frozen=True)
class Look:
    """`product`: a sheet's code, or which step of every face (`Which`); `task`: one of the plan's, with its parts;
    `days` as many as on the screen; `then`: by the forecast that was had at that moment (epoch s)."""

    product: str = ""
    method: str = ""
    face: str = ""
    at: datetime | None = None
    task: str = ""
    days: int = USUAL_DAYS
    then: int | None = None

    @property
    def question(self) -> LaneQuestion:
        return LaneQuestion(self.product, self.method)

    @property
    def query(self) -> dict[str, str]:
        """All of it that is the same for every face and moment."""
        days = {"days": str(self.days)} if self.days != USUAL_DAYS else {}
        return self.asked | days

    @property
    def asked(self) -> dict[str, str]:
        """The same but for the days on the screen."""
        return self.question.query | ({"then": str(self.then)} if self.then is not None else {})

    @property
    def address(self) -> str:
        return urlencode(self.query)

    @classmethod
    def of(cls, asked: dict[str, str]) -> "Look":
        days = asked.get("days", "")
        try:
            at = datetime.fromisoformat(asked.get("at", ""))
        except ValueError:
            at = None
        then = asked.get("then", "")
        return cls(
            product=asked.get("product", ""),
            method=asked.get("method", ""),
            face=asked.get("face", ""),
            at=at if at is not None and at.tzinfo is not None else None,
            task=asked.get("task", ""),
            then=int(then) if then.isascii() and then.isdigit() and len(then) < 12 else None,
            days=int(days) if days in {str(z) for z in ZOOMS} else USUAL_DAYS,
        )


def _look(request: Request) -> Look:
    return Look.of(dict(request.query_params))


Looked = Annotated[Look, Depends(_look)]
