"""A database of the first release, with a surveyed wall in it, is brought to the present schema and loses nothing."""

import hashlib
import json
import sqlite3
from pathlib import Path
from typing import Any

import pytest
from alembic import command
from alembic.config import Config

from amber_gable.core.estimate.estimate import job_estimate
from amber_gable.core.plan.problem import plan_problem
from amber_gable.core.survey.amounts.takeoff import zone_areas
from amber_gable.domain.errors import InputError
from amber_gable.domain.findings.condition import Coating
from amber_gable.domain.job.versions import brought_up
from amber_gable.domain.paint.families import Family
from amber_gable.domain.paint.generic_products import GENERIC_PRODUCTS
from amber_gable.domain.work.estimating import Estimating
from amber_gable.services.opening import bring_up
from amber_gable.store.company.stock import cans
from amber_gable.store.database import Database
from amber_gable.store.job import journal
from amber_gable.store.job.jobs import load_bundle, save_bundle
from amber_gable.store.job.photos import all_photo_bytes
from amber_gable.store.job.plans import load_plan
from amber_gable.store.job.specification import finish_versions, newer_than_pinned
from amber_gable.store.soundness import MIGRATIONS
from amber_gable.store.tables import CompanyRow
from tests.jobs import coopers_rise

STAMPS = {"created_at": 5, "updated_at": 6, "created_by": "", "updated_by": "", "version": 3}
CONDITION = {"loose_pct": 20, "mildew_pct": 0, "chalking": "light", "gloss": "dull", "bare": True, "note": ""}


def _insert(connection: sqlite3.Connection, table: str, **fields: object) -> None:
    have = {row[1] for row in connection.execute(f"PRAGMA table_info({table})")}
    fields = {**STAMPS, **fields}
    kept = {k: json.dumps(v) if isinstance(v, dict | list) else v for k, v in fields.items() if k in have}
    marks = ", ".join("?" for _ in kept)
    connection.execute(f"INSERT INTO {table} ({', '.join(kept)}) VALUES ({marks})", list(kept.values()))


def _upgrade(database: Database, revision: str) -> None:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    with database.engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, revision)


@pytest.fixture
def first_release(tmp_path: Path) -> Database:
    """A file at schema 0001 with one gable wall, a deleted opening beside a live one, and a metered zone."""
    database = Database(tmp_path / "old.sqlite3", lambda: 9)
    _upgrade(database, "0001")
    with sqlite3.connect(database.path) as connection:
        _insert(connection, "company", id="c", name="C", currency="CAD")
        _insert(
            connection, "property", id="p", company_id="c", name="P", place="Here", year_built=1931, latitude=45.0,
            longitude=-62.0, altitude_m=1.0, time_zone="America/Halifax",
        )  # fmt: skip
        size = {"width_m": 7.4, "eave_height_m": 5.6, "gable_rise_m": 2.6}
        _insert(
            connection, "face", property_id="p", id="f", position=0, name="West", azimuth_deg=278.0, tilt_deg=90.0,
            exposure="open", rain_exposure=1.0, horizon=[], note="", **size,
        )  # fmt: skip
        box = {"kind": "window", "width_m": 0.9, "height_m": 1.4, "x_m": 3.2, "y_m": 3.6}
        for id_, deleted in (("w", None), ("gone", 4)):
            where = {"property_id": "p", "id": id_, "face_id": "f", "position": 0, "name": id_, "deleted_at": deleted}
            _insert(connection, "opening", **where, **box)
        _insert(
            connection, "zone", property_id="p", id="z", face_id="f", position=0, name="Siding", substrate="wood-lap",
            area={"kind": "face"}, colour_now="#808080", condition={**CONDITION, "wood_moisture_pct": 13.5},
        )  # fmt: skip
        _insert(
            connection, "job", id="j", property_id="p", name="J", customer="A", deduction="net", crew={},
            policy={"sun": "temperature", "hold": "touch-dry"}, products=[], systems=[], note="",
        )  # fmt: skip
    return database


def test_a_first_release_database_keeps_its_survey(first_release: Database) -> None:
    first_release.migrate()
    with first_release.reading() as session:
        bundle = load_bundle(session, "j")
    face, zone = bundle.property.faces[0], bundle.property.zones[0]
    assert face.outline.kind == "gable"
    assert [o.id for o in face.openings] == ["w"]
    area = zone_areas(bundle.property, "net")["z"]
    assert area.plan_m2 == pytest.approx(7.4 * 5.6 + 7.4 * 2.6 / 2 - 0.9 * 1.4)
    assert zone.condition.coating is Coating.BARE
    assert [r.pct for r in zone.condition.moisture] == [13.5]
    assert zone.condition.loose_pct == 20
    assert (bundle.job.schools, bundle.policy.sun) == ({"deduction": "net", "sun": "temperature"}, "temperature")
    copies = list(first_release.path.parent.glob("old.before-*.sqlite3"))
    assert len(copies) == 1, "a copy was put aside before"
    with sqlite3.connect(copies[0]) as connection:
        assert connection.execute("SELECT gable_rise_m FROM face").fetchone() == (2.6,)
    first_release.migrate()
    assert list(first_release.path.parent.glob("old.before-*.sqlite3")) == copies, "an up-to-date file is left alone"


def test_a_bundle_of_version_one_is_brought_up_and_left_as_it_was() -> None:
    old = {
        "version": 1,
        "property": {
            "faces": [{"id": "a", "width_m": 4, "eave_height_m": 3}, "nonsense"],
            "zones": [{"id": "z", "condition": {"wood_moisture_pct": None, "bare": False, "loose_pct": 3}}],
        },
    }
    before = json.dumps(old)
    new = brought_up(old)
    assert json.dumps(old) == before
    assert new["property"]["faces"][0]["outline"] == {"kind": "rectangle", "width_m": 4, "height_m": 3}
    assert new["property"]["zones"][0]["condition"] == {"loose_pct": 3}
    assert brought_up({"version": 3, "x": 1}) == {"version": 6, "x": 1}
    assert brought_up({"version": 6, "x": 1}) == {"version": 6, "x": 1}


def test_schools_of_openings_and_weather_of_version_four_join_the_others() -> None:
    chosen = {"sun": "follow-shade", "hold": "touch-dry", "ladder_wind_max": 9.0}
    job = {"deduction": "gross", "policy": chosen, "schools": {"wash": "pressure"}}
    new = brought_up({"version": 4, "job": job})["job"]
    schools = {"wash": "pressure", "deduction": "gross", "sun": "follow-shade"}
    assert new == {"policy": {"ladder_wind_max": 9.0}, "schools": schools}
    assert brought_up({"version": 4, "job": {"policy": 3, "schools": "?"}})["job"] == {"policy": 3, "schools": "?"}


FAMILIES = [
    ({"family": "Exterior acrylic", "surface_min_c": 10}, "exterior-acrylic"),
    ({"family": "Exterior acrylic", "surface_min_c": 2}, "low-temperature-acrylic"),
    ({"family": "Deck stain", "name": "Deck stain, solid"}, "solid-stain"),
    ({"family": "Floor and porch", "base": "alkyd"}, "floor-alkyd"),
    ({"family": "peel-bonding primer"}, "peel-bonding-primer"),
    ({"family": "Whitewash"}, "other"),
]


@pytest.mark.parametrize(("sheet", "family"), FAMILIES)
def test_a_family_in_free_words_finds_its_code(sheet: dict[str, object], family: str) -> None:
    new = brought_up({"version": 2, "products": [sheet, "nonsense"]})
    assert new["version"] == 6
    assert new["products"][0]["family"] == family
    assert family != "other" or new["products"][0]["note"] == "Whitewash"


def test_a_second_release_database_keeps_its_finishes_and_sheets(first_release: Database) -> None:
    _upgrade(first_release, "0002")
    sheet = GENERIC_PRODUCTS["exterior-acrylic-low-temperature"].model_dump(mode="json", exclude_defaults=True)
    sheet |= {"family": "Exterior acrylic"}
    step = {"id": "coat-1", "name": "Coat", "kind": "coat", "product": sheet["code"], "method": "brush"}
    with sqlite3.connect(first_release.path) as connection:
        _insert(connection, "product", company_id="c", code=sheet["code"], sheet=sheet)
        _insert(connection, "coating_system", company_id="c", id="s", name="S", operations=[step], note="")
        connection.execute("UPDATE job SET products = ?, systems = ?", (json.dumps([sheet["code"]]), '["s"]'))
        _insert(
            connection, "finish", job_id="j", zone_id="z", position=0, system_id="s", colour="#e9dcc1",
            colour_name="Oat",
        )  # fmt: skip
    first_release.migrate()
    with first_release.reading() as session:
        bundle = load_bundle(session, "j")
        assert finish_versions(session, "j") == {("zone", "z"): 3}
    (finish,) = bundle.job.finishes
    assert (finish.part, finish.system, finish.colour_name) == (("zone", "z"), "s", "Oat")
    assert [o.id for o in bundle.operations(finish)] == ["coat-1"]
    assert bundle.products[0].family is Family.LOW_TEMPERATURE_ACRYLIC
    assert bundle.company.lead_cutoff_year == 1978
    assert bundle.property.lead_found is None


def test_a_third_release_database_reads_conditions_without_the_newer_tests(tmp_path: Path) -> None:
    database = Database(tmp_path / "third.sqlite3", lambda: 1_800_000_000)
    database.migrate()
    with database.writing() as session:
        save_bundle(session, coopers_rise())
    newer = ("efflorescence", "tannin", "rust_pct", "timber", "made_colour", "adhesion", "asbestos", "stubs")
    with sqlite3.connect(database.path) as connection:
        for table in ("zone", "item"):
            for id_, text in connection.execute(f"SELECT id, condition FROM {table}").fetchall():
                old = {k: v for k, v in json.loads(text).items() if k not in newer}
                connection.execute(f"UPDATE {table} SET condition = ? WHERE id = ?", (json.dumps(old), id_))
    database.migrate()
    with database.reading() as session:
        bundle = load_bundle(session, "coopers-rise")
    assert all(z.condition.adhesion is None and z.condition.stubs == 0 for z in bundle.property.zones)
    assert bundle.job.finishes


_TASK = {"job_id": "j", "id": "t", "position": 0, "starts_at": 0, "ends_at": 1, "details": {}}
_MOVED = {"kind": "opening", "id": "w"}


def test_a_database_before_the_estimates_gets_them_with_the_trades_rates_pinned(first_release: Database) -> None:
    """The company's own rates, written after it was brought up, do not reach a job that was begun before."""
    _upgrade(first_release, "0011")
    first_release.migrate()
    with first_release.writing() as session:
        session.get_one(CompanyRow, "c").rates = {"brush": {"per_hour": 99, "spread": 1.5, "source": "mine"}}
    with first_release.reading() as session:
        bundle = load_bundle(session, "j")
        assert cans(session, "c") == []
        _, settings = newer_than_pinned(session, "j")
    assert bundle.company.rates == {} and "rates" in settings
    assert bundle.job.estimating == Estimating()
    assert job_estimate(bundle).hours.hours == 0, "nothing was specified yet"


def _opening(connection: sqlite3.Connection) -> dict[str, Any]:
    connection.row_factory = sqlite3.Row
    row = dict(connection.execute("SELECT * FROM opening WHERE id = 'w'").fetchone())
    connection.row_factory = None
    return {k: v for k, v in row.items() if k not in (*STAMPS, "property_id", "id", "deleted_at")}


# Schema, and whether the job was changed after its plan was made.
OLDER = [(schema, changed) for schema in ("0001", "0002", "0003") for changed in (False, True)]


@pytest.mark.parametrize(("schema", "changed"), OLDER)
def test_undo_and_plans_of_every_older_schema_live_on(first_release: Database, schema: str, changed: bool) -> None:
    """A window was moved from 3.0 to 3.2 m, a plan made at second 10, and perhaps the wall touched at second 11."""
    if schema != "0001":
        _upgrade(first_release, schema)
    with sqlite3.connect(first_release.path) as connection:
        if schema != "0001":
            after = _opening(connection)
            change = {**_MOVED, "before": after | {"x_m": 3.0}, "after": after}
            _insert(connection, "edit", property_id="p", number=1, words="move w", changes=[change], undone=False)
        _insert(connection, "plan", job_id="j", digest="0" * 64, planned_at=10, unplaced=[], created_at=10)
        if changed:
            connection.execute("UPDATE face SET updated_at = 11")
    bring_up(first_release)
    with first_release.reading() as session:
        bundle, found = load_bundle(session, "j"), load_plan(session, "j")
    assert found is not None
    assert (found.fingerprint == plan_problem(bundle).fingerprint) is not changed
    if schema == "0001":
        return
    for words, x_m in (("undo", 3.0), ("redo", 3.2)):
        with first_release.writing() as session:
            getattr(journal, words)(session, "p")
        with first_release.reading() as session:
            assert load_bundle(session, "j").property.faces[0].openings[0].x_m == x_m


def test_a_column_that_came_later_ends_no_history(first_release: Database) -> None:
    """Steps recorded before a column was there are still taken back, and what is in the column stays."""
    first_release.migrate()
    with sqlite3.connect(first_release.path) as connection:
        after = {k: v for k, v in _opening(connection).items() if k != "casing_m"}
        connection.execute("UPDATE opening SET casing_m = 0.12")
        change = {**_MOVED, "before": after | {"x_m": 3.0}, "after": after}
        step = {"property_id": "p", "number": 1, "words": "move w", "changes": [change], "undone": False}
        _insert(connection, "edit", written_in=1, **step)
    with first_release.writing() as session:
        journal.undo(session, "p")
    with first_release.reading() as session:
        opening = load_bundle(session, "j").property.faces[0].openings[0]
    assert (opening.x_m, opening.casing_m) == (3.0, 0.12)


def test_a_step_of_columns_that_are_gone_is_closed_with_a_word(first_release: Database) -> None:
    first_release.migrate()
    with sqlite3.connect(first_release.path) as connection:
        change = {**_MOVED, "before": {"sill_m": 1.0}, "after": {"sill_m": 2.0}}
        step = {"property_id": "p", "number": 1, "words": "lift w", "changes": [change], "undone": False}
        _insert(connection, "edit", written_in=1, **step)
    with pytest.raises(InputError, match="older version"), first_release.writing() as session:
        journal.undo(session, "p")


def test_migrations_import_nothing_of_the_program() -> None:
    """What they did to the first databases they must do to the last, whatever the program has become."""
    for path in (MIGRATIONS / "versions").glob("*.py"):
        assert "amber_gable" not in path.read_text(encoding="utf-8"), path.name


def test_pictures_inside_the_database_become_files(first_release: Database) -> None:
    """Of deleted photos too, which may be brought back; two of the same bytes are one file."""
    _upgrade(first_release, "0016")
    with sqlite3.connect(first_release.path) as connection:
        pictures = (("a", b"\xff\xd8\xffone", None), ("b", b"\xff\xd8\xfftwo", 4), ("c", b"\xff\xd8\xffone", None))
        for id_, data, deleted in pictures:
            digest = hashlib.sha256(data).hexdigest()
            size = {"width_px": 4, "height_px": 3}
            row = {
                "property_id": "p",
                "id": id_,
                "face_id": "f",
                "position": 0,
                "name": id_,
                "sha256": digest,
                "note": "",
            }
            _insert(connection, "photo", data=data, deleted_at=deleted, **row, **size)
    first_release.migrate()
    with first_release.reading() as session:
        assert all_photo_bytes(session, "j") == {"a": b"\xff\xd8\xffone", "c": b"\xff\xd8\xffone"}
        assert first_release.pictures.get(hashlib.sha256(b"\xff\xd8\xfftwo").hexdigest(), "b")
    assert len(list(first_release.pictures.folder.rglob("*.jpg"))) == 2
