"""Weather as it is given: series of hours, typed forecasts, feeds."""
