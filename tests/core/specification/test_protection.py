"""Containment and covering: on every face where old paint is disturbed, with the work that disturbs it, and once."""

from itertools import combinations
from typing import Any

import pytest

from amber_gable.core.specification.derived.completing import bundle_shelf, completed
from amber_gable.core.specification.derived.part_facts import part_lead
from amber_gable.core.specification.derived.part_spec import Wish, fresh_spec, with_wishes
from amber_gable.core.specification.derived.protection import ROLES, unprotected
from amber_gable.core.survey.amounts.painted import PaintedPart, painted_parts
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.operation import Where
from tests.jobs import coopers_rise

CONTAINED = {"contain", "daily-clean", "final-check"}


def _house(conditions: dict[str, dict[str, Any]], finished: tuple[str, ...], year: int | None = 1948) -> JobBundle:
    """The front of Cooper's Rise: its siding, trim and shutters with conditions of their own, those of `finished` with
    a finish that is still to be derived."""
    raw = coopers_rise().model_dump(mode="json")
    place = raw["property"]
    place["year_built"], place["lead_found"], place["photos"] = year, None, []
    place["faces"] = [f for f in place["faces"] if f["id"] == "front"]
    place["zones"] = [z for z in place["zones"] if z["face"] == "front"]
    place["items"] = [i for i in place["items"] if i["id"] == "shutters-1"]
    sound = {"coating": "waterborne", "gloss": "dull", "chalking": "none", "tests": [{"test": "scrape"}]}
    for part in (*place["zones"], *place["items"]):
        part["condition"] = sound | conditions.get(part["id"], {})
    raw["job"] |= {"record": [], "changes": [], "acknowledged": [], "schemes": []}
    kinds = {p["id"]: "item" if p in place["items"] else "zone" for p in (*place["zones"], *place["items"])}
    raw["job"]["finishes"] = [{kinds[id_]: id_, "colour": "#e9dcc1"} for id_ in finished]
    return JobBundle.model_validate(raw)


def _roles(bundle: JobBundle) -> dict[str, set[str]]:
    """Of every finished part, the roles of its steps."""
    done = completed(bundle)
    return {f.part[1]: {o.id for o in done.operations(f)} for f in done.job.finishes}


def _carrying(bundle: JobBundle) -> list[str]:
    return [id_ for id_, roles in _roles(bundle).items() if roles >= CONTAINED]


FLAKES = {"loose_pct": 20}
BARE = {"coating": "bare", "moisture": [{"pct": 12}]}
# Conditions, what has a finish, and the part that the containment stands with (None: none is needed).
HOUSES = {
    "the door flakes, the wall is bare": ({"front-siding": BARE, "front-trim": FLAKES}, "front-trim"),
    "only the shutters flake": ({"shutters-1": FLAKES}, "shutters-1"),
    "fibre is knocked down under a shroud": ({"front-trim": {"raised_fibre": True}}, "front-trim"),
    "wall and trim flake: the wall's work has it": ({"front-siding": FLAKES, "front-trim": FLAKES}, "front-siding"),
    "chalk is scrubbed off": ({"front-siding": {"chalking": "heavy"}}, "front-siding"),
    "everything is sound and dull": ({}, None),
    "all is bare": (dict.fromkeys(("front-siding", "front-trim", "shutters-1"), BARE), None),
}
ALL = ("front-siding", "front-trim", "shutters-1")


@pytest.mark.parametrize(("conditions", "carrier"), HOUSES.values(), ids=HOUSES)
def test_containment_stands_with_the_work_that_raises_the_need(
    conditions: dict[str, dict[str, Any]], carrier: str | None
) -> None:
    assert _carrying(_house(conditions, ALL)) == ([carrier] if carrier else [])
    assert _carrying(_house(conditions, ALL, year=2015)) == [], "no lead, no containment"


def test_a_part_that_is_left_or_not_yet_specified_takes_no_protection_with_it() -> None:
    """Whichever parts of the face are worked on: what disturbs old paint is contained once, what is worked on covered
    once."""
    conditions = dict.fromkeys(ALL, FLAKES)
    for n in (1, 2, 3):
        for finished in combinations(ALL, n):
            bundle = _house(conditions, finished)
            assert len(_carrying(bundle)) == 1, finished
            covers = [id_ for id_, roles in _roles(bundle).items() if roles & {"cover", "contain"}]
            assert covers == _carrying(bundle), "contained is covered too"


def test_parts_derived_together_share_one_containment() -> None:
    bundle = _house(dict.fromkeys(ALL, FLAKES), ())
    parts = painted_parts(bundle.property, bundle.deduction)
    wishes = [(p, Wish("#e9dcc1", "Cream")) for p in parts.values()]
    ahead, shelf = with_wishes(bundle, wishes), bundle_shelf(bundle)
    roles = {p.key[1]: {o.id for o in fresh_spec(ahead, p, w, shelf).operations} for p, w in wishes}
    contained = [id_ for id_, found in roles.items() if "contain" in found]
    assert contained == ["front-siding"]


def test_what_is_taken_away_is_contained_where_it_lies_and_the_wall_for_itself() -> None:
    """Siding, trim and shutters flake; the shutters are painted on stands: two containments. Of the wall alone the
    first part contains; under cover no rain lifts the sheets."""
    for place, told in (("stands", "round the stands"), ("under-cover", "the shed")):
        raw = _house(dict.fromkeys(ALL, FLAKES), ALL).model_dump(mode="json")
        for finish in raw["job"]["finishes"]:
            finish |= {"schools": {"place": place}} if finish.get("item") else {}
        bundle = JobBundle.model_validate(raw)
        assert _carrying(bundle) == ["front-siding", "shutters-1"]
        done = completed(bundle)
        contain = {f.part[1]: next(o for o in done.operations(f) if o.id == "contain")
                   for f in done.job.finishes if f.part[1] in _carrying(bundle)}  # fmt: skip
        assert contain["front-siding"].where is None
        assert contain["shutters-1"].where is Where(place) and told in contain["shutters-1"].name


def test_dusty_days_follow_from_the_hours() -> None:
    """A wall of 51 m², 46 % of it above 3 m (× 1.07), wet or shrouded (× 1.5), three people of 7 h a day. A fifth
    scraped at 7.5 m²/h and feathered at 18 takes 3 h: one day. Stripped at 1.5 m²/h and sanded at 20 it takes 59 h:
    three."""

    def days(schools: dict[str, str], step: str = "daily-clean") -> float:
        bundle = _house({"front-siding": FLAKES}, ("front-siding",))
        job = bundle.job.model_copy(update={"schools": schools})
        done = completed(bundle.model_copy(update={"job": job}))
        return next(o.amount or 0 for o in done.operations(done.job.finishes[0]) if o.id == step)

    assert days({}) == 1
    assert days({"failing": "strip"}) == 3
    assert days({"failing": "strip"}, "lay-again") == 2, "the sheets lie through two nights"


def test_what_is_done_once_for_a_face_can_be_told_from_the_rest() -> None:
    done = completed(_house({"front-siding": FLAKES}, ALL))
    steps = done.operations(done.job.finishes[0])
    assert {o.id for o in steps} - {o.id for o in unprotected(steps)} == {o.id for o in steps} & ROLES
    assert isinstance(painted_parts(done.property, done.deduction)["zone", "front-siding"], PaintedPart)


PEELS = {"coating": "oil", "loose_pct": 20.0}
CUTOFF = 1978


@pytest.mark.parametrize(
    ("house", "tested", "found", "lead"),
    [
        (1931, None, {}, True),
        (1931, None, {"built_year": 1995}, False),
        (1931, True, {"built_year": 1995}, False),
        (1931, None, {"built_year": 1960}, True),
        (1931, False, {"built_year": 1960}, False),
        (1995, None, {"built_year": 1960}, True),
        (None, None, {"built_year": 1978}, False),
        (None, None, {}, True),
        (1995, None, {"lead_found": True}, True),
        (1931, True, {"lead_found": False}, False),
        (1931, None, {"lead_found": True, "built_year": 1995}, True),
    ],
)
def test_lead_is_presumed_surface_by_surface(
    house: int | None, tested: bool | None, found: dict[str, Any], lead: bool
) -> None:
    """By the surface's own test, its own year, the test of the house, the year of the house, in that order; what was
    put up since the law's year has none."""
    ticks = {"tests": [{"test": "scrape"}, {"test": "lead"}]} if "lead_found" in found else {}
    bundle = _house({"front-siding": PEELS | found | ticks}, ("front-siding",), house)
    bundle = bundle.model_copy(update={"property": bundle.property.model_copy(update={"lead_found": tested})})
    assert bundle.company.lead_cutoff_year == CUTOFF
    assert ("contain" in _roles(bundle)["front-siding"]) is lead
    (part,) = (p for p in painted_parts(bundle.property, bundle.deduction).values() if p.key[1] == "front-siding")
    assert part_lead(bundle, part) is lead, "the safety cards and the wind go by the same"
