"""Tables of hours as they are pasted: told by their headings, in whatever units and form, or refused with the line."""

from datetime import date, datetime
from zoneinfo import ZoneInfo

import numpy as np
import pytest

from amber_gable.domain.errors import InputError
from amber_gable.exchange.weather.pasted_hours import read_pasted

ZONE = ZoneInfo("America/Halifax")
DAY, NOW = date(2026, 9, 15), datetime(2026, 9, 15, 10, tzinfo=ZONE)
SEMICOLONS = """Time;Temp °C;Humidity %;Wind km/h;Gusts;Dir;Cloud %;Rain mm;Chance %
22:00;12,5;90;18;30;SW;40;0;5
23:00;12;92;18;30;SW;60;0.4;60
00:00;11;95;9;20;W;80;–;"""
TABS = "When\tTemperature (°F)\tDew point (°F)\tWind mph\tFrom\tSky (okta)\n" + "\n".join(
    f"2026-09-15 {h:02d}:00\t{50 + h}\t45\t10\t180\t4" for h in (6, 9, 12, 15)
)
BLANKS = "date        air   rh   precip in\n15.09.2026 14:00   20   50   0.1\n15.09.2026 15:00   21   48   0\n"


def test_semicolons_commas_compass_points_and_midnight() -> None:
    series = read_pasted(SEMICOLONS, DAY, ZONE, NOW)
    assert len(series) == 3 and series.start == int(datetime(2026, 9, 15, 22, tzinfo=ZONE).timestamp())
    assert series.air_c.tolist() == [12.5, 12, 11]
    assert series.wind_ms.tolist() == pytest.approx([5, 5, 2.5])
    assert series.wind_from_deg.tolist() == pytest.approx([225, 225, 270])
    assert series.rain_mm is not None and series.rain_pct is not None and series.cloud is not None
    assert series.rain_mm.tolist() == [0, 0.4, 0] and series.rain_pct.tolist() == [5, 60, 0]
    assert series.cloud.tolist() == pytest.approx([0.4, 0.6, 0.8])
    assert series.gust_ms is not None
    assert series.gust_ms.tolist() == pytest.approx([30 / 3.6, 30 / 3.6, 20 / 3.6]), "in the unit of the wind"
    assert "gusts" in series.notes[0] and "left out" not in series.notes[0] and len(series.notes) == 1


def test_rows_every_three_hours_in_us_units_run_to_hours() -> None:
    series = read_pasted(TABS, DAY, ZONE, NOW)
    assert len(series) == 10
    assert series.air_c[[0, 3]] == pytest.approx([(56 - 32) / 1.8, (59 - 32) / 1.8])
    assert np.diff(series.air_c) == pytest.approx(np.full(9, 1 / 1.8))
    assert series.wind_ms[0] == pytest.approx(4.4704)
    assert series.cloud is not None and series.cloud[0] == 0.5
    assert 55 < series.rh_pct[3] < 65, "from the dew point: 7.2 °C under 15 °C"
    assert "holds no rain" in series.notes[-1]


def test_what_is_not_there_is_taken_and_said() -> None:
    series = read_pasted(BLANKS, DAY, ZONE, NOW)
    assert series.rain_mm is not None and series.rain_mm[0] == pytest.approx(2.54)
    assert [n.split(":")[0] for n in series.notes[1:]] == ["it holds no wind", "it holds no cloud"]


def test_rain_of_three_hours_is_shared_among_them_and_that_of_one_is_not() -> None:
    rows = "\n".join(f"{h}:00,15,{mm}" for h, mm in ((4, 2.0), (5, 1.5), (6, 3.0), (9, 0.0), (12, 6.0)))
    series = read_pasted("time,air,rain mm\n" + rows, DAY, ZONE, NOW)
    assert series.rain_mm is not None and series.rain_mm.tolist() == [2, 1.5, 1, 1, 1, 0, 0, 0, 2]


@pytest.mark.parametrize(("text", "words"), [
    ("", "holds no hours"), ("time,air\n6:00,12", "holds no hours"),
    ("hour,humidity\n6:00,80\n7:00,80", "no column of air"), ("air,rh\n12,80\n12,80", "no column of times"),
    ("time,air\n6:00,cool\n7:00,12", "line 2: 'cool' is not a figure"),
    ("time,air\n6:00,12\n25:00,12", "line 3, time: '25:00' is no time"),
    ("time,air\n6:00,12\n14:00,12", "does not follow"),
    ("time,air\n6:00,12\n6:30,12", "does not follow"),
    ("time,air\n6:00,12\n7:75,12", "'7:75' is no time"),
    ("time,air\n2026-09-15 06:00,12\n2026-09-15 06:00,12", "does not follow"),
    ("time,air\n6:00,12\nsoon,12", "'soon' is not a time"),
    ("time,air,rh\n6:00,12,140\n7:00,12,80", "humidity 140 is outside"),
    ("time,air,rh\n6:00,12\n7:00,12,80", "line 2: has fewer columns"),
])  # fmt: skip
def test_a_table_that_cannot_be_read_is_refused_with_its_line(text: str, words: str) -> None:
    with pytest.raises(InputError) as refused:
        read_pasted(text, DAY, ZONE, NOW)
    assert words in str(refused.value)
