"""What the stores changed since, in words: '44 → 40 %' under the name the sheet's form has."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from amber_gable.domain.spec_schools import DEFAULTS, TOPICS
from amber_gable.services.taking_over import Offers
from amber_gable.web.views.sheet_form import GROUPS, SheetField

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


def told_offers(found: Offers, tz: Any) -> list[ToldOffer]:
    out = []
    for sheet in found.sheets:
        on = sheet.changed_at.astimezone(tz)
        differences = tuple(_difference(k, *pair) for k, pair in sheet.differences.items())
        out.append(ToldOffer(sheet.code, f"{sheet.name}, sheet changed on {on.day} {on:%b}", differences))
    if found.settings:
        out.append(ToldOffer("", "Company settings", tuple(_settings(found.settings))))
    return out


def _difference(name: str, then: Any, now: Any) -> Difference:
    field = _FIELDS.get(name, SheetField(name, name.replace("_", " ").capitalize()))
    unit = f" {field.unit}" if field.unit and field.kind == "number" else ""
    return Difference(field.label, _value(then), f"{_value(now)}{unit}")


def _value(value: Any) -> str:
    if value is None or value in ("", [], ()):
        return "none"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return f"{value:g}"
    if isinstance(value, list):
        return ", ".join(f"{v['litres']:g} L {v['price']}" if isinstance(v, dict) else str(v) for v in value)
    return str(value)


def _settings(settings: dict[str, tuple[Any, Any]]) -> Iterator[Difference]:
    for name, (then, now) in settings.items():
        if name != "schools":
            yield Difference(_SETTINGS[name], str(then), str(now))
            continue
        for topic in TOPICS.values():
            before, after = (s.get(topic.code, DEFAULTS[topic.code]) for s in (then, now))
            if before != after:
                yield Difference(topic.question, topic.school(before).name, topic.school(after).name)
