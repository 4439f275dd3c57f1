"""A job as it is stored: survey, specification, record, plan, steps of undo."""
