"""Colours of the whole house: what schemes do to heat and contrast, and which boards are worth painting."""

from typing import Any

from amber_gable.core.specification.choices.preview import light_at, lit_colours, part_colours
from amber_gable.core.specification.colour.difference import contrast_ratio, contrast_words
from amber_gable.core.specification.colour.heat_check import Wanted, heat_checks
from amber_gable.core.specification.derived.facts import surface_tags
from amber_gable.core.survey.amounts.painted import painted_parts
from amber_gable.core.survey.drawing.after import colours_left, house_after
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.colour_library import LibraryColour
from amber_gable.domain.paint.scheme import ColourGroup, NamedColour, Scheme, colour_group
from amber_gable.domain.work.alert import Alert
from amber_gable.services.company.colour_library import colour_library
from amber_gable.services.context import Context

__all__ = [
    "board_colours",
    "colour_groups",
    "colours_left",
    "house_after",
    "job_library",
    "light_at",
    "lit_colours",
    "part_colours",
    "scheme_heat",
    "trim_contrast",
]


def job_library(ctx: Context, bundle: JobBundle) -> dict[str, list[LibraryColour]]:
    """The library of the job's company."""
    with ctx.reading() as session:
        return colour_library(session, bundle.company.id)


def trim_contrast(bundle: JobBundle, colours: dict[tuple[str, str], str]) -> dict[str, Any]:
    """How plainly the trim stands out from the body, where the house has both; by the largest of each."""
    largest: dict[ColourGroup, tuple[float, str]] = {}
    for key, part in painted_parts(bundle.property, bundle.deduction).items():
        group = colour_group(surface_tags(part.substrate, part.item_kind))
        if part.surface_m2 > largest.get(group, (0.0, ""))[0]:
            largest[group] = part.surface_m2, colours[key]
    body, trim = largest.get(ColourGroup.BODY), largest.get(ColourGroup.TRIM)
    if body is None or trim is None:
        return {"contrast": None, "contrast_words": ""}
    ratio = contrast_ratio(body[1], trim[1])
    return {"contrast": ratio, "contrast_words": contrast_words(ratio)}


def colour_groups(bundle: JobBundle) -> list[ColourGroup]:
    """Groups the house has, in the order of the enum."""
    parts = painted_parts(bundle.property, bundle.deduction).values()
    there = {colour_group(surface_tags(p.substrate, p.item_kind)) for p in parts}
    return [g for g in ColourGroup if g in there]


def scheme_heat(bundle: JobBundle, scheme: Scheme) -> dict[str, Any]:
    """A scheme with what it does to heat: refusals and warnings, each once."""
    schools = bundle.schools
    wanted = []
    for part in painted_parts(bundle.property, bundle.deduction).values():
        chosen = scheme.colours.get(colour_group(surface_tags(part.substrate, part.item_kind)))
        if chosen is not None and part.surface_m2 > 0 and bundle.left_of(*part.key) is None:
            wanted.append(Wanted(part, chosen.colour, schools["vinyl"]))
    found = [c for c in heat_checks(bundle.property, wanted) if c.level in (Alert.STOP, Alert.CHECK)]
    worst: dict[tuple[str, str], Any] = {}
    for check in sorted(found, key=lambda c: -c.then.surface_c):
        worst.setdefault((check.wanted.part.substrate, check.wanted.colour), check)
    return {"scheme": scheme, "heat": list(worst.values())[:3]}


def board_colours(bundle: JobBundle, group: ColourGroup) -> list[NamedColour]:
    """What the group may get: colours of the specification and of the schemes, each once."""
    found: dict[str, NamedColour] = {}
    for finish in bundle.job.finishes:
        part = bundle.property.part(finish.part)
        kind = getattr(getattr(part, "spec", None), "kind", "")
        if part is not None and colour_group(surface_tags(part.substrate, kind)) is group:
            found.setdefault(finish.colour, NamedColour(colour=finish.colour, name=finish.colour_name))
    for scheme in bundle.job.schemes:
        if group in scheme.colours:
            found.setdefault(scheme.colours[group].colour, scheme.colours[group])
    return list(found.values())
