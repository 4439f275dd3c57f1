"""Crews of a company and their people: a job names its crew."""

from typing import Any

from sqlalchemy import func, select

from amber_gable.domain.errors import NotFound
from amber_gable.domain.work.people import Crew, Person, unnamed
from amber_gable.domain.work.working import CrewDay
from amber_gable.store.tables import CrewMemberRow, CrewRow, JobRow, PersonRow, PropertyRow
from amber_gable.store.transaction import Transaction, held

_DAY = tuple(name for name in CrewDay.model_fields if name != "people")
"""Columns of a crew's day; how many people it has is told by its members."""
_Known = dict[str, tuple[Crew, CrewDay]]


def crews(session: Transaction, company_id: str) -> _Known:
    """Every crew of a company with its day, by id, in the order they were made."""
    scopes = (f"crews:{company_id}",)
    return session.kept.get(session, ("crews", company_id), scopes, lambda: _read(session, company_id))


def _read(session: Transaction, company_id: str) -> _Known:
    members: dict[str, list[str]] = {}
    mine = CrewMemberRow.company_id == company_id
    for row in session.scalars(select(CrewMemberRow).where(mine).order_by(CrewMemberRow.position)):
        members.setdefault(row.crew_id, []).append(row.person_id)
    out: _Known = {}
    for crew in session.scalars(select(CrewRow).where(CrewRow.company_id == company_id).order_by(CrewRow.position)):
        people = tuple(members[crew.id])
        day = CrewDay.model_validate({name: getattr(crew, name) for name in _DAY} | {"people": len(people)})
        out[crew.id] = (Crew(id=crew.id, name=crew.name, people=people), day)
    return out


def people(session: Transaction, company_id: str) -> dict[str, Person]:
    """Everybody of a company by id."""
    rows = session.scalars(
        select(PersonRow).where(PersonRow.company_id == company_id).order_by(PersonRow.position, PersonRow.id)
    )
    return {row.id: Person.model_validate({k: getattr(row, k) for k in Person.model_fields}) for row in rows}


def crew_for(session: Transaction, company_id: str, day: CrewDay) -> str:
    """Id of a crew with that many people and that day: one there is, else a new one of people who are there and of as
    many unnamed ones as are lacking."""
    for id_, (_, known) in crews(session, company_id).items():
        if known == day:
            return id_
    there = people(session, company_id)
    for person in unnamed(day.people)[len(there) :]:
        session.add(PersonRow(company_id=company_id, position=len(there), **person.model_dump(mode="json")))
        there[person.id] = person
    number = (session.scalar(select(func.max(CrewRow.position)).where(CrewRow.company_id == company_id)) or 0) + 1
    crew = CrewRow(company_id=company_id, id=f"crew-{number}", name=f"Crew {number}", position=number)
    for name, value in day.model_dump(mode="json", exclude={"people"}).items():
        setattr(crew, name, value)
    session.add(crew)
    session.flush()
    for position, person_id in enumerate(list(there)[: day.people]):
        session.add(CrewMemberRow(company_id=company_id, crew_id=crew.id, person_id=person_id, position=position))
    session.flush()
    return crew.id


def crew_of(session: Transaction, job: JobRow) -> tuple[Crew, CrewDay]:
    """The crew that a job names, and its day."""
    return crews(session, _company_id(session, job))[job.crew_id]


def set_crew(session: Transaction, job: JobRow, day: CrewDay) -> None:
    """Have the job done by a crew of that size and day; the one it has stays where nothing changes."""
    if crew_of(session, job)[1] != day:
        job.crew_id = crew_for(session, _company_id(session, job), day)


def hands_of(session: Transaction, job_id: str) -> tuple[Person, ...]:
    """The people of a job's crew. Raises NotFound."""
    kept, key = session.kept, ("hands", job_id)
    found: tuple[Person, ...] | None = kept.find(session, key)
    if found is not None:
        return found
    job: JobRow | None = held(session, JobRow, job_id)
    if job is None:
        raise NotFound("job", job_id)
    company_id = _company_id(session, job)

    def read() -> tuple[Person, ...]:
        everybody = people(session, company_id)
        return tuple(everybody[id_] for id_ in crew_of(session, job)[0].people)

    return kept.read(session, key, (f"job:{job_id}", f"crews:{company_id}"), read)


def _company_id(session: Transaction, job: JobRow) -> str:
    found: Any = session.get_one(PropertyRow, job.property_id).company_id
    return str(found)
