"""The colour library: what ships with the program and what the company added."""

from sqlalchemy.orm import Session

from amber_gable.domain.colour_library import LIBRARY, LibraryColour
from amber_gable.domain.errors import Refused
from amber_gable.exchange.files import decode
from amber_gable.exchange.palettes import read_palette
from amber_gable.services.stores import kept_company
from amber_gable.services.workspace import Workspace
from amber_gable.store.colours import drop_colour, own_colours, put_colours
from amber_gable.store.specification import company_of


def colour_library(session: Session, company_id: str) -> dict[str, list[LibraryColour]]:
    """All colours by collection, the company's own first; an own colour hides a shipped one of its name."""
    own = own_colours(session, company_id)
    names = {c.name for c in own}
    out: dict[str, list[LibraryColour]] = {}
    for colour in (*own, *(c for c in LIBRARY if c.name not in names)):
        out.setdefault(colour.collection, []).append(colour)
    return out


def library_colour(session: Session, job_id: str, name: str) -> tuple[str, str]:
    """Hex and name of a colour of the library. Raises Refused."""
    for colours in colour_library(session, company_of(session, job_id).id).values():
        for c in colours:
            if c.name == name:
                return c.colour, c.name
    raise Refused({"library": f"there is no colour '{name}' in the library"})


def import_palette(space: Workspace, data: bytes, name: str) -> tuple[int, int]:
    """Take a palette in whole or not at all. Raises InputError. Returns how many are new and how many changed."""
    colours = read_palette(decode(data, name), name)
    with space.database.writing() as session:
        return put_colours(session, kept_company(session).id, colours)


def drop_own(space: Workspace, company_id: str, name: str) -> None:
    """Take one of the company's own colours out. Raises NotFound."""
    with space.database.writing() as session:
        drop_colour(session, company_id, name)
