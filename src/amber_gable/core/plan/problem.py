"""What the planner takes of a job, as one record, and its fingerprint: a plan is out of date when that changed.

The planner is given nothing else, so nothing it reads can be missing from the fingerprint. What is left out is named
below; a field that is added to the program belongs to the problem unless it is put there.
"""

import hashlib
import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from pydantic import BaseModel

from amber_gable.domain.findings.condition import MoistureReading
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.site_record import Missing, OthersNoted, SiteEntry
from amber_gable.domain.work.people import Person, unnamed
from amber_gable.domain.work.schools import DEFAULTS

Key = tuple[str, str]

WORDS = {"note", "because", "marks", "photo", "customer", "colour_name", "source"}
"""Wherever they stand: what people read, and what only a drawing shows. Damage that is painted on a drawing changes the
plan by the steps that are derived from it."""
LABELS = {"name", "place", "who", "what"}
"""Words that the plan's sentences name things by. The problem has them, its fingerprint does not."""
UNREAD: dict[str, set[str]] = {
    "company": {"currency"},
    "property": {"photos"},
    "job": {
        "schemes",
        "acknowledged",
        "changes",
        "record",
        "others_noted",
        "found_more",
        "rained",
        "cans_noted",
        "missing",
        "left",
    },
    "others": {"cost"},
    "estimating": {"buy_level", "largest_l", "additives", "extras", "travel_h"},
    "finish": {"picks", "overrides"},
    "product": {"maker", "voc_g_l", "shelf_months", "hazards", "tips", "containers", "vinyl_colours"},
}
"""Of each record: what is bought, paid, agreed and kept beside the work. Hand-made steps and picked products are in the
steps themselves."""
_MAKER, _CONTAINERS = "any", [{"litres": 1.0, "price": "0"}]
"""Stand in for what was left out of a data sheet, which is not valid without a maker and a container."""


@dataclass(frozen=True)
class PlanProblem:
    """`people`: the people of the crew. `told`: the job in the form of its file, without the fields that no plan reads
    and without those at their default. `record`, `others_noted` and `readings` (by part) say how far the work is,
    ours and that of others, and how wet its parts were; they grow while a plan is worked to and make it no older.
    `missing`: who is missing of the crew, which does."""

    people: tuple[Person, ...]
    told: dict[str, Any]
    record: tuple[SiteEntry, ...]
    others_noted: tuple[OthersNoted, ...]
    readings: Mapping[Key, tuple[MoistureReading, ...]]
    missing: tuple[Missing, ...] = ()

    @cached_property
    def fingerprint(self) -> str:
        """The same for two jobs that give the same plan in the same weather from the same state. A field added to the
        program leaves old plans as they are as long as it stands at its default."""
        seen = _without(self.told, LABELS)
        # Who they are changes no plan, what they can do and when does.
        known = [p.model_dump(mode="json", exclude={"id", "name"}, exclude_defaults=True) for p in self.people]
        if any(known):
            seen["people"] = known
        if self.bundle.missing_on:
            seen["missing"] = {day.isoformat(): people for day, people in self.bundle.missing_on.items()}
        return hashlib.sha256(json.dumps(seen, sort_keys=True).encode()).hexdigest()

    @cached_property
    def work(self) -> JobBundle:
        """The job of the problem, with nothing done on it."""
        return JobBundle.model_validate(self.told)

    @cached_property
    def bundle(self) -> JobBundle:
        """The job as the planner computes with it."""
        place = self.work.property
        parts = {
            kind: tuple(self._read(kind, part) for part in found)
            for kind, found in (("zone", place.zones), ("item", place.items))
        }
        held = {"zones": parts["zone"], "items": parts["item"]}
        update = {
            "property": place.model_copy(update=held),
            "job": self.work.job.model_copy(
                update={"record": self.record, "others_noted": self.others_noted, "missing": self.missing}
            ),
        }
        return self.work.model_copy(update=update)

    def _read(self, kind: str, part: Any) -> Any:
        readings = self.readings.get((kind, part.id))
        if not readings:
            return part
        return part.model_copy(update={"condition": part.condition.model_copy(update={"moisture": readings})})


def plan_problem(bundle: JobBundle, people: Sequence[Person] = ()) -> PlanProblem:
    """Cut a job down to its plan's problem, for the people of its crew, or for as many unnamed ones: only the sheets
    and systems that a step uses, schools by what holds, wherever it was chosen."""
    used = {o.product for f in bundle.job.finishes for o in bundle.operations(f)}
    systems = {f.system for f in bundle.job.finishes}
    brief = bundle.model_dump(mode="json", exclude_defaults=True)
    raw = _without(_with_kinds(brief, bundle), WORDS | {"moisture"})
    job, company = raw["job"], raw["company"]
    _drop(company, "company")
    _drop(raw["property"], "property")
    _drop(job, "job")
    if "spoiled" in job:
        job["spoiled"] = [spoiled.model_dump(mode="json", exclude={"words"}) for spoiled in bundle.spoils]
    _drop(job.get("estimating", {}), "estimating")
    if not job.get("estimating"):
        job.pop("estimating", None)
    company.pop("schools", None)
    job["schools"] = {topic: school for topic, school in bundle.schools.items() if school != DEFAULTS[topic]}
    job["customer"] = "-"
    for finish in job.get("finishes", ()):
        _drop(finish, "finish")
    for task in job.get("others", ()):
        _drop(task, "others")
    raw["products"] = sorted((p for p in raw.get("products", ()) if p["code"] in used), key=lambda p: str(p["code"]))
    for product in raw["products"]:
        _drop(product, "product")
        product |= {"maker": _MAKER, "containers": _CONTAINERS}
    raw["systems"] = [s for s in raw.get("systems", ()) if s["id"] in systems]
    place = bundle.property
    readings = {("zone", z.id): z.condition.moisture for z in place.zones}
    readings |= {("item", i.id): i.condition.moisture for i in place.items}
    hands = tuple(people) or unnamed(bundle.job.crew.people)
    return PlanProblem(hands, raw, bundle.job.record, bundle.job.others_noted, readings, bundle.job.missing)


def _drop(record: dict[str, Any], kind: str) -> None:
    for name in UNREAD[kind]:
        record.pop(name, None)


def _with_kinds(brief: Any, value: Any) -> Any:
    """A value dumped without defaults, with the `kind` of each record put back: it is a default of its class, and tells
    which class that is."""
    if isinstance(value, BaseModel):
        kind = {"kind": value.kind} if hasattr(value, "kind") else {}
        return {k: _with_kinds(v, getattr(value, k)) for k, v in brief.items()} | kind
    if isinstance(value, tuple):
        return [_with_kinds(b, v) for b, v in zip(brief, value, strict=True)]
    return brief


def _without(value: Any, names: set[str]) -> Any:
    """A dumped record without fields of these names, at any depth, and without records of which nothing is left."""
    if isinstance(value, dict):
        kept = {k: _without(v, names) for k, v in value.items() if k not in names}
        return {k: v for k, v in kept.items() if v != {}}
    return [_without(v, names) for v in value] if isinstance(value, list) else value
