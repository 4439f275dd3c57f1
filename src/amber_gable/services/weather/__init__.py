"""Weather: forecasts, and every face judged for a coat."""
