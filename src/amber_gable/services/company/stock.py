"""The firm's own store: cans typed, counted, booked to jobs, brought back, labelled."""

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from typing import Annotated

from pydantic import ValidationError

from amber_gable.core.specification.colour.difference import lab
from amber_gable.domain.errors import NotFound, Refused, by_field
from amber_gable.domain.paint.product import Product
from amber_gable.domain.paint.stock import StockCan
from amber_gable.domain.units import Quantity, UnitSystem, read
from amber_gable.services.company.stores import company, held, kept_company
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form, Reads, read_all
from amber_gable.services.forms.types import Day, colour
from amber_gable.services.job.view import JobView
from amber_gable.store.company import stock as store
from amber_gable.store.job.jobs import list_jobs


@dataclass(frozen=True)
class StockLine:
    """A can with its product, where the stores still hold it, and the job it is booked to."""

    can: StockCan
    product: Product | None
    job: str
    old: bool


@dataclass(frozen=True)
class Stock:
    lines: tuple[StockLine, ...]
    products: tuple[Product, ...]
    jobs: tuple[tuple[str, str], ...]


def stock(ctx: Context) -> Stock:
    """Everything that stands there, with what it may be."""
    today = ctx.now.date()
    with ctx.reading() as session:
        id_ = company(session).id
        products = {p.code: p for p in held(session, id_)}
        jobs = {j.id: j.name for j in list_jobs(session)}
        lines = tuple(
            StockLine(c, products.get(c.product), jobs.get(c.job or "", c.job or ""), _old(c, today))
            for c in store.cans(session, id_)
        )
    return Stock(lines, tuple(products.values()), tuple(jobs.items()))


def _old(can: StockCan, today: date) -> bool:
    return can.good_until is not None and can.good_until < today


def stock_for(view: JobView) -> tuple[StockCan, ...]:
    """Cans that a job may be reckoned with today."""
    company_id, today = view.bundle.company.id, view.now.date()
    with view.ctx.reading() as session:
        kept, key = session.kept, ("stock", company_id)
        found: tuple[StockCan, ...] | None = kept.find(session, key)
        if found is None:
            found = kept.read(session, key, (f"stock:{company_id}",), lambda: tuple(store.cans(session, company_id)))
    return tuple(c for c in found if c.serves(view.bundle.job.id, today))


def _litres(text: str, system: UnitSystem) -> float:
    value = read(Quantity.VOLUME, text, system)
    if not 0 < value <= 1000:
        raise ValueError(f"“{text[:20]}” is no can; write how much is in it")
    return value


class CanForm(Form):
    """A can to put on the shelf; full where it is not said how much is in it."""

    product: str = ""
    size_l: Annotated[float, Reads(_litres)]
    litres: Annotated[float, Reads(_litres)] | None = None
    good_until: Day | None = None
    colour: Annotated[str, colour("choose the colour in it")]
    batch: str = ""
    place: str = ""


class CountForm(Form):
    """What is in a can now (0: nothing, it goes), where it stands and for which job."""

    litres: Annotated[float, Reads(lambda text, s: 0.0 if re.fullmatch(r"0+(?:[.,]0*)?", text) else _litres(text, s))]
    place: str = ""
    job: str | None = None


def add_can(ctx: Context, form: Mapping[str, str], system: UnitSystem) -> int:
    """A can as typed; the number its label gets. Raises Refused by field."""
    with ctx.writing() as session:
        id_ = kept_company(session).id
        known = {p.code for p in held(session, id_)}
        typed, _ = read_all(lambda: CanForm.read(form, system), lambda: _known(form.get("product", ""), known))
        number = store.next_number(session, id_)
        fields = typed.model_dump() | {"number": number, "litres": typed.litres or typed.size_l}
        try:
            can = StockCan.model_validate(fields)
        except ValidationError as error:
            raise Refused(_named(error)) from None
        store.add_can(session, id_, can)
    return number


def _known(product: str, known: set[str]) -> None:
    """Raises Refused."""
    if product not in known:
        raise Refused({"product": "choose what is in it"})


def count_can(ctx: Context, number: int, form: Mapping[str, str], system: UnitSystem) -> None:
    """What is in a can now, and where it stands; nothing in it takes it out. Raises Refused by field and NotFound."""
    typed = CountForm.read(form, system)
    if not typed.litres:
        drop_can(ctx, number)
        return
    with ctx.writing() as session:
        id_ = company(session).id
        before = next((c for c in store.cans(session, id_) if c.number == number), None)
        if before is None:
            raise NotFound("can", str(number))
        try:
            store.change_can(session, id_, number, **typed.model_dump())
        except ValidationError as error:
            raise Refused(_named(error)) from None


def book(ctx: Context, job_id: str, numbers: list[int]) -> None:
    """Cans for one job alone. Raises Refused where one is booked to another by now, and NotFound."""
    with ctx.writing() as session:
        id_ = company(session).id
        there = {c.number: c for c in store.cans(session, id_)}
        for number in numbers:
            can = there.get(number)
            if can is None:
                raise NotFound("can", str(number))
            if can.job not in (None, job_id):
                raise Refused({"stock": f"can {number} was booked to another job meanwhile; look at the stock"})
            store.change_can(session, id_, number, job=job_id)


RETINT_BY = 3.0
"""Lightness that a can must lose at least: colorant only takes away."""


def retintable(view: JobView, product: str, colour: str) -> list[StockCan]:
    """Free cans of the same product in lighter colours, that could be tinted to the wanted one."""
    wanted = lab(colour).lightness
    return [
        c
        for c in stock_for(view)
        if c.product == product and c.job is None and lab(c.colour).lightness >= wanted + RETINT_BY
    ]


def retint(view: JobView, number: int, product: str, colour: str) -> None:
    """The can is now of that colour, and of no batch that anything else is of. Raises Refused for one that may not be
    tinted so, or not any more."""
    before = next((c for c in retintable(view, product, colour) if c.number == number), None)
    if before is None:
        raise Refused({"stock": f"can {number} cannot be tinted to this colour; look at the stock"})
    with view.ctx.writing() as session:
        batch = f"retinted {before.batch}"[:40].strip()
        store.change_can(session, company(session).id, number, colour=colour, batch=batch)


def drop_can(ctx: Context, number: int) -> None:
    """Raises NotFound."""
    with ctx.writing() as session:
        store.drop_can(session, company(session).id, number, math.floor(ctx.now.timestamp()))


def bring_back(ctx: Context, number: int) -> None:
    """Raises NotFound."""
    with ctx.writing() as session:
        store.bring_back(session, company(session).id, number)


def label_svg(number: int) -> str:
    """The can's number as a QR code, an SVG without a background."""
    import segno

    return segno.make_qr(f"AG {number}", error="m").svg_inline(border=2, scale=3, omitsize=True)


def _named(error: ValidationError) -> dict[str, str]:
    return {name or "litres": words for name, words in by_field(error).items()}
