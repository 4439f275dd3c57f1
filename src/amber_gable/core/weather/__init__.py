"""From hourly weather to the hours in which a coat on a face will hold."""
