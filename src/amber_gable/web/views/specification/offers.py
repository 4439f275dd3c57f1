"""What the stores changed since, in words: '44 → 40 %' under the name the sheet's form has."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from amber_gable.domain.paint.product import SHEET_UNITS
from amber_gable.domain.work.rates import PACE_FACTORS, RATES
from amber_gable.domain.work.schools import DEFAULTS, TOPICS
from amber_gable.services.specification.taking_over import Offers
from amber_gable.web.views.estimate.reckoned import UNIT_WORDS
from amber_gable.web.views.sheet_form import GROUPS, SheetField
from amber_gable.web.views.units import Units

_FIELDS = {f.name: f for _, fields in GROUPS for f in fields}
_SETTINGS = {"currency": "Currency", "lead_cutoff_year": "Lead presumed in houses before"}


@dataclass(frozen=True)
class Difference:
    label: str
    then: str
    now: str


@dataclass(frozen=True)
class ToldOffer:
    """One sheet, or the company's settings where `code` is empty."""

    code: str
    title: str
    differences: tuple[Difference, ...]


def told_offers(found: Offers, tz: Any, units: Units) -> list[ToldOffer]:
    out = []
    for sheet in found.sheets:
        on = sheet.changed_at.astimezone(tz)
        differences = tuple(_difference(k, *pair, units) for k, pair in sheet.differences.items())
        out.append(ToldOffer(sheet.code, f"{sheet.name}, sheet changed on {on.day} {on:%b}", differences))
    if found.settings:
        out.append(ToldOffer("", "Company settings", tuple(_settings(found.settings))))
    return out


def _difference(name: str, then: Any, now: Any, units: Units) -> Difference:
    field = _FIELDS.get(name, SheetField(name, name.replace("_", " ").capitalize()))
    if name in SHEET_UNITS:
        kind = SHEET_UNITS[name].value
        before, after = ("none" if v is None else units.shown(v, kind) for v in (then, now))
        return Difference(field.label, before, after)
    unit = f" {field.unit}" if field.unit and field.kind == "number" else ""
    if name == "containers":
        return Difference("Containers", _containers(then, units), _containers(now, units))
    return Difference(field.label, _value(then), f"{_value(now)}{unit}")


def _containers(sizes: Any, units: Units) -> str:
    return ", ".join(f"{units.can(c['litres'])} {c['price']}" for c in sizes)


def _value(value: Any) -> str:
    if value is None or value in ("", [], ()):
        return "none"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return f"{value:g}"
    if isinstance(value, list):
        return ", ".join(str(v) for v in value)
    return str(value)


def _settings(settings: dict[str, tuple[Any, Any]]) -> Iterator[Difference]:
    for name, (then, now) in settings.items():
        if name == "rates":
            yield from _rates(then, now)
            continue
        if name == "factors":
            yield from _factors(then, now)
            continue
        if name != "schools":
            yield Difference(_SETTINGS[name], str(then), str(now))
            continue
        for topic in TOPICS.values():
            before, after = (s.get(topic.code, DEFAULTS[topic.code]) for s in (then, now))
            if before != after:
                yield Difference(topic.question, topic.school(before).name, topic.school(after).name)


def _rates(then: dict[str, Any], now: dict[str, Any]) -> Iterator[Difference]:
    """Rates of which the figure differs, in what is done an hour."""
    for code, rate in RATES.items():
        before, after = (own[code]["per_hour"] if code in own else rate.per_hour for own in (then, now))
        if before != after:
            unit = UNIT_WORDS[rate.unit]
            yield Difference(f"Rate, {rate.words}:", f"{before:.3g}", f"{after:.3g} {unit} an hour")


def _factors(then: dict[str, float], now: dict[str, float]) -> Iterator[Difference]:
    for code, factor in PACE_FACTORS.items():
        before, after = (own.get(code, factor.value) for own in (then, now))
        if before != after:
            yield Difference(f"Hours {factor.words}:", f"× {before:.3g}", f"× {after:.3g}")
