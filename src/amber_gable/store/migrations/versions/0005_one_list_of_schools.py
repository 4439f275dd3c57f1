"""Schools of openings and weather are kept with the other schools"""

import json

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None

_USUAL = {"deduction": "threshold", "sun": "shade-when-warm", "hold": "touch-dry", "dew": "rain-ready"}


def upgrade() -> None:
    bind = op.get_bind()
    for row in list(bind.execute(sa.text("SELECT id, deduction, policy, schools FROM job")).mappings()):
        policy, schools = json.loads(row["policy"]), json.loads(row["schools"])
        chosen = {"deduction": row["deduction"]} | {t: policy.pop(t) for t in ("sun", "hold", "dew") if t in policy}
        schools |= {topic: code for topic, code in chosen.items() if code != _USUAL[topic]}
        bind.execute(
            sa.text("UPDATE job SET policy = :policy, schools = :schools WHERE id = :id"),
            {"policy": json.dumps(policy), "schools": json.dumps(schools), "id": row["id"]},
        )
    op.drop_column("job", "deduction")
