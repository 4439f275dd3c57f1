"""Today: the day sheet, and noting work."""

from amber_gable.web.joined import joined
from amber_gable.web.routes.today import day, films, found, standing

router = joined(day, films, found, standing)
