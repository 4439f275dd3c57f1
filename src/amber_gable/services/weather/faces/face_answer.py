"""The answer to the one-face question as JSON: slots, days, and what was reckoned on the way."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from amber_gable.core.weather.film.film_events import FilmEvent, film_events
from amber_gable.core.weather.film.limits import Limit
from amber_gable.core.weather.futures.members import RULE_IDS, Odds
from amber_gable.core.weather.judged.rules import RULES
from amber_gable.core.weather.judged.slots import Slots
from amber_gable.core.weather.judged.windows import SlotReadings, Windows, slot_readings
from amber_gable.core.weather.wall.slot_climate import SurfaceClimate
from amber_gable.core.weather.wall.substrate_moisture import Moisture
from amber_gable.domain.paint.product import Product


@dataclass(frozen=True)
class Reckoned:
    """All that was computed. `odds` where members were asked for, `moisture` where the substrate holds water."""

    surface: SurfaceClimate
    windows: Windows
    moisture: Moisture | None
    limits: Mapping[str, Limit]
    product: Product
    odds: Odds | None
    events: bool

    def with_odds(self, odds: Odds) -> "Reckoned":
        return replace(self, odds=odds)

    @property
    def slots(self) -> Slots:
        return self.windows.slots


def answer(made: Reckoned, notes: Iterable[str]) -> dict[str, Any]:
    """docs/formats.md, `windows --json`."""
    readings = slot_readings(made.surface.climate, made.slots)
    days: list[dict[str, Any]] = [
        {
            "date": d.date,
            "workable_h": d.workable_h,
            "first": d.first and d.first.isoformat(),
            "last_stroke": d.last_stroke and d.last_stroke.isoformat(),
            "stretches": [[begin.isoformat(), end.isoformat()] for begin, end in d.stretches],
        }
        for d in made.windows.days(0)
    ]
    out = {
        "slots": [_slot(made, readings, i) for i in range(len(made.slots))],
        "days": days,
        "workable_h": sum(d["workable_h"] for d in days),
        "notes": list(notes),
    }
    if made.moisture is not None:
        out["moisture"] = _tuning(made.moisture, made.limits["moisture"], made.slots)
    return out


def _slot(made: Reckoned, readings: SlotReadings, i: int) -> dict[str, Any]:
    windows, slots = made.windows, made.slots
    assert windows.touch_at is not None and windows.rain_ready_at is not None
    slot: dict[str, Any] = {
        "start": slots.time(i).isoformat(),
        "ok": bool(windows.ok[0, i]),
        "stops": windows.letters(0, i),
        "air_c": round(float(readings.air[0, i]), 2),
        "rh_pct": round(float(readings.rh[0, i]), 1),
        "dew_point_c": round(float(readings.dew[0, i]), 2),
        "surface_c": round(float(readings.surface[0, i]), 2),
        "spread_c": round(float(readings.dew_margin[0, i]), 2),
        "sun_w_m2": round(float(readings.poa_direct[0, i]), 1),
        "film_g_m2": round(float(readings.water_film[0, i]), 2),
        "touch_at": _iso(float(windows.touch_at[0, i]), slots),
        "rain_ready_at": _iso(float(windows.rain_ready_at[0, i]), slots),
    }
    if made.moisture is not None:
        here = slice(int(slots.first[i]), int(slots.end[i]))
        wettest = int(np.argmax(made.moisture.pct[0, here]))
        pct, half = (float(a[0, here][wettest]) for a in (made.moisture.pct, made.moisture.half_band))
        slot["moisture_pct"] = round(pct, 1)
        slot["moisture_band_pct"] = [round(max(pct - half, 0.0), 1), round(pct + half, 1)]
    if made.odds is not None:
        slot |= _odds(made.odds, slots, i)
    if made.events:
        rates = made.surface.drying(made.product)
        laid = film_events(made.surface.climate, made.product, rates, made.limits, int(slots.end[i]))
        slot["events"] = [_event(e, slots) for e in laid]
    return slot


def _odds(odds: Odds, slots: Slots, i: int) -> dict[str, Any]:
    """The probability, what stops most members, and each stage's time in 10, 50 and 90 of 100."""
    binds = int(odds.binds[i])
    rule = RULES[RULE_IDS[binds]] if binds >= 0 else None
    stages = {"touch_at": odds.touch_at, "rain_ready_at": odds.rain_ready_at, "recoat_at": odds.recoat_at}
    quantiles = {
        name: {p: _iso(float(at[n, i]), slots) for n, p in enumerate(("p10", "p50", "p90"))}
        for name, at in stages.items()
        if at is not None
    }
    return {
        "probability": round(float(odds.share[i]), 3),
        "binding": rule and rule.id,
        "binding_share": round(float(odds.stopped[i]), 3),
        **quantiles,
    }


def _event(event: FilmEvent, slots: Slots) -> dict[str, Any]:
    return {
        "event": event.kind,
        "at": _iso(event.at, slots),
        "until": _iso(event.until, slots),
        "value": round(event.value, 2),
        "unit": event.unit,
        "severity": event.severity.value,
        "film_share": round(event.share, 2),
        "words": event.words,
    }


def _tuning(moisture: Moisture, limit: Limit, slots: Slots) -> dict[str, Any]:
    """What limits it, what the readings made of its time constant, and how good the predictions of them were."""
    return {
        "limit_pct": limit.value,
        "limit_from": limit.source,
        "time_factor": round(moisture.factor, 2),
        "checks": [
            {"at": _iso(at, slots), "predicted_pct": round(said, 1), "read_pct": read}
            for at, said, read in moisture.misses
        ],
    }


def _iso(seconds: float, slots: Slots) -> str | None:
    at = slots.moment(seconds)
    return None if at is None else at.isoformat()
