"""What a company usually works by, sample jobs of a company of their own, and jobs off the board"""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("company", sa.Column("usual", sa.JSON(), nullable=True))
    op.add_column("company", sa.Column("sample", sa.Boolean(), nullable=False, server_default=sa.false()))
    op.add_column("job", sa.Column("shelf", sa.String(), nullable=False, server_default="board"))
