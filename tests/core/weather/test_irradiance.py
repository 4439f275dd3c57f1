"""Our formulas of sunshine are pvlib's, to the last bit."""

import numpy as np
import pandas as pd
import pytest
from pvlib import atmosphere, clearsky, irradiance, solarposition

from amber_gable.core.weather.outdoors import irradiance as ours
from amber_gable.core.weather.outdoors import sun

ZENITH = np.linspace(0.5, 120.0, 400)
DAYS = np.arange(1, 367)
DRAW = np.random.default_rng(3)


def test_what_depends_on_the_day_and_the_height_of_the_sun() -> None:
    assert np.array_equal(ours.extraterrestrial(DAYS), irradiance.get_extra_radiation(DAYS))
    assert ours.pressure_pa(812.0) == atmosphere.alt2pres(812.0)
    assert np.array_equal(ours.clear_sky(ZENITH), clearsky.haurwitz(pd.Series(ZENITH))["ghi"].to_numpy())
    mass = atmosphere.get_relative_airmass(ZENITH, model="kastenyoung1989")
    assert np.array_equal(ours.air_mass(ZENITH), mass, equal_nan=True)


def test_global_light_is_split_as_erbs_did() -> None:
    ghi, days = DRAW.uniform(0, 1000, 400), DRAW.integers(1, 366, 400)
    assert np.array_equal(ours.erbs_diffuse(ghi, ZENITH, days), irradiance.erbs(ghi, ZENITH, days)["dhi"])


@pytest.mark.parametrize("tilt", [0.0, 22.0, 90.0])
def test_light_on_a_plane(tilt: float) -> None:
    azimuth, bearing = DRAW.uniform(0, 360, (2, 400))
    dhi, dni = DRAW.uniform(0, 500, 400), DRAW.uniform(0, 900, 400)
    tilts, extra = np.full(400, tilt), np.full(400, 1350.0)
    cosine = ours.incidence_cosine(tilts, azimuth, ZENITH, bearing)
    assert np.array_equal(cosine, irradiance.aoi_projection(tilts, azimuth, ZENITH, bearing))
    ratio = np.maximum(cosine, 0) / np.maximum(np.cos(np.radians(ZENITH)), 0.01745)
    theirs = irradiance.haydavies(tilts, azimuth, dhi, dni, extra, projection_ratio=ratio, return_components=True)
    even, about_the_sun = ours.hay_davies(tilts, dhi, dni, extra, ratio)
    assert np.array_equal(even, theirs["poa_isotropic"])
    assert np.array_equal(about_the_sun, theirs["poa_circumsolar"])
    assert np.array_equal(ours.ground_diffuse(tilts, dni, 0.2), irradiance.get_ground_diffuse(tilts, dni, albedo=0.2))


@pytest.mark.parametrize(("latitude", "longitude"), [(45.25, -62.1), (-42.9, 147.3)])
def test_the_sun_stands_where_pvlib_has_it(latitude: float, longitude: float) -> None:
    times = pd.date_range("2026-02-27", periods=500, freq="433min", tz="UTC")
    table = solarposition.get_solarposition(times, latitude, longitude, altitude=120.0, method="nrel_numpy")
    found = sun.position(times.as_unit("s").asi8.astype(float), latitude, longitude, 120.0)
    assert np.array_equal(found.elevation, table["apparent_elevation"].to_numpy())
    assert np.array_equal(found.azimuth, table["azimuth"].to_numpy())
    assert np.array_equal(found.day, times.day_of_year)
