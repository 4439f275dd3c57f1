"""Templates and styles are written so that a change of them can be read."""

import re
from pathlib import Path

import pytest

import amber_gable.web

WEB = Path(amber_gable.web.__file__).parent
WIDEST = {".html": 140, ".css": 160, ".js": 160}
WRITTEN = [p for kind in ("templates/**/*.html", "static/css/*.css", "static/js/*.js") for p in WEB.glob(kind)]


@pytest.mark.parametrize("path", WRITTEN, ids=lambda p: p.name)
def test_no_line_is_too_long_for_a_diff(path: Path) -> None:
    lines = path.read_text(encoding="utf-8").splitlines()
    assert [n for n, line in enumerate(lines, 1) if len(line) > WIDEST[path.suffix]] == []
    if path.suffix == ".css":
        assert [n for n, line in enumerate(lines, 1) if line.count("{") > 1 or line.count(";") > 1] == []


def test_one_or_several_is_worded_by_the_filter() -> None:
    """Every template says `count|plural('task is', 'tasks are')`, so that no wording of a count stands twice."""
    choice = re.compile(r"'[^'\n]*'\s+if\s+\S+\s*[=!]=\s*1\s+else\s+'[a-z ]*'")
    assert [(p.name, m[0]) for p in WRITTEN if p.suffix == ".html" for m in choice.finditer(p.read_text())] == []
