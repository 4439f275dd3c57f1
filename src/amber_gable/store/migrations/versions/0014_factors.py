"""A company's own factors on hours, pinned with its jobs like its rates"""

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("company", sa.Column("factors", sa.JSON(), nullable=False, server_default="{}"))
    op.execute("UPDATE job SET company_settings = json_set(company_settings, '$.factors', json('{}'))")
