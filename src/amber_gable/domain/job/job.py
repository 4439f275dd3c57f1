"""A job: a property, what is to be done to each zone, and by whom; and the bundle that carries it between programs."""

import builtins
from collections.abc import Mapping
from datetime import date, datetime
from typing import Annotated, Any, Literal, Self

from pydantic import Field, field_validator, model_validator

from amber_gable.domain.base import Id, Name, Note, Record
from amber_gable.domain.house.survey import Property
from amber_gable.domain.job.site_record import (
    CanNoted,
    CustomerChange,
    FoundMore,
    Missing,
    OthersNoted,
    Rained,
    SiteEntry,
    Spoiled,
    withdrawn,
)
from amber_gable.domain.paint.product import Product
from amber_gable.domain.paint.scheme import Scheme
from amber_gable.domain.work.estimating import Estimating
from amber_gable.domain.work.finish import Finish, Schools
from amber_gable.domain.work.operation import CoatingSystem, Operation
from amber_gable.domain.work.rates import PACE_FACTORS, RATES, OwnRate, Times
from amber_gable.domain.work.schools import checked_schools, resolved
from amber_gable.domain.work.scope import LeftPart, OthersWork
from amber_gable.domain.work.working import CrewDay, Policy, PolicyLimits


class Company(Record):
    """Who does the work. Currency is an ISO 4217 code. Houses older than `lead_cutoff_year` (the jurisdiction's) are
    presumed to carry lead paint. `rates` and `factors`: its own, by the code of what they take the place of."""

    id: Id
    name: Name
    currency: Annotated[str, Field(pattern=r"^[A-Z]{3}$")] = "USD"
    lead_cutoff_year: Annotated[int, Field(ge=1900, le=2100)] = 1978
    schools: Schools = Field(default_factory=dict)
    rates: dict[str, OwnRate] = Field(default_factory=dict)
    factors: dict[str, Times] = Field(default_factory=dict)

    _schools_known = field_validator("schools")(lambda chosen: checked_schools(chosen))

    _rates_known = field_validator("rates")(lambda own: _of_those("rate", own, RATES))
    _factors_known = field_validator("factors")(lambda own: _of_those("factor", own, PACE_FACTORS))


def _of_those(what: str, own: dict[str, Any], known: Mapping[str, object]) -> dict[str, Any]:
    unknown = sorted(set(own) - set(known))
    if unknown:
        raise ValueError(f"{what} '{unknown[0]}' is not known; one of: {', '.join(known)}")
    return own


class Acknowledgement(Record):
    """`card` is the card's id, `by` the name typed, `at` the moment (with its zone)."""

    card: Id
    by: Annotated[str, Field(min_length=2, max_length=80)]
    at: datetime


class Job(Record):
    """One contract on one property. `left`: parts that are not painted. `others`: what other people do, and
    `others_noted` whether they did. `found_more`: damage found beyond the survey. `spoiled`: what
    became of films, `rained` when somebody saw rain, `cans_noted` what is left in cans, `missing`
    who is missing of the crew."""

    id: Id
    name: Name
    customer: Name
    policy: PolicyLimits = PolicyLimits()
    crew: CrewDay = CrewDay()
    estimating: Estimating = Estimating()
    schools: Schools = Field(default_factory=dict)
    finishes: tuple[Finish, ...] = ()
    left: tuple[LeftPart, ...] = ()
    others: Annotated[tuple[OthersWork, ...], Field(max_length=100)] = ()
    schemes: Annotated[tuple[Scheme, ...], Field(max_length=12)] = ()
    acknowledged: Annotated[tuple[Acknowledgement, ...], Field(max_length=200)] = ()
    record: Annotated[tuple[SiteEntry, ...], Field(max_length=20_000)] = ()
    changes: Annotated[tuple[CustomerChange, ...], Field(max_length=500)] = ()
    others_noted: Annotated[tuple[OthersNoted, ...], Field(max_length=20_000)] = ()
    found_more: Annotated[tuple[FoundMore, ...], Field(max_length=20_000)] = ()
    spoiled: Annotated[tuple[Spoiled, ...], Field(max_length=20_000)] = ()
    rained: Annotated[tuple[Rained, ...], Field(max_length=20_000)] = ()
    cans_noted: Annotated[tuple[CanNoted, ...], Field(max_length=20_000)] = ()
    missing: Annotated[tuple[Missing, ...], Field(max_length=20_000)] = ()
    note: Note = ""

    _schools_known = field_validator("schools")(lambda chosen: checked_schools(chosen))


class JobBundle(Record):
    """Everything needed to compute a job anywhere: the file format `amber-gable-job`, version 6."""

    format: Literal["amber-gable-job"] = "amber-gable-job"
    version: Literal[6] = 6
    company: Company
    property: Property
    products: tuple[Product, ...] = ()
    systems: tuple[CoatingSystem, ...] = ()
    job: Job

    @model_validator(mode="after")
    def _references_hold(self) -> Self:
        products = [p.code for p in self.products]
        systems = [s.id for s in self.systems]
        for what, ids in (("product", products), ("system", systems)):
            if len(set(ids)) != len(ids):
                raise ValueError(f"a {what} is listed twice")
        used = [(f"system '{s.id}'", s.operations) for s in self.systems]
        used += [(f"finish of {f.part[0]} '{f.part[1]}'", f.operations) for f in self.job.finishes]
        for where, operations in used:
            for o in operations:
                if o.product is not None and o.product not in products:
                    raise ValueError(f"{where}, operation '{o.id}': product '{o.product}' is not in the bundle")
        parts = {("zone", z.id) for z in self.property.zones} | {("item", i.id) for i in self.property.items}
        seen: set[tuple[str, str]] = set()
        for f in self.job.finishes:
            what, id_ = f.part
            if f.part not in parts:
                raise ValueError(f"finish names {what} '{id_}', which the property does not have")
            if f.system is not None and f.system not in systems:
                raise ValueError(f"finish of {what} '{id_}' names system '{f.system}', which is not in the bundle")
            if f.part in seen:
                raise ValueError(f"{what} '{id_}' has two finishes; keep one")
            seen.add(f.part)
        return self

    @model_validator(mode="after")
    def _not_ours_is_there(self) -> Self:
        seen = {f.part for f in self.job.finishes}
        for left in self.job.left:
            what, id_ = left.part
            if not self.has(left.part):
                raise ValueError(f"what is left names {what} '{id_}', which the property does not have")
            if left.part in seen:
                raise ValueError(f"{what} '{id_}' is left and painted, or left twice; keep one of them")
            seen.add(left.part)
        if len({o.id for o in self.job.others}) != len(self.job.others):
            raise ValueError("two tasks of other people have one id")
        for task in self.job.others:
            if task.where is not None and not self.has(task.where):
                raise ValueError(
                    f"the task '{task.id}' of others names {task.where[0]} '{task.where[1]}', "
                    "which the property does not have"
                )
        return self

    def has(self, place: tuple[str, str]) -> bool:
        """Whether the property has such a face, zone or item."""
        if place[0] == "face":
            return any(f.id == place[1] for f in self.property.faces)
        return self.property.part(place) is not None

    @builtins.property
    def schools(self) -> dict[str, str]:
        """The school of every topic that holds for the job."""
        return resolved(self.company.schools, self.job.schools)

    def part_schools(self, finish: Finish) -> dict[str, str]:
        """The school of every topic that holds for a finished part."""
        return self.schools | finish.schools

    @builtins.property
    def undecided(self) -> list[tuple[str, str]]:
        """Zones and items of which nobody said yet what they get, or that they are left."""
        said = {f.part for f in self.job.finishes} | {x.part for x in self.job.left}
        parts = [("zone", z.id) for z in self.property.zones] + [("item", i.id) for i in self.property.items]
        return [p for p in parts if p not in said]

    @builtins.property
    def noted(self) -> tuple[SiteEntry | OthersNoted | Missing, ...]:
        """What was noted on site, of work and of who is missing: what state and plan hang on beside the job itself."""
        return (*self.job.record, *self.job.others_noted, *self.job.missing)

    @builtins.property
    def deduction(self) -> str:
        """The school of openings: 'threshold', 'net' or 'gross'."""
        return self.schools["deduction"]

    @builtins.property
    def policy(self) -> Policy:
        """What the job's coats are judged by in the weather."""
        return Policy.under(self.job.policy, self.schools)

    def product(self, code: str) -> Product:
        return next(p for p in self.products if p.code == code)

    def system(self, id_: str) -> CoatingSystem:
        return next(s for s in self.systems if s.id == id_)

    def operations(self, finish: Finish) -> tuple[Operation, ...]:
        """The steps of a finish, its own or its system's."""
        return finish.operations if finish.system is None else self.system(finish.system).operations

    @builtins.property
    def spoils(self) -> list[Spoiled]:
        """What became of films, without what was taken back."""
        if not self.job.spoiled:
            return []
        gone = withdrawn(self.job.record)
        return [s for s in self.job.spoiled if s.touch not in gone]

    @builtins.property
    def cans(self) -> list[CanNoted]:
        """What is left in cans, without what was taken back."""
        gone = withdrawn(self.job.record) if self.job.cans_noted else frozenset()
        return [c for c in self.job.cans_noted if c.touch not in gone]

    @builtins.property
    def missing_lines(self) -> list[Missing]:
        """What was said of who is missing, without what was taken back."""
        gone = withdrawn(self.job.record) if self.job.missing else frozenset()
        return [m for m in self.job.missing if m.touch not in gone]

    @builtins.property
    def missing_on(self) -> dict[date, int]:
        """How many people of the crew are missing, by day."""
        found = {m.day: m.people for m in self.missing_lines}
        return {day: people for day, people in found.items() if people}

    @builtins.property
    def rains(self) -> list[Rained]:
        """When somebody saw rain, without what was taken back."""
        if not self.job.rained:
            return []
        gone = withdrawn(self.job.record)
        return [r for r in self.job.rained if r.touch not in gone]

    def finish_of(self, kind: str, id_: str) -> Finish | None:
        """What a zone or item gets; None where nothing is chosen."""
        return next((f for f in self.job.finishes if f.part == (kind, id_)), None)

    def left_of(self, kind: str, id_: str) -> LeftPart | None:
        """How a zone or item is left that is not painted; None where it is, or nothing was said."""
        return next((x for x in self.job.left if x.part == (kind, id_)), None)
