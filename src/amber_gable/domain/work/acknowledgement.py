"""That somebody read a safety card for a job."""

from datetime import datetime
from typing import Annotated

from pydantic import Field

from amber_gable.domain.base import Id, Record


class Acknowledgement(Record):
    """`card` is the card's id, `by` the name typed, `at` the moment (with its zone)."""

    card: Id
    by: Annotated[str, Field(min_length=2, max_length=80)]
    at: datetime
