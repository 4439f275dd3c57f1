"""An estimate as `amber-gable estimate` prints it, and its tables as files (docs/formats.md)."""

from collections.abc import Iterator
from decimal import Decimal
from typing import Any

from amber_gable.core.estimate.estimate import Estimate
from amber_gable.core.estimate.hours import HourLine
from amber_gable.core.work.record import WorkLine
from amber_gable.services.job.view import JobView
from amber_gable.services.quantities.quantities import kept_quantities

_DIGITS = 4


def estimate_json(estimate: Estimate) -> dict[str, Any]:
    """`work`, `materials` and `totals`; what has no price yet is null."""
    hours = estimate.hours
    paint = float(estimate.paint_cost)
    return {
        "work": [_work(line, estimate) for line in hours.lines],
        "materials": [*_paints(estimate), *_supplies(estimate)],
        "possible": [_possible(line, estimate) for line in estimate.possible],
        "totals": {
            "hours": round(hours.hours, _DIGITS),
            "hours_p10": round(hours.p10, _DIGITS),
            "hours_p50": round(hours.p50, _DIGITS),
            "hours_p90": round(hours.p90, _DIGITS),
            "site_days": hours.days.days,
            "labour": None,
            "materials": paint,
            "access": None,
        },
    }


def _possible(line: WorkLine, estimate: Estimate) -> dict[str, Any]:
    """A step that is only done where a look asks for it; its paint at the best price per litre."""
    return {
        "part": line.part[1],
        "face": estimate.hours.parts[line.part].face.id,
        "operation": line.operation.name,
        "hours": round(line.hours, _DIGITS),
        "litres": round(line.litres, _DIGITS),
        "materials": round(float(paint_cost(line)), 2),
    }


def paint_cost(line: WorkLine) -> Decimal:
    """What the paint of a line costs at the best price per litre."""
    return Decimal(0) if line.paint is None else line.paint.product.price_per_litre * Decimal(str(line.litres))


def _work(line: HourLine, estimate: Estimate) -> dict[str, Any]:
    labour = line.labour
    return {
        "part": line.part[1] if line.part is not None else "",
        "face": estimate.hours.parts[line.part].face.id if line.part is not None else "",
        "operation": line.words,
        "amount": round(labour.amount, _DIGITS),
        "unit": labour.unit.value,
        "rate": round(labour.rate.per_hour, _DIGITS),
        "rate_unit": f"{labour.unit.value}/h",
        "rate_code": labour.rate.code,
        "source": labour.rate.source,
        "factors": {f.name: round(f.value, _DIGITS) for f in labour.factors},
        "hours": round(line.hours, _DIGITS),
        "hours_p10": round(line.band[0], _DIGITS),
        "hours_p90": round(line.band[1], _DIGITS),
    }


def _paints(estimate: Estimate) -> Iterator[dict[str, Any]]:
    for order in estimate.orders:
        need = order.need
        yield {
            "item": order.product.code,
            "colour": order.colour,
            "unit": "L",
            "p10": round(need.p10, _DIGITS),
            "p50": round(need.p50, _DIGITS),
            "p90": round(need.p90, _DIGITS),
            "buy": round(order.purchase.litres, _DIGITS),
            "containers": {f"{c.litres:g}": n for c, n in order.purchase.items},
            "from_stock": round(order.purchase.stock_l, _DIGITS),
            "reserve": need.reserve_l,
            "cost": float(order.cost),
        }


def _supplies(estimate: Estimate) -> Iterator[dict[str, Any]]:
    for item in estimate.supplies:
        yield {
            "item": item.code,
            "words": item.words,
            "unit": item.unit or "pieces",
            "p10": round(item.p10, _DIGITS),
            "p50": round(item.p50, _DIGITS),
            "p90": round(item.p90, _DIGITS),
            "buy": round(item.buy, _DIGITS),
            "cost": None,
        }


def estimate_lines(estimate: Estimate) -> Iterator[str]:
    """For people: each line of work as amount ÷ rate × factors = hours, then what to buy."""
    hours = estimate.hours
    for line in hours.lines:
        labour = line.labour
        where = f"{hours.parts[line.part].face.name}, {hours.parts[line.part].name}" if line.part else "The job"
        factors = "".join(f" × {f.value:.3g}" for f in labour.factors)
        yield (
            f"{where[:34]:34} {line.words[:52]:52} {labour.amount:8.2f} {labour.unit.value:6} ÷ "
            f"{labour.rate.per_hour:6.3g}/h{factors} = {line.hours:.2f} h"
        )
    yield ""
    for order in estimate.orders:
        need, cans = order.need, ", ".join(f"{n} × {c.litres:g} L" for c, n in order.purchase.items)
        yield (
            f"{order.product.code:28} {order.colour}  {need.p10:.1f} to {need.p90:.1f} L, likely {need.p50:.1f}: "
            f"{cans}  {order.cost}"
        )
    for item in estimate.supplies:
        yield f"{item.words:52} {item.p10:.3g} to {item.p90:.3g} {item.unit}: buy {item.buy:g}"
    yield ""
    yield (
        f"{hours.hours:.1f} person-hours ({hours.p10:.0f} to {hours.p90:.0f}; as likely as not {hours.p50:.0f}), "
        f"at least {hours.days.days} days of {hours.days.people}"
    )


TABLES = ("work", "purchase")


def estimate_csv(view: JobView, table: str) -> bytes:
    from amber_gable.exchange.job.estimate_tables import purchase_csv, work_csv

    made = work_csv if table == "work" else purchase_csv
    # Spreadsheets read UTF-8 where the file says so.
    return made(kept_quantities(view).estimate).encode("utf-8-sig")


def estimate_workbook(view: JobView, table: str) -> bytes:
    from amber_gable.exchange.job.estimate_tables import purchase_workbook, work_workbook

    made = work_workbook if table == "work" else purchase_workbook
    return made(kept_quantities(view).estimate)
