"""Crews and people are rows of the company; a job names its crew"""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None

_DAY = {
    "skill": "experienced", "start_h": 7.0, "end_h": 19.0, "setup_h": 0.5, "cleanup_h": 0.5, "work_saturday": True,
    "work_sunday": False,
}  # fmt: skip
"""What a crew's day was where a job's line did not say."""


def upgrade() -> None:
    tracked = (
        ("created_at", sa.Integer()), ("updated_at", sa.Integer()), ("created_by", sa.String()),
        ("updated_by", sa.String()), ("version", sa.Integer()),
    )  # fmt: skip

    def table(name: str, key: tuple[str, ...], *columns: sa.Column[Any]) -> None:
        op.create_table(
            name,
            sa.Column("company_id", sa.String(), nullable=False),
            *(sa.Column(k, sa.String(), nullable=False) for k in key),
            *columns,
            *(sa.Column(n, kind, nullable=False) for n, kind in tracked),
            sa.ForeignKeyConstraint(["company_id"], ["company.id"], name=op.f(f"fk_{name}_company_id_company")),
            sa.PrimaryKeyConstraint("company_id", *key, name=op.f(f"pk_{name}")),
        )

    def needed(name: str, kind: Any) -> sa.Column[Any]:
        return sa.Column(name, kind, nullable=False)

    table("person", ("id",), needed("position", sa.Integer()), needed("name", sa.String()),
          needed("crafts", sa.JSON()), needed("days", sa.JSON()))  # fmt: skip
    hours = (needed(n, sa.Double()) for n in ("start_h", "end_h", "setup_h", "cleanup_h"))
    table("crew", ("id",), needed("position", sa.Integer()), needed("name", sa.String()), needed("skill", sa.String()),
          *hours, needed("work_saturday", sa.Boolean()), needed("work_sunday", sa.Boolean()))  # fmt: skip
    table("crew_member", ("crew_id", "person_id"), needed("position", sa.Integer()))
    op.add_column("job", sa.Column("crew_id", sa.String(), nullable=False, server_default=""))
    _crews_of_jobs()
    op.drop_column("job", "crew")


def _crews_of_jobs() -> None:
    """A crew for each way in which the jobs of a company are worked, of people who have no names yet."""
    bind = op.get_bind()
    jobs = bind.execute(
        sa.text("SELECT j.id, j.crew, p.company_id FROM job j JOIN property p ON p.id = j.property_id ORDER BY j.id")
    ).all()
    stamps = {"created_at": 0, "updated_at": 0, "created_by": "", "updated_by": "", "version": 1}
    known: dict[tuple[str, str], str] = {}
    people: dict[str, int] = {}
    for job_id, text, company in jobs:
        told = json.loads(text or "{}")
        day = {name: told.get(name, usual) for name, usual in _DAY.items()}
        count = int(told.get("people", 2))
        key = (company, json.dumps([day, count], sort_keys=True))
        if key not in known:
            number = sum(1 for c, _ in known if c == company) + 1
            known[key] = f"crew-{number}"
            while people.setdefault(company, 0) < count:
                people[company] += 1
                n = people[company]
                _insert("person", company_id=company, id=f"painter-{n}", position=n - 1, name=f"Painter {n}",
                        crafts="[]", days="[0, 1, 2, 3, 4, 5, 6]", **stamps)  # fmt: skip
            _insert("crew", company_id=company, id=known[key], position=number, name=f"Crew {number}", **day, **stamps)
            for n in range(count):
                _insert("crew_member", company_id=company, crew_id=known[key], person_id=f"painter-{n + 1}",
                        position=n, **stamps)  # fmt: skip
        bind.execute(sa.text("UPDATE job SET crew_id = :crew WHERE id = :job"), {"crew": known[key], "job": job_id})


def _insert(table: str, **values: Any) -> None:
    names = ", ".join(values)
    marks = ", ".join(f":{name}" for name in values)
    op.get_bind().execute(sa.text(f"INSERT INTO {table} ({names}) VALUES ({marks})"), values)
