"""The company set up once: who it is, where it is at home, how its people work and what they hold by."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError

from amber_gable.domain.errors import Refused
from amber_gable.domain.fault_words import by_field
from amber_gable.domain.job.company_usual import Home, Usual
from amber_gable.domain.job.job import Company
from amber_gable.domain.units import UnitSystem
from amber_gable.domain.work.schools import TOPICS, Topic, checked_schools
from amber_gable.services.company import stores
from amber_gable.services.company.crew_typed import crew_form, typed_crew
from amber_gable.services.context import Context
from amber_gable.services.place_check import read_place
from amber_gable.store.job.specification import put_company
from amber_gable.store.tables import CompanyRow

ASKED = ("method", "sun", "deduction")
"""The questions whose answers move a company's figures most; the others wait where they come up."""


@dataclass(frozen=True)
class SetUp:
    """`usual` None: never set up."""

    company: Company
    usual: Usual | None


def set_up(ctx: Context) -> SetUp:
    with ctx.reading() as session:
        return SetUp(stores.company(session), stores.usual_of(ctx))


def asked_topics() -> list[Topic]:
    return [TOPICS[code] for code in ASKED]


def keep_set_up(ctx: Context, form: Mapping[str, str]) -> None:
    """Everything on the form at once. Jobs that are begun keep what they were begun with. Raises Refused by field."""
    faults: dict[str, str] = {}
    name, currency = form.get("name", "").strip(), form.get("currency", "").strip().upper()
    if not name:
        faults["name"] = "say what the company is called"
    if not (len(currency) == 3 and currency.isascii() and currency.isalpha()):
        faults["currency"] = f"“{currency[:12]}” is no currency code; write three letters such as CAD"
    year = form.get("lead_cutoff_year", "").strip()
    if not year.isdigit() or not 1900 <= int(year) <= 2100:
        faults["lead_cutoff_year"] = f"“{year[:12]}” is no year from 1900 to 2100"
    held = stores.usual_of(ctx) or Usual()
    home = _home(ctx, form, held.home, faults)
    with ctx.writing() as session:
        company = stores.kept_company(session)
        try:
            crew = typed_crew(form, held.crew.model_dump())
            units = UnitSystem(form.get("unit_system", held.units))
            schools = checked_schools(company.schools | {t: form[t] for t in ASKED if form.get(t)})
        except Refused as error:
            raise Refused(faults | error.fields) from None
        except ValueError as error:
            raise Refused(faults | {"": str(error)}) from None
        if faults:
            raise Refused(faults)
        fields = {"name": name, "currency": currency, "lead_cutoff_year": int(year), "schools": schools}
        try:
            put_company(session, Company.model_validate(company.model_dump() | fields))
        except ValidationError as error:
            raise Refused(by_field(error)) from None
        usual = Usual(home=home, units=units, crew=crew)
        session.get_one(CompanyRow, company.id).usual = usual.model_dump(mode="json")


def _home(ctx: Context, form: Mapping[str, str], held: Home | None, faults: dict[str, str]) -> Home | None:
    """The town where the company is at home, the one it had where it is named as before; None where none is named."""
    place, town = form.get("place", "").strip(), form.get("town", "")
    pinned = any(form.get(key, "").strip() for key in ("latitude", "longitude"))
    if not place and not pinned:
        return None
    if held is not None and place == held.place and not town and not pinned:
        return held
    try:
        found = read_place(ctx, form)
        return Home.model_validate(
            {key: getattr(found, key) for key in Home.model_fields} | {"place": found.place or "home"}
        )
    except Refused as error:
        faults |= error.fields
    return None


def set_up_form(found: SetUp) -> dict[str, str]:
    """As it would have been typed."""
    company, usual = found.company, found.usual or Usual()
    out: dict[str, Any] = {
        "name": company.name if found.usual else "",
        "currency": company.currency,
        "lead_cutoff_year": str(company.lead_cutoff_year),
        "unit_system": usual.units.value,
        **crew_form(usual.crew),
        **{t.code: company.schools.get(t.code, t.schools[0].code) for t in asked_topics()},
    }
    if usual.home is not None:
        out["place"] = usual.home.place
    return out
