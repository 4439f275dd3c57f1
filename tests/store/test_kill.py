"""SIGKILL in the middle of saving: the database opens, and holds whole jobs only."""

import os
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest

from amber_gable.store.database import Database
from amber_gable.store.jobs import list_jobs, load_bundle
from tests.jobs import coopers_rise

_SAVER = """
import sys, itertools
from pathlib import Path
from amber_gable.store.database import Database
from amber_gable.store.jobs import save_bundle
from tests.jobs import coopers_rise

database = Database(Path(sys.argv[1]), lambda: 1)
database.migrate()
bundle = coopers_rise()
print("ready", flush=True)
for n in itertools.count():
    renamed = bundle.model_copy(update={
        "property": bundle.property.model_copy(update={"id": f"p{n}"}),
        "job": bundle.job.model_copy(update={"id": f"j{n}"}),
    })
    with database.writing() as session:
        save_bundle(session, renamed)
        session.flush()
        print("inside", flush=True)
"""


@pytest.mark.parametrize("pause_ms", [0, 4, 11, 23, 40])
def test_a_kill_during_a_save_leaves_no_partial_job(tmp_path: Path, pause_ms: int) -> None:
    path = tmp_path / "killed.sqlite3"
    root = Path(__file__).parents[2]
    saver = subprocess.Popen(
        [sys.executable, "-c", _SAVER, str(path)],
        stdout=subprocess.PIPE,
        text=True,
        cwd=root,
        env={**os.environ, "PYTHONPATH": str(root)},
    )
    assert saver.stdout is not None
    seen = 0
    for line in saver.stdout:
        seen += line.strip() == "inside"
        if seen == 3:
            break
    time.sleep(pause_ms / 1000)
    saver.send_signal(signal.SIGKILL)
    saver.wait(10)
    database = Database(path, lambda: 2)
    database.migrate()
    whole = coopers_rise()
    with database.reading() as session:
        assert session.connection().exec_driver_sql("PRAGMA integrity_check").scalar() == "ok"
        found = list_jobs(session)
        assert len(found) >= 2
        for summary in found:
            bundle = load_bundle(session, summary.id)
            assert bundle.property.faces == whole.property.faces
            assert bundle.job.finishes == whole.job.finishes
