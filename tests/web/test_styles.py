"""The style sheets: which layer each lies in, that no selector is spread over files, and which a page is sent."""

import re
from collections import defaultdict
from pathlib import Path

import pytest

from amber_gable.services.job.stages import STAGES
from amber_gable.web import app
from tests.clients import Reader

CSS = Path(app.__file__).parent / "static" / "css"
LAYERS = {"look.css": "look", "print.css": "print", "thumb.css": "thumb"}
COMMON = {"look.css", "views.css", "print.css", "thumb.css"}
FOR_A_MEDIUM = {"print.css", "thumb.css"}
"""What paper, or a phone, has otherwise."""


def _selectors(text: str) -> list[str]:
    """Of the rules of a file, media queries left aside; at-rules have none."""
    plain = re.sub(r"/\*.*?\*/", "", text, flags=re.S)
    heads = [h.strip() for h in re.findall(r"([^{};]+)\{", plain)]
    return [" ".join(s.split()) for h in heads if not h.startswith("@") for s in re.split(r",(?![^(]*\))", h)]


@pytest.mark.parametrize("path", sorted(CSS.glob("*.css")), ids=lambda p: p.name)
def test_each_file_lies_in_one_layer(path: Path) -> None:
    wanted = LAYERS.get(path.name, "view")
    rest = re.sub(r"@layer [\w, ]+;|@import [^;]+;", "", path.read_text(encoding="utf-8")).strip()
    assert rest.startswith(f"@layer {wanted} {{") and rest.endswith("}")
    assert rest.count("@layer") == 1


def test_a_selector_stands_in_one_file() -> None:
    where = defaultdict(set)
    for path in CSS.glob("*.css"):
        for selector in _selectors(path.read_text(encoding="utf-8")):
            where[selector].add(path.name)
    spread = {s: files for s, files in where.items() if len(files - FOR_A_MEDIUM) > 1}
    assert not spread


def test_a_page_is_sent_the_styles_of_its_stage_alone(client: Reader) -> None:
    pages = {f"/jobs/coopers-rise/{s.path}": s.path for s in STAGES} | {"/": "yard", "/stores": "stores"}
    for page, style in pages.items():
        sent = set(re.findall(r"/css/([\w-]+\.css)", client.get(page).text))
        assert sent == COMMON | {f"{style}.css"}, page
