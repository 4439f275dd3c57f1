"""What a weather series was made from, where somebody typed it"""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("weather_series") as series:
        series.add_column(sa.Column("given", sa.JSON(), nullable=True))
