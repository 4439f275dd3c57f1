"""Running it for a firm: from which addresses, and what the files for a container and a service name."""

import re
import subprocess
import sys
from configparser import ConfigParser
from pathlib import Path

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from amber_gable.domain.errors import InputError
from amber_gable.services.context import Context
from amber_gable.services.settings import Settings
from amber_gable.web.app import create_app

ROOT = Path(__file__).parents[1]
CONTAINER, SERVICE = (ROOT / "deploy" / n for n in ("Containerfile", "amber-gable.service"))
REACHED = [
    {"host": "0.0.0.0"},
    {"host": "192.168.1.20"},
    {"hosts": "paint.example"},
    {"public_url": "https://paint.example"},
]


@pytest.mark.parametrize("reached", REACHED, ids=str)
def test_without_accounts_no_other_machine_reaches_it(reached: dict[str, str]) -> None:
    with pytest.raises(InputError, match="there are no accounts yet"):
        Settings(**reached).check_reach(accounts=False)  # type: ignore[arg-type]
    Settings(**reached).check_reach(accounts=True)  # type: ignore[arg-type]


def test_the_program_says_so_when_it_is_started(tmp_path: Path) -> None:
    environment = {"AMBER_GABLE_HOST": "0.0.0.0", "AMBER_GABLE_DATA": str(tmp_path), "PATH": ""}
    run = subprocess.run(
        [sys.executable, "-m", "amber_gable.cli", "serve"], env=environment, capture_output=True, text=True, timeout=60
    )
    assert run.returncode == 2
    assert "AMBER_GABLE_HOST: is 0.0.0.0: there are no accounts yet" in run.stderr
    assert not list(tmp_path.iterdir()), "nothing was begun"


def test_pages_are_asked_for_under_the_names_that_are_set(ctx: Context) -> None:
    names = Settings(hosts="Paint.example, other.example", public_url="https://gable.example:8443/").names
    assert {"127.0.0.1", "localhost", "paint.example", "other.example", "gable.example"} <= names
    app: FastAPI = create_app(ctx.space, names)
    for host, status in (("paint.example", 200), ("127.0.0.1:8765", 200), ("evil.example", 421)):
        assert TestClient(app, base_url=f"http://{host}").get("/glossary").status_code == status, host


def test_the_container_copies_what_is_there_and_starts_the_program() -> None:
    text = CONTAINER.read_text(encoding="utf-8")
    for line in re.findall(r"^COPY (.+) \S+$", text, re.MULTILINE):
        assert all((ROOT / name).exists() for name in line.split()), line
    lock = re.search(r"python:(3\.\d+)-slim", text)
    assert lock and f"{lock[1]}.lock" in text, "the packages are those locked for its Python"
    assert 'CMD ["amber-gable", "serve"]' in text and "USER gable" in text


def test_the_service_starts_the_program_with_data_of_its_own() -> None:
    unit = ConfigParser(strict=True, interpolation=None)
    unit.optionxform = str  # type: ignore[assignment, method-assign]
    unit.read_string(SERVICE.read_text(encoding="utf-8"))
    service = unit["Service"]
    assert service["ExecStart"].endswith("/amber-gable serve")
    assert f"/var/lib/{service['StateDirectory']}" in service["Environment"]
    known = {f"AMBER_GABLE_{name.upper()}" for name in Settings.model_fields} | {"AMBER_GABLE_COMPILED"}
    assert {pair.split("=")[0] for pair in service["Environment"].split()} <= known
