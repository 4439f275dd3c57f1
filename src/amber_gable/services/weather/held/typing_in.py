"""A forecast typed in for a property: read from a form, kept with what was typed, used as hours."""

import re
from collections.abc import Callable, Mapping
from datetime import date, timedelta
from functools import partial
from typing import TypeVar

from pydantic import ValidationError

from amber_gable.core.weather.outdoors.diurnal import typed_hours
from amber_gable.domain.errors import InputError, Refused
from amber_gable.domain.fault_words import by_field
from amber_gable.domain.house.survey import Property
from amber_gable.domain.units import Quantity, UnitSystem, read, typed
from amber_gable.domain.weather.typed_forecast import MOST_DAYS, Cloud, RainKind, TypedDay, TypedForecast, WindForce
from amber_gable.exchange.weather.pasted_hours import read_pasted
from amber_gable.services.context import Context
from amber_gable.store.weather.series import drop_series, given_of, save_series
from amber_gable.store.weather.versions import keep_version

T = TypeVar("T")
SHOWN_DAYS = 7
COMPASS = ("N", "NE", "E", "SE", "S", "SW", "W", "NW")
_WIND_UNITS = {"m/s": 1.0, "km/h": 1 / 3.6, "kmh": 1 / 3.6, "mph": 0.44704, "kn": 0.514444, "kt": 0.514444}
_FIGURE = re.compile(r"(\d+(?:[.,]\d+)?)\s*(\S*)")


def typed_before(ctx: Context, property_id: str) -> TypedForecast | None:
    """What was typed last, if it is still kept."""
    with ctx.reading() as session:
        given = given_of(session, property_id, "typed")
    return None if given is None else TypedForecast.model_validate(given)


def type_forecast(ctx: Context, property_: Property, form: Mapping[str, str], system: UnitSystem) -> TypedForecast:
    """Read the form and use it from now on. Raises Refused by field, and keeps nothing then."""
    now = ctx.now
    forecast = _read(form, now.astimezone(property_.tz).date(), system)
    series = typed_hours(forecast, property_.latitude, property_.longitude, property_.altitude_m, property_.tz, now)
    with ctx.writing() as session:
        save_series(session, property_.id, "typed", series, given=forecast.model_dump(mode="json"))
        keep_version(session, property_.id, "typed", series, int(now.timestamp()))
    return forecast


def paste_hours(ctx: Context, property_: Property, text: str) -> None:
    """Use a pasted table of hours from now on, in place of what was typed. Raises InputError and keeps nothing then."""
    now = ctx.now.astimezone(property_.tz)
    series = read_pasted(text, now.date(), property_.tz, now)
    if not series.start <= now.timestamp() < series.end:
        raise InputError("pasted table", "its hours do not reach now", "paste those of today")
    with ctx.writing() as session:
        save_series(session, property_.id, "typed", series)
        keep_version(session, property_.id, "typed", series, int(now.timestamp()))


def drop_typed(ctx: Context, property_id: str) -> None:
    """Go back to the forecast service, or to none."""
    with ctx.writing() as session:
        drop_series(session, property_id, "typed")


def _read(form: Mapping[str, str], today: date, system: UnitSystem) -> TypedForecast:
    """Days up to the last with a low or a high; of one left empty between others all is as the day before, and so is
    whatever is not said of a day."""
    faults: dict[str, str] = {}
    try:
        first = date.fromisoformat(form.get("first", "") or today.isoformat())
    except ValueError:
        raise Refused({"first": "that is not a day; write it such as 2026-09-15"}) from None
    if not today - timedelta(days=1) <= first <= today + timedelta(days=MOST_DAYS):
        raise Refused({"first": f"a forecast begins today or soon, not on {first.isoformat()}"})
    said = [n for n in range(MOST_DAYS) if form.get(f"low{n}", "").strip() or form.get(f"high{n}", "").strip()]
    if not said:
        raise Refused({"low0": "write the day’s low and high"})
    days: list[TypedDay] = []
    for n in range(said[-1] + 1):
        day = _day(form, n, days[-1] if days else None, system, faults)
        if day is not None:
            days.append(day)
    if faults:
        raise Refused(faults)
    return TypedForecast(first=first, days=tuple(days), by_the_sea=bool(form.get("by_the_sea")))


def _day(
    form: Mapping[str, str], n: int, before: TypedDay | None, system: UnitSystem, faults: dict[str, str]
) -> TypedDay | None:
    def field(name: str) -> str:
        return form.get(f"{name}{n}", "").strip()

    found: dict[str, object] = {}
    if before is not None:
        found = before.model_dump(exclude={"rain"})
    for name, key in (("low", "low_c"), ("high", "high_c")):
        if field(name):
            found[key] = _asked(partial(read, Quantity.TEMPERATURE, field(name), system), f"{name}{n}", faults)
        elif n == 0:
            faults[f"{name}{n}"] = f"write the day’s {name}"
    if field("moist"):
        found |= {"dew_c": None, "rh_pct": None}
        found |= _asked(partial(_moist, field("moist"), system), f"moist{n}", faults) or {}
    for name, key, reader in (("cloud", "cloud", _cloud), ("wind", "wind_ms", _wind)):
        if field(name):
            found[key] = _asked(partial(reader, field(name), system), f"{name}{n}", faults)
    if field("from") in COMPASS:
        found["wind_from_deg"] = 45.0 * COMPASS.index(field("from"))
    if field("rain"):
        found["rain"] = [_rain(field, n, faults)]
    # What a day takes over of one that is at fault is said there.
    if any(key.endswith(str(n)) for key in faults) or (before is None and n > 0):
        return None
    try:
        return TypedDay.model_validate(found)
    except ValidationError as error:
        names = {"low_c": "low", "high_c": "high", "dew_c": "moist", "rh_pct": "moist", "wind_ms": "wind"}
        for key, words in by_field(error).items():
            faults[f"{names.get(key, 'rain' if 'rain' in words else 'high')}{n}"] = words
        return None


def _asked(reader: Callable[[], T], field: str, faults: dict[str, str]) -> T | None:
    """What a field says; what it cannot say is noted beside it."""
    try:
        return reader()
    except ValueError as error:
        faults[field] = str(error)
        return None


def _moist(text: str, system: UnitSystem) -> dict[str, float]:
    """'65 %' is humidity, a temperature the dew point."""
    if text.endswith("%"):
        figure = text[:-1].strip().replace(",", ".")
        try:
            return {"rh_pct": float(figure)}
        except ValueError:
            raise ValueError(f"“{text[:20]}” is no humidity; write it such as 65 %") from None
    return {"dew_c": read(Quantity.TEMPERATURE, text, system)}


def _cloud(text: str, _: UnitSystem) -> float:
    said = Cloud.of(text.lower())
    if said is not None:
        return said.figure
    found = _FIGURE.fullmatch(text)
    if found is None or found[2] not in ("", "%") or float(found[1].replace(",", ".")) > 100:
        raise ValueError(f"“{text[:20]}” says nothing of the sky; write {', '.join(Cloud)}, or 0 to 100 %")
    return float(found[1].replace(",", ".")) / 100


def _wind(text: str, system: UnitSystem) -> float:
    said = WindForce.of(text.lower())
    if said is not None:
        return said.figure
    found = _FIGURE.fullmatch(text)
    unit = (found[2].lower() if found else "") or ("mph" if system is UnitSystem.US else "m/s")
    if found is None or unit not in _WIND_UNITS:
        raise ValueError(f"“{text[:20]}” is no wind; write {', '.join(WindForce)}, or 5 m/s, 20 km/h, 12 mph, 10 kn")
    return float(found[1].replace(",", ".")) * _WIND_UNITS[unit]


def _rain(field: Callable[[str], str], n: int, faults: dict[str, str]) -> dict[str, object]:
    rain: dict[str, object] = {}
    rain["kind"] = RainKind.of(field("rain"))
    if rain["kind"] is None:
        faults[f"rain{n}"] = f"choose one of {', '.join(RainKind)}"
    for name, key in (("rfrom", "from_h"), ("runtil", "until_h")):
        if field(name):
            rain[key] = _asked(partial(_hour, field(name)), f"{name}{n}", faults)
    if field("chance"):
        text = field("chance").removesuffix("%").strip()
        rain["chance_pct"] = _asked(partial(_percent, text), f"chance{n}", faults)
    return rain


def _hour(text: str) -> float:
    """'14', '14:30', '2 pm'."""
    found = re.fullmatch(r"(\d{1,2})(?:[:.](\d{2}))?\s*(am|pm)?", text.lower())
    hour = None if found is None else int(found[1]) % 12 + 12 * (found[3] == "pm") if found[3] else int(found[1])
    if found is None or hour is None or hour > 24 or int(found[2] or 0) > 59:
        raise ValueError(f"“{text[:20]}” is no time of the day; write it such as 14 or 14:30")
    return min(hour + int(found[2] or 0) / 60, 24.0)


def _percent(text: str) -> float:
    try:
        value = float(text.replace(",", "."))
    except ValueError:
        raise ValueError(f"“{text[:20]}” is no chance; write it such as 60") from None
    if not 0 <= value <= 100:
        raise ValueError("a chance lies between 0 and 100 %")
    return value


def form_of(forecast: TypedForecast | None, today: date, system: UnitSystem) -> dict[str, str]:
    """What was typed as the form shows it, from `today` on."""
    if forecast is None:
        return {"first": today.isoformat()}
    skip = max((today - forecast.first).days, 0)
    out = {"first": max(today, forecast.first).isoformat(), "by_the_sea": "on" if forecast.by_the_sea else ""}
    for n, day in enumerate(forecast.days[skip:]):
        wind = next((w.value for w in WindForce if w.figure == day.wind_ms), typed(Quantity.WIND, day.wind_ms, system))
        dew = "" if day.dew_c is None else typed(Quantity.TEMPERATURE, day.dew_c, system)
        out |= {
            f"low{n}": typed(Quantity.TEMPERATURE, day.low_c, system),
            f"high{n}": typed(Quantity.TEMPERATURE, day.high_c, system),
            f"moist{n}": dew or ("" if day.rh_pct is None else f"{day.rh_pct:g} %"),
            f"cloud{n}": next((c.value for c in Cloud if c.figure == day.cloud), f"{100 * day.cloud:g} %"),
            f"wind{n}": wind,
            f"from{n}": COMPASS[round(day.wind_from_deg / 45) % 8],
        }
        for rain in day.rain[:1]:
            out |= {f"rain{n}": rain.kind.value, f"chance{n}": f"{rain.chance_pct:g}"}
            out |= {f"rfrom{n}": f"{rain.from_h:g}", f"runtil{n}": f"{rain.until_h:g}"}
    return out
