"""Today: the day sheet, and noting work."""

from amber_gable.web.joined import joined
from amber_gable.web.routes.today import day, standing

router = joined(day, standing)
