"""SIGKILL in the middle of saving: the database opens, and holds whole jobs only."""

import os
import signal
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest

from amber_gable.store.database import Database
from amber_gable.store.job.jobs import list_jobs, load_bundle
from tests.fixtures import database_at
from tests.jobs import coopers_rise

# One process brings the program up and forks a saver for each moment: after so many statements of the third save, or
# at the moment of its commit.
_SAVERS = """
import os, signal, sys
from pathlib import Path
from sqlalchemy import event
from amber_gable.store.database import Database
from amber_gable.store.job.jobs import save_bundle
from tests.jobs import coopers_rise

bundle = coopers_rise()

def save_until(moment, path):
    database, seen = Database(Path(path), lambda: 1), [0]

    @event.listens_for(database.engine, "before_cursor_execute")
    def count(*_):
        seen[0] += 1
        if saved == 2 and seen[0] == int(moment):
            os.kill(os.getpid(), signal.SIGKILL)

    @event.listens_for(database.engine, "commit")
    def commit(*_):
        if saved == 2 and moment == "-1":
            print("committing", flush=True)

    for saved in range(4):
        seen[0] = 0
        place = bundle.property.model_copy(update={"id": f"p{saved}"})
        job = bundle.job.model_copy(update={"id": f"j{saved}"})
        with database.writing() as session:
            save_bundle(session, bundle.model_copy(update={"property": place, "job": job}))

for line in sys.stdin:
    child = os.fork()
    if child == 0:
        save_until(*line.split())
        os._exit(0)
    print(child, flush=True)
    print("status", os.waitpid(child, 0)[1], flush=True)
"""
ROOT = Path(__file__).parents[2]


@pytest.fixture(scope="module")
def savers() -> Iterator[subprocess.Popen[str]]:
    environment = {**os.environ, "PYTHONPATH": str(ROOT)}
    command = [sys.executable, "-c", _SAVERS]
    with subprocess.Popen(
        command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True, cwd=ROOT, env=environment
    ) as process:
        yield process
        assert process.stdin
        process.stdin.close()


@pytest.mark.parametrize("moment", [1, 4, 8, 12, 15, -1])
def test_a_kill_during_a_save_leaves_no_partial_job(tmp_path: Path, savers: subprocess.Popen[str], moment: int) -> None:
    path = tmp_path / "killed.sqlite3"
    database_at(path).engine.dispose()
    assert savers.stdin and savers.stdout
    print(moment, path, file=savers.stdin, flush=True)
    child = int(savers.stdout.readline())
    if moment == -1:
        assert savers.stdout.readline() == "committing\n"
        os.kill(child, signal.SIGKILL)
    assert savers.stdout.readline() == f"status {signal.SIGKILL.value}\n", "killed before it was done"
    database = Database(path, lambda: 2)
    database.migrate()
    whole = coopers_rise()
    with database.reading() as session:
        assert session.connection().exec_driver_sql("PRAGMA integrity_check").scalar() == "ok"
        found = list_jobs(session)
        assert len(found) == 2 or (moment == -1 and len(found) == 3)
        for summary in found:
            bundle = load_bundle(session, summary.id)
            assert bundle.property.faces == whole.property.faces
            assert bundle.job.finishes == whole.job.finishes
    database.engine.dispose()
