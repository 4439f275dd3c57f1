"""Parts of a job that are not painted, and what other people do"""

import sqlalchemy as sa
from alembic import op

revision = "0018"
down_revision = "0017"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("job", sa.Column("left", sa.JSON(), nullable=False, server_default="[]"))
    op.add_column("job", sa.Column("others", sa.JSON(), nullable=False, server_default="[]"))
