"""The demo scenario as data: job bundles in `jobs/`, in the order of the jobs list, and what the stores hold."""

import json
from pathlib import Path

PRODUCTS = Path(__file__).parent / "products.json"
JOBS = Path(__file__).parent / "jobs"


STOCK = Path(__file__).parent / "stock.json"


def demo_stock() -> list[dict[str, str]]:
    """Cans on the demo company's shelf, as they would be typed."""
    cans: list[dict[str, str]] = json.loads(STOCK.read_text(encoding="utf-8"))
    return cans


def demo_bundles() -> list[tuple[str, str]]:
    """(file name, text) of each demo job."""
    return [(path.name, path.read_text(encoding="utf-8")) for path in sorted(JOBS.glob("*.json"))]
