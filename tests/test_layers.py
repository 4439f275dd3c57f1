"""Imports that only the type checker reads: import-linter leaves them out, so the layers are held here."""

import ast
from collections.abc import Iterator
from pathlib import Path

SOURCE = Path(__file__).parents[1] / "src" / "amber_gable"
LOWEST_FIRST = ("domain", "core", "exchange", "store", "standins", "demo", "services", "web")
MAY_NAME = {"web": {"core", "services", "domain"}}
"""What pages may name for their types; every other layer names itself and what lies below it."""


def _for_types_only() -> Iterator[tuple[Path, str]]:
    """Module and the layer that it names under TYPE_CHECKING."""
    for path in sorted(SOURCE.rglob("*.py")):
        for block in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if isinstance(block, ast.If) and isinstance(block.test, ast.Name) and block.test.id == "TYPE_CHECKING":
                for line in block.body:
                    if isinstance(line, ast.ImportFrom) and (line.module or "").startswith("amber_gable."):
                        yield path, str(line.module).split(".")[1]


def test_types_are_taken_from_lower_layers_alone() -> None:
    named = list(_for_types_only())
    assert len(named) > 30, "the blocks are found"
    wrong = []
    for path, layer in named:
        own = path.relative_to(SOURCE).parts[0]
        allowed = MAY_NAME.get(own, set(LOWEST_FIRST[: LOWEST_FIRST.index(own) + 1]))
        if layer not in allowed:
            wrong.append(f"{path.relative_to(SOURCE)} names {layer}")
    assert not wrong
