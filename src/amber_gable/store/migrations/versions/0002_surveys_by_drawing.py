"""Outlines in place of width, eave height and gable rise; items, obstacles, photos, undo, the walk-round"""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None

_OLD = ("width_m", "eave_height_m", "gable_rise_m")


def _tracked(*columns: Any, deletable: bool = True) -> list[Any]:
    stamps = [sa.Column(name, sa.Integer(), nullable=False) for name in ("created_at", "updated_at", "version")]
    return [*columns, *stamps, *([sa.Column("deleted_at", sa.Integer(), nullable=True)] if deletable else [])]


def _place() -> list[Any]:
    return [sa.Column(name, sa.Double(), nullable=False) for name in ("x_m", "y_m")]


def _on_face(table: str, *columns: Any) -> None:
    first = [sa.Column(name, sa.String(), nullable=False) for name in ("property_id", "id", "face_id")]
    op.create_table(
        table,
        *first,
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        *_tracked(*columns),
        sa.ForeignKeyConstraint(
            ["property_id", "face_id"],
            ["face.property_id", "face.id"],
            name=op.f(f"fk_{table}_property_id_face"),
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("property_id", "id", name=op.f(f"pk_{table}")),
    )


def _of_property(table: str, keys: tuple[Any, ...], *columns: Any, deletable: bool = False) -> None:
    op.create_table(
        table,
        sa.Column("property_id", sa.String(), nullable=False),
        *keys,
        *_tracked(*columns, deletable=deletable),
        sa.ForeignKeyConstraint(
            ["property_id"], ["property.id"], name=op.f(f"fk_{table}_property_id_property"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("property_id", *(k.name for k in keys), name=op.f(f"pk_{table}")),
    )


def _outline(face: Any) -> dict[str, Any]:
    """What was a rectangle with an optional gable in the middle, as three columns."""
    width, height, rise = (face[name] for name in _OLD)
    if rise:
        return {"kind": "gable", "width_m": width, "eave_height_m": height, "rise_m": rise}
    return {"kind": "rectangle", "width_m": width, "height_m": height}


def _condition(old: dict[str, Any]) -> dict[str, Any]:
    """What had one wood moisture figure without a date, and a tick for bare surfaces."""
    new = {k: v for k, v in old.items() if k not in ("wood_moisture_pct", "bare")}
    if old.get("wood_moisture_pct") is not None:
        new["moisture"] = [{"pct": old["wood_moisture_pct"]}]
    if old.get("bare"):
        new["coating"] = "bare"
    return new


def upgrade() -> None:
    text: Any = sa.String()
    number: Any = sa.Double()
    whole: Any = sa.Integer()
    connection = op.get_bind()
    # Columns are added and dropped in place: recreating the table would drop what refers to it.
    op.add_column("face", sa.Column("building", text, nullable=False, server_default="House"))
    op.add_column("face", sa.Column("outline", sa.JSON(), nullable=False, server_default="{}"))
    op.add_column("face", sa.Column("plan", sa.JSON(), nullable=True))
    op.add_column("face", sa.Column("blocks", sa.JSON(), nullable=False, server_default="[]"))
    rows = connection.execute(sa.text(f"SELECT property_id, id, {', '.join(_OLD)} FROM face")).mappings().all()
    for row in rows:
        connection.execute(
            sa.text("UPDATE face SET outline = :outline WHERE property_id = :property_id AND id = :id"),
            {"outline": json.dumps(_outline(row)), "property_id": row["property_id"], "id": row["id"]},
        )
    for column in _OLD:
        op.drop_column("face", column)
    op.add_column("opening", sa.Column("casing_m", number, nullable=False, server_default="0.09"))
    op.add_column("opening", sa.Column("spans", sa.Boolean(), nullable=False, server_default=sa.false()))
    op.add_column("zone", sa.Column("profile", sa.JSON(), nullable=True))
    for row in connection.execute(sa.text("SELECT property_id, id, condition FROM zone")).mappings().all():
        condition = _condition(json.loads(row["condition"]))
        connection.execute(
            sa.text("UPDATE zone SET condition = :condition WHERE property_id = :property_id AND id = :id"),
            {"condition": json.dumps(condition), "property_id": row["property_id"], "id": row["id"]},
        )
    _on_face(
        "obstacle",
        sa.Column("kind", text, nullable=False),
        sa.Column("width_m", number, nullable=False),
        sa.Column("height_m", number, nullable=False),
        *_place(),
    )
    _on_face(
        "item",
        *_place(),
        sa.Column("spec", sa.JSON(), nullable=False),
        sa.Column("substrate", text, nullable=False),
        sa.Column("colour_now", text, nullable=False),
        sa.Column("condition", sa.JSON(), nullable=False),
    )
    _of_property(
        "photo",
        (sa.Column("id", text, nullable=False),),
        sa.Column("face_id", text, nullable=True),
        sa.Column("position", whole, nullable=False),
        sa.Column("name", text, nullable=False),
        sa.Column("taken_on", text, nullable=True),
        sa.Column("width_px", whole, nullable=False),
        sa.Column("height_px", whole, nullable=False),
        sa.Column("sha256", text, nullable=False),
        sa.Column("marks", sa.JSON(), nullable=True),
        sa.Column("note", text, nullable=False),
        sa.Column("data", sa.LargeBinary(), nullable=False),
        deletable=True,
    )
    _of_property(
        "edit",
        (sa.Column("number", whole, nullable=False),),
        sa.Column("words", text, nullable=False),
        sa.Column("changes", sa.JSON(), nullable=False),
        sa.Column("undone", sa.Boolean(), nullable=False),
    )
    _of_property(
        "tick",
        (sa.Column("place", text, nullable=False), sa.Column("step", text, nullable=False)),
        sa.Column("done", text, nullable=False),
    )
