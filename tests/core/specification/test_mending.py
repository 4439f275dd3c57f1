"""What a spoiled film asks for: thought through as a painter first, then looked up."""

from datetime import UTC, datetime

import pytest

from amber_gable.domain.job.site_record import Effect, Extent, Mishap, Spoiled
from amber_gable.domain.work.mending import likely_effect, mends
from amber_gable.domain.work.operation import Operation
from tests.jobs import GENERIC_PRODUCTS

NOON = datetime(2026, 6, 8, 15, tzinfo=UTC)
ACRYLIC, ALKYD, STAIN, MASONRY = (
    "exterior-acrylic-standard",
    "alkyd-gloss",
    "deck-stain-semi-transparent",
    "smooth-masonry-paint",
)
OFF, RUB, WIPE = "mend-off/wet-scrape~4", "mend-rub/de-nib", "mend-wipe/damp-wipe~4"

# product of the coats, films of the part, which was spoiled, what happened, what it left -> what is done
CASES = [
    # Water: what still holds is sponged off and gets its next coat; the last coat is laid again over its marks.
    (ACRYLIC, "coat-1 coat-2", "coat-1", "rain", "marked", WIPE),
    (ACRYLIC, "coat-1 coat-2", "coat-2", "rain", "marked", f"{WIPE} coat-2-again"),
    (ACRYLIC, "coat-1 coat-2", "coat-2", "dew", "marked", f"{WIPE} coat-2-again"),
    (MASONRY, "coat-1 coat-2", "coat-1", "dew", "marked", WIPE),
    # What ran off the wall leaves edges and curtains, and the coat is missing below the next one.
    (ACRYLIC, "coat-1 coat-2", "coat-1", "rain", "came-off", f"{OFF} {RUB} coat-1-again"),
    (MASONRY, "coat-1 coat-2", "coat-2", "rain", "came-off", f"{OFF} {RUB} coat-2-again"),
    (ACRYLIC, "prime coat-1 coat-2", "prime", "rain", "came-off", f"{OFF} {RUB} prime-again"),
    # Oil takes water as spots in its gloss: rubbed down dry, never sponged.
    (ALKYD, "coat-1 coat-2", "coat-1", "rain", "marked", RUB),
    (ALKYD, "coat-1 coat-2", "coat-2", "rain", "marked", f"{RUB} coat-2-again"),
    # A stain lies in the wood: nothing is scraped or rubbed; washed out it is stained again.
    (STAIN, "coat-1", "coat-1", "rain", "came-off", f"{WIPE} coat-1-again"),
    (STAIN, "coat-1", "coat-1", "rain", "marked", f"{WIPE} coat-1-again"),
    (STAIN, "coat-1", "coat-1", "dust", "marked", "coat-1-again"),
    # Frost: a waterborne film that had not formed is no ground, even where it looks whole; oil only stood still.
    (ACRYLIC, "coat-1 coat-2", "coat-1", "frost", "marked", f"{RUB} coat-1-again"),
    (ACRYLIC, "coat-1 coat-2", "coat-1", "frost", "came-off", f"{OFF} {RUB} coat-1-again"),
    (ALKYD, "coat-1 coat-2", "coat-1", "frost", "marked", RUB),
    # Marks, nibs and runs are rubbed smooth when hard; under another coat that is enough.
    (ACRYLIC, "coat-1 coat-2", "coat-1", "touched", "marked", RUB),
    (ACRYLIC, "coat-1 coat-2", "coat-2", "touched", "marked", f"{RUB} coat-2-again"),
    (ALKYD, "coat-1 coat-2", "coat-1", "dust", "marked", RUB),
    (ACRYLIC, "coat-1 coat-2", "coat-2", "ran", "marked", f"{RUB} coat-2-again"),
    (ACRYLIC, "coat-1 coat-2", "coat-2", "touched", "came-off", f"{OFF} {RUB} coat-2-again"),
    # A possible coat that nobody may lay covers nothing.
    (ACRYLIC, "coat-1 coat-2?", "coat-1", "rain", "marked", f"{WIPE} coat-1-again"),
    # The wrong colour is a sound ground: the right one goes over it.
    (ACRYLIC, "coat-1 coat-2", "coat-1", "wrong-colour", "marked", "coat-1-again"),
    (ACRYLIC, "coat-1 coat-2", "coat-2", "wrong-colour", "marked", "coat-2-again"),
    # Looked at, and nothing to be seen.
    (ACRYLIC, "coat-1 coat-2", "coat-2", "rain", "none", ""),
]


def _film(name: str, product: str) -> Operation:
    role = name.rstrip("?")
    primer = role == "prime"
    return Operation.model_validate(
        {
            "id": role, "name": role, "kind": "prime" if primer else "coat", "method": "brush",
            "product": "acrylic-wood-primer" if primer else product, "possible": name.endswith("?"),
        }
    )  # fmt: skip


def _spoiled(step: str, what: str, effect: str) -> Spoiled:
    extent = Extent(parts=(("zone", "wall"),), left=0.25, right=0.75)
    return Spoiled(id="s", touch="0123456789abcdef", at=NOON, noted=NOON, by="Ina", what=Mishap(what),
                   effect=Effect(effect), step=step, extent=extent, share=0.4)  # fmt: skip


@pytest.mark.parametrize(("product", "films", "step", "what", "effect", "steps"), CASES)
def test_what_is_done_about_a_spoiled_film(
    product: str, films: str, step: str, what: str, effect: str, steps: str
) -> None:
    operations = [_film(name, product) for name in films.split()]
    sheet = GENERIC_PRODUCTS[next(o.product or "" for o in operations if o.id == step)]
    found = mends(_spoiled(step, what, effect), operations, sheet)
    told = []
    for one in found:
        role = one.id.removesuffix("-01234567")
        wait = f"~{one.wait_h:g}" if one.wait_h else ""
        told.append(role if one.kind.lays_film else f"{role}/{one.technique}{wait}")
        assert (one.left, one.right, one.share) == (0.25, 0.75, 0.4), "on the stretch that was spoiled, as much of it"
    assert " ".join(told) == steps


def test_of_a_primer_in_spots_the_spots_are_mended() -> None:
    spots = _film("prime", ACRYLIC).model_copy(update={"share": 0.3})
    found = mends(_spoiled("prime", "rain", "came-off"), [spots], GENERIC_PRODUCTS["acrylic-wood-primer"])
    assert [one.share for one in found] == pytest.approx([0.12] * 3), "of 0.4 of them, which are 0.3 of the wall"


@pytest.mark.parametrize(
    ("product", "what", "dried", "effect"),
    [
        (ACRYLIC, "rain", 0.2, "came-off"),
        (ACRYLIC, "rain", 0.5, "marked"),
        (ACRYLIC, "rain", 1.0, "none"),
        (ALKYD, "rain", 0.1, "came-off"),
        (ACRYLIC, "dew", 0.2, "marked"),
        (ACRYLIC, "frost", 0.6, "came-off"),
        (ALKYD, "frost", 0.6, "marked"),
        (ACRYLIC, "frost", 1.2, "none"),
        (ACRYLIC, "touched", 3.0, "marked"),
    ],
)
def test_what_it_usually_leaves_by_how_far_the_film_has_come(
    product: str, what: str, dried: float, effect: str
) -> None:
    assert likely_effect(Mishap(what), GENERIC_PRODUCTS[product], dried) is Effect(effect)
