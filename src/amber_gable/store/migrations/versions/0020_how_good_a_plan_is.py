"""How good a plan is known to be"""

import sqlalchemy as sa
from alembic import op

revision = "0020"
down_revision = "0019"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("plan", sa.Column("found", sa.JSON(), nullable=True))
