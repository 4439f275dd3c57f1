"""A data sheet as a form: its fields in the order in which one reads a sheet, with their units."""

from dataclasses import dataclass
from enum import StrEnum

from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.paint.families import FAMILY_NAMES
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import SHEET_UNITS, Base, Hazard, Product
from amber_gable.domain.units import Quantity, UnitSystem, typed, unit


@dataclass(frozen=True)
class SheetField:
    name: str
    label: str
    unit: str = ""
    kind: str = "number"
    options: tuple[tuple[str, str], ...] = ()
    needed: bool = False


def _of(enum: type[StrEnum]) -> tuple[tuple[str, str], ...]:
    return tuple((m.value, m.value.replace("-", " ")) for m in enum)


TAGS = tuple((t, t.replace("-", " ")) for t in sorted({tag for s in SUBSTRATES.values() for tag in s.tags}))
GROUPS: tuple[tuple[str, tuple[SheetField, ...]], ...] = (
    ("What it is", (
        SheetField("code", "Code", "letters, digits, hyphens", "text", needed=True),
        SheetField("name", "Name", kind="text", needed=True),
        SheetField("maker", "Maker", kind="text", needed=True),
        SheetField("family", "Family", kind="pick", options=tuple((f.value, n) for f, n in FAMILY_NAMES.items())),
        SheetField("base", "Base", kind="pick", options=_of(Base)),
        SheetField("sheen", "Sheen", kind="text", needed=True),
    )),
    ("Film", (
        SheetField("volume_solids_pct", "Volume solids", "%", needed=True),
        SheetField("dry_film_um", "Dry film per coat", "µm", needed=True),
        SheetField("coats", "Coats"),
        SheetField("spread_low_m2_l", "Spread, least", "m²/L"),
        SheetField("spread_high_m2_l", "Spread, most", "m²/L"),
        SheetField("contrast", "Hides per coat", "0 to 1"),
        SheetField("density_kg_l", "Density", "kg/L"),
        SheetField("thinning_max_pct", "Thinning, most", "%"),
    )),
    ("Weather it bears", (
        SheetField("air_min_c", "Air, least", "°C", needed=True),
        SheetField("air_max_c", "Air, most", "°C", needed=True),
        SheetField("surface_min_c", "Surface, least", "°C", needed=True),
        SheetField("surface_max_c", "Surface, most", "°C", needed=True),
        SheetField("rh_max_pct", "Humidity, most", "%"),
        SheetField("spread_min_c", "Above dew point", "K"),
        SheetField("hold_h", "Hold after the last stroke", "h"),
        SheetField("moisture_max_pct", "Wood moisture, most", "%"),
    )),
    ("Times at 25 °C, 50 %", (
        SheetField("touch_h", "Dry to touch", "h", needed=True),
        SheetField("rain_ready_h", "Rain-ready", "h", needed=True),
        SheetField("recoat_h", "Recoat", "h", needed=True),
        SheetField("max_recoat_h", "Recoat at the latest", "h"),
        SheetField("foot_h", "Foot traffic", "h"),
        SheetField("cure_d", "Cured", "days", needed=True),
        SheetField("shelf_months", "Shelf life", "months"),
    )),
    ("How and where", (
        SheetField("methods", "Methods", kind="many", options=_of(Method)),
        SheetField("tips", "Spray tips", kind="text"),
        SheetField("substrates", "Only on (none: as its family)", kind="many", options=TAGS),
        SheetField("primer", "Is a primer", kind="tick"),
        SheetField("self_priming", "Primes itself", kind="tick"),
        SheetField("vinyl_safe", "Rated vinyl-safe", kind="tick"),
        SheetField("vinyl_colours", "Darker colours it is rated for", "#rrggbb, by blanks", "text"),
    )),
    ("Hazards and price", (
        SheetField("voc_g_l", "VOC", "g/L"),
        SheetField("solar_reflectance", "Solar reflectance", "0 to 1"),
        SheetField("hazards", "Hazards", kind="many", options=_of(Hazard)),
        SheetField("containers", "Containers, one per line", "litres:price", "lines", needed=True),
        SheetField("note", "Note", kind="text"),
    )),
)  # fmt: skip


def sheet_values(product: Product, system: UnitSystem) -> dict[str, str | list[str] | bool]:
    """The sheet as the form shows it, in the reader's units and exact to what was typed."""
    out: dict[str, str | list[str] | bool] = {}
    for name, value in product.model_dump(mode="json").items():
        if name == "containers":
            out[name] = "\n".join(f"{typed(Quantity.VOLUME, c['litres'], system)}:{c['price']}" for c in value)
        elif name == "vinyl_colours":
            out[name] = " ".join(value)
        elif isinstance(value, list | bool):
            out[name] = value
        elif name in SHEET_UNITS and value is not None:
            out[name] = typed(SHEET_UNITS[name], value, system)
        else:
            out[name] = "" if value is None else f"{value:.10g}" if isinstance(value, float) else str(value)
    return out


_HEAD = ("code", "name", "note", "family")


def sheet_rows(product: Product, family: list[str], system: UnitSystem) -> list[tuple[str, str, bool]]:
    """Label, figure with its unit, and whether it is the family's: what a sheet says, without what is empty there."""
    values = sheet_values(product, system)
    out = []
    for _, fields in GROUPS:
        for f in fields:
            value = values.get(f.name)
            if f.kind in ("many", "tick", "lines") or f.name in _HEAD or value in ("", None):
                continue
            text = str(value)
            if f.kind == "number":
                text = f"{float(text):.4g} {field_unit(f, system)}".strip()
            out.append((f.label, text, f.name in family))
    return out


def field_unit(field: SheetField, system: UnitSystem) -> str:
    """The unit that stands beside a field."""
    if field.name == "containers":
        return "gallons:price" if system is UnitSystem.US else "litres:price"
    return unit(SHEET_UNITS[field.name], system).symbol if field.name in SHEET_UNITS else field.unit
