"""The commands that ask the weather of a file: `windows` and `outlook`."""

import argparse
import json
import sys
from collections.abc import Callable
from datetime import date, datetime
from pathlib import Path
from typing import Any

from amber_gable.domain.errors import InputError

Command = Callable[[str, Callable[[argparse.Namespace], None], str], argparse.ArgumentParser]
SCHOOLS = ("sun", "hold", "dew", "rain", "recoat")


def add_windows(command: Command) -> None:
    parser = command("windows", _windows, "when a coat can be laid on a face, from a weather file")
    _coat_on_a_face(parser)
    parser.add_argument("--azimuth", type=float, required=True, help="where the face looks, degrees from north")
    parser.add_argument("--moisture", type=float, help="wood moisture reading when the first day begins, %%")
    parser.add_argument("--members", type=int, help="futures to judge: adds probabilities")
    parser.add_argument("--seed", type=int, help="of the members; default: from the place and the issue")
    parser.add_argument("--events", action="store_true", help="what befalls each slot's film, when and how badly")
    parser.add_argument("--wash", action="append", default=[], metavar="TIME", help="washed then; may be repeated")
    parser.add_argument("--reading", action="append", default=[], metavar="TIME=PCT", help="the meter's; repeatable")
    parser.add_argument("--towel", action="append", default=[], metavar="TIME", help="wiped dry then; repeatable")
    parser.add_argument("--slot", type=int, choices=(15, 30), default=30, help="minutes of a slot")
    period(parser)


def add_outlook(command: Command) -> None:
    parser = command(
        "outlook", _outlook, "workable hours and coats by month, and the best weeks, from a year's weather"
    )
    _coat_on_a_face(parser)
    parser.add_argument("--azimuth", type=float, action="append", help="repeatable; default: the eight winds")
    parser.add_argument("--json", action="store_true")


def _coat_on_a_face(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--weather", type=Path, required=True, help="EPW, TMY3 CSV or plain CSV")
    parser.add_argument("--lat", type=float, help="degrees north; default: the file's own")
    parser.add_argument("--lon", type=float, help="degrees east; default: the file's own")
    parser.add_argument("--tilt", type=float, default=90.0, help="90 a wall, 0 a floor")
    parser.add_argument("--substrate", required=True, help="see: amber-gable list substrates")
    parser.add_argument("--colour", required=True, help="#rrggbb")
    parser.add_argument("--product", required=True, help="see: amber-gable list products")
    parser.add_argument("--method", required=True, help="see: amber-gable list methods")
    parser.add_argument("--exposure", default="open", help="open or sheltered")
    parser.add_argument("--terrain", default="suburb", help="land round it: open-water, farmland, suburb or town")
    parser.add_argument("--day-start", type=float, default=7.0, help="crew's day, local hours")
    parser.add_argument("--day-end", type=float, default=19.0)
    for topic in SCHOOLS:
        parser.add_argument(f"--{topic}-school", help=f"see docs/formats.md, schools of {topic}")


def period(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--start", required=True, help="first day, YYYY-MM-DD")
    parser.add_argument("--days", type=int, default=7)
    parser.add_argument("--json", action="store_true")


def start_of(options: argparse.Namespace) -> date:
    """The first day. Raises InputError."""
    try:
        start = date.fromisoformat(options.start)
    except ValueError:
        raise InputError("--start", f"'{options.start}' is not a date", "write YYYY-MM-DD") from None
    if not 1900 <= start.year <= 2200:
        raise InputError("--start", f"{start} is out of range", "use a year from 1900 to 2200")
    if not 1 <= options.days <= 366:
        raise InputError("--days", f"{options.days} is not from 1 to 366", "ask for a shorter stretch")
    return start


def weather_of(path: Path) -> Any:
    """The series of a weather file."""
    from amber_gable.core.weather.wall.compiled import go_without
    from amber_gable.exchange.files import read_text
    from amber_gable.exchange.weather.any_file import read_weather

    go_without()
    return read_weather(read_text(path), path.name)


def print_json(value: Any) -> None:
    json.dump(value, sys.stdout, ensure_ascii=False, allow_nan=False)
    sys.stdout.write("\n")


def _face(options: argparse.Namespace) -> dict[str, Any]:
    """What both commands ask about a face and its coat."""
    return {
        "latitude": options.lat,
        "longitude": options.lon,
        "tilt": options.tilt,
        "substrate": options.substrate,
        "colour": options.colour.lower(),
        "product": options.product,
        "method": options.method,
        "exposure": options.exposure,
        "terrain": options.terrain,
        "day_start": options.day_start,
        "day_end": options.day_end,
        "policy": {name: value for name in SCHOOLS if (value := getattr(options, f"{name}_school")) is not None},
    }


def _bearing(degrees: float) -> float:
    return degrees % 360 if -360 < degrees <= 360 else degrees


def _windows(options: argparse.Namespace) -> None:
    from amber_gable.services.weather.faces.face_windows import FaceQuestion, answer_windows

    question = FaceQuestion.model_validate(
        _face(options)
        | {
            "azimuth": _bearing(options.azimuth),
            "moisture_pct": options.moisture,
            "readings": [_reading(text) for text in options.reading],
            "washes": [_time(text, "--wash") for text in options.wash],
            "towels": [_time(text, "--towel") for text in options.towel],
            "members": options.members,
            "seed": options.seed,
            "events": options.events,
            "slot_min": options.slot,
            "start": start_of(options),
            "days": options.days,
        }
    )
    answer = answer_windows(question, weather_of(options.weather))
    if options.json:
        print_json(answer)
        return
    for day in answer["days"]:
        span = ", ".join(f"{begin[11:16]} to {end[11:16]}" for begin, end in day["stretches"]) or "-"
        print(f"{day['date']}  {day['workable_h']:4.1f} h  {span}{_chance(answer['slots'], day['date'])}")
    print(f"workable: {answer['workable_h']:.1f} h")
    for note in answer["notes"]:
        print(f"note: {note}")


def _chance(slots: list[dict[str, Any]], day: str) -> str:
    """The best chance of the day, where members were judged."""
    mine = [s for s in slots if s["start"].startswith(day) and "probability" in s]
    if not mine:
        return ""
    best = max(mine, key=lambda s: s["probability"])
    return f"  best {best['start'][11:16]}: {100 * best['probability']:.0f} %"


def _time(text: str, flag: str) -> datetime:
    try:
        return datetime.fromisoformat(text)
    except ValueError:
        raise InputError(flag, f"'{text}' is not a local time", "write it like 2025-06-09T08:00") from None


def _reading(text: str) -> dict[str, Any]:
    at, equals, pct = text.rpartition("=")
    try:
        value = float(pct)
    except ValueError:
        equals = ""
    if not equals:
        raise InputError("--reading", f"'{text}' is not TIME=PCT", "write it like 2025-06-09T08:00=14.5")
    if not 0 <= value <= 100:
        raise InputError("--reading", f"{value:g} % is no meter's reading", "give 0 to 100 %")
    return {"at": _time(at, "--reading"), "pct": value}


def _outlook(options: argparse.Namespace) -> None:
    from amber_gable.services.weather.told.year_outlook import EIGHT_WINDS, YearQuestion, answer_outlook

    azimuths = [_bearing(a) for a in options.azimuth] if options.azimuth else list(EIGHT_WINDS)
    question = YearQuestion.model_validate(_face(options) | {"azimuths": azimuths})
    answer = answer_outlook(question, weather_of(options.weather))
    if options.json:
        print_json(answer)
        return
    for face in answer["faces"]:
        months = "  ".join(f"{m['month']:2d}: {m['workable_h']:4.0f} h {m['coats']:2d}" for m in face["months"])
        print(f"{face['azimuth_deg']:5.1f}°  {face['workable_h']:6.0f} h   {months}")
        best = ", ".join(f"{w['from']} to {w['to']} ({w['workable_h']:.0f} h)" for w in face["best_weeks"])
        print(f"        best weeks: {best or '-'}")
    for note in answer["notes"]:
        print(f"note: {note}")
