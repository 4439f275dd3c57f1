"""The plain weather CSV and the forecast JSON that is read the same way."""

from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

import numpy as np
import pytest

from amber_gable.domain.errors import InputError
from amber_gable.domain.weather.labelled_zone import LabelledZone
from amber_gable.exchange.files import decode
from amber_gable.exchange.sizes import SIZE_LIMIT
from amber_gable.exchange.weather.any_file import read_weather
from amber_gable.services.weather.faces.face_windows import FaceQuestion, answer_windows

HEADER = "time,air_c,rh_pct,wind_m_s,wind_from_deg,cloud_pct,rain_mm"


def plain(rows: int = 72, header: str = HEADER, values: str = "15,70,2,180,40,0") -> str:
    begin = datetime.fromisoformat("2026-09-14T00:00-03:00")
    lines = [f"{(begin + timedelta(hours=h)).isoformat()},{values}" for h in range(rows)]
    return "\n".join(["# latitude: 45.25", "# longitude: -62.1", header, *lines]) + "\n"


def test_a_plain_file_is_read_with_place_and_units() -> None:
    series = read_weather(plain(), "week.csv")
    assert (series.latitude, series.longitude, series.utc_offset_h) == (45.25, -62.1, -3.0)
    assert series.start_time == datetime(2026, 9, 14, 3, tzinfo=UTC)
    assert series.cloud is not None
    assert series.cloud[0] == 0.4


@pytest.mark.parametrize(("zone", "offset"), [("+05:30", 5.5), ("-03:30", -3.5), ("+05:45", 5.75)])
def test_zones_off_the_full_hour_are_read_and_judged_by_their_own_clock(zone: str, offset: float) -> None:
    """Where noon is noon: the same air on the same wall gives the same hours, whatever the zone is called."""
    series = read_weather(plain(rows=120).replace("-03:00", zone), "week.csv")
    assert series.utc_offset_h == offset
    assert series.start_time == datetime(2026, 9, 14, tzinfo=UTC) - timedelta(hours=offset)
    question = {
        "latitude": 20.0, "longitude": 15 * offset, "azimuth": 0.0, "substrate": "wood-lap", "colour": "#b5ad9c",
        "product": "exterior-acrylic-standard", "method": "brush", "start": "2026-09-15", "days": 1,
    }  # fmt: skip
    answer = answer_windows(FaceQuestion.model_validate(question), series)
    first = next(s for s in answer["slots"] if s["ok"])
    assert answer["slots"][0]["start"].startswith("2026-09-15T00:")
    assert first["start"][11:13] in ("07", "08") and 6 < answer["workable_h"] < 12


def test_a_file_whose_offset_changes_inside_is_judged_by_its_own_labels() -> None:
    """Clocks go back on 1 November at 02:00: the crew's day is that of the clock on the wall before and after."""
    halifax = ZoneInfo("America/Halifax")
    begin = datetime(2026, 10, 30, tzinfo=halifax).astimezone(UTC)
    times = [(begin + timedelta(hours=h)).astimezone(halifax).isoformat() for h in range(24 * 8)]
    text = "\n".join([HEADER, *(f"{t},15,70,2,180,40,0" for t in times)])
    series = read_weather(text, "autumn.csv")
    assert series.offset_changes == ((int(datetime(2026, 11, 1, 5, tzinfo=UTC).timestamp()), -4.0),)
    question = {
        "latitude": 45.25, "longitude": -62.1, "azimuth": 0.0, "substrate": "wood-lap", "colour": "#b5ad9c",
        "product": "exterior-acrylic-standard", "method": "brush", "start": "2026-10-31", "days": 3, "day_start": 10,
    }  # fmt: skip
    answer = answer_windows(FaceQuestion.model_validate(question), series)
    first: dict[str, str] = {}
    for slot in answer["slots"]:
        if slot["ok"]:
            first.setdefault(slot["start"][:10], slot["start"][10:])
    assert first == {"2026-10-31": "T10:00:00-03:00", "2026-11-01": "T10:00:00-04:00", "2026-11-02": "T10:00:00-04:00"}
    assert sum(slot["start"].startswith("2026-11-01") for slot in answer["slots"]) == 25 * 2, (
        "a day of 25 hours, in halves"
    )


def test_the_clock_of_labels_is_that_of_the_zone_they_were_written_in() -> None:
    halifax = ZoneInfo("America/Halifax")
    moved = {datetime(2026, 3, 8, 6, tzinfo=UTC): -3.0, datetime(2026, 11, 1, 5, tzinfo=UTC): -4.0}
    labels = LabelledZone(-4.0, tuple((int(at.timestamp()), h) for at, h in moved.items()))
    for day in (datetime(2026, 1, 1, tzinfo=UTC), *moved, datetime(2026, 12, 1, tzinfo=UTC)):
        for quarter in range(-96, 96):
            at = day + timedelta(minutes=15 * quarter)
            zoned, told = at.astimezone(halifax), at.astimezone(labels)
            assert (zoned.replace(tzinfo=None), zoned.fold) == (told.replace(tzinfo=None), told.fold)
            assert told.timestamp() == at.timestamp()


def test_us_units_and_dew_point_are_understood() -> None:
    text = plain(header="time,air_f,dew_point_c,wind_mph,wind_from_deg,cloud_pct,rain_in", values="59,10,10,180,40,0.1")
    series = read_weather(text, "us.csv")
    assert series.air_c[0] == pytest.approx(15.0)
    assert series.wind_ms[0] == pytest.approx(4.4704)
    assert series.rain_mm is not None
    assert series.rain_mm[0] == pytest.approx(2.54)
    assert series.rh_pct[0] == pytest.approx(72, abs=0.5)


def test_gusts_are_read_in_three_units_and_blanks_of_gusts_and_rain_are_unknown() -> None:
    text = plain(header=HEADER + ",gust_km_h", values="15,70,2,180,40,0,36")
    text = text.replace("15,70,2,180,40,0,36", "15,70,2,180,40,,", 1)
    series = read_weather(text, "gusts.csv")
    assert series.gust_ms is not None and series.rain_mm is not None
    assert np.isnan([series.gust_ms[0], series.rain_mm[0]]).all()
    assert series.gust_ms[1] == pytest.approx(10.0) and series.rain_mm[1] == 0.0
    with pytest.raises(InputError, match=r"line 5.*gusts 200 m/s is outside 0 to 150"):
        read_weather(
            plain(header=HEADER + ",gust_m_s", values="15,70,2,180,40,0,200").replace(",200", ",9", 1), "x.csv"
        )


def test_a_file_without_rain_says_so() -> None:
    text = plain(header="time,air_c,rh_pct,wind_m_s,wind_from_deg,cloud_pct", values="15,70,2,180,40")
    assert "no rain" in read_weather(text, "dry.csv").notes[0]


BROKEN: list[tuple[str, str, list[str]]] = [
    (
        "missing column",
        plain(header=HEADER.replace("rh_pct", "rain_probability_pct")),
        ["line 3", "'rh_pct' is missing"],
    ),
    (
        "no cloud and no sun",
        plain(header=HEADER.replace("cloud_pct", "rain_probability_pct")),
        ["'cloud_pct' is missing"],
    ),
    ("unknown column", plain(header=HEADER.replace("air_c", "temperature")), ["'temperature' is not known", "air_c"]),
    ("humidity of 140", plain(values="15,140,2,180,40,0"), ["line 4", "relative humidity 140", "0 to 100"]),
    ("not a number", plain(values="15,70,calm,180,40,0"), ["line 4, wind_m_s", "'calm' is not a number"]),
    ("nan", plain(values="nan,70,2,180,40,0"), ["'nan' is not a number"]),
    ("a short line", plain() + "2026-09-17T00:00-03:00,15\n", ["line 76", "2 fields instead of 7"]),
    ("an hour twice", plain() + "2026-09-16T23:00-03:00,15,70,2,180,40,0\n", ["line 76", "does not follow"]),
    ("no offset", plain().replace("-03:00", ""), ["offset from UTC is missing", "2026-09-14T06:00-03:00"]),
    ("no time", plain(header=HEADER.replace("time", "hour")), ["'time' is missing"]),
    ("half hours", plain().replace(":00:00-", ":30:00-"), ["full hour"]),
    ("no hours", HEADER + "\n", ["no hours"]),
    ("nothing", "", ["is empty"]),
]


@pytest.mark.parametrize(("text", "words"), [b[1:] for b in BROKEN], ids=[b[0] for b in BROKEN])
def test_a_broken_file_is_refused_with_line_and_column(text: str, words: list[str]) -> None:
    with pytest.raises(InputError) as refused:
        read_weather(text, "week.csv")
    assert str(refused.value).startswith("week.csv")
    for word in words:
        assert word in str(refused.value)


@pytest.mark.parametrize(
    ("data", "words"), [(b"\x00\x01", "not a text file"), (b"a" * (SIZE_LIMIT + 1), "larger than 10 MB")]
)
def test_bytes_that_cannot_be_a_weather_file_are_refused(data: bytes, words: str) -> None:
    with pytest.raises(InputError, match=words):
        decode(data, "upload.csv")
