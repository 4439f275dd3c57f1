"""The land round a house"""

import sqlalchemy as sa
from alembic import op

revision = "0019"
down_revision = "0018"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("property", sa.Column("terrain", sa.String(), nullable=False, server_default="suburb"))
