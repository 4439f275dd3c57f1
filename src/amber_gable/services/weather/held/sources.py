"""Feeds and loggers: what a sample holds, how it is mapped, what was understood of it, and which feed is in use."""

import json
import re
import secrets
from collections.abc import Mapping as Form
from dataclasses import dataclass
from datetime import datetime, tzinfo
from typing import Any, Literal
from urllib.parse import urlsplit
from zoneinfo import ZoneInfo

from pydantic import TypeAdapter, ValidationError
from sqlalchemy import select

from amber_gable.domain.errors import InputError, NotFound, Refused, first_words
from amber_gable.domain.weather.feed import Feed, Logger, Source, TimeForm, address_fault
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.exchange.files import decode
from amber_gable.exchange.weather.forecast import ForecastProvider
from amber_gable.exchange.weather.http_answer import NoAnswer
from amber_gable.exchange.weather.mapped import Sample, forecast_of, observed_of, read_rows, sample_of
from amber_gable.exchange.weather.mapped_feed import MappedForecast, ask_feed
from amber_gable.exchange.weather.mapping_guess import guessed
from amber_gable.services.company.samples import is_sample_place
from amber_gable.services.context import Context
from amber_gable.services.forms.types import whole
from amber_gable.services.weather.held.made_up import MadeUpWeather
from amber_gable.store.changes import SOURCES
from amber_gable.store.tables import PropertyRow
from amber_gable.store.transaction import Transaction
from amber_gable.store.weather.sources import (
    KeptSource,
    drop_source,
    feed_in_use,
    find_source,
    list_sources,
    save_source,
    use_feed,
)

MOST_SAMPLES = 8
Kind = Literal["feed", "logger"]
_MANY: TypeAdapter[list[Source]] = TypeAdapter(list[Source])


@dataclass(frozen=True)
class HousePlace:
    """Where a house of the company stands."""

    id: str
    name: str
    latitude: float
    longitude: float
    tz: tzinfo


def places(ctx: Context) -> list[HousePlace]:
    """In the order in which they were surveyed."""
    with ctx.reading() as session:
        rows = session.scalars(select(PropertyRow).order_by(PropertyRow.created_at, PropertyRow.name))
        return [HousePlace(r.id, r.name, r.latitude, r.longitude, ZoneInfo(r.time_zone)) for r in rows]


@dataclass(frozen=True)
class Draft:
    """A mapping being made: `token` of its sample ('' where there is none at hand), `uses` what each column of it is
    taken for (as in the form)."""

    kind: Kind
    token: str
    form: Literal["json", "csv"]
    name: str
    address: str
    zone: str
    sample: Sample
    uses: dict[str, str]
    id: str = ""


@dataclass(frozen=True)
class Understood:
    """What a mapping makes of its sample, or why it makes nothing: `fault`."""

    series: WeatherSeries | None
    fault: str


def provider_of(ctx: Context, property_id: str = "") -> ForecastProvider | None:
    """Who is asked for forecasts: the feed chosen in Settings, else the service of the environment. For a sample's
    house nobody is asked: its weather is made up."""
    if is_sample_place(ctx, property_id):
        return MadeUpWeather()
    with ctx.reading() as session:
        feed = session.kept.get(session, ("feed", "in use"), (SOURCES,), lambda: (_feed_in_use(session),))[0]
    return feed or ctx.space.provider


def _feed_in_use(session: Transaction) -> ForecastProvider | None:
    feed = feed_in_use(session)
    return None if feed is None else MappedForecast(feed)


def kept_sources(ctx: Context) -> list[KeptSource]:
    with ctx.reading() as session:
        return list_sources(session)


def _changed(ctx: Context) -> None:
    """What was asked of the provider before says nothing of the one now."""
    ctx.space.switched = True
    ctx.space.asked.clear()


def choose_feed(ctx: Context, source_id: str | None) -> None:
    """Forecasts come from that feed from now on; None: from the service of the environment, or from none."""
    with ctx.writing() as session:
        if source_id is not None and find_source(session, source_id) is None:
            raise NotFound("feed", source_id)
        use_feed(session, source_id)
    _changed(ctx)


def forget_source(ctx: Context, source_id: str) -> None:
    with ctx.writing() as session:
        drop_source(session, source_id)
    _changed(ctx)


def take_sample(ctx: Context, kind: Kind, text: str) -> str:
    """Keep a sample until its mapping is made; returns its token."""
    return hold_sample(ctx, f"{kind}-{secrets.token_hex(6)}", text)


def hold_sample(ctx: Context, token: str, text: str) -> str:
    """Keep a text in memory until it is decided on, the oldest making room; returns its token."""
    while len(ctx.space.samples) >= MOST_SAMPLES:
        ctx.space.samples.pop(next(iter(ctx.space.samples)))
    ctx.space.samples[token] = text
    return token


def take_file(ctx: Context, data: bytes, name: str) -> str:
    """What a logger wrote; returns its token. Raises InputError."""
    return take_sample(ctx, "logger", decode(data, name))


def fetch_sample(ctx: Context, address: str, place: HousePlace | None) -> str:
    """Ask the address once; returns the token of what it answered. Raises Refused."""
    address = address.strip()
    if fault := address_fault(address):
        raise Refused({"address": f"“{address[:60]}” {fault}"})
    try:
        answer = ask_feed(address, *((0.0, 0.0) if place is None else (place.latitude, place.longitude)))
        return take_sample(ctx, "feed", decode(answer.body, "the answer"))
    except NoAnswer as error:
        raise Refused({"address": f"it {error}"}) from None
    except InputError as error:
        raise Refused({"address": str(error)}) from None


def draft_of(ctx: Context, token: str, address: str = "", header: int | None = None, name: str = "") -> Draft:
    """A first mapping of a sample, guessed. Raises NotFound where it is gone, InputError where it holds nothing."""
    text = ctx.space.samples.get(token)
    if text is None:
        raise NotFound("sample", token)
    kind: Kind = "logger" if token.startswith("logger") else "feed"
    form: Literal["json", "csv"] = "json" if text.lstrip()[:1] in "{[" else "csv"
    sample = sample_of(text, form, "the sample", header)
    uses = {p: g.value if isinstance(g, TimeForm) else f"{g[0].value}|{g[1]}" for p, g in guessed(sample).items()}
    return Draft(kind, token, form, name or urlsplit(address).hostname or "", address, "place", sample, uses)


def draft_again(ctx: Context, source_id: str) -> Draft:
    """A kept source to be mapped anew: its columns as they are mapped, and those of its last sample if it is held."""
    with ctx.reading() as session:
        kept = find_source(session, source_id)
    if kept is None:
        raise NotFound("weather source", source_id)
    source, mapping = kept.source, kept.source.mapping
    uses = {mapping.time: mapping.time_form.value} | {c.path: f"{c.quantity.value}|{c.unit}" for c in mapping.columns}
    sample = Sample({path: [] for path in uses}, mapping.header)
    address = source.address if isinstance(source, Feed) else ""
    return Draft(source.kind, "", mapping.kind, source.name, address, mapping.zone, sample, uses, source.id)


def source_from(form: Form[str, str]) -> Source:
    """The feed or logger that a form tells of: `path-N` and `use-N` for each column. Raises Refused."""
    columns, time = [], None
    for key, use in form.items():
        at = key.removeprefix("use-")
        if at == key or not use:
            continue
        path = form.get(f"path-{at}", "")
        if use in set(TimeForm):
            if time is not None:
                raise Refused({"": "two columns are taken for the time: leave one out"})
            time = (path, use)
        else:
            quantity, _, unit = use.partition("|")
            columns.append({"path": path, "quantity": quantity, "unit": unit})
    if time is None:
        raise Refused({"": "no column is the time"})
    name = form.get("name", "").strip()
    header = form.get("header", "1")
    body: dict[str, Any] = {
        "kind": "logger" if form.get("kind") == "logger" else "feed",
        "id": form.get("id") or re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:48] or "source",
        "name": name,
        "mapping": {
            "kind": "csv" if form.get("written") == "csv" else "json",
            "time": time[0],
            "time_form": time[1],
            "zone": form.get("zone", "").strip() or "place",
            "header": whole(header, 0),
            "columns": columns,
        },
    }
    if body["kind"] == "feed":
        body["address"] = form.get("address", "").strip()
    try:
        return (Feed if body["kind"] == "feed" else Logger).model_validate(body)
    except ValidationError as error:
        where, words = first_words(error)
        field = where.rpartition(".")[2]
        raise Refused({field if field in ("name", "address", "zone") else "": words}) from None


def understood(text: str, source: Source, tz: tzinfo, now: datetime) -> Understood:
    """A sample read by a mapping, as it would be when it is used."""
    try:
        rows = read_rows(text, source.mapping, "the sample", tz)
        if isinstance(source, Logger):
            return Understood(observed_of(rows, source.name), "")
        return Understood(forecast_of(rows, tz, now.astimezone(tz), source.name), "")
    except InputError as error:
        return Understood(None, str(error))


def keep_source(ctx: Context, form: Form[str, str]) -> Source:
    """Raises Refused: also where another source has that name already."""
    source = source_from(form)
    with ctx.writing() as session:
        before = find_source(session, source.id)
        if before is not None and form.get("id") != source.id:
            raise Refused({"name": f"there is a source named “{before.source.name}” already"})
        save_source(session, source)
    _changed(ctx)
    return source


def sources_json(ctx: Context) -> str:
    """All of them, to be taken to another copy of the program."""
    return json.dumps([k.source.model_dump(mode="json") for k in kept_sources(ctx)], indent=2, ensure_ascii=False)


def bring_sources(ctx: Context, data: bytes, name: str) -> int:
    """Take sources out of a file: whole or not at all; one of an id that is here takes its place. Raises InputError."""
    try:
        found = _MANY.validate_json(decode(data, name))
    except ValidationError as error:
        where, words = first_words(error)
        raise InputError(f"{name}, {where}" if where else name, words, "bring what Settings took out") from None
    with ctx.writing() as session:
        for source in found:
            save_source(session, source)
    _changed(ctx)
    return len(found)
