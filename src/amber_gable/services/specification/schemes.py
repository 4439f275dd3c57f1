"""Colour schemes of a job: kept, changed, put into the specification."""

import re
from collections.abc import Mapping
from dataclasses import replace
from typing import Annotated

from amber_gable.core.specification.derived.completing import usual_wish
from amber_gable.core.specification.derived.facts import surface_tags
from amber_gable.core.specification.derived.part_spec import Wish
from amber_gable.core.survey.amounts.painted import Key, painted_parts
from amber_gable.domain.errors import NotFound, Refused
from amber_gable.domain.paint.scheme import ColourGroup, NamedColour, Scheme, colour_group
from amber_gable.services.company.colour_library import colour_library
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form
from amber_gable.services.forms.types import colour, text_of
from amber_gable.services.job.undo import job_step
from amber_gable.services.specification.customer_changes import note_changes
from amber_gable.services.specification.specifying import Changed, change_wishes
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.specification import company_of, put_schemes

MOST = 12


class SchemeForm(Form):
    """A scheme's name, and its id where it is kept already."""

    name: Annotated[str, text_of("give the scheme a name", most=120)]
    id: str | None = None


class OwnColourForm(Form):
    """A colour of a group that is in no library."""

    colour: Annotated[str, colour("must be a colour such as #e9dcc1")]


def save_scheme(ctx: Context, job_id: str, form: Mapping[str, str]) -> str:
    """Keep a scheme from a form with a name and, by group, a library colour or a hex of its own. Raises Refused.
    Returns its id."""
    typed = SchemeForm.read(form)
    name = typed.name
    with job_step(ctx, job_id, f"keep the scheme {name}") as session:
        bundle = load_bundle(session, job_id)
        known = {c.name: c for rows in colour_library(session, company_of(session, job_id).id).values() for c in rows}
        colours: dict[ColourGroup, NamedColour] = {}
        for group in ColourGroup:
            chosen = form.get(f"{group.value}.name", "")
            if chosen in known:
                colours[group] = NamedColour(colour=known[chosen].colour, name=chosen)
            elif chosen == "own":
                own = OwnColourForm.read(form, before=f"{group.value}.").colour
                colours[group] = NamedColour(colour=own, name=own)
        id_ = typed.id or _fresh_id(name, {s.id for s in bundle.job.schemes})
        scheme = Scheme(id=id_, name=name, colours=colours)
        kept = [scheme if s.id == id_ else s for s in bundle.job.schemes]
        if scheme not in kept:
            kept.append(scheme)
        if len(kept) > MOST:
            raise Refused({"name": f"at most {MOST} schemes are kept; take one out first"})
        put_schemes(session, job_id, kept)
    return id_


def _fresh_id(name: str, taken: set[str]) -> str:
    base = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:40] or "scheme"
    return next(n for n in (base, *(f"{base}-{k}" for k in range(2, 100))) if n not in taken)


def drop_scheme(ctx: Context, job_id: str, id_: str) -> None:
    """Raises NotFound."""
    with job_step(ctx, job_id, "drop a scheme") as session:
        kept = load_bundle(session, job_id).job.schemes
        if id_ not in {s.id for s in kept}:
            raise NotFound("colour scheme", id_)
        put_schemes(session, job_id, [s for s in kept if s.id != id_])


def apply_scheme(ctx: Context, job_id: str, id_: str) -> tuple[list[Changed], dict[str, str]]:
    """Give every part the scheme's colour for its group and derive it anew. Returns what changed, and why a part kept
    its colour, by part name. Raises NotFound."""
    with job_step(ctx, job_id, "take a colour scheme") as session:
        bundle = load_bundle(session, job_id)
        scheme = next((s for s in bundle.job.schemes if s.id == id_), None)
        if scheme is None:
            raise NotFound("colour scheme", id_)
        wishes: dict[Key, Wish] = {}
        for key, part in painted_parts(bundle.property, bundle.deduction).items():
            if bundle.left_of(*key) is not None:
                continue
            chosen = scheme.colours.get(colour_group(surface_tags(part.substrate, part.item_kind)))
            finish = bundle.finish_of(*key)
            has = (finish.colour, finish.colour_name) if finish is not None else None
            if chosen is not None and has != (chosen.colour, chosen.name):
                wish = Wish.of(finish) if finish else usual_wish(bundle, part)
                wishes[key] = replace(wish, colour=chosen.colour, colour_name=chosen.name)
        done = change_wishes(session, bundle, wishes)
        note_changes(ctx, session, bundle)
        return done
