"""Pictures are files beside the database; a photo may name the part it shows"""

import hashlib
from pathlib import Path

import sqlalchemy as sa
from alembic import op

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None


def upgrade() -> None:
    bind = op.get_bind()
    folder = Path(
        bind.execute(sa.text("SELECT file FROM pragma_database_list WHERE name = 'main'")).scalar_one()
    ).with_suffix(".photos")
    # One picture at a time: there may be more of them than fit in memory.
    for key in bind.execute(sa.text("SELECT property_id, id FROM photo")).all():
        where = {"p": key[0], "i": key[1]}
        data = bind.execute(sa.text("SELECT data FROM photo WHERE property_id = :p AND id = :i"), where).scalar_one()
        digest = hashlib.sha256(data).hexdigest()
        path = folder / digest[:2] / f"{digest}.jpg"
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_bytes(data)
        bind.execute(sa.text("UPDATE photo SET sha256 = :d WHERE property_id = :p AND id = :i"), where | {"d": digest})
    op.add_column("photo", sa.Column("part", sa.JSON(none_as_null=True), nullable=True))
    op.drop_column("photo", "data")
