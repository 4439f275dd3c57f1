"""Who wrote a row and whose a step is; plans are carried over from the hand-kept fingerprint to that of PlanProblem"""

import sqlalchemy as sa
from alembic import op

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None

_TABLES = (
    "company", "property", "face", "opening", "obstacle", "zone", "item", "photo", "edit", "tick", "sheet", "stock",
    "job", "finish", "site_entry", "colour", "weather_series", "forecast_version", "weather_source", "plan", "task",
)  # fmt: skip


def upgrade() -> None:
    for table in _TABLES:
        for column in ("created_by", "updated_by"):
            op.add_column(table, sa.Column(column, sa.String(), nullable=False, server_default=""))
    op.add_column("edit", sa.Column("by", sa.String(), nullable=False, server_default=""))
    _plans()


def _plans() -> None:
    """The old fingerprint cannot be worked out again. A plan that nothing was changed since is marked to be taken as it
    is ('as-is'), any other as one whose job changed ('changed'): planning again takes one touch."""
    of_property = (
        "SELECT max(t.updated_at) FROM {table} t JOIN job j ON j.property_id = t.property_id WHERE j.id = plan.job_id"
    )
    latest = [
        *(of_property.format(table=table) for table in ("face", "opening", "obstacle", "zone", "item")),
        "SELECT max(p.updated_at) FROM property p JOIN job j ON j.property_id = p.id WHERE j.id = plan.job_id",
        "SELECT updated_at FROM job WHERE job.id = plan.job_id",
        "SELECT max(updated_at) FROM finish WHERE finish.job_id = plan.job_id",
    ]
    changed = " OR ".join(f"coalesce(({one}), 0) > plan.planned_at" for one in latest)
    op.execute(
        f"UPDATE plan SET fingerprint = CASE WHEN {changed} THEN 'changed' ELSE 'as-is' END"
        " WHERE fingerprint NOT IN ('as-is', 'changed')"
    )
