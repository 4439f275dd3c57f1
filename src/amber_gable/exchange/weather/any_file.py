"""Any weather file: its kind is told from its first lines."""

from amber_gable.domain.errors import InputError
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.exchange.weather.hours_csv import read_csv
from amber_gable.exchange.weather.typical_year_files import read_epw, read_tmy3


def read_weather(text: str, name: str) -> WeatherSeries:
    """Read EPW, TMY3 CSV or the plain CSV. Raises InputError with the line at fault."""
    first, _, rest = text.lstrip("\ufeff").partition("\n")
    if not first.strip():
        raise InputError(name, "is empty", "choose an EPW, TMY3 CSV or plain CSV file")
    if first.upper().startswith("LOCATION"):
        return read_epw(text, name)
    if rest.lstrip('"').startswith("Date (MM/DD/YYYY)"):
        return read_tmy3(text, name)
    return read_csv(text, name)
