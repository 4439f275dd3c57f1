"""An own product from seven fields in the reader's units, the rest from its family."""

import re
from collections.abc import Mapping
from typing import Any

from pydantic import ValidationError

from amber_gable.core.specification.choices.own_product import FAMILY_SHEETS, CanFigures, own_product, taken_from_family
from amber_gable.domain.errors import Refused
from amber_gable.domain.fault_words import by_field
from amber_gable.domain.paint.families import Family
from amber_gable.domain.paint.product import Product
from amber_gable.domain.units import Quantity, UnitSystem, read, shown, unit
from amber_gable.services.company.containers_typed import typed_containers
from amber_gable.services.company.stores import company, held, kept_company
from amber_gable.services.context import Context
from amber_gable.store.company import sheets

__all__ = ["FAMILY_SHEETS", "keep_own", "own_tried"]

_HOURS = {"overnight": 16.0, "next day": 24.0, "a day": 24.0}


def own_tried(form: Mapping[str, str], system: UnitSystem, code: str = "own") -> tuple[Product, list[str]]:
    """The sheet as it would be, and which of its fields are the family's. Raises Refused by field."""
    family, faults = form.get("family", ""), {}
    if family not in FAMILY_SHEETS:
        raise Refused({"family": "choose what it is"})
    values: dict[str, Any] = {"name": form.get("name", "").strip() or "Own product"}
    if form.get("maker", "").strip():
        values["maker"] = form["maker"].strip()
    if form.get("base", "").strip():
        values["base"] = form["base"]
    for name, reader in (("spread", _spread), ("lowest", _lowest), ("recoat", _recoat), ("coats", _coats)):
        try:
            if form.get(name, "").strip():
                values |= reader(form[name].strip(), system)
        except ValueError as error:
            faults[name] = str(error)
    most = min(FAMILY_SHEETS[Family(family)].air_max_c, FAMILY_SHEETS[Family(family)].surface_max_c)
    if values.get("lowest_c", -40.0) >= most:
        faults["lowest"] = f"is not below the warmest its family bears, {shown(Quantity.TEMPERATURE, most, system, 0)}"
    latest = FAMILY_SHEETS[Family(family)].max_recoat_h
    if latest is not None and values.get("recoat_h", 0.0) >= latest:
        faults["recoat"] = f"its family is coated again within {latest:g} h; where the can says more, type a full sheet"
    try:
        values["containers"] = typed_containers(form.get("containers", ""), system)
        if not values["containers"]:
            faults["containers"] = "is needed: what a can costs"
    except ValueError as error:
        faults["containers"] = str(error)
    if faults:
        raise Refused(faults)
    try:
        can = CanFigures.model_validate(values)
        made = own_product(Family(family), can, code)
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
        return {"volume_solids_pct": float(found[1].replace(",", "."))}
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


def _lowest(text: str, system: UnitSystem) -> dict[str, Any]:
    return {"lowest_c": read(Quantity.TEMPERATURE, text, system)}


def _recoat(text: str, system: UnitSystem) -> dict[str, Any]:
    said = text.lower()
    if said in _HOURS:
        return {"recoat_h": _HOURS[said]}
    found = re.fullmatch(r"([\d.,]+)\s*(h|hours?|hrs?|days?|d|min|minutes?)?", said)
    if found is None:
        raise ValueError(f"“{text[:30]}” is no time: write such as 4 h, overnight or 2 days")
    per = {"d": 24.0, "m": 1 / 60}.get((found[2] or "h")[0], 1.0)
    return {"recoat_h": float(found[1].replace(",", ".")) * per}


def _coats(text: str, system: UnitSystem) -> dict[str, Any]:
    words = {"one": 1, "two": 2, "three": 3}
    found = re.fullmatch(r"(\d+|one|two|three)\s*(?:coats?)?", text.lower())
    number = 0 if found is None else words.get(found[1]) or int(found[1])
    if not 1 <= number <= 6:
        raise ValueError(f"“{text[:20]}” is no number of coats: write 1 to 6")
    return {"coats": number}


def keep_own(ctx: Context, form: Mapping[str, str], system: UnitSystem) -> str:
    """Put the product into the stores. Returns its code. Raises Refused by field; nothing is saved then."""
    if not form.get("name", "").strip():
        raise Refused({"name": "is needed"})
    with ctx.writing() as session:
        taken = {p.code for p in held(session, company(session).id)}
        stem = re.sub(r"[^a-z0-9]+", "-", form["name"].lower()).strip("-")[:50] or "product"
        code = next(c for n in range(1, 10_000) if (c := stem if n == 1 else f"{stem}-{n}") not in taken)
        made, _ = own_tried(form, system, code)
        sheets.put_product(session, kept_company(session).id, made, 0)
    return code
