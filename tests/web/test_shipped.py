"""What ships with the program is kept by browsers for good, and never one of an older version."""

import re
from pathlib import Path
from urllib.parse import urljoin

import pytest
from fastapi.testclient import TestClient

from amber_gable.web import shipped

LOADED = re.compile(r'(?:src|href)="(/static/[^"]+)"')
FROM_BESIDE = re.compile(r"""(?:(?:from |import |import\()["']|url\()(\.\.?/[^"')]+)""")


def test_whatever_a_page_loads_is_there_and_kept(visitor: TestClient) -> None:
    drawn = visitor.get("/jobs/coopers-rise/survey/face/front").text
    open_, seen = LOADED.findall(drawn), set[str]()
    while open_:
        path = open_.pop()
        if path not in seen:
            seen.add(path)
            answer = visitor.get(path)
            assert (answer.status_code, "immutable" in answer.headers["cache-control"]) == (200, True), path
            if path.endswith((".js", ".css")):
                # What a script or style loads is named from where it stands itself.
                open_ += [urljoin(path, beside) for beside in FROM_BESIDE.findall(answer.text)]
    loaded = {Path(path).name for path in seen}
    assert loaded >= {"look.css", "htmx.min.js", "taps.js", "table.js", "snap.js", "next-400.woff2"}


@pytest.mark.parametrize("path", ["/static/css/look.css", "/static/as-0123456789ab/css/look.css"])
def test_a_page_of_an_older_version_gets_todays_files_and_asks_again(visitor: TestClient, path: str) -> None:
    answer = visitor.get(path)
    assert (answer.status_code, answer.headers["cache-control"]) == (200, "no-cache")
    again = visitor.get(path, headers={"if-none-match": answer.headers["etag"]})
    assert again.status_code == 304


@pytest.mark.parametrize("path", ["/static/css/none.css", "/static/as-0123456789ab/none.js", "/static/as-0123456789ab"])
def test_what_is_not_there_is_not_kept(visitor: TestClient, path: str) -> None:
    answer = visitor.get(path)
    assert answer.status_code == 404
    assert "immutable" not in answer.headers.get("cache-control", "")


def test_the_address_changes_with_any_file(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(shipped, "_FOLDER", tmp_path)
    told = shipped.shipped_at.__wrapped__
    (tmp_path / "js").mkdir()
    (tmp_path / "js" / "a.js").write_text("1")
    first = told()
    assert told() == first
    (tmp_path / "js" / "a.js").write_text("2")
    second = told()
    (tmp_path / "js" / "a.js").rename(tmp_path / "js" / "b.js")
    assert len({first, second, told()}) == 3
