"""Finishes of zones and items with steps of their own; schools by company, job and part; full data sheets; colours"""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


_FAMILIES = {
    "exterior acrylic": "exterior-acrylic",
    "exterior acrylic, low-temperature": "low-temperature-acrylic",
    "soft-gloss acrylic trim": "trim-acrylic",
    "hybrid water-based undercoat": "hybrid-undercoat",
    "hybrid water-based satin": "hybrid-satin",
    "alkyd gloss": "alkyd-gloss",
    "alkyd wood primer": "alkyd-wood-primer",
    "acrylic wood primer": "acrylic-wood-primer",
    "peel-bonding primer": "peel-bonding-primer",
    "acrylic bonding primer": "bonding-primer",
    "stain-blocking primer": "stain-blocker",
    "metal primer": "metal-primer",
    "masonry conditioner": "masonry-conditioner",
    "masonry stabilising undercoat": "masonry-undercoat",
    "smooth masonry paint": "masonry-paint",
    "high-build masonry": "high-build-masonry",
    "elastomeric wall coating": "elastomeric",
    "silicate masonry paint": "silicate-paint",
    "deck stain": "deck-stain",
    "deck stain, solid": "solid-stain",
    "deck clear coat": "deck-clear",
    "floor and porch": "floor-waterborne",
    "floor and porch, alkyd": "floor-alkyd",
    "all-in-one porch coating": "floor-all-in-one",
    "reflective roof coat": "roof-coat",
    "other": "other",
}
"""Codes by the names that were free words before."""


def _with_family(sheet: dict[str, Any]) -> dict[str, Any]:
    """The family as a code; words that are no known family become "other" and are kept as note."""
    words = sheet.get("family")
    if not isinstance(words, str):
        return sheet
    family, more = _FAMILIES.get(words.lower(), "other"), {}
    if family == "exterior-acrylic" and (sheet.get("surface_min_c") or 0) < 5:
        family = "low-temperature-acrylic"
    if family == "deck-stain" and "solid" in str(sheet.get("name")).lower():
        family = "solid-stain"
    if family == "floor-waterborne" and sheet.get("base") == "alkyd":
        family = "floor-alkyd"
    if family == "other":
        more = {"note": words}
    return sheet | more | {"family": family}


def _stamps() -> list[Any]:
    return [sa.Column(name, sa.Integer(), nullable=False) for name in ("created_at", "updated_at", "version")]


def _json(table: str, column: str, empty: str) -> None:
    op.add_column(table, sa.Column(column, sa.JSON(), nullable=False, server_default=empty))


def upgrade() -> None:
    connection = op.get_bind()
    op.add_column("company", sa.Column("lead_cutoff_year", sa.Integer(), nullable=False, server_default="1978"))
    _json("company", "schools", "{}")
    op.add_column("property", sa.Column("lead_found", sa.Boolean(), nullable=True))
    _json("job", "schools", "{}")
    _json("job", "schemes", "[]")
    _json("job", "acknowledged", "[]")
    old = connection.execute(sa.text("SELECT * FROM finish")).mappings().all()
    op.drop_table("finish")
    text = sa.String()
    table = op.create_table(
        "finish",
        sa.Column("job_id", text, nullable=False),
        sa.Column("part_kind", text, nullable=False),
        sa.Column("part_id", text, nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("system_id", text, nullable=True),
        sa.Column("operations", sa.JSON(), nullable=False),
        sa.Column("colour", text, nullable=False),
        sa.Column("colour_name", text, nullable=False),
        sa.Column("aim", text, nullable=True),
        sa.Column("schools", sa.JSON(), nullable=False),
        sa.Column("picks", sa.JSON(), nullable=False),
        sa.Column("overrides", sa.JSON(), nullable=False),
        *_stamps(),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_finish_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("job_id", "part_kind", "part_id", name=op.f("pk_finish")),
    )
    new: dict[str, Any] = {
        "part_kind": "zone", "operations": [], "aim": None, "schools": {}, "picks": {}, "overrides": [],
    }  # fmt: skip
    if old:
        rows = [{k: v for k, v in row.items() if k != "zone_id"} | new | {"part_id": row["zone_id"]} for row in old]
        op.bulk_insert(table, rows)
    for row in connection.execute(sa.text("SELECT company_id, code, sheet FROM product")).mappings().all():
        sheet = _with_family(json.loads(row["sheet"]))
        connection.execute(
            sa.text("UPDATE product SET sheet = :sheet WHERE company_id = :company_id AND code = :code"),
            {"sheet": json.dumps(sheet), "company_id": row["company_id"], "code": row["code"]},
        )
    op.create_table(
        "colour",
        sa.Column("company_id", text, nullable=False),
        sa.Column("name", text, nullable=False),
        sa.Column("colour", text, nullable=False),
        sa.Column("collection", text, nullable=False),
        *_stamps(),
        sa.ForeignKeyConstraint(["company_id"], ["company.id"], name=op.f("fk_colour_company_id_company")),
        sa.PrimaryKeyConstraint("company_id", "name", name=op.f("pk_colour")),
    )
