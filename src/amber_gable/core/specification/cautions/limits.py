"""How wet the wood of a part may be, as value and source (docs/trade.md §3). What the weather must keep to stands in
core/weather/film/limits.py; the sheet beats substrate and school wherever it is stricter."""

from collections.abc import Mapping

from amber_gable.core.weather.film.limits import Limit

STAIN_MOISTURE, WOOD_MOISTURE = 17.0, 18.0
STAINS = ("semi-transparent", "translucent")


def moisture_limit(
    tags: frozenset[str], aim: str, schools: Mapping[str, str], sheet_max: float | None = None
) -> Limit | None:
    """Wettest wood that may be coated, %; None where it is not wood. `sheet_max` is the finish's own figure."""
    if "wood" not in tags:
        return None
    if aim in STAINS:
        usual = Limit(STAIN_MOISTURE, "%", "stain wants 12 to 17 %")
    else:
        school = schools["damp-limit"]
        usual = Limit(float(school), "%", f"school: film at {school} % or less")
    if sheet_max is not None and sheet_max < usual.value:
        return Limit(sheet_max, "%", "the product's sheet")
    return usual
