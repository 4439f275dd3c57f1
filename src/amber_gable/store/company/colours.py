"""A company's own colours."""

from collections.abc import Iterable

from sqlalchemy import select

from amber_gable.domain.errors import NotFound
from amber_gable.domain.paint.colour_library import LibraryColour
from amber_gable.store.tables import ColourRow
from amber_gable.store.transaction import Transaction


def own_colours(session: Transaction, company_id: str) -> list[LibraryColour]:
    """By collection and name."""
    wanted = select(ColourRow).where(ColourRow.company_id == company_id).order_by(ColourRow.collection, ColourRow.name)
    return [LibraryColour(name=r.name, colour=r.colour, collection=r.collection) for r in session.scalars(wanted)]


def put_colours(session: Transaction, company_id: str, colours: Iterable[LibraryColour]) -> tuple[int, int]:
    """Add colours; one whose name is there takes the new value. Returns how many are new and how many changed."""
    new = changed = 0
    for c in colours:
        row = session.get(ColourRow, (company_id, c.name))
        if row is None:
            session.add(ColourRow(company_id=company_id, name=c.name, colour=c.colour, collection=c.collection))
            new += 1
        elif (row.colour, row.collection) != (c.colour, c.collection):
            row.colour, row.collection = c.colour, c.collection
            changed += 1
    return new, changed


def drop_colour(session: Transaction, company_id: str, name: str) -> None:
    """Raises NotFound."""
    row = session.get(ColourRow, (company_id, name))
    if row is None:
        raise NotFound("colour", name)
    session.delete(row)
