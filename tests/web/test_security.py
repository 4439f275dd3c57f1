"""The gate, errors as pages and problem JSON, and uploads."""

import json

import pytest
from fastapi.testclient import TestClient

from amber_gable.exchange.sizes import SIZE_LIMIT
from amber_gable.services.computed import Computed
from amber_gable.services.context import Context
from tests.fixtures import unchanged
from tests.jobs import coopers_rise_json

RISE = "/jobs/coopers-rise"
DELETE = "/jobs/coopers-rise/survey/face/front/delete"


@pytest.mark.parametrize(
    "headers",
    [
        {"origin": "http://evil.example"},
        {"origin": "null"},
        {"origin": "http://127.0.0.1:9999"},
        {"origin": "", "referer": "http://evil.example/x"},
        {"origin": ""},
    ],
)
def test_a_change_from_another_origin_is_refused(client: TestClient, ctx: Context, headers: dict[str, str]) -> None:
    with unchanged(ctx):
        assert client.post(DELETE, headers=headers).status_code == 403


def test_a_foreign_host_name_is_refused(visitor: TestClient) -> None:
    assert visitor.get("/", headers={"host": "evil.example"}).status_code == 421
    assert visitor.get("/", headers={"host": "localhost:8765"}).status_code == 200


@pytest.mark.parametrize("path", [DELETE, "/jobs/coopers-rise/plan", "/clock", "/jobs"])
def test_reading_never_changes_anything(client: TestClient, ctx: Context, path: str) -> None:
    with unchanged(ctx):
        assert client.get(path).status_code in (200, 404, 405)


def test_every_answer_carries_the_policy(visitor: TestClient) -> None:
    for path in ("/", "/static/css/look.css", "/nowhere", "/healthz"):
        headers = visitor.get(path).headers
        assert "script-src 'self'" in headers["content-security-policy"]
        assert headers["x-content-type-options"] == "nosniff"


def test_more_than_ten_megabytes_are_refused_with_and_without_a_length(client: TestClient) -> None:
    big = b"x" * (SIZE_LIMIT + 100_000)
    page = client.post(f"{RISE}/weather/file", files={"file": ("big.csv", big)})
    assert page.status_code == 413
    assert "10 MB" in page.text

    def chunks():  # type: ignore[no-untyped-def]
        yield b'--b\r\nContent-Disposition: form-data; name="file"; filename="a.json"\r\n\r\n'
        for _ in range(11):
            yield b"x" * 1_000_000
        yield b"\r\n--b--\r\n"

    kind = {"content-type": "multipart/form-data; boundary=b"}
    page = client.post(f"{RISE}/weather/file", content=chunks(), headers=kind)
    assert page.status_code == 413
    assert "10 MB" in page.text


@pytest.mark.parametrize(
    ("path", "status"),
    [
        ("/nowhere", 404),
        ("/jobs/none/survey", 404),
        ("/jobs/coopers-rise/survey/roof/new", 404),
        ("/jobs/coopers-rise/today?day=x", 422),
    ],
)
def test_errors_are_pages_for_people_and_problems_for_programs(visitor: TestClient, path: str, status: int) -> None:
    page = visitor.get(path)
    assert page.status_code == status
    assert "All jobs" in page.text
    # A part of a page stays as it is when it is refused: its script tells the words beside it.
    for headers in ({"accept": "application/json"}, {"hx-request": "true"}):
        problem = visitor.get(path, headers=headers)
        assert problem.status_code == status
        assert problem.headers["content-type"] == "application/problem+json"
        assert set(problem.json()) == {"type", "title", "status", "detail"}


def test_a_fault_in_the_program_is_a_page_without_a_traceback(
    visitor: TestClient, untouched: Context, monkeypatch: pytest.MonkeyPatch
) -> None:
    def broken(*_: object) -> None:
        raise RuntimeError("secret inner words")

    monkeypatch.setattr(untouched.space, "computed", Computed())
    monkeypatch.setattr("amber_gable.web.routes.quantities.kept_quantities", broken)
    page = visitor.get("/jobs/coopers-rise/quantities")
    assert page.status_code == 500
    assert "Something went wrong" in page.text
    assert "secret" not in page.text


def test_names_are_shown_as_text_not_run(client: TestClient) -> None:
    nasty = '<script>alert(1)</script>"><b>'
    data = {"name": nasty, "azimuth_deg": "0", "outline.kind": "rectangle", "size": "3 x 3"}
    rest = {"tilt_deg": "90", "exposure": "open", "rain_exposure": "1"}
    page = client.post("/jobs/coopers-rise/survey/face/save", data=data | rest)
    assert page.status_code == 200
    assert "<script>alert" not in page.text
    assert "&lt;script&gt;alert" in page.text


@pytest.mark.parametrize(
    ("spoil", "words"),
    [
        (lambda r: r["property"]["faces"][0]["outline"].update(height_m=-1), "faces[front].outline.height_m"),
        (lambda r: r["property"]["faces"][0]["openings"][0].update(width_m=50), "larger than the face"),
        (lambda r: r.update(format="x"), "amber-gable-job"),
        (lambda r: None, "is here already"),
    ],
)
def test_a_bad_job_file_is_refused_whole(client: TestClient, ctx: Context, spoil, words: str) -> None:  # type: ignore[no-untyped-def]
    raw = coopers_rise_json()
    spoil(raw)
    with unchanged(ctx):
        page = client.post("/jobs/import", files={"file": ("job.json", json.dumps(raw).encode())})
    assert page.status_code == 422
    assert words in page.text


def test_a_good_job_file_is_taken(client: TestClient) -> None:
    raw = coopers_rise_json()
    raw["job"] |= {"id": "second", "name": "Second house"}
    raw["property"]["id"] = "second-house"
    page = client.post("/jobs/import", files={"file": ("job.json", json.dumps(raw).encode())})
    assert page.url.path == "/jobs/second/survey"
    assert "Second house" in page.text
