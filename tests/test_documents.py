"""What the code and the documents cite stands in the tree."""

import re
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
DOCS = {p.name: p for p in (ROOT / "docs").rglob("*.md")} | {p.name: p for p in ROOT.glob("*.md")}
CODE = [p for top in ("src", "tests") for p in (ROOT / top).rglob("*.py")]
WRITTEN = [*DOCS.values(), ROOT / "pyproject.toml", *(ROOT / "scripts").glob("*"), ROOT / "Makefile"]
_CITED = re.compile(r"(?<![\w/])((?:[\w-]+/)*[\w-]+\.md)(?: (§\d+(?:\.\d+)?(?:(?:, | and )§\d+(?:\.\d+)?)*))?")
_PATH = re.compile(
    r"`((?:src|docs|tests|scripts|locks|deploy)/[\w./*-]+|(?:domain|core|store|exchange|services|web|standins|demo)/[\w./]+)`"
)


def _sections(path: Path) -> set[str]:
    return set(re.findall(r"^#+ (\d+(?:\.\d+)?)\.? ", path.read_text(encoding="utf-8"), re.MULTILINE))


def test_every_document_and_section_that_code_cites_is_there() -> None:
    sections = {name: _sections(path) for name, path in DOCS.items()}
    lacking, count = [], 0
    for path in CODE:
        for cited, where in _CITED.findall(path.read_text(encoding="utf-8")):
            name, count = cited.rsplit("/", 1)[-1], count + 1
            if name not in DOCS:
                lacking.append((path.name, cited))
            lacking += [
                (path.name, f"{cited} {n}")
                for n in re.findall(r"§(\d+(?:\.\d+)?)", where)
                if n not in sections.get(name, ())
            ]
    assert lacking == [] and count > 80


def test_every_source_file_that_code_names_is_there() -> None:
    package = ROOT / "src" / "amber_gable"
    named = {
        n for path in CODE for n in re.findall(r"(?<![\w/.])((?:\w+/)+\w+\.py)\b", path.read_text(encoding="utf-8"))
    }
    assert named
    assert [
        n for n in sorted(named) if not any((base / n).exists() for base in (package, ROOT, *package.iterdir()))
    ] == []


@pytest.mark.parametrize("path", WRITTEN, ids=lambda p: p.name)
def test_every_path_that_a_document_names_is_there(path: Path) -> None:
    text = path.read_text(encoding="utf-8")
    links = [n for n in re.findall(r"\]\(([^)#:]+)\)", text) if path.suffix == ".md"]
    lacking = [n for n in links if not (path.parent / n).exists()]
    for named in _PATH.findall(text):
        base = (
            ROOT
            if named.split("/")[0] in ("src", "docs", "tests", "scripts", "locks", "deploy")
            else ROOT / "src" / "amber_gable"
        )
        if not any(base.glob(named.rstrip("/"))) and not any(base.glob(f"{named}.py")):
            lacking.append(named)
    assert lacking == []
