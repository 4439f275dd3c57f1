"""A company's own rates, pinned with its jobs, and what a job's estimate is made with"""

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("company", sa.Column("rates", sa.JSON(), nullable=False, server_default="{}"))
    op.add_column("job", sa.Column("estimating", sa.JSON(), nullable=False, server_default="{}"))
    op.execute("UPDATE job SET company_settings = json_set(company_settings, '$.rates', json('{}'))")
