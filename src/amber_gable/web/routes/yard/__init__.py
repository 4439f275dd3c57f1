"""The start page, and what is above the jobs."""

from amber_gable.web.joined import joined
from amber_gable.web.routes.yard import desk, jobs, runs, undo, words

router = joined(jobs, undo, words, desk, runs)
