"""What was forecast when: versions of forecasts are kept

The forecasts in use before are the first versions, of the time at which they were had.
"""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "forecast_version",
        sa.Column("property_id", sa.String(), nullable=False),
        sa.Column("kept_at", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("source", sa.String(), nullable=False),
        sa.Column("issued", sa.Integer(), nullable=True),
        sa.Column("about", sa.JSON(), nullable=False),
        sa.Column("columns", sa.LargeBinary(), nullable=False),
        sa.Column("created_at", sa.Integer(), nullable=False),
        sa.Column("updated_at", sa.Integer(), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(
            ["property_id"],
            ["property.id"],
            name=op.f("fk_forecast_version_property_id_property"),
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("property_id", "kept_at", name=op.f("pk_forecast_version")),
    )
    op.execute(
        "INSERT INTO forecast_version (property_id, kept_at, kind, source, issued, about, columns, created_at,"
        " updated_at, version) SELECT property_id, updated_at, kind, source, issued, about, columns, created_at,"
        " updated_at, 1 FROM weather_series WHERE kind = 'forecast'"
    )
