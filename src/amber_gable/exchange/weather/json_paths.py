"""Lists of values in a JSON document by paths: names joined by points, `[]` after one that holds a list of rows, such
as `hourly.air` (a list of figures) or `rows[].main.air` (a figure of each row). A path into the document's own list
begins with `[]`."""

from collections.abc import Iterator
from typing import Any

MOST_PATHS, DEEPEST = 60, 6
_SCALARS = (str, int, float, type(None))


def values_at(document: Any, path: str) -> list[Any] | None:
    """The values of a path, None in rows that lack it; None altogether where nothing of the kind is there."""
    return _at(document, path.replace("[]", ".[]").lstrip(".").split("."))


def _at(node: Any, steps: list[str]) -> list[Any] | None:
    for n, step in enumerate(steps):
        if step == "[]":
            if not isinstance(node, list) or not node:
                return None
            return [_one(row, steps[n + 1 :]) for row in node]
        if not isinstance(node, dict) or step not in node:
            return None
        node = node[step]
    return node if isinstance(node, list) and all(isinstance(v, _SCALARS) for v in node) else None


def _one(row: Any, steps: list[str]) -> Any:
    for step in steps:
        row = row.get(step) if isinstance(row, dict) else None
    return row if isinstance(row, _SCALARS) else None


def lists_in(document: Any) -> dict[str, list[Any]]:
    """Every path that gives two values or more, in the order of the document, with its values."""
    found: dict[str, list[Any]] = {}
    for path in _paths(document, "", 0):
        values = values_at(document, path)
        if values is not None and len(values) > 1 and path not in found and any(v is not None for v in values):
            found[path] = values
        if len(found) >= MOST_PATHS:
            break
    return found


def _paths(node: Any, path: str, depth: int) -> Iterator[str]:
    if depth > DEEPEST:
        return
    if isinstance(node, dict):
        for name, below in node.items():
            # Names that the paths themselves are written with cannot be told apart.
            if "." not in name and "[" not in name:
                yield from _paths(below, f"{path}.{name}" if path else name, depth + 1)
    elif isinstance(node, list) and node:
        if all(isinstance(v, _SCALARS) for v in node):
            yield path
        elif all(isinstance(v, dict) for v in node):
            names: dict[str, None] = {}
            for row in node:
                names |= dict.fromkeys(_leaves(row, "", depth + 1))
            yield from (f"{path}[].{name}" for name in names)


def _leaves(row: dict[str, Any], path: str, depth: int) -> Iterator[str]:
    for name, below in row.items():
        here = f"{path}.{name}" if path else name
        if isinstance(below, dict) and depth < DEEPEST:
            yield from _leaves(below, here, depth + 1)
        elif isinstance(below, _SCALARS) and "[" not in name:
            yield here
