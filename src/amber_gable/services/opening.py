"""Opening the installation's database: checked, brought to the present schema, its plans carried along."""

from pathlib import Path

from amber_gable.core.plan.problem import plan_problem
from amber_gable.services.clock import SystemClock
from amber_gable.store.company.crews import hands_of
from amber_gable.store.database import Database
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.plans import carry_forward
from amber_gable.store.transaction import Transaction


def open_database(path: Path) -> Database:
    """Raises InputError for another program's file, a damaged one, and one of a newer version."""
    clock = SystemClock()
    database = Database(path, lambda: int(clock.now().timestamp()))
    bring_up(database)
    return database


def bring_up(database: Database) -> None:
    """Migrate, and let plans that held before hold on."""
    database.migrate()
    with database.writing() as session:
        carry_forward(session, lambda job_id: _fingerprint(session, job_id))


def _fingerprint(session: Transaction, job_id: str) -> str:
    return plan_problem(load_bundle(session, job_id), hands_of(session, job_id)).fingerprint
