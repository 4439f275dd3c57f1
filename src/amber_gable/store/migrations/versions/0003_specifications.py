"""Finishes of zones and items with steps of their own; schools by company, job and part; full data sheets; colours"""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op

from amber_gable.domain.versions import product_from_2

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def _stamps() -> list[Any]:
    return [sa.Column(name, sa.Integer(), nullable=False) for name in ("created_at", "updated_at", "version")]


def _json(table: str, column: str, empty: str) -> None:
    op.add_column(table, sa.Column(column, sa.JSON(), nullable=False, server_default=empty))


def upgrade() -> None:
    connection = op.get_bind()
    op.add_column("company", sa.Column("lead_cutoff_year", sa.Integer(), nullable=False, server_default="1978"))
    _json("company", "schools", "{}")
    op.add_column("property", sa.Column("lead_found", sa.Boolean(), nullable=True))
    _json("job", "schools", "{}")
    _json("job", "schemes", "[]")
    _json("job", "acknowledged", "[]")
    old = connection.execute(sa.text("SELECT * FROM finish")).mappings().all()
    op.drop_table("finish")
    text = sa.String()
    table = op.create_table(
        "finish",
        sa.Column("job_id", text, nullable=False),
        sa.Column("part_kind", text, nullable=False),
        sa.Column("part_id", text, nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("system_id", text, nullable=True),
        sa.Column("operations", sa.JSON(), nullable=False),
        sa.Column("colour", text, nullable=False),
        sa.Column("colour_name", text, nullable=False),
        sa.Column("aim", text, nullable=True),
        sa.Column("schools", sa.JSON(), nullable=False),
        sa.Column("picks", sa.JSON(), nullable=False),
        sa.Column("overrides", sa.JSON(), nullable=False),
        *_stamps(),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_finish_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("job_id", "part_kind", "part_id", name=op.f("pk_finish")),
    )
    new: dict[str, Any] = {
        "part_kind": "zone", "operations": [], "aim": None, "schools": {}, "picks": {}, "overrides": [],
    }  # fmt: skip
    if old:
        rows = [{k: v for k, v in row.items() if k != "zone_id"} | new | {"part_id": row["zone_id"]} for row in old]
        op.bulk_insert(table, rows)
    for row in connection.execute(sa.text("SELECT company_id, code, sheet FROM product")).mappings().all():
        sheet = json.loads(row["sheet"])
        product_from_2(sheet)
        connection.execute(
            sa.text("UPDATE product SET sheet = :sheet WHERE company_id = :company_id AND code = :code"),
            {"sheet": json.dumps(sheet), "company_id": row["company_id"], "code": row["code"]},
        )
    op.create_table(
        "colour",
        sa.Column("company_id", text, nullable=False),
        sa.Column("name", text, nullable=False),
        sa.Column("colour", text, nullable=False),
        sa.Column("collection", text, nullable=False),
        *_stamps(),
        sa.ForeignKeyConstraint(["company_id"], ["company.id"], name=op.f("fk_colour_company_id_company")),
        sa.PrimaryKeyConstraint("company_id", "name", name=op.f("pk_colour")),
    )
