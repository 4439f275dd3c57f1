"""The colour library: what ships with the program and what the company added."""

from typing import Any

from amber_gable.core.specification.colour.difference import lab, luminance
from amber_gable.core.specification.colour.hiding import hiding_power
from amber_gable.domain.errors import Refused
from amber_gable.domain.paint.colour_library import LIBRARY, LibraryColour
from amber_gable.exchange.files import decode
from amber_gable.exchange.stores.palettes import read_palette, write_gpl
from amber_gable.services.company.stores import company, kept_company
from amber_gable.services.context import Context
from amber_gable.store.company.colours import drop_colour, own_colours, put_colours
from amber_gable.store.job.specification import company_of
from amber_gable.store.transaction import Transaction


def colour_library(session: Transaction, company_id: str) -> dict[str, list[LibraryColour]]:
    """All colours by collection, the company's own first; an own colour hides a shipped one of its name."""
    own = own_colours(session, company_id)
    names = {c.name for c in own}
    out: dict[str, list[LibraryColour]] = {}
    for colour in (*own, *(c for c in LIBRARY if c.name not in names)):
        out.setdefault(colour.collection, []).append(colour)
    return out


def library(ctx: Context) -> dict[str, list[LibraryColour]]:
    """The library of the company whose stores these are."""
    with ctx.reading() as session:
        return colour_library(session, company(session).id)


def told_colour(colour: LibraryColour) -> dict[str, Any]:
    """A colour with how light it is, where it lies, and how well it hides."""
    hides = hiding_power(colour.colour).name.lower()
    return {"colour": colour, "y": luminance(colour.colour), "lab": lab(colour.colour), "hides": hides}


def palette_gpl(ctx: Context) -> str:
    """All colours as a palette file."""
    return write_gpl([c for colours in library(ctx).values() for c in colours], "Amber Gable")


def library_colour(ctx: Context, job_id: str, name: str) -> tuple[str, str]:
    """Hex and name of a colour of the job's library. Raises Refused."""
    with ctx.reading() as session:
        found = colour_library(session, company_of(session, job_id).id)
    for colours in found.values():
        for c in colours:
            if c.name == name:
                return c.colour, c.name
    raise Refused({"library": f"there is no colour '{name}' in the library"})


def import_palette(ctx: Context, data: bytes, name: str) -> tuple[int, int]:
    """Take a palette in whole or not at all. Raises InputError. Returns how many are new and how many changed."""
    colours = read_palette(decode(data, name), name)
    with ctx.writing() as session:
        return put_colours(session, kept_company(session).id, colours)


def drop_own(ctx: Context, name: str) -> None:
    """Take one of the company's own colours out. Raises NotFound."""
    with ctx.writing() as session:
        drop_colour(session, company(session).id, name)
