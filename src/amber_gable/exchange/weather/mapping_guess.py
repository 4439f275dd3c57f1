"""A first guess at which column of a sample is what, by its name and its values; the user sets it right."""

import re
from typing import Any

from amber_gable.domain.weather.feed import UNITS, FeedUnit, TimeForm, WeatherQuantity
from amber_gable.exchange.weather.mapped import Sample

_TIME = re.compile(r"time|date|stamp|epoch|\bdt\b|start|when|hour")
# The first that fits holds; what tells of something near but other goes to nothing.
_KINDS: tuple[tuple[re.Pattern[str], WeatherQuantity | None], ...] = tuple(
    (re.compile(pattern), quantity)
    for pattern, quantity in (
        (
            r"feels|apparent|chill|index|min|max|pressure|uv|visib|battery|soil|indoor|\bid$|weather_?code|snow",
            None,
        ),
        (r"gust.*(dir|bearing)", None),
        (r"gust", WeatherQuantity.GUST),
        (r"dew", WeatherQuantity.DEW_POINT),
        (r"dir|bearing|wind_?from|wind.*deg", WeatherQuantity.WIND_FROM),
        (r"wind", WeatherQuantity.WIND),
        (r"prob|chance|\bpop\b|precip.*%", WeatherQuantity.RAIN_CHANCE),
        (r"rain|precip", WeatherQuantity.RAIN),
        (r"humid|\brh\b|_rh|rh_", WeatherQuantity.HUMIDITY),
        (r"cloud|sky", WeatherQuantity.CLOUD),
        (r"radiation|solar|irradiance|\bghi\b|sunshine", WeatherQuantity.SUN),
        (r"temp|\bair\b|air_", WeatherQuantity.AIR),
    )
)
_UNIT_WORDS = (
    (r"°?f\b|fahrenheit", "°F"), (r"kelvin", "K"), (r"km[/_]?h|kph", "km/h"), (r"mph|mi/h", "mph"),
    (r"knot|\bkn\b|\bkt", "kn"),
    (r"okta|eighth|/8", "eighths"), (r"\bin\b|inch", "in"),
)  # fmt: skip
SHARES = {WeatherQuantity.HUMIDITY: "0–1", WeatherQuantity.CLOUD: "0–1", WeatherQuantity.RAIN_CHANCE: "0–1"}


def guessed(sample: Sample) -> dict[str, tuple[WeatherQuantity, str] | TimeForm]:
    """Of each path that seems to be something, what: a quantity with its unit, or how the time is told. Of two of one
    quantity the first holds."""
    out: dict[str, tuple[WeatherQuantity, str] | TimeForm] = {}
    taken: set[WeatherQuantity] = set()
    timed = False
    for path, values in sample.columns.items():
        words = re.sub(r"[\[\]]", "", path).lower()
        last = words.rpartition(".")[2] if "." in words and " " not in words else words
        form = time_form(values)
        if form is not None and not timed and (_TIME.search(last) or form in (TimeForm.ISO, TimeForm.DAY_FIRST)):
            out[path], timed = form, True
            continue
        quantity = next((q for pattern, q in _KINDS if pattern.search(words)), None)
        if quantity is None or quantity in taken or not _any_figures(values, quantity):
            continue
        out[path] = (quantity, _unit(quantity, words, values))
        taken.add(quantity)
    return out


def time_form(values: list[Any]) -> TimeForm | None:
    """How moments are told by those values; None where they are none."""
    first = next((v for v in values if v not in (None, "")), None)
    if isinstance(first, int | float) and not isinstance(first, bool):
        return TimeForm.MILLISECONDS if first > 1e11 else TimeForm.SECONDS if first > 1e8 else None
    text = str(first or "")
    if re.match(r"\d{4}-\d{2}-\d{2}", text):
        return TimeForm.ISO
    if found := re.match(r"(\d{1,2})([/.-])(\d{1,2})\2\d{2,4}\s", text):
        days = [int(m[1]) for v in values if (m := re.match(r"(\d{1,2})", str(v)))]
        return TimeForm.DAY_FIRST if max(days, default=0) > 12 or found[2] == "." else TimeForm.MONTH_FIRST
    return TimeForm.SECONDS if re.fullmatch(r"1\d{9}", text) else None


def _any_figures(values: list[Any], quantity: WeatherQuantity) -> bool:
    return bool(_numbers(values)) or (
        quantity is WeatherQuantity.WIND_FROM and any(isinstance(v, str) and v for v in values)
    )


def _numbers(values: list[Any]) -> list[float]:
    out = []
    for value in values:
        try:
            out.append(float(str(value).replace(",", ".")))
        except ValueError:
            continue
    return out


def _unit(quantity: WeatherQuantity, words: str, values: list[Any]) -> str:
    known: tuple[FeedUnit, ...] = UNITS[quantity]
    symbols = [u.symbol for u in known]
    figures = _numbers(values)
    named = next((s for pattern, s in _UNIT_WORDS if s in symbols and re.search(pattern, words)), None)
    symbol = named or symbols[0]
    if named is None and quantity in (WeatherQuantity.AIR, WeatherQuantity.DEW_POINT) and min(figures, default=0) > 150:
        symbol = "K"
    if named is None and quantity in SHARES and "%" not in words and max(figures, default=100) <= 1:
        symbol = SHARES[quantity]
    absent = any(v is None or str(v).strip() == "" for v in values)
    if absent and f"{symbol}, absent: none" in symbols:
        return f"{symbol}, absent: none"
    if quantity is WeatherQuantity.RAIN and re.search("total|accum|count", words) and figures == sorted(figures):
        return f"{symbol}, running total"
    return symbol
