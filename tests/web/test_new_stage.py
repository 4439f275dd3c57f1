"""A stage is registered once: a line in the table of stages, and files of its own."""

import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

import amber_gable

SOURCE = Path(amber_gable.__file__).parent
LINE = """    Stage(9, "tea", "Tea", lambda view, weather: f"{len(view.bundle.job.finishes)} cups"),
)  # fmt: skip


def stage_of("""
ROUTES = '''"""Tea."""

from fastapi import APIRouter, Request
from starlette.responses import Response

from amber_gable.web.pages import job_page, load_job

router = APIRouter(prefix="/jobs/{job_id}/tea")


@router.get("")
def tea(request: Request, job_id: str) -> Response:
    return job_page(request, load_job(request, job_id), "tea", {})
'''
PAGE = '{% extends "job.html" %}{% block sheet %}<p>The kettle is on.</p>{% endblock %}'
USE = """
import sys
from pathlib import Path
from fastapi.testclient import TestClient
from amber_gable.services.context import Context
from amber_gable.services.clock import DemoClock
from amber_gable.services.job.jobs import load_demo
from amber_gable.services.opening import open_database
from amber_gable.services.workspace import Workspace
from amber_gable.web.app import create_app

database = open_database(Path(sys.argv[1]))
space = Workspace(database, DemoClock(database), None)
load_demo(Context(space))
client = TestClient(create_app(space), base_url="http://127.0.0.1:8765")
for address in ("/jobs/heron-deck/tea", "/jobs/heron-deck/survey", "/jump?find=tea", "/yard/waits/heron-deck"):
    answer = client.get(address, headers={"accept": "text/html"})
    print(address, answer.status_code, answer.text.replace("\\n", " "))
"""


@pytest.fixture
def grown(tmp_path: Path) -> Path:
    """The program with an empty stage more."""
    package = tmp_path / "amber_gable"
    shutil.copytree(SOURCE, package, ignore=shutil.ignore_patterns("__pycache__"))
    table = package / "services" / "job" / "stages.py"
    text = table.read_text(encoding="utf-8")
    assert text.count(")  # fmt: skip\n\n\ndef stage_of(") == 1
    table.write_text(text.replace(")  # fmt: skip\n\n\ndef stage_of(", LINE), encoding="utf-8")
    (package / "web" / "routes" / "tea.py").write_text(ROUTES, encoding="utf-8")
    (package / "web" / "templates" / "tea.html").write_text(PAGE, encoding="utf-8")
    return tmp_path


def test_a_stage_takes_one_line_and_its_own_files(grown: Path) -> None:
    run = subprocess.run(
        [sys.executable, "-c", USE, str(grown / "x.sqlite3")],
        env=os.environ | {"PYTHONPATH": str(grown), "AMBER_GABLE_PLAIN": "1"},
        capture_output=True,
        text=True,
    )
    assert run.returncode == 0, run.stderr
    tea, survey, jump, waits = run.stdout.splitlines()
    assert tea.startswith("/jobs/heron-deck/tea 200") and "The kettle is on." in tea and "<h1>Tea</h1>" in tea
    assert 'data-key="9"' in survey and 'id="lacks-tea"' in survey, "the rail leads there and says what it lacks"
    assert 'href="/jobs/heron-deck/tea"' in survey
    assert "/jobs/heron-deck/tea" in jump, "it is found by typing"
    assert "cups" in waits, "the yard tells what it waits for"
