"""What the survey's views say and draw: textures in words, the panorama, symbols, forms for every kind of part."""

import re
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from zoneinfo import ZoneInfo

import pytest

from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.findings.guided_tests import GUIDED_TESTS
from amber_gable.domain.grid import SLOT_S
from amber_gable.domain.house.items import ITEM_NAMES
from amber_gable.domain.house.survey import ObstacleKind, OpeningKind
from amber_gable.domain.units import UnitSystem
from amber_gable.services.survey.forms import MODELS, choices, form_values, made_part
from amber_gable.web.views.part_names import UNION_NAMES
from amber_gable.web.views.survey.elevation import draw, drawing_scale
from amber_gable.web.views.survey.panorama import panorama
from amber_gable.web.views.survey.part_form import part_fields, typed_part
from amber_gable.web.views.survey.texture_words import texture_words
from amber_gable.web.views.survey.usual_parts import blank_part
from amber_gable.web.views.units import Units
from amber_gable.web.views.weather.sky import WIDTH, sky_strip
from amber_gable.web.views.weather.timescale import TimeScale, between
from tests.jobs import coopers_rise, one_face
from tests.site_cases import at, site_of, wall

METRIC, US = Units(UnitSystem.METRIC), Units(UnitSystem.US)
TEXTURES = [
    (None, "table: wood lap siding"),
    ({"kind": "lap", "exposure_m": 0.15, "butt_m": 0.012}, "(150 + 12) ÷ 150"),
    ({"kind": "batten", "pitch_m": 0.3, "batten_width_m": 0.05, "batten_thickness_m": 0.02}, "(300 + 2 × 20) ÷ 300"),
    (
        {"kind": "trapezoid", "pitch_m": 0.2, "base_m": 0.07, "crest_m": 0.03, "depth_m": 0.04},
        "(200 − 70 + 30 + 2 √(20² + 40²)) ÷ 200",
    ),
    ({"kind": "deck", "board_m": 0.14, "gap_m": 0.005, "thickness_m": 0.028}, "(140 + 2 × 28) ÷ (140 + 5)"),
    ({"kind": "sine", "pitch_m": 0.076, "depth_m": 0.018}, "arc of a wave 76 long, 18 deep"),
]


@pytest.mark.parametrize(("profile", "words"), TEXTURES)
def test_a_textures_words_work_out_to_its_factor(profile: dict[str, object] | None, words: str) -> None:
    zone = one_face({"kind": "rectangle", "width_m": 4, "height_m": 3}, []).zones[0]
    zone = type(zone).model_validate(zone.model_dump() | {"profile": profile})
    assert texture_words(zone, METRIC) == words
    if "÷" in words:
        sum_ = words.replace("−", "-").replace("×", "*").replace("÷", "/").replace("²", "**2")
        value = eval(re.sub(r"(\d) √(\(.*?\)\S*)\)", r"\1*(\2)**.5)", sum_), {"__builtins__": {}})
        assert value == pytest.approx(zone.profile_factor)


KINDS = [
    *(("face", {"outline.kind": k}) for k in UNION_NAMES["outline"]),
    *(("opening", {"kind": k.value}) for k in OpeningKind),
    *(("obstacle", {"kind": k.value}) for k in ObstacleKind),
    *(("item", {"spec.kind": k}) for k in ITEM_NAMES),
]


@pytest.mark.parametrize(("kind", "asked"), KINDS, ids=[f"{k}-{next(iter(a.values()))}" for k, a in KINDS])
@pytest.mark.parametrize("units", [METRIC, US], ids=["metric", "us"])
def test_a_blank_form_with_a_name_and_a_size_makes_a_part_that_its_form_shows_again(
    kind: str, asked: dict[str, str], units: Units
) -> None:
    typed = blank_part(kind, asked, units)
    if kind == "face":
        typed |= {"size": "5 m x 3 m", "azimuth_deg": "S", "tilt_deg": "30"}
        model = choices("outline")[asked["outline.kind"]]
        rest = {"rise_m": "1 m", "ridge_m": "2 m", "right_m": "2 m", "corners": "0/0; 3/0; 3/2"}
        typed |= {f"outline.{k}": v for k, v in rest.items() if k in model.model_fields}
    values = form_values(typed, units.system) | {"id": "x", "name": "X"}
    part = made_part(kind, None, values | ({"face": "f"} if kind in ("zone", "item") else {}))
    again = typed_part(part, units)
    assert form_values(again, units.system)["name"] == "X"
    shown = {f.name for f in part_fields(kind, again, {}, fresh=False)}
    assert set(again) - {"id", "face"} <= shown, "nothing of the record is out of the form's reach"


def test_the_strip_of_sky_has_now_a_quarter_along_and_its_hours_inside() -> None:
    now = at(0, "07:30")
    site = site_of(wall(), now)
    sky = sky_strip(site, now)
    assert sky is not None
    assert sky.now_x == pytest.approx(WIDTH / 4)
    assert [h for _, h in sky.hours] == ["06", "12", "18", "00"]
    assert [x for x, _ in sky.hours] == pytest.approx([WIDTH * h / 24 for h in (4.5, 10.5, 16.5, 22.5)])
    ends = [float(p.split(",")[0]) for p in (sky.dew_line.split()[0], sky.dew_line.split()[-1])]
    assert ends[0] == pytest.approx(0.0) and WIDTH - 8 < ends[1] <= WIDTH


def test_the_strip_of_sky_shows_the_coldest_surface_where_dew_comes_first() -> None:
    now = at(0, "07:30")
    site = site_of(wall(), now)
    first, *others = site.surfaces
    cold = replace(first, climate=replace(first.climate, surface=first.climate.surface - 15))
    sky, usual = sky_strip(replace(site, surfaces=(*others, cold)), now), sky_strip(site, now)
    assert sky is not None and usual is not None
    assert sky.surface < usual.surface - 10
    assert sky.low < usual.low


def test_every_reading_of_a_condition_has_its_test() -> None:
    asked = {t.field for t in GUIDED_TESTS}
    assert asked == set(Condition.model_fields) - {"marks", "tests", "note"}
    assert set(UNION_NAMES["outline"]) == set(choices("outline"))
    assert set(UNION_NAMES["area"]) == set(choices("area"))
    assert set(UNION_NAMES["profile"]) - {""} == set(choices("profile"))
    assert set(MODELS) == {"face", "opening", "obstacle", "zone", "item"}


def test_the_sun_stands_where_it_should_in_the_view_from_a_southern_and_a_northern_wall() -> None:
    property_ = coopers_rise().property
    south = panorama(property_, property_.face("front"))
    assert [s.name for s in south.suns] == ["21 June", "equinox", "21 December"]
    noon = next(h for h in south.suns[1].hours if h[2] == "12")
    assert south.left < noon[0] < south.right
    highest = [min(y for _, y, _ in s.hours) for s in south.suns]
    assert highest[0] < highest[1] < highest[2], "June above the equinox above December"
    north = panorama(property_, property_.face("back"))
    assert "21 December" not in [s.name for s in north.suns]
    reach = {s.name: len(s.path) for s in north.suns}
    assert reach["21 June"] > 3 * reach["equinox"], "a northern wall sees the low sun of summer"


def test_drawings_of_one_sheet_share_a_scale_and_finished_ones_show_no_damage() -> None:
    bundle = coopers_rise()
    faces = bundle.property.faces
    scale = drawing_scale(faces, 400.0)
    front = draw(bundle.property, faces[0], scale)
    wing = draw(bundle.property, faces[4], scale)
    assert front.width - wing.width == pytest.approx((9.6 - 4.2) * scale)
    assert front.marks
    assert any("obstacle" in p.style for p in front.parts)
    done = draw(bundle.property, faces[0], scale, colours={("zone", "front-siding"): "#e9dcc1"})
    assert not done.marks
    assert not any("obstacle" in p.style for p in done.parts)


# A zone and a first day: clocks go forward, back, by half an hour, or stand at an odd offset.
CHANGES = [
    ("America/Halifax", date(2026, 3, 6)),
    ("America/Halifax", date(2026, 10, 30)),
    ("Australia/Lord_Howe", date(2026, 4, 3)),
    ("Australia/Lord_Howe", date(2026, 10, 2)),
    ("Asia/Kolkata", date(2026, 9, 14)),
    ("America/St_Johns", date(2026, 10, 30)),
]


@pytest.mark.parametrize(("zone", "first"), CHANGES)
def test_every_slot_of_the_lanes_stands_at_its_absolute_time(zone: str, first: date) -> None:
    """What the script works out from a place (day's beginning and slots since) is what the page drew there."""
    scale = TimeScale(datetime(first.year, first.month, first.day, tzinfo=ZoneInfo(zone)), 5)
    for day, begins in enumerate(scale.starts):
        for slot in (0, 1, 11, 35):
            t = datetime.fromtimestamp(begins + slot * SLOT_S, UTC)
            assert scale.at(t) == pytest.approx(scale.day_x(day) + slot * scale.slot_w), (day, slot)
        local = datetime.fromtimestamp(begins, ZoneInfo(zone))
        assert (local.hour, local.minute, local.date()) == (4, 0, first + timedelta(days=day))


@pytest.mark.parametrize(("early", "late", "said"), [
    ("16T13:50", "16T15:10", "13:50–15:10"), ("15T23:18", "16T06:01", "Tue 23:18–Wed 06:01"),
    ("16T20:00", "17T06:00", "20:00–Thu 06:00"), ("17T08:00", "17T09:00", "Thu 08:00–09:00"),
    ("16T20:00", "", "20:00 or later"),
])  # fmt: skip
def test_a_span_says_the_day_where_it_is_another_than_that_it_stands_beside(early: str, late: str, said: str) -> None:
    begins, beside = (datetime.fromisoformat(f"2026-09-{t}") for t in (early, "16T14:00"))
    ends = datetime.fromisoformat(f"2026-09-{late}") if late else None
    assert between(begins, ends, beside) == said
