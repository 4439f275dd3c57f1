"""Specification: what each part gets and why, colours, schools, safety."""

from amber_gable.web.joined import joined
from amber_gable.web.routes.specification import colours, others, overview, part

router = joined(overview, colours, others, part)
