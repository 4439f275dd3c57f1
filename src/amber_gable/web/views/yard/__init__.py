"""How the jobs are shown on the start page."""
