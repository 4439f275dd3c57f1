"""Tables. Every row of a user's work carries when it was made and changed, and a version that grows."""

from datetime import date
from typing import Any

from sqlalchemy import JSON, ForeignKey, ForeignKeyConstraint, LargeBinary, MetaData
from sqlalchemy.orm import DeclarativeBase, Mapped, declared_attr, mapped_column

# Named constraints so that SQLite's batch migrations can find them.
_NAMES = {
    "ix": "ix_%(column_0_label)s",
    "uq": "uq_%(table_name)s_%(column_0_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s",
    "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
    "pk": "pk_%(table_name)s",
}


_NULLABLE_JSON = JSON(none_as_null=True)


class Table(DeclarativeBase):
    metadata = MetaData(naming_convention=_NAMES)
    type_annotation_map = {dict[str, Any]: JSON, list[Any]: JSON}  # noqa: RUF012


class Tracked:
    """Times are epoch seconds UTC, `created_by` and `updated_by` who wrote it, empty where nobody is named; they and
    the version are set by the session (store/database.py)."""

    created_at: Mapped[int] = mapped_column(default=0)
    updated_at: Mapped[int] = mapped_column(default=0)
    created_by: Mapped[str] = mapped_column(default="")
    updated_by: Mapped[str] = mapped_column(default="")
    version: Mapped[int] = mapped_column(default=1)


STAMPS = frozenset({"created_at", "updated_at", "created_by", "updated_by", "version"})
"""Columns of `Tracked`, which are nobody's to set."""


class Deletable:
    """Work is hidden, not erased, so that a delete can be undone."""

    deleted_at: Mapped[int | None] = mapped_column(default=None)


class CompanyRow(Tracked, Table):
    """`usual`: what its jobs begin with, once it was set up; `sample`: it and its jobs were brought in to be looked
    at."""

    __tablename__ = "company"
    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    currency: Mapped[str]
    lead_cutoff_year: Mapped[int] = mapped_column(default=1978)
    schools: Mapped[dict[str, Any]] = mapped_column(default=dict)
    rates: Mapped[dict[str, Any]] = mapped_column(default=dict)
    factors: Mapped[dict[str, Any]] = mapped_column(default=dict)
    usual: Mapped[dict[str, Any] | None] = mapped_column(_NULLABLE_JSON, default=None)
    sample: Mapped[bool] = mapped_column(default=False)


class PropertyRow(Tracked, Table):
    __tablename__ = "property"
    id: Mapped[str] = mapped_column(primary_key=True)
    company_id: Mapped[str] = mapped_column(ForeignKey("company.id"))
    name: Mapped[str]
    place: Mapped[str]
    year_built: Mapped[int | None]
    lead_found: Mapped[bool | None]
    latitude: Mapped[float]
    longitude: Mapped[float]
    altitude_m: Mapped[float]
    time_zone: Mapped[str]
    terrain: Mapped[str] = mapped_column(server_default="suburb")


class FaceRow(Tracked, Deletable, Table):
    __tablename__ = "face"
    property_id: Mapped[str] = mapped_column(ForeignKey("property.id", ondelete="CASCADE"), primary_key=True)
    id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[int]
    name: Mapped[str]
    azimuth_deg: Mapped[float]
    tilt_deg: Mapped[float]
    building: Mapped[str]
    outline: Mapped[dict[str, Any]]
    plan: Mapped[dict[str, Any] | None] = mapped_column(_NULLABLE_JSON)
    exposure: Mapped[str]
    rain_exposure: Mapped[float]
    overhang_m: Mapped[float] = mapped_column(default=0.0)
    horizon: Mapped[list[Any]]
    blocks: Mapped[list[Any]]
    note: Mapped[str]


class OnFace(Tracked, Deletable):
    """What belongs to a face and goes with it."""

    property_id: Mapped[str] = mapped_column(primary_key=True)
    id: Mapped[str] = mapped_column(primary_key=True)
    face_id: Mapped[str]
    position: Mapped[int]
    name: Mapped[str]

    @declared_attr.directive
    @classmethod
    def __table_args__(cls) -> tuple[Any, ...]:
        return (ForeignKeyConstraint(["property_id", "face_id"], ["face.property_id", "face.id"], ondelete="CASCADE"),)


class OpeningRow(OnFace, Table):
    __tablename__ = "opening"
    kind: Mapped[str]
    width_m: Mapped[float]
    height_m: Mapped[float]
    x_m: Mapped[float]
    y_m: Mapped[float]
    casing_m: Mapped[float]
    spans: Mapped[bool]


class ObstacleRow(OnFace, Table):
    __tablename__ = "obstacle"
    kind: Mapped[str]
    width_m: Mapped[float]
    height_m: Mapped[float]
    x_m: Mapped[float]
    y_m: Mapped[float]


class ZoneRow(OnFace, Table):
    __tablename__ = "zone"
    substrate: Mapped[str]
    area: Mapped[dict[str, Any]]
    profile: Mapped[dict[str, Any] | None] = mapped_column(_NULLABLE_JSON)
    colour_now: Mapped[str]
    condition: Mapped[dict[str, Any]]


class ItemRow(OnFace, Table):
    __tablename__ = "item"
    x_m: Mapped[float]
    y_m: Mapped[float]
    spec: Mapped[dict[str, Any]]
    substrate: Mapped[str]
    colour_now: Mapped[str]
    condition: Mapped[dict[str, Any]]


class PhotoRow(Tracked, Deletable, Table):
    """A photo; its picture (JPEG) is a file beside the database under `sha256`. `part` is the kind and id of what it
    shows on its face."""

    __tablename__ = "photo"
    property_id: Mapped[str] = mapped_column(ForeignKey("property.id", ondelete="CASCADE"), primary_key=True)
    id: Mapped[str] = mapped_column(primary_key=True)
    face_id: Mapped[str | None]
    part: Mapped[list[str] | None] = mapped_column(_NULLABLE_JSON)
    position: Mapped[int]
    name: Mapped[str]
    taken_on: Mapped[str | None]
    width_px: Mapped[int]
    height_px: Mapped[int]
    sha256: Mapped[str]
    marks: Mapped[dict[str, Any] | None] = mapped_column(_NULLABLE_JSON)
    note: Mapped[str]


class EditRow(Tracked, Table):
    """One step of work on a job, as what each record was before and after, so that it can be taken back and done again
    by whoever did it (`by`); `written_in` is the schema whose columns these are."""

    __tablename__ = "edit"
    property_id: Mapped[str] = mapped_column(ForeignKey("property.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    words: Mapped[str]
    changes: Mapped[list[Any]]
    undone: Mapped[bool] = mapped_column(default=False)
    written_in: Mapped[int]
    by: Mapped[str] = mapped_column(default="")


class TickRow(Tracked, Table):
    """A step of the walk-round done or passed over."""

    __tablename__ = "tick"
    property_id: Mapped[str] = mapped_column(ForeignKey("property.id", ondelete="CASCADE"), primary_key=True)
    place: Mapped[str] = mapped_column(primary_key=True)
    step: Mapped[str] = mapped_column(primary_key=True)
    done: Mapped[str]


class SheetRow(Tracked, Table):
    """One revision of a product's data sheet or of a coating system (`kind`). A revision never changes; `current` says
    which one the stores hold."""

    __tablename__ = "sheet"
    company_id: Mapped[str] = mapped_column(ForeignKey("company.id"), primary_key=True)
    kind: Mapped[str] = mapped_column(primary_key=True)
    code: Mapped[str] = mapped_column(primary_key=True)
    revision: Mapped[int] = mapped_column(primary_key=True)
    body: Mapped[dict[str, Any]]
    current: Mapped[bool]


class StockRow(Tracked, Deletable, Table):
    """A can in the firm's own store; `job` it is booked to."""

    __tablename__ = "stock"
    company_id: Mapped[str] = mapped_column(ForeignKey("company.id"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    product: Mapped[str]
    colour: Mapped[str]
    litres: Mapped[float]
    size_l: Mapped[float]
    batch: Mapped[str] = mapped_column(default="")
    place: Mapped[str] = mapped_column(default="")
    good_until: Mapped[date | None] = mapped_column(default=None)
    job: Mapped[str | None] = mapped_column(default=None)


class PersonRow(Tracked, Table):
    """Somebody who works for a company."""

    __tablename__ = "person"
    company_id: Mapped[str] = mapped_column(ForeignKey("company.id"), primary_key=True)
    id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[int]
    name: Mapped[str]
    crafts: Mapped[list[Any]]
    days: Mapped[list[Any]]


class CrewRow(Tracked, Table):
    """People who work together, and their day; who they are is told by `crew_member`."""

    __tablename__ = "crew"
    company_id: Mapped[str] = mapped_column(ForeignKey("company.id"), primary_key=True)
    id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[int]
    name: Mapped[str]
    skill: Mapped[str]
    start_h: Mapped[float]
    end_h: Mapped[float]
    setup_h: Mapped[float]
    cleanup_h: Mapped[float]
    work_saturday: Mapped[bool]
    work_sunday: Mapped[bool]


class CrewMemberRow(Tracked, Table):
    __tablename__ = "crew_member"
    company_id: Mapped[str] = mapped_column(ForeignKey("company.id"), primary_key=True)
    crew_id: Mapped[str] = mapped_column(primary_key=True)
    person_id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[int]


class JobRow(Tracked, Deletable, Table):
    """`products` and `systems` are pins (store/company/sheets.py); `company_settings` the company's figures and
    schools as the job was specified with them; `shelf` where it is kept; `crew_id` names a
    crew of its company."""

    __tablename__ = "job"
    id: Mapped[str] = mapped_column(primary_key=True)
    property_id: Mapped[str] = mapped_column(ForeignKey("property.id"))
    name: Mapped[str]
    customer: Mapped[str]
    policy: Mapped[dict[str, Any]]
    crew_id: Mapped[str]
    estimating: Mapped[dict[str, Any]] = mapped_column(default=dict)
    products: Mapped[list[Any]]
    systems: Mapped[list[Any]]
    schools: Mapped[dict[str, Any]]
    schemes: Mapped[list[Any]]
    acknowledged: Mapped[list[Any]]
    left: Mapped[list[Any]] = mapped_column(default=list)
    others: Mapped[list[Any]] = mapped_column(default=list)
    note: Mapped[str]
    company_settings: Mapped[dict[str, Any]]
    shelf: Mapped[str] = mapped_column(default="board")


class FinishRow(Tracked, Table):
    __tablename__ = "finish"
    job_id: Mapped[str] = mapped_column(ForeignKey("job.id", ondelete="CASCADE"), primary_key=True)
    part_kind: Mapped[str] = mapped_column(primary_key=True)
    part_id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[int]
    system_id: Mapped[str | None]
    operations: Mapped[list[Any]]
    colour: Mapped[str]
    colour_name: Mapped[str]
    aim: Mapped[str | None]
    schools: Mapped[dict[str, Any]]
    picks: Mapped[dict[str, Any]]
    overrides: Mapped[list[Any]]


class SiteEntryRow(Tracked, Table):
    """One line of the record of the site, in the order noted: `kind` is 'work', 'change' (of the customer's),
    'others' (did their task) or 'found' (more than surveyed)."""

    __tablename__ = "site_entry"
    job_id: Mapped[str] = mapped_column(ForeignKey("job.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[str]
    body: Mapped[dict[str, Any]]


class ColourRow(Tracked, Table):
    """A colour of the company's own, beside the library that ships with the program."""

    __tablename__ = "colour"
    company_id: Mapped[str] = mapped_column(ForeignKey("company.id"), primary_key=True)
    name: Mapped[str] = mapped_column(primary_key=True)
    colour: Mapped[str]
    collection: Mapped[str]


class WeatherRow(Tracked, Table):
    """A weather series kept for a property: `kind` is 'forecast' (the newest per property), 'file', 'typed', 'year' (a
    typical one, beside what is in use) or 'observed' (NaN in hours that nobody measured); `given` what it was made
    from, where somebody typed it."""

    __tablename__ = "weather_series"
    property_id: Mapped[str] = mapped_column(ForeignKey("property.id", ondelete="CASCADE"), primary_key=True)
    kind: Mapped[str] = mapped_column(primary_key=True)
    source: Mapped[str]
    issued: Mapped[int | None]
    about: Mapped[dict[str, Any]]
    columns: Mapped[bytes] = mapped_column(LargeBinary)
    given: Mapped[dict[str, Any] | None]


class ForecastVersionRow(Tracked, Table):
    """A forecast as it was first had, at `kept_at` (epoch s); `kind` as of the series it then was."""

    __tablename__ = "forecast_version"
    property_id: Mapped[str] = mapped_column(ForeignKey("property.id", ondelete="CASCADE"), primary_key=True)
    kept_at: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[str]
    source: Mapped[str]
    issued: Mapped[int | None]
    about: Mapped[dict[str, Any]]
    columns: Mapped[bytes] = mapped_column(LargeBinary)


class WeatherSourceRow(Tracked, Table):
    """A feed or a logger with how it is understood; of feeds one at most is in use."""

    __tablename__ = "weather_source"
    id: Mapped[str] = mapped_column(primary_key=True)
    kind: Mapped[str]
    name: Mapped[str]
    in_use: Mapped[bool]
    body: Mapped[dict[str, Any]]


class PlanRow(Tracked, Table):
    """The plan a job works to: made from the weather and job of one moment, told by the fingerprint of what it reads of
    the job (core/plan/problem.py). `begins_at`: the day it was asked to begin, where that lay ahead; `warned`: what
    it was last warned of, task and rule (core/plan/threats.py); `found`: how good it is known to be."""

    __tablename__ = "plan"
    job_id: Mapped[str] = mapped_column(ForeignKey("job.id", ondelete="CASCADE"), primary_key=True)
    fingerprint: Mapped[str]
    planned_at: Mapped[int]
    unplaced: Mapped[list[Any]]
    warned: Mapped[list[Any]] = mapped_column(default=list)
    begins_at: Mapped[int | None] = mapped_column(default=None)
    found: Mapped[dict[str, Any] | None] = mapped_column(default=None)


class TaskRow(Tracked, Table):
    __tablename__ = "task"
    job_id: Mapped[str] = mapped_column(ForeignKey("plan.job_id", ondelete="CASCADE"), primary_key=True)
    id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[int]
    starts_at: Mapped[int]
    ends_at: Mapped[int]
    details: Mapped[dict[str, Any]]


class ChangeRow(Table):
    """How often what belongs to a scope ('job:…', 'property:…') was changed (store/changes.py)."""

    __tablename__ = "change"
    scope: Mapped[str] = mapped_column(primary_key=True)
    number: Mapped[int]


class SettingRow(Table):
    """Small facts of the installation, such as where the demo clock stands."""

    __tablename__ = "setting"
    key: Mapped[str] = mapped_column(primary_key=True)
    value: Mapped[str]
