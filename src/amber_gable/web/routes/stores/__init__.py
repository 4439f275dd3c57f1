"""The company's stores and stock."""

from amber_gable.web.joined import joined
from amber_gable.web.routes.stores import sheets, stock

router = joined(stock, sheets)
