"""The company set up once: who it is, where it is at home, how its people work and what they hold by."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any

from pydantic import ValidationError

from amber_gable.domain.errors import Refused, by_field
from amber_gable.domain.job.company_usual import Home, Usual
from amber_gable.domain.job.job import Company
from amber_gable.domain.units import UnitSystem
from amber_gable.domain.work.schools import TOPICS, Topic, checked_schools
from amber_gable.services.company import stores
from amber_gable.services.company.crew_typed import crew_form, typed_crew
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form, Reads, read_all
from amber_gable.services.forms.types import one_of, text_of, whole_number
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


class CompanyForm(Form):
    """What a company is called, what it charges in, when lead is presumed in an older house, and its units."""

    name: Annotated[str, text_of("say what the company is called")]
    currency: Annotated[str, Reads(lambda text, _: _currency(text))]
    lead_cutoff_year: Annotated[int, whole_number(1900, 2100, "a year from 1900 to 2100")]
    unit_system: Annotated[UnitSystem, one_of(list(UnitSystem), "choose metric or US units")] | None = None


def _currency(text: str) -> str:
    if not (len(text) == 3 and text.isascii() and text.isalpha()):
        raise ValueError(f"“{text[:12]}” is no currency code; write three letters such as CAD")
    return text.upper()


def keep_set_up(ctx: Context, form: Mapping[str, str]) -> None:
    """Everything on the form at once. Jobs that are begun keep what they were begun with. Raises Refused by field."""
    held = stores.usual_of(ctx) or Usual()
    typed, home, crew = read_all(
        lambda: CompanyForm.read(form),
        lambda: _home(ctx, form, held.home),
        lambda: typed_crew(form, held.crew.model_dump()),
    )
    with ctx.writing() as session:
        company = stores.kept_company(session)
        fields = typed.model_dump(exclude={"unit_system"})
        try:
            fields["schools"] = checked_schools(company.schools | {t: form[t] for t in ASKED if form.get(t)})
            put_company(session, Company.model_validate(company.model_dump() | fields))
        except ValidationError as error:
            raise Refused(by_field(error)) from None
        except ValueError as error:
            raise Refused({"": str(error)}) from None
        usual = Usual(home=home, units=typed.unit_system or held.units, crew=crew)
        session.get_one(CompanyRow, company.id).usual = usual.model_dump(mode="json")


def _home(ctx: Context, form: Mapping[str, str], held: Home | None) -> Home | None:
    """The town where the company is at home, the one it had where it is named as before; None where none is named.
    Raises Refused by field."""
    place, town = form.get("place", "").strip(), form.get("town", "")
    pinned = any(form.get(key, "").strip() for key in ("latitude", "longitude"))
    if not place and not pinned:
        return None
    if held is not None and place == held.place and not town and not pinned:
        return held
    found = read_place(ctx, form)
    return Home.model_validate(
        {key: getattr(found, key) for key in Home.model_fields} | {"place": found.place or "home"}
    )


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
