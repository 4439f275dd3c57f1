"""How often what belongs together was changed: a number for each job, property, company, plan and weather, so that one
statement tells whether what was read before still stands."""

from collections.abc import Iterable
from typing import Any

from sqlalchemy import bindparam, select
from sqlalchemy.dialects.sqlite import insert

from amber_gable.store import tables
from amber_gable.store.tables import ChangeRow
from amber_gable.store.transaction import Transaction

COMPANIES, HOUSES, SOURCES = "companies", "houses", "sources"
"""Scopes of all companies, all properties and all weather sources together."""
OF_ALL = {COMPANIES, HOUSES, SOURCES}
Numbers = tuple[tuple[str, int], ...]
_CHANGES = ChangeRow.__table__.c
# Asked and told by every page and edit, so put together once.
_WHERE_THEY_STAND = select(_CHANGES.scope, _CHANGES.number).where(
    _CHANGES.scope.in_(bindparam("scopes", expanding=True))
)
_ONE_MORE = insert(ChangeRow).on_conflict_do_update(
    index_elements=[_CHANGES.scope], set_={"number": _CHANGES.number + 1}
)
_BY_PROPERTY = (tables.FaceRow, tables.OnFace, tables.PhotoRow)


def scopes_of(row: Any) -> tuple[str, ...]:
    """What a row belongs to; nothing for what nobody keeps."""
    match row:
        case tables.JobRow():
            return (f"job:{row.id}",)
        case tables.FinishRow():
            return (f"job:{row.job_id}",)
        case tables.PlanRow() | tables.TaskRow():
            return (f"plan:{row.job_id}",)
        case tables.SiteEntryRow():
            return (f"record:{row.job_id}",)
        case tables.PropertyRow():
            return (f"property:{row.id}", HOUSES)
        case tables.CompanyRow():
            return (f"company:{row.id}", COMPANIES)
        case tables.WeatherSourceRow():
            return (SOURCES,)
        case tables.SheetRow():
            return (f"sheets:{row.company_id}",)
        case tables.PersonRow() | tables.CrewRow() | tables.CrewMemberRow():
            return (f"crews:{row.company_id}",)
        case tables.ColourRow():
            return (f"company:{row.company_id}",)
        case tables.StockRow():
            return (f"stock:{row.company_id}",)
        case tables.WeatherRow():
            return (f"weather:{row.property_id}",)
    return (f"survey:{row.property_id}",) if isinstance(row, _BY_PROPERTY) else ()


def goes_along(row: Any) -> tuple[str, ...]:
    """Further scopes that change when a row is added or deleted, among them those of rows that the database deletes
    with it."""
    match row:
        case tables.JobRow():
            return (f"plan:{row.id}", f"record:{row.id}")
        case tables.PropertyRow():
            return (f"survey:{row.id}", f"weather:{row.id}")
    return ()


def count(session: Transaction, changed: Iterable[Any], come_or_gone: Iterable[Any]) -> None:
    """Raise the change number of every scope that these rows belong to, in the transaction that changes them."""
    scopes = {scope for row in changed for scope in scopes_of(row)}
    scopes |= {scope for row in come_or_gone for scope in (*scopes_of(row), *goes_along(row))}
    if scopes:
        session.connection().execute(_ONE_MORE, [{"scope": scope, "number": 1} for scope in sorted(scopes)])
        for scope in scopes:
            session.numbers.pop(scope, None)


def numbers(session: Transaction, scopes: Iterable[str]) -> Numbers:
    """The change number of each scope, sorted by scope; scopes that were never changed are left out. A number is read
    once in a transaction and then remembered, because a transaction sees the database at one moment."""
    if session.autoflush:
        session.flush()
    known = session.numbers
    scopes = set(scopes)
    lacking = scopes - known.keys()
    if lacking and not known:
        # Nearly every page asks for these too: one statement tells of all.
        lacking |= OF_ALL
    if lacking:
        found = session.connection().execute(_WHERE_THEY_STAND, {"scopes": list(lacking)})
        known |= dict.fromkeys(lacking) | dict(found.all())
    return tuple(sorted((scope, number) for scope in scopes if (number := known[scope]) is not None))
