"""A forecast typed in for a property: read from a form, kept with what was typed, used as hours."""

import re
from collections.abc import Mapping
from datetime import date, timedelta
from typing import Annotated, Any

from pydantic import Field, ValidationError

from amber_gable.core.weather.outdoors.diurnal import typed_hours
from amber_gable.domain.errors import InputError, Refused, by_field
from amber_gable.domain.house.survey import Property
from amber_gable.domain.units import Quantity, UnitSystem, read, typed
from amber_gable.domain.weather.typed_forecast import MOST_DAYS, Cloud, RainKind, TypedDay, TypedForecast, WindForce
from amber_gable.exchange.weather.pasted_hours import read_pasted
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form, Reads
from amber_gable.services.forms.types import TimeOfDay, amount, day, number, number_from
from amber_gable.store.weather.series import drop_series, given_of, save_series
from amber_gable.store.weather.versions import keep_version

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


def _begin(text: str, today: date) -> date:
    """Raises ValueError."""
    first = day(text)
    if not today - timedelta(days=1) <= first <= today + timedelta(days=MOST_DAYS):
        raise ValueError(f"a forecast begins today or soon, not on {first.isoformat()}")
    return first


def _moist(text: str, system: UnitSystem) -> dict[str, float | None]:
    """'65 %' is humidity, a temperature the dew point. Raises ValueError."""
    if not text.endswith("%"):
        return {"dew_c": read(Quantity.TEMPERATURE, text, system), "rh_pct": None}
    try:
        return {"rh_pct": number(text[:-1]), "dew_c": None}
    except ValueError:
        raise ValueError(f"“{text[:20]}” is no humidity; write it such as 65 %") from None


def _cloud(text: str, _: UnitSystem) -> float:
    """Raises ValueError."""
    said = Cloud.of(text.lower())
    if said is not None:
        return said.figure
    found = _FIGURE.fullmatch(text)
    if found is None or found[2] not in ("", "%") or number(found[1]) > 100:
        raise ValueError(f"“{text[:20]}” says nothing of the sky; write {', '.join(Cloud)}, or 0 to 100 %")
    return number(found[1]) / 100


def _wind(text: str, system: UnitSystem) -> float:
    """m/s. Raises ValueError."""
    said = WindForce.of(text.lower())
    if said is not None:
        return said.figure
    found = _FIGURE.fullmatch(text)
    unit = (found[2].lower() if found else "") or ("mph" if system is UnitSystem.US else "m/s")
    if found is None or unit not in _WIND_UNITS:
        raise ValueError(f"“{text[:20]}” is no wind; write {', '.join(WindForce)}, or 5 m/s, 20 km/h, 12 mph, 10 kn")
    return number(found[1]) * _WIND_UNITS[unit]


def _rain(text: str, _: UnitSystem) -> RainKind:
    """Raises ValueError."""
    kind = RainKind.of(text)
    if kind is None:
        raise ValueError(f"choose one of {', '.join(RainKind)}")
    return kind


class DayForm(Form):
    """One day as it was told; what is left out is as the day before."""

    low: Annotated[float, amount(Quantity.TEMPERATURE)] | None = None
    high: Annotated[float, amount(Quantity.TEMPERATURE)] | None = None
    moist: Annotated[dict[str, float | None], Reads(_moist)] = Field(default_factory=dict)
    cloud: Annotated[float, Reads(_cloud)] | None = None
    wind: Annotated[float, Reads(_wind)] | None = None
    wind_from: str = Field("", alias="from")
    rain: Annotated[RainKind, Reads(_rain)] | None = None
    rfrom: TimeOfDay | None = None
    runtil: TimeOfDay | None = None
    chance: Annotated[float, number_from(0, 100, "a chance between 0 and 100 %")] | None = None

    def figures(self) -> dict[str, Any]:
        """What is told, by the names of the record."""
        told: dict[str, Any] = {"low_c": self.low, "high_c": self.high, "cloud": self.cloud, "wind_ms": self.wind}
        if self.wind_from in COMPASS:
            told["wind_from_deg"] = 45.0 * COMPASS.index(self.wind_from)
        if self.rain is not None:
            rain = {"kind": self.rain, "from_h": self.rfrom, "until_h": self.runtil, "chance_pct": self.chance}
            told["rain"] = [{k: v for k, v in rain.items() if v is not None}]
        return {k: v for k, v in told.items() if v is not None} | self.moist


_FIELDS = {
    "low_c": "low", "high_c": "high", "dew_c": "moist", "rh_pct": "moist", "wind_ms": "wind", "from_h": "rfrom",
    "until_h": "runtil", "chance_pct": "chance",
}  # fmt: skip


def _read(form: Mapping[str, str], today: date, system: UnitSystem) -> TypedForecast:
    """Days up to the last with a low or a high; of one left empty between others all is as the day before, and so is
    whatever is not said of a day. Raises Refused with all that is wrong, by field."""
    try:
        first = _begin(form.get("first", "") or today.isoformat(), today)
    except ValueError as error:
        raise Refused({"first": str(error)}) from None
    said = [n for n in range(MOST_DAYS) if form.get(f"low{n}", "").strip() or form.get(f"high{n}", "").strip()]
    if not said:
        raise Refused({"low0": "write the day’s low and high"})
    days: list[TypedDay] = []
    faults = {f"{k}0": f"write the day’s {k}" for k in ("low", "high") if not form.get(f"{k}0", "").strip()}
    for n in range(said[-1] + 1):
        try:
            typed = DayForm.read(form, system, after=str(n))
            # What a day takes over of one that is at fault is said there.
            if len(days) == n and not faults:
                days.append(_day(typed, n, days[-1] if days else None))
        except Refused as error:
            faults |= error.fields
    if faults:
        raise Refused(faults)
    return TypedForecast(first=first, days=tuple(days), by_the_sea=bool(form.get("by_the_sea")))


def _day(typed: DayForm, n: int, before: TypedDay | None) -> TypedDay:
    """Raises Refused by field."""
    held = {} if before is None else before.model_dump(exclude={"rain"})
    try:
        return TypedDay.model_validate(held | typed.figures())
    except ValidationError as error:
        faults = {
            f"{_FIELDS.get(k, 'rain' if 'rain' in words else 'high')}{n}": words for k, words in by_field(error).items()
        }
        raise Refused(faults) from None


def form_of(forecast: TypedForecast | None, today: date, system: UnitSystem) -> dict[str, str]:
    """What was typed as the form shows it, from `today` on."""
    if forecast is None:
        return {"first": today.isoformat()}
    skip = max((today - forecast.first).days, 0)
    out = {"first": max(today, forecast.first).isoformat(), "by_the_sea": "on" if forecast.by_the_sea else ""}
    for n, told in enumerate(forecast.days[skip:]):
        wind = next(
            (w.value for w in WindForce if w.figure == told.wind_ms), typed(Quantity.WIND, told.wind_ms, system)
        )
        dew = "" if told.dew_c is None else typed(Quantity.TEMPERATURE, told.dew_c, system)
        out |= {
            f"low{n}": typed(Quantity.TEMPERATURE, told.low_c, system),
            f"high{n}": typed(Quantity.TEMPERATURE, told.high_c, system),
            f"moist{n}": dew or ("" if told.rh_pct is None else f"{told.rh_pct:g} %"),
            f"cloud{n}": next((c.value for c in Cloud if c.figure == told.cloud), f"{100 * told.cloud:g} %"),
            f"wind{n}": wind,
            f"from{n}": COMPASS[round(told.wind_from_deg / 45) % 8],
        }
        for rain in told.rain[:1]:
            out |= {f"rain{n}": rain.kind.value, f"chance{n}": f"{rain.chance_pct:g}"}
            out |= {f"rfrom{n}": f"{rain.from_h:g}", f"runtil{n}": f"{rain.until_h:g}"}
    return out
