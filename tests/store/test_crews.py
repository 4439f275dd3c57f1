"""Crews and people belong to the company; a job names its crew."""

import sqlite3
from pathlib import Path

from amber_gable.core.plan.problem import plan_problem
from amber_gable.domain.work.people import Craft, unnamed
from amber_gable.domain.work.working import CrewDay
from amber_gable.store.company.crews import crew_of, crews, hands_of, people, set_crew
from amber_gable.store.database import Database
from amber_gable.store.job.jobs import live_job, load_bundle, save_bundle
from amber_gable.store.tables import PersonRow
from tests.fixtures import database_at
from tests.jobs import coopers_rise
from tests.store.test_migrations import _insert, _upgrade, first_release  # noqa: F401

RISE = "coopers-rise"


def _two_jobs(path: Path) -> Database:
    database, bundle = database_at(path / "crews.sqlite3"), coopers_rise()
    with database.writing() as session:
        save_bundle(session, bundle)
        place = bundle.property.model_copy(update={"id": "other"})
        job = bundle.job.model_copy(update={"id": "other", "crew": CrewDay(people=5, work_saturday=False)})
        save_bundle(session, bundle.model_copy(update={"property": place, "job": job}))
    return database


def test_jobs_of_one_company_share_its_people(tmp_path: Path) -> None:
    database, bundle = _two_jobs(tmp_path), coopers_rise()
    with database.reading() as session:
        assert load_bundle(session, RISE).job.crew == bundle.job.crew
        assert load_bundle(session, "other").job.crew == CrewDay(people=5, work_saturday=False)
        assert len(people(session, bundle.company.id)) == 5, "the four of the one are among the five of the other"
        assert len(hands_of(session, RISE)) == bundle.job.crew.people
        assert set(hands_of(session, RISE)) < set(hands_of(session, "other"))


def test_a_crew_is_found_again_and_a_change_leaves_the_other_jobs_alone(tmp_path: Path) -> None:
    database, company = _two_jobs(tmp_path), coopers_rise().company.id
    with database.writing() as session:
        job, other = live_job(session, RISE), live_job(session, "other")
        before, five = crew_of(session, job), crew_of(session, other)
        set_crew(session, job, five[1])
        assert job.crew_id == other.crew_id
        set_crew(session, job, CrewDay(people=2))
        assert crew_of(session, other) == five
        set_crew(session, job, before[1])
        assert job.crew_id == before[0].id, "the crew it had is the one it gets again"
    with database.reading() as session:
        assert [c.name for c, _ in crews(session, company).values()] == ["Crew 1", "Crew 2", "Crew 3"]


def test_what_somebody_can_do_is_read_with_the_plan(tmp_path: Path) -> None:
    database, bundle = _two_jobs(tmp_path), coopers_rise()
    with database.reading() as session:
        before = hands_of(session, RISE)
    assert plan_problem(bundle, before).fingerprint == plan_problem(bundle).fingerprint, "nothing is known of anybody"
    with database.writing() as session:
        row = session.get_one(PersonRow, (bundle.company.id, before[0].id))
        row.name, row.crafts = "Ada", [Craft.SPRAY.value]
    with database.reading() as session:
        after = hands_of(session, RISE)
    assert (after[0].name, after[0].crafts) == ("Ada", (Craft.SPRAY,))
    assert plan_problem(bundle, after).fingerprint != plan_problem(bundle, before).fingerprint
    named = tuple(p.model_copy(update={"name": f"Hand {p.id}"}) for p in before)
    assert plan_problem(bundle, named).fingerprint == plan_problem(bundle, before).fingerprint, "a name changes no plan"


def test_crews_of_older_databases_come_from_their_jobs(first_release: Database) -> None:  # noqa: F811
    """Three jobs, two of them worked alike: two crews, of three people together."""
    _upgrade(first_release, "0015")
    with sqlite3.connect(first_release.path) as connection:
        connection.execute("UPDATE job SET crew = json_object('people', 3, 'start_h', 8.0, 'end_h', 16.0)")
        columns = [row[1] for row in connection.execute("PRAGMA table_info(job)")]
        for name, crew in (("k", '{"people": 3, "start_h": 8.0, "end_h": 16.0}'), ("l", '{"people": 1}')):
            values = ", ".join(f"'{name}'" if c == "id" else f"'{crew}'" if c == "crew" else c for c in columns)
            connection.execute(f"INSERT INTO job SELECT {values} FROM job WHERE id = 'j'")
    first_release.migrate()
    with first_release.reading() as session:
        known = {job: crew_of(session, live_job(session, job)) for job in ("j", "k", "l")}
        assert known["j"] == known["k"] and known["j"][0].id != known["l"][0].id
        assert (known["j"][1].people, known["j"][1].start_h, known["j"][1].setup_h) == (3, 8.0, 0.5)
        assert known["l"][1] == CrewDay(people=1)
        assert tuple(people(session, "c").values()) == unnamed(3)
