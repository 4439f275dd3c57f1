"""Tables. Every row of a user's work carries when it was made and changed, and a version that grows."""

from typing import Any

from sqlalchemy import JSON, ForeignKey, ForeignKeyConstraint, LargeBinary, MetaData
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

# Named constraints so that SQLite's batch migrations can find them.
_NAMES = {
    "ix": "ix_%(column_0_label)s",
    "uq": "uq_%(table_name)s_%(column_0_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s",
    "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
    "pk": "pk_%(table_name)s",
}


class Table(DeclarativeBase):
    metadata = MetaData(naming_convention=_NAMES)
    type_annotation_map = {dict[str, Any]: JSON, list[Any]: JSON}  # noqa: RUF012


class Tracked:
    """Times are epoch seconds UTC; they and the version are set by the session (store/database.py)."""

    created_at: Mapped[int] = mapped_column(default=0)
    updated_at: Mapped[int] = mapped_column(default=0)
    version: Mapped[int] = mapped_column(default=1)


class Deletable:
    """Work is hidden, not erased, so that a delete can be undone."""

    deleted_at: Mapped[int | None] = mapped_column(default=None)


class CompanyRow(Tracked, Table):
    __tablename__ = "company"
    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    currency: Mapped[str]


class PropertyRow(Tracked, Table):
    __tablename__ = "property"
    id: Mapped[str] = mapped_column(primary_key=True)
    company_id: Mapped[str] = mapped_column(ForeignKey("company.id"))
    name: Mapped[str]
    place: Mapped[str]
    year_built: Mapped[int | None]
    latitude: Mapped[float]
    longitude: Mapped[float]
    altitude_m: Mapped[float]
    time_zone: Mapped[str]


class FaceRow(Tracked, Deletable, Table):
    __tablename__ = "face"
    property_id: Mapped[str] = mapped_column(ForeignKey("property.id", ondelete="CASCADE"), primary_key=True)
    id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[int]
    name: Mapped[str]
    azimuth_deg: Mapped[float]
    tilt_deg: Mapped[float]
    width_m: Mapped[float]
    eave_height_m: Mapped[float]
    gable_rise_m: Mapped[float]
    exposure: Mapped[str]
    rain_exposure: Mapped[float]
    horizon: Mapped[list[Any]]
    note: Mapped[str]


class OpeningRow(Tracked, Deletable, Table):
    __tablename__ = "opening"
    property_id: Mapped[str] = mapped_column(primary_key=True)
    id: Mapped[str] = mapped_column(primary_key=True)
    face_id: Mapped[str]
    position: Mapped[int]
    name: Mapped[str]
    kind: Mapped[str]
    width_m: Mapped[float]
    height_m: Mapped[float]
    x_m: Mapped[float]
    y_m: Mapped[float]
    __table_args__ = (
        ForeignKeyConstraint(["property_id", "face_id"], ["face.property_id", "face.id"], ondelete="CASCADE"),
    )


class ZoneRow(Tracked, Deletable, Table):
    __tablename__ = "zone"
    property_id: Mapped[str] = mapped_column(primary_key=True)
    id: Mapped[str] = mapped_column(primary_key=True)
    face_id: Mapped[str]
    position: Mapped[int]
    name: Mapped[str]
    substrate: Mapped[str]
    area: Mapped[dict[str, Any]]
    colour_now: Mapped[str]
    condition: Mapped[dict[str, Any]]
    __table_args__ = (
        ForeignKeyConstraint(["property_id", "face_id"], ["face.property_id", "face.id"], ondelete="CASCADE"),
    )


class ProductRow(Tracked, Table):
    __tablename__ = "product"
    company_id: Mapped[str] = mapped_column(ForeignKey("company.id"), primary_key=True)
    code: Mapped[str] = mapped_column(primary_key=True)
    sheet: Mapped[dict[str, Any]]


class SystemRow(Tracked, Table):
    __tablename__ = "coating_system"
    company_id: Mapped[str] = mapped_column(ForeignKey("company.id"), primary_key=True)
    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    operations: Mapped[list[Any]]
    note: Mapped[str]


class JobRow(Tracked, Deletable, Table):
    __tablename__ = "job"
    id: Mapped[str] = mapped_column(primary_key=True)
    property_id: Mapped[str] = mapped_column(ForeignKey("property.id"))
    name: Mapped[str]
    customer: Mapped[str]
    deduction: Mapped[str]
    policy: Mapped[dict[str, Any]]
    crew: Mapped[dict[str, Any]]
    products: Mapped[list[Any]]
    systems: Mapped[list[Any]]
    note: Mapped[str]


class FinishRow(Tracked, Table):
    __tablename__ = "finish"
    job_id: Mapped[str] = mapped_column(ForeignKey("job.id", ondelete="CASCADE"), primary_key=True)
    zone_id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[int]
    system_id: Mapped[str]
    colour: Mapped[str]
    colour_name: Mapped[str]


class WeatherRow(Tracked, Table):
    """A weather series kept for a property: `kind` is 'forecast' (the newest per property) or 'file'."""

    __tablename__ = "weather_series"
    property_id: Mapped[str] = mapped_column(ForeignKey("property.id", ondelete="CASCADE"), primary_key=True)
    kind: Mapped[str] = mapped_column(primary_key=True)
    source: Mapped[str]
    issued: Mapped[int | None]
    about: Mapped[dict[str, Any]]
    columns: Mapped[bytes] = mapped_column(LargeBinary)


class PlanRow(Tracked, Table):
    """The plan a job works to: made from the weather and job of one moment, told by the digest."""

    __tablename__ = "plan"
    job_id: Mapped[str] = mapped_column(ForeignKey("job.id", ondelete="CASCADE"), primary_key=True)
    digest: Mapped[str]
    planned_at: Mapped[int]
    unplaced: Mapped[list[Any]]


class TaskRow(Tracked, Table):
    __tablename__ = "task"
    job_id: Mapped[str] = mapped_column(ForeignKey("plan.job_id", ondelete="CASCADE"), primary_key=True)
    id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[int]
    starts_at: Mapped[int]
    ends_at: Mapped[int]
    details: Mapped[dict[str, Any]]


class SettingRow(Table):
    """Small facts of the installation, such as where the demo clock stands."""

    __tablename__ = "setting"
    key: Mapped[str] = mapped_column(primary_key=True)
    value: Mapped[str]
