"""Colours under the sun of an hour, and the order in which special things are painted."""

from datetime import datetime
from zoneinfo import ZoneInfo

import pytest

from amber_gable.core.specification.choices.preview import light_at, lit_colours, part_colours, shown
from amber_gable.core.specification.colour.difference import lab, luminance
from amber_gable.core.specification.derived.order_drawn import PaintingOrder
from amber_gable.core.specification.derived.sequences import painting_order
from amber_gable.core.survey.amounts.painted import PaintedPart, painted_parts
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.scheme import ColourGroup, NamedColour, Scheme
from tests.jobs import demo_job, one_face

HALIFAX = ZoneInfo("America/Halifax")


def _at(hour: int, minute: int = 0) -> datetime:
    return datetime(2026, 9, 14, hour, minute, tzinfo=HALIFAX)


def test_the_light_goes_round_the_house() -> None:
    place = demo_job("1-coopers-rise").property
    morning, evening, night = light_at(place, _at(9)), light_at(place, _at(17)), light_at(place, _at(2))
    assert morning.faces["east-gable"].in_sun
    assert not morning.faces["west-gable"].in_sun
    assert evening.faces["west-gable"].in_sun
    assert not evening.faces["east-gable"].in_sun
    assert evening.elevation > 0 > night.elevation
    assert not any(f.in_sun for f in night.faces.values())
    oat = "#e9dcc1"
    in_sun, in_shade = shown(oat, evening.faces["west-gable"]), shown(oat, evening.faces["east-gable"])
    assert luminance(oat) >= luminance(in_sun) > luminance(in_shade) > luminance(shown(oat, night.faces["front"]))
    open_ = place.model_copy(
        update={"faces": tuple(f.model_copy(update={"blocks": (), "horizon": ()}) for f in place.faces)}
    )
    low = light_at(open_, _at(18, 30)).faces["west-gable"]
    assert lab(shown("#eeeeee", low)).chroma > lab(shown("#eeeeee", evening.faces["east-gable"])).chroma + 3, "amber"


def test_the_south_of_the_world_has_its_sun_in_the_north() -> None:
    place = demo_job("1-coopers-rise").property.model_copy(update={"latitude": -45.25})
    noon = light_at(place, _at(13))
    assert noon.faces["back"].in_sun
    assert not noon.faces["front"].in_sun


def test_a_scheme_colours_its_groups_and_leaves_the_rest() -> None:
    bundle = demo_job("1-coopers-rise")
    place = bundle.property
    scheme = Scheme(id="s", name="S", colours={ColourGroup.BODY: NamedColour(colour="#2f4b60", name="Harbour")})
    base = {f.part: f.colour for f in bundle.job.finishes}
    colours = part_colours(place, scheme, base)
    assert colours["zone", "back-siding"] == "#2f4b60"
    assert colours["zone", "front-trim"] == base["zone", "front-trim"]
    assert (
        part_colours(place, None, {})["item", "front-door-item"] == place.part(("item", "front-door-item")).colour_now
    )  # type: ignore[union-attr]
    lit = lit_colours(place.face("front"), place, colours, light_at(place, _at(12)))
    assert set(lit) == {k for k, p in painted_parts(place, bundle.deduction).items() if p.face.id == "front"}


def _order(job: str, key: tuple[str, str]) -> tuple[PaintingOrder, PaintedPart]:
    bundle = demo_job(job)
    part = painted_parts(bundle.property, bundle.deduction)[key]
    found = painting_order(part, bundle.property.items_of(part.face.id))
    assert found is not None
    return found, part


def test_a_panelled_door_goes_panels_rails_stiles() -> None:
    order, _ = _order("1-coopers-rise", ("item", "front-door-item"))
    members = order.figures[0].members
    kinds = [m.name.split()[0] for m in sorted(members, key=lambda m: m.number)]
    assert kinds == sorted(kinds, key=["panel", "rail", "stile"].index)
    assert [m.number for m in members] == list(range(1, len(members) + 1))
    assert sum(s.minutes or 0 for s in order.steps) == pytest.approx(45)
    figure = order.figures[0]
    covered = sum(m.width * m.height for m in members)
    assert 0.93 * figure.width * figure.height < covered <= figure.width * figure.height * 1.001
    assert all(m.stroke == "across" for m in members if m.name == "rail")


def test_a_sash_is_swapped_and_brought_back() -> None:
    order, _ = _order("1-coopers-rise", ("item", "front-w1-item"))
    assert [f.title for f in order.figures] == ["swapped", "back, both a little open"]
    assert order.figures[0].members[0].name.startswith("meeting rail of the top sash")
    assert order.steps[-1].wait


def test_shutters_are_numbered_where_they_hang() -> None:
    order, part = _order("1-coopers-rise", ("item", "shutters-3"))
    members = order.figures[0].members
    assert len(members) == 10
    upper = [m for m in members if m.y > 3]
    assert {m.number for m in upper} == set(range(1, len(upper) + 1)), "top row first"
    assert [m.number for m in sorted(upper, key=lambda m: m.x)] == sorted(m.number for m in upper)
    assert all(m.x >= 0 and m.x + m.width <= part.face.width_m + 0.01 for m in members)


def test_a_deck_is_left_by_its_way_out() -> None:
    order, part = _order("4-heron-deck", ("zone", "deck-boards"))
    figure = order.figures[0]
    runs = sorted(figure.members, key=lambda m: m.number)
    assert figure.exit is not None
    assert runs[0].y > runs[-1].y, "from the house toward the way out"
    assert runs[-1].y == pytest.approx(figure.exit[1], abs=1e-9)
    assert sum(m.width * m.height for m in runs) == pytest.approx(part.face.width_m * part.face.top_m)


def test_masonry_and_roof_end_at_breaks_and_at_the_ladder() -> None:
    wall, part = _order("2-net-loft", ("zone", "south-wall"))
    panels = [m for m in wall.figures[0].members if m.number]
    assert sum(p.width for p in panels) == pytest.approx(part.face.width_m, abs=0.7)
    roof, _ = _order("5-feed-barn", ("zone", "south-roof"))
    bands = sorted(roof.figures[0].members, key=lambda m: m.number)
    assert [b.y for b in bands] == sorted((b.y for b in bands), reverse=True)


def test_boards_go_a_few_courses_at_a_time_from_the_top_full_length() -> None:
    order, part = _order("1-coopers-rise", ("zone", "front-siding"))
    runs = sorted(order.figures[0].members, key=lambda m: m.number)
    assert [r.y for r in runs] == sorted((r.y for r in runs), reverse=True)
    assert all(r.width == pytest.approx(part.face.width_m) for r in runs), "no board is stopped in its middle"
    assert "lower edges first" in order.steps[2].words


def test_a_sprayed_wall_shows_its_passes_and_who_rolls_behind() -> None:
    bundle = demo_job("2-net-loft")
    part = painted_parts(bundle.property, bundle.deduction)["zone", "south-wall"]
    finish = bundle.finish_of("zone", "south-wall")
    assert finish is not None
    coats = [o for o in bundle.operations(finish) if o.kind.lays_film]
    sprayed = [o.model_copy(update={"method": Method.AIRLESS, "back_roll": n == 0}) for n, o in enumerate(coats)]
    order = painting_order(part, (), sprayed)
    assert order is not None and order.title == "The wall in passes of the gun"
    assert sum("behind the gun" in s.words for s in order.steps) == 1
    rolled = painting_order(
        part, (), [o.model_copy(update={"method": Method.ROLLER, "back_roll": False}) for o in coats]
    )
    assert rolled is not None and rolled.title == "The wall in panels"


def test_a_plinth_comes_last_with_the_soil_drawn_back_and_a_band_has_its_edges() -> None:
    face = {"kind": "rectangle", "width_m": 6.0, "height_m": 3.0}
    place = one_face(face, [], zones=[{"id": "foot", "area": {"kind": "band", "from_m": 0.0, "to_m": 0.5}},
                                  {"id": "belt", "area": {"kind": "band", "from_m": 2.0, "to_m": 2.4}}])  # fmt: skip
    foot, belt = (painting_order(p) for k, p in painted_parts(place, "net").items() if k[1] in ("foot", "belt"))
    assert foot is not None and foot.title == "The plinth, last" and "Soil and grass" in foot.steps[1].words
    assert belt is not None and belt.title == "The band and its edges"
    assert belt.figures[0].members[0].y == 2.0
