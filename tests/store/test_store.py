"""The store: whole jobs in and out, edits with versions, undo, backups, and migrations."""

from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from amber_gable.core.plan.problem import plan_problem
from amber_gable.demo import demo_bundles
from amber_gable.domain.errors import InputError, NotFound
from amber_gable.domain.house.outline import Rectangle
from amber_gable.domain.house.survey import Face, Opening, Zone
from amber_gable.exchange.job.bundle import dump_bundle, load_bundle
from amber_gable.services.context import Context
from amber_gable.services.job.jobs import load_demo
from amber_gable.services.job.undo import undo_step
from amber_gable.services.job.view import job_view
from amber_gable.services.plan.planning import make_plan
from amber_gable.services.survey.surveying import remove_part
from amber_gable.store.company.crews import hands_of
from amber_gable.store.database import Database
from amber_gable.store.job import jobs, survey
from amber_gable.store.job.plans import load_plan
from amber_gable.store.tables import FaceRow, Table
from amber_gable.store.weather.series import load_series, save_series
from tests.fixtures import database_at
from tests.jobs import coopers_rise, one_wall
from tests.weather_cases import real_year, steady, utc

JOB = "coopers-rise"


@pytest.fixture
def empty(tmp_path: Path) -> Database:
    return database_at(tmp_path / "new.sqlite3", 1_000)


@pytest.mark.parametrize(("name", "text"), demo_bundles(), ids=[n for n, _ in demo_bundles()])
def test_import_then_export_gives_the_same_bytes(empty: Database, name: str, text: str) -> None:
    with empty.writing() as session:
        jobs.save_bundle(session, load_bundle(text, name))
    with empty.reading() as session:
        (listed,) = jobs.list_jobs(session)
        assert dump_bundle(jobs.load_bundle(session, listed.id)) == text


def test_the_schema_of_the_migrations_is_the_schema_of_the_code(empty: Database) -> None:
    from alembic.autogenerate import compare_metadata
    from alembic.migration import MigrationContext

    with empty.engine.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), Table.metadata) == []


def test_the_database_is_durable_and_keeps_its_references(empty: Database) -> None:
    with empty.engine.connect() as connection:
        pragma = {n: connection.exec_driver_sql(f"PRAGMA {n}").scalar() for n in ("journal_mode", "foreign_keys")}
    assert pragma == {"journal_mode": "wal", "foreign_keys": 1}


def test_a_job_that_is_there_is_not_overwritten_unasked(ctx: Context) -> None:
    bundle = coopers_rise()
    with pytest.raises(InputError, match="is here already"), ctx.writing() as session:
        jobs.save_bundle(session, bundle)
    changed = bundle.model_copy(update={"job": bundle.job.model_copy(update={"customer": "Somebody Else"})})
    with ctx.writing() as session:
        jobs.save_bundle(session, changed, replace=True)
    with ctx.reading() as session:
        assert jobs.load_bundle(session, JOB) == changed


def test_edits_raise_the_version_and_a_stale_one_is_refused_with_both_values(ctx: Context) -> None:
    with ctx.reading() as session:
        face = jobs.load_bundle(session, JOB).property.faces[0]
        before = survey.versions(session, JOB)["face", "front"]
    wider = face.model_copy(update={"outline": Rectangle(width_m=9.8, height_m=5.6)})
    with ctx.writing() as session:
        survey.put_part(session, JOB, wider, "", before)
    with ctx.reading() as session:
        assert survey.versions(session, JOB)["face", "front"] == before + 1
        row = session.get(FaceRow, ("14-coopers-rise", "front"))
        assert row is not None
        assert row.updated_at >= row.created_at > 0
    late = face.model_copy(update={"outline": Rectangle(width_m=10.1, height_m=5.6)})
    with pytest.raises(survey.StaleEdit) as stale, ctx.writing() as session:
        survey.put_part(session, JOB, late, "", before)
    assert stale.value.differences == {"width_m": (9.8, 10.1)}
    with ctx.reading() as session:
        assert jobs.load_bundle(session, JOB).property.faces[0].width_m == 9.8


@pytest.mark.parametrize(
    ("part", "face", "words"),
    [
        (
            Opening(id="huge", name="Huge", kind="window", width_m=3, height_m=5.7, x_m=0, y_m=0),
            "front",
            "larger than the face",
        ),
        (
            Zone(id="more", name="More", face="front", substrate="brick", area={"kind": "face"}, colour_now="#ffffff"),
            "front",
            "both take what the face has left",
        ),
        (Face(id="front", name="Front again", azimuth_deg=0, outline=Rectangle(width_m=2, height_m=2)), "", "is taken"),
    ],
)
def test_an_edit_that_breaks_the_whole_is_refused_whole(
    ctx: Context, part: Face | Opening | Zone, face: str, words: str
) -> None:
    with ctx.reading() as session:
        before = jobs.load_bundle(session, JOB)
    with pytest.raises(InputError, match=words), ctx.writing() as session:
        survey.put_part(session, JOB, part, face, None)
        survey.check_whole(session, JOB)
    with ctx.reading() as session:
        assert jobs.load_bundle(session, JOB) == before


@pytest.mark.parametrize(("kind", "id_"), [("face", "front"), ("zone", "front-siding"), ("opening", "front-door")])
def test_a_delete_hides_with_all_that_hangs_on_it_and_undo_brings_all_back(ctx: Context, kind: str, id_: str) -> None:
    with ctx.reading() as session:
        before = jobs.load_bundle(session, JOB)
    remove_part(ctx, JOB, kind, id_)
    with ctx.reading() as session:
        hidden = jobs.load_bundle(session, JOB)
    assert f'"{id_}"' not in dump_bundle(hidden)
    assert hidden != before
    with pytest.raises(NotFound), ctx.writing() as session:
        survey.delete_part(session, JOB, kind, id_)
    undo_step(ctx, JOB)
    with ctx.reading() as session:
        assert jobs.load_bundle(session, JOB) == before


def test_a_series_is_kept_to_the_last_bit(ctx: Context) -> None:
    series = real_year()
    with ctx.writing() as session:
        save_series(session, "14-coopers-rise", "file", series)
    with ctx.reading() as session:
        held = load_series(session, "14-coopers-rise", "file")
    assert held is not None
    assert np.array_equal(held.air_c, series.air_c)
    assert (held.source, held.utc_offset_h, held.typical_year, held.notes) == (series.source, -5.0, True, ())
    assert held.rain_pct is None


def test_a_sources_futures_come_back_to_the_hundredth(ctx: Context) -> None:
    futures = {"air_c": np.array([[12.34] * 48, [-3.21] * 48])}
    with ctx.writing() as session:
        save_series(session, "14-coopers-rise", "forecast", replace(steady(utc("2026-06-08"), 48), ensemble=futures))
    with ctx.reading() as session:
        held = load_series(session, "14-coopers-rise", "forecast")
    assert held is not None and held.ensemble is not None
    assert held.ensemble["air_c"] == pytest.approx(futures["air_c"], abs=1e-4) and held.wind_ms[0] == 1.0


def test_plans_come_back_as_they_were(ctx: Context) -> None:
    """Every field of every task, their order, and what found no place."""
    view = job_view(ctx, JOB, waits=True)
    assert view.weather.series is not None
    made = make_plan(ctx, view.bundle, view.weather.series)
    assert len(made.tasks) > 40 and made.unplaced, "the demo house has both"
    with ctx.reading() as session:
        found = load_plan(session, JOB)
        hands = hands_of(session, JOB)
    assert found is not None
    assert found.plan == made
    assert found.fingerprint == plan_problem(view.bundle, hands).fingerprint
    assert found.planned_at == int(view.now.timestamp()) and not found.warned


def test_resetting_the_demo_brings_back_what_was_changed_and_keeps_other_jobs(ctx: Context) -> None:
    with ctx.writing() as session:
        survey.delete_part(session, JOB, "face", "front")
        jobs.save_bundle(session, one_wall())
    load_demo(ctx)
    with ctx.reading() as session:
        assert dump_bundle(jobs.load_bundle(session, JOB)) == demo_bundles()[0][1]
        assert jobs.load_bundle(session, "job").property.faces
