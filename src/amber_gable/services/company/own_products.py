"""An own product from seven fields in the reader's units, the rest from its family."""

import re
from collections.abc import Mapping
from typing import Annotated, Any

from pydantic import Field, ValidationError

from amber_gable.core.specification.choices.own_product import FAMILY_SHEETS, CanFigures, own_product, taken_from_family
from amber_gable.domain.errors import Refused, by_field
from amber_gable.domain.paint.families import Family
from amber_gable.domain.paint.product import Product
from amber_gable.domain.units import Quantity, UnitSystem, read, shown, unit
from amber_gable.services.company.containers_typed import typed_containers
from amber_gable.services.company.stores import company, held, kept_company
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form, Reads
from amber_gable.services.forms.types import amount, number
from amber_gable.store.company import sheets

__all__ = ["FAMILY_SHEETS", "keep_own", "own_tried"]

_HOURS = {"overnight": 16.0, "next day": 24.0, "a day": 24.0}


def own_tried(form: Mapping[str, str], system: UnitSystem, code: str = "own") -> tuple[Product, list[str]]:
    """The sheet as it would be, and which of its fields are the family's. Raises Refused by field."""
    if form.get("family", "") not in FAMILY_SHEETS:
        # Nothing else can be judged without it.
        raise Refused({"family": "choose what it is"})
    typed, faults = OwnForm.read(form, system), dict[str, str]()
    usual = FAMILY_SHEETS[typed.family]
    most = min(usual.air_max_c, usual.surface_max_c)
    if typed.lowest is not None and typed.lowest >= most:
        faults["lowest"] = f"is not below the warmest its family bears, {shown(Quantity.TEMPERATURE, most, system, 0)}"
    latest = usual.max_recoat_h
    if latest is not None and typed.recoat is not None and typed.recoat >= latest:
        faults["recoat"] = f"its family is coated again within {latest:g} h; where the can says more, type a full sheet"
    if faults:
        raise Refused(faults)
    told = {"name": typed.name, "maker": typed.maker, "base": typed.base, "coats": typed.coats}
    told |= {"lowest_c": typed.lowest, "recoat_h": typed.recoat, "containers": typed.containers} | typed.spread
    try:
        can = CanFigures.model_validate({k: v for k, v in told.items() if v is not None})
        made = own_product(typed.family, can, code)
    except ValidationError as error:
        raise Refused({_field(k): words for k, words in by_field(error).items()}) from None
    return made, taken_from_family(made, can)


_FORM_FIELDS = {
    "volume_solids_pct": "spread", "spread_low_m2_l": "spread", "spread_high_m2_l": "spread", "dry_film_um": "spread",
    "air_min_c": "lowest", "surface_min_c": "lowest", "recoat_h": "recoat", "coats": "coats", "name": "name",
    "litres": "containers", "price": "containers", "containers": "containers", "base": "base", "maker": "maker",
}  # fmt: skip


def _field(name: str) -> str:
    return _FORM_FIELDS.get(name, "")


def _spread(text: str, system: UnitSystem) -> dict[str, Any]:
    """`38 %` are solids; `10`, `350-400`, `10 m²/L` are coverage. Raises ValueError."""
    if found := re.fullmatch(r"([\d.,]+)\s*(?:%|per ?cent)(?:\s*solids)?", text.lower()):
        return {"volume_solids_pct": number(found[1])}
    low, _, high = re.sub(r"\s*(?:-|–|\bto\b)\s*", "–", text).partition("–")
    here = unit(Quantity.COVERAGE, system).symbol
    try:
        tail = re.sub(r"^[\d.,\s]+", "", high)
        least = read(Quantity.COVERAGE, f"{low} {tail}" if high else low, system)
        most = read(Quantity.COVERAGE, high, system) if high else least
    except ValueError as error:
        raise ValueError(f"{error}; or the solids, such as 38 %") from None
    if not 0.2 <= least <= most <= 40:
        raise ValueError(f"“{text[:30]}” is no coverage of a coating: write it in {here}, or the solids in %")
    return {"coverage_m2_l": (least, most)}


def _recoat(text: str, _: UnitSystem) -> float:
    """Hours. Raises ValueError."""
    said = text.lower()
    if said in _HOURS:
        return _HOURS[said]
    found = re.fullmatch(r"([\d.,]+)\s*(h|hours?|hrs?|days?|d|min|minutes?)?", said)
    if found is None:
        raise ValueError(f"“{text[:30]}” is no time: write such as 4 h, overnight or 2 days")
    return number(found[1]) * {"d": 24.0, "m": 1 / 60}.get((found[2] or "h")[0], 1.0)


def _coats(text: str, _: UnitSystem) -> int:
    """Raises ValueError."""
    words = {"one": 1, "two": 2, "three": 3}
    found = re.fullmatch(r"(\d+|one|two|three)\s*(?:coats?)?", text.lower())
    coats = 0 if found is None else words.get(found[1]) or int(found[1])
    if not 1 <= coats <= 6:
        raise ValueError(f"“{text[:20]}” is no number of coats: write 1 to 6")
    return coats


class OwnForm(Form):
    """What a can says; `spread` is its coverage or its solids, `lowest` the coldest it is laid at."""

    family: Family
    name: str = "Own product"
    maker: str | None = None
    base: str | None = None
    spread: Annotated[dict[str, Any], Reads(_spread)] = Field(default_factory=dict)
    lowest: Annotated[float, amount(Quantity.TEMPERATURE)] | None = None
    recoat: Annotated[float, Reads(_recoat)] | None = None
    coats: Annotated[int, Reads(_coats)] | None = None
    containers: Annotated[list[dict[str, Any]], Reads(typed_containers, "is needed: what a can costs")]


def keep_own(ctx: Context, form: Mapping[str, str], system: UnitSystem) -> str:
    """Put the product into the stores. Returns its code. Raises Refused by field; nothing is saved then."""
    name = NamedForm.read(form).name
    with ctx.writing() as session:
        taken = {p.code for p in held(session, company(session).id)}
        stem = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:50] or "product"
        code = next(c for n in range(1, 10_000) if (c := stem if n == 1 else f"{stem}-{n}") not in taken)
        made, _ = own_tried(form, system, code)
        sheets.put_product(session, kept_company(session).id, made, 0)
    return code


class NamedForm(Form):
    """What is kept has a name of its own."""

    name: str
