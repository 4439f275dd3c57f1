"""Sheets in revisions, pinned by jobs with the company's settings; plans by a fingerprint of what they read; steps of
undo with the schema they were written in"""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None

_PLANNED_FROM = (
    "SELECT max(r.updated_at) FROM {table} r JOIN job j ON j.property_id = r.{key} WHERE j.id = :job",
    ("face", "opening", "obstacle", "zone", "item"),
)


def _rows(statement: str, **values: Any) -> list[Any]:
    return list(op.get_bind().execute(sa.text(statement), values).mappings())


def _run(statement: str, **values: Any) -> None:
    op.get_bind().execute(sa.text(statement), values)


def upgrade() -> None:
    _revisions()
    _pins()
    _plans()
    op.create_table(
        "change",
        sa.Column("scope", sa.String(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("scope", name=op.f("pk_change")),
    )
    # What was surveyed before is written as schema 3 has it, which this one reads unchanged.
    op.add_column("edit", sa.Column("written_in", sa.Integer(), nullable=False, server_default="3"))


def _revisions() -> None:
    text, whole = sa.String(), sa.Integer()
    op.create_table(
        "sheet",
        sa.Column("company_id", text, nullable=False),
        sa.Column("kind", text, nullable=False),
        sa.Column("code", text, nullable=False),
        sa.Column("revision", whole, nullable=False),
        sa.Column("body", sa.JSON(), nullable=False),
        sa.Column("current", sa.Boolean(), nullable=False),
        *(sa.Column(name, whole, nullable=False) for name in ("created_at", "updated_at", "version")),
        sa.ForeignKeyConstraint(["company_id"], ["company.id"], name=op.f("fk_sheet_company_id_company")),
        sa.PrimaryKeyConstraint("company_id", "kind", "code", "revision", name=op.f("pk_sheet")),
    )
    copy = (
        "INSERT INTO sheet (company_id, kind, code, revision, body, current, created_at, updated_at, version) "
        "SELECT company_id, '{kind}', {code}, 1, {body}, 1, created_at, updated_at, 1 FROM {table}"
    )
    whole_system = "json_object('id', id, 'name', name, 'operations', json(operations), 'note', note)"
    _run(copy.format(kind="product", code="code", body="sheet", table="product"))
    _run(copy.format(kind="system", code="id", body=whole_system, table="coating_system"))
    op.drop_table("product")
    op.drop_table("coating_system")


def _pins() -> None:
    """What a job's finishes use is pinned as it stands; the rest of its shelf follows the stores."""
    op.add_column("job", sa.Column("company_settings", sa.JSON(), nullable=False, server_default="{}"))
    jobs = _rows(
        "SELECT j.id, j.products, j.systems, c.id AS company, c.currency, c.lead_cutoff_year, c.schools "
        "FROM job j JOIN property p ON p.id = j.property_id JOIN company c ON c.id = p.company_id"
    )
    for job in jobs:
        finishes = _rows("SELECT system_id, operations FROM finish WHERE job_id = :job", job=job["id"])
        systems = {f["system_id"] for f in finishes if f["system_id"]}
        steps = [step for f in finishes for step in json.loads(f["operations"])]
        for system in systems:
            (body,) = (
                json.loads(r["body"])
                for r in _rows(
                    "SELECT body FROM sheet WHERE company_id = :company AND kind = 'system' AND code = :code",
                    company=job["company"],
                    code=system,
                )
            )
            steps += body["operations"]
        used = {step.get("product") for step in steps}
        settings = {
            "currency": job["currency"],
            "lead_cutoff_year": job["lead_cutoff_year"],
            "schools": json.loads(job["schools"]),
        }
        _run(
            "UPDATE job SET products = :products, systems = :systems, company_settings = :settings WHERE id = :job",
            job=job["id"],
            products=json.dumps([_pin(code, used) for code in json.loads(job["products"])]),
            systems=json.dumps([_pin(code, systems) for code in json.loads(job["systems"])]),
            settings=json.dumps(settings),
        )


def _pin(code: str, used: set[Any]) -> dict[str, Any]:
    return {"code": code, "revision": 1 if code in used else None}


def _plans() -> None:
    """The old digest took in every field there was and cannot be worked out again. A plan that nothing was changed
    since is marked to be taken as it is ('as-is'), any other as one whose job changed ('changed')."""
    op.add_column("plan", sa.Column("fingerprint", sa.String(), nullable=False, server_default="changed"))
    statement, tables = _PLANNED_FROM
    for plan in _rows("SELECT job_id, created_at FROM plan"):
        of_job = "SELECT max(updated_at) FROM {table} WHERE {key} = :job"
        latest = [
            *(statement.format(table=table, key="property_id") for table in tables),
            statement.format(table="property", key="id"),
            of_job.format(table="job", key="id"),
            of_job.format(table="finish", key="job_id"),
            "SELECT max(s.updated_at) FROM sheet s JOIN property p ON p.company_id = s.company_id "
            "JOIN job j ON j.property_id = p.id WHERE j.id = :job",
        ]
        times = [next(iter(_rows(one, job=plan["job_id"])[0].values())) for one in latest]
        if max(t for t in times if t is not None) <= plan["created_at"]:
            _run("UPDATE plan SET fingerprint = 'as-is' WHERE job_id = :job", job=plan["job_id"])
    op.drop_column("plan", "digest")
