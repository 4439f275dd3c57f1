"""Weather: every face judged for a coat, hour by hour."""

from amber_gable.web.joined import joined
from amber_gable.web.routes.weather import brought, film, lanes, moisture, season, sky, sun, versions

# What has an address of its own comes before the lanes, which take any.
router = joined(film, sun, moisture, season, versions, brought, sky, lanes)
