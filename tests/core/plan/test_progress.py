"""What the record says of each step: later entries speak over earlier ones, what is taken back does not count."""

from typing import Any

import pytest

from amber_gable.core.state.progress import cells, laid_films, left_to_note, progress, share_behind
from amber_gable.domain.job.site_record import Extent, SiteEntry
from amber_gable.domain.paint.generic_systems import GENERIC_SYSTEMS
from tests.site_cases import SIDING, at, entry, record

STEPS = next(s for s in GENERIC_SYSTEMS if s.id == "generic-peeling-wood").operations
"""wash, scrape, prime (30 %), caulk, coat-1, coat-2"""
T = at(0, "08:00")

# lines of the record -> the wall from left to right: 'from-to: open steps' (and > what is under way, ! what was passed)
RECORDS: list[tuple[str, tuple[SiteEntry, ...], list[str]]] = [
    ("nothing noted", (), ["0-1: wash scrape prime caulk coat-1 coat-2"]),
    ("washed", record(("done", "wash", T)), ["0-1: scrape prime caulk coat-1 coat-2"]),
    (
        "washing under way: what comes after is open still",
        record(("started", "wash", T)),
        ["0-1: wash scrape prime caulk coat-1 coat-2 > wash"],
    ),
    (
        "part done counts from the left",
        record(("done", "wash", T), ("part-done", "scrape", T, {"how_far": 0.4})),
        ["0-0.4: prime caulk coat-1 coat-2", "0.4-1: scrape prime caulk coat-1 coat-2"],
    ),
    (
        "who says how far it is has stopped there",
        record(("started", "wash", T), ("part-done", "wash", T, {"how_far": 0.4})),
        ["0-0.4: scrape prime caulk coat-1 coat-2", "0.4-1: wash scrape prime caulk coat-1 coat-2"],
    ),
    (
        "of a section, part done is a part of the section",
        record(("done", "wash scrape prime caulk", T), ("part-done", "coat-1", T, {"left": 0.5, "how_far": 0.5})),
        ["0-0.5: coat-1 coat-2", "0.5-0.75: coat-2", "0.75-1: coat-1 coat-2"],
    ),
    (
        "done after part done is done",
        record(("part-done", "wash", T, {"how_far": 0.4}), ("done", "wash", T)),
        ["0-1: scrape prime caulk coat-1 coat-2"],
    ),
    (
        "what nobody noted before later work is passed, not planned",
        record(("done", "prime", T)),
        ["0-1: caulk coat-1 coat-2 ! wash scrape"],
    ),
    (
        "what was said to be not done is open again",
        record(("done", "prime", T), ("not-done", "scrape", T, {"why": "rain"})),
        ["0-1: scrape caulk coat-1 coat-2 ! wash"],
    ),
    (
        "a coat washed off is not done",
        record(("done", "wash scrape prime caulk coat-1", T), ("not-done", "coat-1", T, {"why": "rained on"})),
        ["0-1: coat-1 coat-2"],
    ),
    (
        "taken back",
        record(("done", "wash", T), ("taken-back", "", T, {"takes_back": "t0"})),
        ["0-1: wash scrape prime caulk coat-1 coat-2"],
    ),
    (
        "the taking back taken back",
        record(
            ("done", "wash", T),
            ("taken-back", "", T, {"takes_back": "t0"}),
            ("taken-back", "", T, {"takes_back": "t1"}),
        ),
        ["0-1: scrape prime caulk coat-1 coat-2"],
    ),
    (
        "taking back only the last of two leaves the first",
        record(
            ("part-done", "wash", T, {"how_far": 0.5}),
            ("done", "wash", T),
            ("taken-back", "", T, {"takes_back": "t1"}),
        ),
        ["0-0.5: scrape prime caulk coat-1 coat-2", "0.5-1: wash scrape prime caulk coat-1 coat-2"],
    ),
    (
        "done ends what was under way there and nowhere else",
        record(("started", "wash", T), ("done", "wash", T, {"right": 0.5})),
        ["0-0.5: scrape prime caulk coat-1 coat-2", "0.5-1: wash scrape prime caulk coat-1 coat-2 > wash"],
    ),
]


def _told(lines: tuple[SiteEntry, ...]) -> list[str]:
    out = []
    for cell in cells(SIDING, STEPS, progress(lines)):
        words = f"{cell.left:g}-{cell.right:g}: " + " ".join(o.id for o in cell.open)
        words += f" > {' '.join(cell.running.steps)}" if cell.running else ""
        out.append(words + (f" ! {' '.join(o.id for o in cell.passed)}" if cell.passed else ""))
    return out


@pytest.mark.parametrize(("lines", "expected"), [r[1:] for r in RECORDS], ids=[r[0] for r in RECORDS])
def test_what_is_left_after_a_record(lines: tuple[SiteEntry, ...], expected: list[str]) -> None:
    assert _told(lines) == expected


PARTS = [("item", f"sash-{n}") for n in range(5)]


def test_of_several_things_part_done_means_so_many_whole() -> None:
    found = progress(record(("part-done", "wash", T, {"parts": PARTS, "how_far": 0.5})))
    assert {key[0] for key in found} == set(PARTS[:2]), "two and a half of five are two"


def test_what_is_left_to_note_leaves_out_what_is_noted() -> None:
    operations = dict.fromkeys([*PARTS, SIDING], STEPS)
    some = progress(record(("done", "wash", T, {"parts": PARTS[:2]}), ("part-done", "wash", T, {"how_far": 0.25})))
    lot = Extent.model_validate({"parts": PARTS})
    assert left_to_note(lot, ["wash"], operations, some) == [(Extent.model_validate({"parts": PARTS[2:]}), ("wash",))]
    half = Extent(parts=(SIDING,), right=0.5)
    ((extent, steps),) = left_to_note(half, ["wash", "scrape"], operations, some)[1:]
    assert (extent.left, extent.right, steps) == (0.25, 0.5, ("wash", "scrape"))
    assert left_to_note(half, ["coat-9"], operations, some) == []


def test_the_films_on_a_wall_are_counted_from_left_to_right() -> None:
    paint: dict[str, Any] = {"product": "p", "method": "brush", "colour": "#e9dcc1"}
    lines = record(
        ("done", "wash scrape prime caulk", T),
        ("done", "coat-1", T, paint),
        ("done", "coat-2", T, {"right": 0.5, **paint, "colour": "#112233"}),
    )
    found = cells(SIDING, STEPS, progress(lines))
    assert [(f.left, f.right, f.films, f.of, f.colour) for f in laid_films(found)] == [
        (0.0, 0.5, 2, 2, "#112233"),
        (0.5, 1.0, 1, 2, "#e9dcc1"),
    ]
    assert share_behind(STEPS, found) == pytest.approx((1.0 + 5 / 6) / 2)
    assert share_behind(STEPS, cells(SIDING, STEPS, {})) == 0


BROKEN = [
    ({"how_far": 0.4}, "how far belongs to"),
    ({"steps": []}, "names no work"),
    ({"takes_back": "t9"}, "cannot take back"),
    ({"said": "not-done"}, "say why"),
    ({"said": "part-done"}, "how far belongs to"),
    ({"said": "taken-back"}, "takes back nothing"),
    ({"extent": {"parts": [SIDING], "left": 0.5, "right": 0.5}}, "ends to the right"),
    ({"at": "2026-06-08T08:00"}, "timezone"),
]


@pytest.mark.parametrize(("change", "words"), BROKEN)
def test_an_entry_that_says_nothing_is_refused(change: dict[str, Any], words: str) -> None:
    whole = entry("done", "wash", T).model_dump(mode="json")
    with pytest.raises(ValueError, match=words):
        SiteEntry.model_validate(whole | change)
