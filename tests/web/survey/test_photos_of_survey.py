"""Photos of a survey: measured on, sent to the drawing, carried with the job, missed where their picture is gone."""

import pytest
from fastapi.testclient import TestClient

from amber_gable.services.context import Context
from tests.checkerboard import Camera, as_jpeg, photo_of_board
from tests.clients import submit
from tests.exchange.test_photos import picture
from tests.web.survey.test_survey import RISE, SURVEY, stored

pytestmark = pytest.mark.usefixtures("indoors")


def test_sizes_are_read_off_a_photo_and_sent_to_the_drawing(client: TestClient, ctx: Context) -> None:
    camera = Camera(30.0, 8.0, 10.0, 0.8)
    jpeg = as_jpeg(photo_of_board(camera, 8, 5))
    page = client.post(f"{SURVEY}/photos?of=wing-back", files={"file": ("board.jpg", jpeg)})
    assert page.status_code == 200
    here = page.url.path
    assert client.get(f"{here}.jpg").headers["content-type"] == "image/jpeg"

    def at(x: float, y: float) -> str:
        return "{:.2f}, {:.2f}".format(*camera.seen(x, y))

    marks = dict(zip(("c1", "c2", "c3", "c4"), (at(0, 0), at(8, 0), at(8, 5), at(0, 5)), strict=True))
    form = marks | {"a": at(2, 1), "b": at(4, 1), "length": "2 m", "length2": "", "m1": at(2.8, 1), "m2": at(3.8, 2.4)}
    page = client.post(f"{here}/measure", data=form)
    assert "1.00 × 1.40" in page.text
    assert "Wall <b>8.00 × 5.00</b>" in page.text
    # The kitchen wing is 4.2 × 2.8 m: first the wall takes its size, then the box becomes a window.
    submit(client, f"{here}/send", data=form | {"kind": "wall"})
    assert stored(ctx).property.face("wing-back").width_m == pytest.approx(8.0, abs=0.02)
    sent = client.post(f"{here}/send", data=form | {"kind": "window"})
    assert sent.status_code == 422, "the kitchen door is in the way"
    free = form | {"m1": at(5, 1), "m2": at(6, 2.4), "kind": "window"}
    assert client.post(f"{here}/send", data=free).url.path.endswith("/opening/window-1")
    window = stored(ctx).property.face("wing-back").openings[-1]
    assert (window.x_m, window.width_m, window.height_m) == pytest.approx((5.0, 1.0, 1.4), abs=0.02)
    for key, value, words in [
        ("length", "", "needed"), ("c1", "here", "not a point"), ("c1", marks["c3"], "in one line"),
        ("length", "2 stone", "not a unit"), ("m1", "nan, 1", "point"),
    ]:  # fmt: skip
        bad = client.post(f"{here}/measure", data=form | {key: value})
        assert bad.status_code == 422
        assert words in bad.text


def test_photos_travel_with_the_job_and_can_be_brought_back(client: TestClient, ctx: Context) -> None:
    page = client.post(f"{SURVEY}/photos?of=front", files={"file": ("x.png", picture("PNG"))})
    photo = page.url.path.rsplit("/", 1)[1]
    bytes_ = client.get(f"{SURVEY}/photos/{photo}.jpg").content
    submit(client, f"{SURVEY}/photos/{photo}/shows", data={"shows": "front/zone/front-siding"})
    assert "Siding" in client.get(f"{SURVEY}/photos?of=front/zone/front-siding").text
    zipped = client.get(f"{RISE}/export.zip").content
    submit(client, f"{SURVEY}/photos/{photo}/delete")
    assert client.get(f"{SURVEY}/photos/{photo}.jpg").status_code == 404
    submit(client, f"{SURVEY.removesuffix('/survey')}/undo")
    assert client.get(f"{SURVEY}/photos/{photo}.jpg").content == bytes_
    raw = client.get(f"{RISE}/export").json()
    assert raw["property"]["photos"] == []
    assert "is here already" in client.post("/jobs/import", files={"file": ("j.zip", zipped)}).text
    with ctx.space.database.engine.begin() as connection:
        for table in ("job", "property"):
            connection.exec_driver_sql(f"DELETE FROM {table}")
    assert client.post("/jobs/import", files={"file": ("j.zip", zipped)}).status_code == 200
    assert client.get(f"{SURVEY}/photos/{photo}.jpg").content == bytes_
    assert client.get(f"{RISE}/export.zip").content == zipped
    submit(client, f"{SURVEY}/zone/front-siding/delete")
    shown = stored(ctx).property.photos[0]
    assert (shown.face, shown.part) == ("front", None), "it shows the face still, the part is gone"
    svg = client.post(f"{SURVEY}/photos", files={"file": ("x.svg", b"<svg onload=alert(1)></svg>")})
    assert svg.status_code == 422
    assert "hold script" in svg.text


def test_a_photo_whose_picture_is_gone_says_so(client: TestClient, ctx: Context) -> None:
    photo = client.post(f"{SURVEY}/photos?of=front", files={"file": ("x.png", picture("PNG"))}).url.path
    pictures = ctx.space.database.pictures
    (file,) = pictures.folder.rglob("*.jpg")
    file.write_bytes(b"\xff\xd8\xff other bytes")
    for path, words in ((f"{photo}.jpg", "is damaged"), (f"{RISE}/export.zip", "is damaged")):
        answer = client.get(path)
        assert (answer.status_code, words in answer.text) == (422, True), path
    file.unlink()
    assert "not beside the database" in client.get(f"{photo}.jpg").text
    assert "missing beside the database" in client.get(photo).text
    assert "missing beside the database" in client.get(f"{SURVEY}/photos").text
    client.post(f"{SURVEY}/photos?of=front", files={"file": ("y.png", picture("PNG"))})
    assert client.get(f"{photo}.jpg").status_code == 200, "the same picture taken in again is theirs both"
