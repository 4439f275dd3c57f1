"""The survey's pages."""

from amber_gable.web.joined import joined
from amber_gable.web.routes.survey import (
    block,
    block_floor,
    condition,
    edits,
    files,
    findings,
    overview,
    photos,
    plan,
    surroundings,
    table,
    walk,
)

# What has an address of its own comes before the pages that take any kind of part.
router = joined(
    block_floor, block, files, findings, walk, photos, plan, overview, surroundings, condition, edits, table
)
