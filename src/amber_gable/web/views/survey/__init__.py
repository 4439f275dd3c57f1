"""How the survey is drawn and asked for."""
