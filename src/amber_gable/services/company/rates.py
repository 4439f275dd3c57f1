"""The company's rates: the trade's, and its own over them. New jobs begin with them; jobs that are begun keep theirs
until somebody takes the new ones over."""

import math
from collections.abc import Mapping

from pydantic import ValidationError

from amber_gable.domain.errors import Refused, first_words
from amber_gable.domain.units import UnitSystem, read, typed
from amber_gable.domain.work.operation import UNIT_QUANTITY, AmountUnit
from amber_gable.domain.work.rates import FACTOR_LEAST, FACTOR_MOST, PACE_FACTORS, RATES, OwnRate, Rate
from amber_gable.exchange.files import decode
from amber_gable.exchange.stores.rates_csv import read_rates, write_rates
from amber_gable.services.company.stores import company, kept_company
from amber_gable.services.context import Context
from amber_gable.services.forms.types import number, number_from
from amber_gable.store.job.specification import put_company


def own_rates(ctx: Context) -> dict[str, OwnRate]:
    with ctx.reading() as session:
        return dict(company(session).rates)


def own_factors(ctx: Context) -> dict[str, float]:
    with ctx.reading() as session:
        return dict(company(session).factors)


def keep_rates(ctx: Context, form: Mapping[str, str], system: UnitSystem) -> None:
    """What was typed beside each rate (`rate.CODE`) and factor (`factor.CODE`): a figure of the company's own, or
    nothing for the trade's. Raises Refused by field."""
    held, faults, own = own_rates(ctx), dict[str, str](), dict[str, OwnRate]()
    for code, rate in RATES.items():
        text = form.get(f"rate.{code}", "").strip()
        if code in held and text == shown(rate, held[code].per_hour, system):
            # Sent back as it was shown, it stays what it was.
            own[code] = held[code]
        elif text:
            try:
                own[code] = OwnRate(per_hour=_read(rate, text, system))
            except ValidationError as error:
                faults[f"rate.{code}"] = " ".join(first_words(error))
            except ValueError as error:
                faults[f"rate.{code}"] = str(error)
    factors = _factors(form, faults)
    if faults:
        raise Refused(faults)
    _put(ctx, own, factors)


_FACTOR = number_from(FACTOR_LEAST, FACTOR_MOST, f"a factor from {FACTOR_LEAST:g} to {FACTOR_MOST:g}", sign="×")


def _factors(form: Mapping[str, str], faults: dict[str, str]) -> dict[str, float]:
    out: dict[str, float] = {}
    for code in PACE_FACTORS:
        if text := form.get(f"factor.{code}", "").strip():
            try:
                out[code] = _FACTOR.reader(text, UnitSystem.METRIC)
            except ValueError as error:
                faults[f"factor.{code}"] = str(error)
    return out


def shown(rate: Rate, per_hour: float, system: UnitSystem) -> str:
    """A rate as it is typed: m² or m an hour in the reader's units, minutes for a piece."""
    kind = UNIT_QUANTITY.get(rate.unit)
    return f"{60 / per_hour:.4g}" if kind is None else typed(kind, per_hour, system)


def _read(rate: Rate, text: str, system: UnitSystem) -> float:
    kind = UNIT_QUANTITY.get(rate.unit)
    if rate.unit is not AmountUnit.PIECES and kind is not None:
        value = read(kind, text, system)
    else:
        try:
            value = 60 / number(text.removesuffix("min"))
        except (ValueError, ZeroDivisionError):
            raise ValueError(f"“{text[:20]}” is not a number of minutes above 0") from None
    if not 0 < value < math.inf:
        raise ValueError(f"“{text[:20]}” is nothing done in an hour; write a figure above 0, or nothing")
    return value


def rates_file(ctx: Context) -> str:
    return write_rates(own_rates(ctx), own_factors(ctx))


def bring_rates(ctx: Context, data: bytes, name: str) -> int:
    """A file's rates in place of the company's own; how many of them differ from the trade's. Raises InputError."""
    own, factors = read_rates(decode(data, name), name)
    _put(ctx, own, factors)
    return len(own) + len(factors)


def _put(ctx: Context, own: Mapping[str, OwnRate], factors: Mapping[str, float]) -> None:
    with ctx.writing() as session:
        put_company(session, kept_company(session).model_copy(update={"rates": dict(own), "factors": dict(factors)}))
