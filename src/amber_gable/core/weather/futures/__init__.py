"""What else may come: members drawn around a forecast, and two forecasts compared."""
