"""Weather series, forecasts as they were had, and where they come from."""
