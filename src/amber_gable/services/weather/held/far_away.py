"""How far from a house the weather of a file was made. Light to load, for the commands ask it too."""

import numpy as np

from amber_gable.domain.house.survey import Property
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.exchange.towns import distance_km, nearest_town

FAR_KM = 50.0
"""Two cells of a coarse grid of weather; a station's hours are those of the country so far round it."""
MILES = 0.621371


def far_words(series: WeatherSeries, latitude: float, longitude: float) -> str:
    """'1702 km (1058 miles) away' from a place (degrees); '' where it is of that place, or does not say."""
    if series.latitude is None or series.longitude is None:
        return ""
    here = np.array([series.latitude]), np.array([series.longitude])
    km = float(distance_km(*here, latitude, longitude)[0])
    return "" if km <= FAR_KM else f"{km:.0f} km ({km * MILES:.0f} miles) away"


def away_words(series: WeatherSeries, property_: Property) -> str:
    """The same from a house, with the town it was made near."""
    far = far_words(series, property_.latitude, property_.longitude)
    if not far or series.latitude is None or series.longitude is None:
        return ""
    return f"{far}, near {nearest_town(series.latitude, series.longitude)[0].words}"
