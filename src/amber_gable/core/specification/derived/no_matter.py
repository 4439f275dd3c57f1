"""What was recorded of a surface and changes nothing there, each with the reason: no finding is left without an
answer."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from amber_gable.core.specification.derived.diagnosis import Derivation, derive
from amber_gable.core.specification.derived.facts import Facts
from amber_gable.core.survey.findings.essentials import is_answered
from amber_gable.domain.errors import NoSteps
from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.findings.guided_tests import GUIDED_TESTS, GuidedTest


@dataclass(frozen=True)
class NoMatter:
    """A finding in words, and why nothing follows from it on this surface."""

    finding: str
    because: str


BRIDGED_MM = 0.2
"""Widest crack that a coat bridges (docs/trade.md §3)."""
NOBODY = "no rule of ours asks anything because of it on this surface: look at it, and decide"
_BARE, _FILM = "the surface is bare: there is no old film to judge", "the old film, not the ground, meets the water"
_NOTHING = "nothing of it was found"

Reason = Callable[[Any, Facts], str]


def _bare(facts: Facts) -> bool:
    return bool(facts.get("coating") == "bare")


def _absorbency(value: Any, facts: Facts) -> str:
    if value == "soaks":
        return "it takes water, and so a coat"
    if facts.get("masonry") in ("shiny", "dusty"):
        return "what the finger found has its own step, whatever the water does"
    return NOBODY if _bare(facts) else _FILM


def _age(value: Any, facts: Facts) -> str:
    if _bare(facts):
        return "bare, it is judged by meter, drop and finger, not by its years"
    return "what the tests find of the old coat counts, not its years"


def _gloss(value: Any, facts: Facts) -> str:
    if _bare(facts):
        return _BARE
    return "a dull film holds a coat" if value == "dull" else "the old film is sanded or stripped whatever its gloss"


def _coats(value: Any, facts: Facts) -> str:
    if _bare(facts):
        return _BARE
    return "so few old coats are no reason to take them off" if value <= 4 else "the old film comes off"


def _bare_share(value: Any, facts: Facts) -> str:
    if _bare(facts):
        return "all of it is bare and is treated so"
    if (facts.get("rust_pct") or 0.0) >= value:
        return "what is bare is taken to be what rusts, and is worked with it"
    return "the share that is bare is worked with what is loose" if facts.get("loose_pct") else NOBODY


def _cracks(value: Any, facts: Facts) -> str:
    if not value:
        return _NOTHING
    if (facts.get("crack_mm") or 1.0) <= BRIDGED_MM:
        return "cracks so fine are left to the coat"
    return "checks in logs are judged by where they look, not by their width" if "log" in facts.tags else NOBODY


def _greyed(value: Any, facts: Facts) -> str:
    return "the film is sanded or comes off: what is grey under it is seen then" if value else _NOTHING


def _timber(value: Any, facts: Facts) -> str:
    if not _bare(facts):
        return "under a film its treatment changes nothing but how old timber is sanded"
    return "the meter and the water drop decide when it is ready"


def _loose(value: Any, facts: Facts) -> str:
    return NOBODY if value else _NOTHING


_SAID: dict[str, Reason] = {
    "absorbency": _absorbency,
    "adhesion": lambda value, facts: _BARE if _bare(facts) else "the patch held: the old film carries a coat",
    "age_years": _age,
    "asbestos": lambda value, _: "a laboratory found none" if not value else NOBODY,
    "bare_pct": _bare_share,
    "caulk_m": lambda *_: "gaps between boards stay open, so that water runs off",
    "chalking": lambda value, _: _NOTHING if value == "none" else NOBODY,
    "coats": _coats,
    "dirt": lambda value, _: {"none": _NOTHING, "light": "the usual wash takes it off"}.get(value, NOBODY),
    "crack_m": _cracks,
    "crack_mm": _cracks,
    "deposit": lambda value, _: _NOTHING if value == "none" else NOBODY,
    "built_year": lambda *_: "it decides whether lead, asbestos and arsenic are presumed, and no step besides",
    "lead_found": lambda *_: "bare, it carries no paint that could hold lead",
    "efflorescence": lambda value, _: _NOTHING if value == "none" else NOBODY,
    "gloss": _gloss,
    "greyed": _greyed,
    "loose_pct": _loose,
    "made_colour": lambda *_: "the check of heat asks for it, not the preparation",
    "masonry": lambda value, _: "an ordinary surface needs no ground of its own" if value == "normal" else NOBODY,
    "mildew_pct": _loose,
    "moisture": lambda *_: "it is dry enough for what goes on it",
    "putty_m": lambda *_: "putty is counted with the window it is in",
    "raised_fibre": lambda *_: _NOTHING,
    "tannin": lambda *_: _NOTHING,
    "timber": _timber,
    "vinyl": lambda value, _: "a sound panel takes a coat" if value == "sound" else NOBODY,
}
"""Why a recorded value changes nothing where it changes nothing, by the field of the condition."""


def no_matter(found: Derivation, condition: Condition, family: str) -> tuple[NoMatter, ...]:
    """Of every test that fits a surface of this `family` and was answered, but for what lies on it, those without which
    the steps, findings and coats were the same. A zero that was looked for counts as answered."""
    out, facts = [], found.facts
    for test in GUIDED_TESTS:
        value = facts.get(test.field)
        if test.field == "coating" or value is None or not test.fits(family) or not is_answered(test, condition):
            continue
        if _same(found, facts.supposing(test.field, None)):
            reason = _SAID[test.field](value, facts) if test.field in _SAID else _NOTHING if not value else NOBODY
            out.append(NoMatter(_words(test, value), reason))
    return tuple(out)


def _same(found: Derivation, without: Facts) -> bool:
    try:
        other = derive(without)
    except NoSteps:
        return False
    return (found.steps, found.findings, found.coats, found.coat_count) == (
        other.steps,
        other.findings,
        other.coats,
        other.coat_count,
    )


def _words(test: GuidedTest, value: Any) -> str:
    told = {True: "yes", False: "no"}.get(value, value) if isinstance(value, bool) else value
    figure = f"{told:g}" if isinstance(told, float) else str(told)
    return f"{test.name}: {figure}{' %' if test.field.endswith('_pct') else ''}"
