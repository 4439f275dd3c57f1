"""Product files and palettes: out and in again the same, and bad ones refused with their place."""

import csv
import io
from collections.abc import Callable
from typing import Any

import pytest

from amber_gable.domain.errors import InputError
from amber_gable.domain.paint.colour_library import LIBRARY
from amber_gable.domain.paint.generic_products import GENERIC_PRODUCTS
from amber_gable.exchange.stores.palettes import read_palette, write_gpl
from amber_gable.exchange.stores.products import dump_products, read_products, write_csv
from tests.jobs import demo_products

ALL = [*demo_products(), *GENERIC_PRODUCTS.values()]


def test_products_survive_json_and_csv() -> None:
    odd = ALL[0].model_copy(update={"name": "=2+2", "note": 'two "quotes", a comma', "air_min_c": -5.5})
    products = [odd, *ALL[1:]]
    assert read_products(dump_products(products), "p.json") == products
    text = write_csv(products)
    assert "'=2+2" in text, "a spreadsheet must not take it for a formula"
    assert read_products("\ufeff" + text, "p.csv") == products


def _row(**cells: str) -> str:
    """A good CSV with the second product spoilt."""
    rows = list(csv.DictReader(io.StringIO(write_csv(ALL[:3]))))
    rows[1].update(cells)
    out = io.StringIO()
    writer = csv.DictWriter(out, rows[0].keys(), lineterminator="\n")
    writer.writeheader()
    writer.writerows(rows)
    return out.getvalue()


BAD: list[tuple[str, str, list[str]]] = [
    ("solids of 140 %", _row(volume_solids_pct="140"), ["line 3", "column volume_solids_pct", "140"]),
    ("recoat before touch", _row(recoat_h="0.2"), ["line 3", "recoat comes before dry to touch"]),
    ("rain-ready before touch", _row(rain_ready_h="0.1"), ["line 3", "rain-ready"]),
    ("cure before recoat", _row(cure_d="0.01"), ["line 3", "cure"]),
    ("surface limits crossed", _row(surface_min_c="50"), ["line 3", "surface"]),
    ("no number", _row(dry_film_um="thick"), ["line 3", "column dry_film_um", "thick"]),
    ("not a number", _row(touch_h="nan"), ["line 3", "column touch_h"]),
    ("unknown family", _row(family="varnish"), ["line 3", "column family", "varnish"]),
    ("unknown method", _row(methods="brush mop"), ["line 3", "column methods"]),
    ("no container", _row(containers=""), ["line 3", "column containers"]),
    ("odd container", _row(containers="3.785"), ["line 3", "column containers", "litres:price"]),
    ("a size twice", _row(containers="1:10 1:12"), ["line 3", "twice"]),
    ("neither yes nor no", _row(primer="perhaps"), ["line 3", "column primer", "perhaps"]),
    ("code twice", _row(code=ALL[0].code), ["line 3", "line 2"]),
    ("column missing", write_csv(ALL[:1]).replace("recoat_h,", "x,", 1), ["line 1", "recoat_h"]),
    ("strange column", write_csv(ALL[:1]).replace("note,", "remark,", 1), ["line 1", "remark"]),
    ("empty", "code,name\n", ["line 1"]),
    ("json of something else", "{}", ["amber-gable-products"]),
    ("broken json", '{"format":', ["not valid JSON"]),
    ("json with a fault", dump_products(ALL[:2]).replace("waterborne", "milk", 1), ["product 1", "milk"]),
]


@pytest.mark.parametrize(("text", "words"), [b[1:] for b in BAD], ids=[b[0] for b in BAD])
def test_a_bad_product_file_is_refused_with_row_and_column(text: str, words: list[str]) -> None:
    with pytest.raises(InputError) as refused:
        read_products(text, "p.csv")
    for word in ("p.csv", *words):
        assert word in str(refused.value)


def test_the_library_goes_out_as_a_palette_and_comes_back() -> None:
    back = read_palette(write_gpl(list(LIBRARY), "Ours"), "ours.gpl")
    assert [(c.name, c.colour) for c in back] == [(c.name, c.colour) for c in LIBRARY]
    assert {c.collection for c in back} == {"Ours"}
    table = "Name, Colour\nOat,#E9DCC1\nPlain,#808080\n"
    assert [c.colour for c in read_palette(table, "c.csv")] == ["#e9dcc1", "#808080"]
    untitled = read_palette("GIMP Palette\n#\n255 0 16 Untitled\n", "x.gpl")
    assert untitled[0].name == "#ff0010"


PALETTES: list[tuple[str, str, list[str]]] = [
    ("value over 255", "GIMP Palette\nName: X\n1 2 300 Odd\n", ["line 3", "0 to 255"]),
    ("too few values", "GIMP Palette\n1 2\n", ["line 2"]),
    ("a name twice", "GIMP Palette\n1 2 3 A\n1 2 4 a\n", ["line 3", "twice"]),
    ("empty palette", "GIMP Palette\nName: X\n", ["no colours"]),
    ("no colour column", "name,hex\nA,#000000\n", ["line 1", "colour"]),
    ("bad colour", "name,colour\nA,red\n", ["line 2", "column colour", "#rrggbb"]),
    ("no name", "name,colour\n,#000000\n", ["line 2", "column name"]),
]


@pytest.mark.parametrize(("text", "words"), [p[1:] for p in PALETTES], ids=[p[0] for p in PALETTES])
def test_a_bad_palette_is_refused_with_its_line(text: str, words: list[str]) -> None:
    with pytest.raises(InputError) as refused:
        read_palette(text, "p")
    for word in words:
        assert word in str(refused.value)


SHEETS: list[tuple[str, Callable[[dict[str, Any]], Any]]] = [
    ("foot traffic before touch", lambda s: s.update(foot_h=0.1)),
    ("spread turned round", lambda s: s.update(spread_low_m2_l=12.0, spread_high_m2_l=6.0)),
    ("longest recoat before the shortest", lambda s: s.update(max_recoat_h=1.0)),
    ("hides all of it", lambda s: s.update(contrast=1.0)),
    ("an air limit of a kiln", lambda s: s.update(air_max_c=400.0)),
]


@pytest.mark.parametrize("spoil", [s[1] for s in SHEETS], ids=[s[0] for s in SHEETS])
def test_an_impossible_sheet_is_refused(spoil: Callable[[dict[str, Any]], Any]) -> None:
    sheet = ALL[0].model_dump(mode="json")
    spoil(sheet)
    with pytest.raises(ValueError, match=r"comes before|above the greatest|must be after|less than"):
        type(ALL[0]).model_validate(sheet)
