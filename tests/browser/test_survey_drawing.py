"""The survey with real mouse, touch and keyboard: a house measured by drawing, parts moved, damage painted."""

import re
import time
from pathlib import Path

import pytest
from playwright.sync_api import CDPSession, Locator, Page, expect

from amber_gable.domain.house.survey import Face, Opening
from tests.browser.conftest import PATIENCE_MS, serious_barriers, sticks_out
from tests.browser.held import held
from tests.checkerboard import Camera, as_jpeg, photo_of_board
from tests.jobs import coopers_rise

pytestmark = pytest.mark.browser
RISE = "/jobs/coopers-rise/survey"
Point = tuple[float, float]


def on_screen(page: Page, x_m: float, y_m: float) -> Point:
    """Where a place on the drawn face lies on the screen."""
    x, y = page.locator("#picture svg.elevation, #condition svg.elevation").evaluate(
        """(svg, [x, y]) => {
            const d = svg.dataset, at = new DOMPoint(+d.left + x * d.scale, d.ground - y * d.scale)
            const p = at.matrixTransform(svg.getScreenCTM())
            return [p.x, p.y]
        }""",
        [x_m, y_m],
    )
    return float(x), float(y)


def _field(page: Page, name: str) -> Locator:
    return page.locator(f'main [name="{name}"]')


class Mouse:
    def __init__(self, page: Page) -> None:
        self.page = page

    def take(self, tool: Locator) -> None:
        tool.click()

    def drag(self, start: Point, end: Point) -> None:
        mouse = self.page.mouse
        mouse.move(*start)
        mouse.down()
        mouse.move((start[0] + end[0]) / 2, (start[1] + end[1]) / 2)
        mouse.move(*end)
        mouse.up()


class Finger:
    """Real touch events through the browser's own protocol."""

    def __init__(self, page: Page) -> None:
        self.session: CDPSession = page.context.new_cdp_session(page)

    def take(self, tool: Locator) -> None:
        tool.tap()

    def _send(self, kind: str, points: list[Point]) -> None:
        touches = [{"x": x, "y": y} for x, y in points]
        self.session.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": touches})

    def drag(self, start: Point, end: Point) -> None:
        self._send("touchStart", [start])
        for share in (0.3, 0.7, 1.0):
            x, y = (a + (b - a) * share for a, b in zip(start, end, strict=True))
            self._send("touchMove", [(x, y)])
        self._send("touchEnd", [])


NAMES = {"window": "Window", "door": "Door", "vent": "Vent", "garage-door": "Garage door"}


def _type_face(page: Page, base: str, face: Face) -> None:
    """A face by typing its size, as read off a tape."""
    page.goto(f"{base}/face/new")
    _field(page, "name").fill(face.name)
    _field(page, "azimuth_deg").fill(f"{face.azimuth_deg:g}")
    outline = face.outline
    if outline.kind == "gable":
        _field(page, "outline.kind").select_option("gable")
        expect(_field(page, "outline.rise_m")).to_be_visible()
        _field(page, "outline.rise_m").fill(f"{outline.rise_m:g}")
        height = outline.eave_height_m
    else:
        height = outline.height_m  # type: ignore[union-attr]
    _field(page, "size").fill(f"{face.width_m:g} x {height:g} m")
    expect(page.locator("#picture .dims")).to_contain_text(f"{face.width_m:.2f}")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("link", name=face.name, exact=True)).to_be_visible()
    page.get_by_role("link", name=re.compile("Say what it is made of")).click()
    expect(page.get_by_role("heading", name="New zone")).to_be_visible()
    _field(page, "name").fill("Siding")
    page.get_by_role("button", name="Save").click()
    expect(page.locator(".figures")).to_contain_text("Siding")


def _draw(page: Page, hand: Mouse | Finger, opening: Opening) -> None:
    """An opening dragged on the wall with its tool; with the mouse finely, so that what is near does not pull."""
    tool = page.locator(".tools > .tool", has_text=re.compile(f"^{NAMES[opening.kind]}$"))
    hand.take(tool)
    expect(tool).to_have_class(re.compile(r"\bon\b"))
    count = page.locator("#picture a.part").count()
    if isinstance(hand, Mouse):
        page.keyboard.down("Alt")
    right, top = opening.x_m + opening.width_m, opening.y_m + opening.height_m
    hand.drag(on_screen(page, opening.x_m, opening.y_m), on_screen(page, right, top))
    if isinstance(hand, Mouse):
        page.keyboard.up("Alt")
    expect(page.locator("#picture a.part")).to_have_count(count + 1)
    page.keyboard.press("Escape")


@pytest.mark.parametrize(
    "faces",
    [
        ("west-gable", "wing-back"),
        pytest.param(("front", "west-gable", "east-gable", "back", "wing-back", "wing-east"), marks=pytest.mark.long),
    ],
    ids=["a gable by mouse, a wall by finger", "the whole house"],
)
def test_coopers_rise_measured_by_drawing_has_the_areas_of_the_bundle(
    page: Page, tablet: Page, faces: tuple[str, ...]
) -> None:
    """With the mouse at the table; the back and the kitchen wing's back with a finger on the tablet."""
    page.goto("/")
    form = {"name": "Drawn anew", "customer": "O. F.", "place": "Quay", "latitude": "45.25", "longitude": "-62.1"}
    for name, text in {**form, "time_zone": "America/Halifax"}.items():
        _field(page, name).fill(text)
    page.get_by_role("button", name="Start the survey").click()
    expect(page).to_have_url(re.compile("/survey"))
    base = page.url.split("?")[0]
    surveyed = [f for f in coopers_rise().property.faces if f.id in faces]
    mouse, finger = Mouse(page), Finger(tablet)
    for face in surveyed:
        _type_face(page, base, face)
        if face.id in ("back", "wing-back"):
            tablet.goto(f"{base}/face/{page.locator('#table').get_attribute('data-face')}")
            for opening in face.openings:
                _draw(tablet, finger, opening)
            page.reload()
        else:
            for opening in face.openings:
                _draw(page, mouse, opening)
        net = face.area_m2 - sum(o.area_m2 for o in face.openings if o.area_m2 > 1.5)
        expect(page.locator(".figures .reading")).to_have_text(f"{net * 162 / 150:.1f}")
    drawn = page.request.get(f"{base}/../export").json()["property"]
    for face, got in zip(surveyed, drawn["faces"], strict=True):
        new = Face.model_validate(got)
        assert new.area_m2 == pytest.approx(face.area_m2, abs=1e-9)
        boxes = [(o.x_m, o.y_m, o.width_m, o.height_m) for o in new.openings]
        for box, o in zip(boxes, face.openings, strict=True):
            assert box == pytest.approx((o.x_m, o.y_m, o.width_m, o.height_m), abs=0.0101), o.name
        holes = sum(o.area_m2 for o in face.openings)
        assert sum(o.area_m2 for o in new.openings) == pytest.approx(holes, rel=0.01)


def _box(page: Page, part: str) -> list[float]:
    kind, id_ = part.split("/")
    data = page.locator(f'#picture a.part[data-kind="{kind}"][data-id="{id_}"]').evaluate("e => ({...e.dataset})")
    return [float(data[k]) for k in "xywh"]


def _comes_to(page: Page, part: str, side: str, wanted: float, near: float = 1e-3) -> None:
    """Wait until a part's x, y, w or h on the drawing is what is wanted."""
    deadline = time.monotonic() + PATIENCE_MS / 1000
    while abs(_box(page, part)["xywh".index(side)] - wanted) > near:
        assert time.monotonic() < deadline, f"{part}: {side} is {_box(page, part)}, not {wanted}"
        page.wait_for_timeout(40)


def test_a_finger_draws_moves_and_resizes(tablet: Page) -> None:
    tablet.goto(f"{RISE}/face/wing-east")
    finger = Finger(tablet)
    tablet.locator(".tools > .tool", has_text="Window").tap()
    finger.drag(on_screen(tablet, 0.8, 0.9), on_screen(tablet, 1.7, 2.1))
    expect(tablet.locator('#picture a.part[aria-current="true"]')).to_have_count(1)
    assert _box(tablet, "opening/window-1") == pytest.approx([0.8, 0.9, 0.9, 1.2], abs=0.051)
    tablet.locator('[data-tool="move"]').tap()
    x, y, w, h = _box(tablet, "opening/window-1")
    finger.drag(on_screen(tablet, x + w / 2, y + h / 2), on_screen(tablet, 1.5, 1.5))
    expect(tablet.locator("#table")).to_contain_text("Window 1")
    _comes_to(tablet, "opening/window-1", "x", 1.05, 0.06)
    x, y, w, h = _box(tablet, "opening/window-1")
    assert x + w / 2 == pytest.approx(1.5, abs=1e-6), "the middle of the wall pulls"
    finger.drag(on_screen(tablet, x + w, y + h), on_screen(tablet, x + w + 0.3, y + h + 0.2))
    _comes_to(tablet, "opening/window-1", "w", 1.2, 0.08)
    assert not sticks_out(tablet)
    tablet.locator("#undo").tap()
    _comes_to(tablet, "opening/window-1", "w", 0.9, 0.06)


def test_everything_on_the_table_goes_by_keyboard(page: Page) -> None:
    page.goto(f"{RISE}/face/east-gable")
    part = page.locator('#picture a.part[data-id="east-w1"]')
    start = _box(page, "opening/east-w1")
    part.focus()
    for _ in range(4):
        page.keyboard.press("ArrowRight")
    _comes_to(page, "opening/east-w1", "x", start[0] + 0.2)
    assert _box(page, "opening/east-w1")[0] == pytest.approx(start[0] + 0.2)
    assert _box(page, "item/east-w1-item") == _box(page, "opening/east-w1"), "the sash goes with its opening"
    assert page.evaluate("document.activeElement.dataset.id") == "east-w1"
    page.keyboard.press("Control+z")
    _comes_to(page, "opening/east-w1", "x", start[0])
    page.locator("#redo").focus()
    page.keyboard.press("Enter")
    _comes_to(page, "opening/east-w1", "x", start[0] + 0.2)
    page.locator("#undo").press("Enter")
    _comes_to(page, "opening/east-w1", "x", start[0])
    page.locator('#picture a.part[data-id="east-vent"]').press("Enter")
    expect(page).to_have_url(re.compile("/opening/east-vent"))
    width = _field(page, "width_m")
    width.fill("1'8\"")
    _comes_to(page, "opening/east-vent", "w", 20 * 0.0254)
    page.locator('#picture a.part[data-id="east-vent"]').focus()
    page.keyboard.press("Delete")
    expect(page.locator('#picture a.part[data-id="east-vent"]')).to_have_count(0)
    page.keyboard.press("Control+z")
    expect(page.locator('#picture a.part[data-id="east-vent"]')).to_have_count(1)
    page.locator(".tools > .tool", has_text="Vent").press("Enter")
    expect(page.get_by_role("heading", name="New opening")).to_be_visible()


def test_a_wall_of_the_house_plan_is_moved_by_drag_and_by_arrows(page: Page) -> None:
    page.goto("/jobs/quarry-lane/survey")
    wall = page.locator('#plan a.wall[data-id="ql-back"]')
    east = float(wall.get_attribute("data-east") or 0)
    wall.focus()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Shift+ArrowRight")
    expect(wall).to_have_attribute("data-east", re.compile(rf"^{east + 0.55:.1f}"))
    assert page.evaluate("document.activeElement.dataset.id") == "ql-back"
    box = wall.locator(".wall-hit").bounding_box()
    assert box
    middle = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    moved = float(wall.get_attribute("data-east") or 0)
    Mouse(page).drag(middle, (middle[0] + 30, middle[1]))
    expect(wall).not_to_have_attribute("data-east", f"{moved:g}")
    expect(page).to_have_url(re.compile("/survey$"))


def test_a_third_window_finds_the_equal_gap(page: Page) -> None:
    page.goto(f"{RISE}/face/back")
    page.locator(".tools > .tool", has_text="Window").click()
    page.mouse.click(*on_screen(page, 4.9, 4.3))
    expect(page.locator("#picture a.part[data-kind=opening]")).to_have_count(3)
    made = "opening/" + str(page.locator('#picture a.part[aria-current="true"]').get_attribute("data-id"))
    x, _, w, _ = _box(page, made)
    # Between 1.2 + 0.9 and 7.4 the middle place is 4.3.
    assert x == pytest.approx((2.1 + 7.4 - w) / 2, abs=0.26)
    page.keyboard.press("Escape")
    hand = Mouse(page)
    hand.drag(on_screen(page, x + w / 2, 4.3), on_screen(page, (2.1 + 7.4) / 2 - 0.03, 4.3))
    _comes_to(page, made, "x", 4.3)
    page.locator("#undo").click()
    _comes_to(page, made, "x", x)
    page.locator("#undo").click()
    expect(page.locator("#picture a.part[data-kind=opening]")).to_have_count(2)


def test_a_zone_is_drawn_and_its_corner_pulled(page: Page) -> None:
    page.goto(f"{RISE}/face/east-gable")
    page.locator(".tools > .tool", has_text="Zone").click()
    hand = Mouse(page)
    hand.drag(on_screen(page, 4.0, 0.02), on_screen(page, 6.5, 0.7))
    expect(page.locator(".handle")).to_have_count(4)
    page.keyboard.press("Escape")
    corner = page.locator(".handle").nth(2).bounding_box()
    assert corner
    start = (corner["x"] + corner["width"] / 2, corner["y"] + corner["height"] / 2)
    hand.drag(start, on_screen(page, 6.5, 1.2))
    expect(page.locator("textarea[name='area.corners']")).to_have_value(re.compile(r"6\.5/1\.2"))
    page.locator("#undo").click()
    expect(page.locator("textarea[name='area.corners']")).to_have_count(0)


def test_a_face_with_a_very_long_name_added_refused_kept_deleted_and_brought_back(page: Page) -> None:
    page.goto(f"{RISE}/face/new")
    name = "Lean-to with a very long name that a careful surveyor typed to the last letter of the line"
    _field(page, "name").fill(name)
    _field(page, "azimuth_deg").fill("sideways")
    _field(page, "size").fill("2,4 x 2.1")
    page.get_by_role("button", name="Save").click()
    expect(page.locator(".fault")).to_contain_text("not a bearing")
    expect(_field(page, "name")).to_have_value(name)
    _field(page, "azimuth_deg").fill("south")
    page.get_by_role("button", name="Save").click()
    expect(page.locator("#table h2")).to_contain_text(name)
    assert not sticks_out(page)
    page.reload()
    page.get_by_role("button", name="Delete this face").click()
    expect(page.get_by_role("heading", name=name)).to_have_count(0)
    page.get_by_role("status").get_by_role("button", name="Undo").click()
    expect(page.get_by_role("heading", name=name)).to_have_count(1)


@pytest.mark.parametrize("late", ["try", "save"])
def test_an_answer_that_comes_late_does_not_hide_what_was_done_since(page: Page, late: str) -> None:
    page.goto(f"{RISE}/opening/back-w1")
    windows = page.locator("#picture a[data-kind=opening]")
    before = windows.count()
    with held(page, re.compile(f"/opening/{late}$"), answers=True) as answers:
        _field(page, "width_m").fill("0.8")
        if late == "save":
            page.get_by_role("button", name="Save").click()
        while not answers.waiting:
            page.wait_for_timeout(20)
        page.get_by_role("button", name="Duplicate").click()
        expect(windows).to_have_count(before + 1)
        with page.expect_response(lambda r: r.url.endswith(f"/opening/{late}")):
            answers.let_go()
        page.wait_for_timeout(300)  # an answer that hides what was done is drawn now
        expect(windows).to_have_count(before + 1)
    page.locator("#undo").click()


def test_two_tabs_do_not_overwrite_each_other_unseen(page: Page) -> None:
    other = page.context.new_page()
    for tab in (page, other):
        tab.goto(f"{RISE}/opening/back-w1")
    _field(page, "width_m").fill("0.8")
    page.get_by_role("button", name="Save").click()
    _comes_to(page, "opening/back-w1", "w", 0.8)
    _field(other, "width_m").fill("1.0")
    other.get_by_role("button", name="Save").click()
    expect(other.get_by_role("alert")).to_contain_text("Somebody changed")
    expect(_field(other, "width_m")).to_have_value("1.0")
    page.locator("#undo").click()


def test_damage_is_painted_with_a_finger_and_tests_save_themselves(tablet: Page) -> None:
    tablet.goto(f"{RISE}/zone/wing-east-siding/condition")
    tablet.locator('[data-damage="mildew"]').tap()
    Finger(tablet).drag(on_screen(tablet, 0.3, 0.4), on_screen(tablet, 2.6, 0.4))
    expect(tablet.locator('[data-damage="mildew"]')).to_contain_text("m²")
    row = tablet.locator("#test-wing-east-siding-rub")
    with tablet.expect_response(lambda r: r.url.endswith("/condition/test")):
        row.get_by_label("heavy", exact=True).tap()
    expect(row.locator(".test-mark")).to_have_text("✓")
    tablet.reload()
    expect(tablet.locator("#test-wing-east-siding-rub").get_by_label("heavy")).to_be_checked()
    expect(tablet.locator("#test-wing-east-siding-bleach input[name=value]")).not_to_have_value("")
    before = tablet.locator(".readings tr").count()
    tablet.get_by_role("button", name="Read the meter").tap()
    expect(tablet.locator(".readings tr")).to_have_count(before + 1)


def test_the_walk_is_ticked_with_the_thumb(tablet: Page) -> None:
    tablet.goto(f"{RISE}/walk")
    tablet.locator(".thumb .act").last.tap()
    expect(tablet.get_by_role("heading", level=2)).to_have_text("Street front")
    tick = tablet.get_by_role("button", name="Width and heights taken: tick")
    tick.tap()
    expect(tablet.get_by_role("button", name="Width and heights taken: take the tick away")).to_be_visible()
    tablet.reload()
    expect(tablet.get_by_role("button", name="Width and heights taken: take the tick away")).to_be_visible()


def test_a_photo_is_marked_by_dragging_and_its_sizes_are_sent(page: Page, tmp_path: Path) -> None:
    camera = Camera(30.0, 8.0, 10.0, 0.8)
    file = tmp_path / "board.jpg"
    file.write_bytes(as_jpeg(photo_of_board(camera, 8, 5)))
    page.goto(f"{RISE}/photos?of=wing-back")
    page.locator('input[type="file"]').set_input_files(file)
    with held(page, "**/photo.js"):
        page.get_by_role("button", name="Add photo").click()
        expect(page.locator("#measure svg image")).to_be_visible()
        expect(page.locator(".photo-mark").first).to_be_hidden()
    places = {
        "c1": (0, 0),
        "c2": (8, 0),
        "c3": (8, 5),
        "c4": (0, 5),
        "a": (2, 1),
        "b": (4, 1),
        "m1": (5, 1),
        "m2": (6, 2.4),
    }
    for key, (x, y) in places.items():
        ring = page.locator(f'[data-mark="{key}"] .ring')
        expect(ring).to_be_visible()
        box = ring.bounding_box()
        assert box
        end = page.locator("#measure svg").evaluate(
            "(svg, [x, y]) => { const p = new DOMPoint(x, y).matrixTransform(svg.getScreenCTM()); return [p.x, p.y] }",
            list(camera.seen(x, y)),
        )
        Mouse(page).drag((box["x"] + box["width"] / 2, box["y"] + box["height"] / 2), (end[0], end[1]))
    _field(page, "length").fill("2 m")
    page.get_by_role("button", name="Measure", exact=True).click()
    expect(page.locator("#measure .big .reading")).to_have_text(re.compile(r"1\.7[0-9]"))
    expect(page.get_by_role("button", name="Measure", exact=True)).to_be_focused()
    page.locator("#measure").evaluate("form => { form.dataset.before = 1 }")
    _field(page, "length").press("Enter")
    expect(page.locator("#measure[data-before]")).to_have_count(0)
    expect(_field(page, "length")).to_be_focused()
    mark, place = page.locator('[data-mark="m2"]'), page.locator('input[name="m2"]')
    before = place.input_value()
    mark.focus()
    page.keyboard.press("ArrowRight")
    assert place.input_value() != before
    page.keyboard.press("ArrowLeft")
    assert serious_barriers(page) == []
    page.get_by_role("button", name="box as window").click()
    expect(page.locator("#measure [role=alert], #table")).to_be_visible()
