"""Cans in the firm's own store"""

import sqlalchemy as sa
from alembic import op

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "stock",
        sa.Column("company_id", sa.String(), sa.ForeignKey("company.id"), primary_key=True),
        sa.Column("number", sa.Integer(), primary_key=True),
        sa.Column("product", sa.String(), nullable=False),
        sa.Column("colour", sa.String(), nullable=False),
        sa.Column("litres", sa.Double(), nullable=False),
        sa.Column("size_l", sa.Double(), nullable=False),
        sa.Column("batch", sa.String(), nullable=False, server_default=""),
        sa.Column("place", sa.String(), nullable=False, server_default=""),
        sa.Column("good_until", sa.Date(), nullable=True),
        sa.Column("job", sa.String(), nullable=True),
        sa.Column("deleted_at", sa.Integer(), nullable=True),
        sa.Column("created_at", sa.Integer(), nullable=False, server_default="0"),
        sa.Column("updated_at", sa.Integer(), nullable=False, server_default="0"),
        sa.Column("version", sa.Integer(), nullable=False, server_default="1"),
    )
