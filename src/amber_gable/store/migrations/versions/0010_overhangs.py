"""How far the eave stands out before a wall"""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("face") as face:
        face.add_column(sa.Column("overhang_m", sa.Double(), nullable=False, server_default="0"))
