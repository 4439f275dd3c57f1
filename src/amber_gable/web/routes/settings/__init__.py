"""Settings: the company, its rates, where weather comes from."""

from amber_gable.web.joined import joined
from amber_gable.web.routes.settings import company, rates, sources

router = joined(company, rates, sources)
