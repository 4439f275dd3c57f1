"""The record of the site, and the warnings a plan stands under"""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "site_entry",
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("body", sa.JSON(), nullable=False),
        sa.Column("created_at", sa.Integer(), nullable=False),
        sa.Column("updated_at", sa.Integer(), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name="fk_site_entry_job_id_job", ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("job_id", "number", name="pk_site_entry"),
    )
    with op.batch_alter_table("plan") as plan:
        plan.add_column(sa.Column("warned", sa.JSON(), nullable=False, server_default="[]"))
        plan.add_column(sa.Column("begins_at", sa.Integer(), nullable=True))
