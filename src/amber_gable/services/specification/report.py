"""A job's specification as it is printed and handed to other programs (docs/formats.md)."""

from collections.abc import Iterable
from typing import Any

from amber_gable.core.specification.cautions.open_tests import open_tests
from amber_gable.core.specification.cautions.safety import part_cards
from amber_gable.core.specification.colour.heat_check import HeatCheck, Wanted, heat_checks, last_coat
from amber_gable.core.specification.derived.completing import bundle_shelf, usual_wish
from amber_gable.core.specification.derived.diagnosis import Finding
from amber_gable.core.specification.derived.part_spec import Wish, fresh_spec, refusals, untold
from amber_gable.core.specification.derived.system import Specified
from amber_gable.core.survey.amounts.painted import PaintedPart, painted_parts
from amber_gable.core.work.waits import next_waits
from amber_gable.domain.errors import NoSteps
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.operation import Operation, OperationKind, Where
from amber_gable.domain.work.scope import Leaving, LeftPart, Turn


def specification(bundle: JobBundle, *, kept: bool = False) -> dict[str, Any]:
    """Every part of the job with its steps, findings and cards. With `kept` the steps that stand in the file; else
    those the rules give today, overrides and hand-picked products put on. Raises ValueError naming a part that cannot
    be derived."""
    parts, shelf = painted_parts(bundle.property, bundle.deduction), bundle_shelf(bundle)
    made = [_derived(bundle, part, shelf) for part in parts.values() if bundle.left_of(*part.key) is None]
    heat = heat_checks(bundle.property, [_wanted(part, wish, fresh, shelf) for part, wish, fresh in made])
    return {
        "parts": [_part(bundle, m, h, shelf, kept) for m, h in zip(made, heat, strict=True)],
        "not_painted": [_left(bundle, left) for left in bundle.job.left],
        "others": [o.model_dump(mode="json") for o in bundle.job.others],
    }


def _left(bundle: JobBundle, left: LeftPart) -> dict[str, Any]:
    kind, id_ = left.part
    part = bundle.property.part(left.part)
    assert part is not None, "the bundle holds no other"
    told = left.model_dump(mode="json", exclude={"zone", "item"})
    return {"part": id_, kind: part.name, "face": bundle.property.face(part.face).name} | told


def _derived(bundle: JobBundle, part: PaintedPart, shelf: list[Product]) -> tuple[PaintedPart, Wish, Specified]:
    finish = bundle.finish_of(*part.key)
    wish = Wish.of(finish) if finish else usual_wish(bundle, part)
    try:
        return part, wish, fresh_spec(bundle, part, wish, shelf)
    except NoSteps as error:
        raise NoSteps(f"{part.key[0]} '{part.key[1]}': {error}") from None


def _wanted(part: PaintedPart, wish: Wish, fresh: Specified, shelf: list[Product]) -> Wanted:
    return Wanted(part, wish.colour, fresh.derivation.facts.schools["vinyl"], last_coat(fresh.operations, shelf))


def _part(
    bundle: JobBundle, made: tuple[PaintedPart, Wish, Specified], heat: HeatCheck, shelf: list[Product], kept: bool
) -> dict[str, Any]:
    part, wish, fresh = made
    finish, (kind, id_) = bundle.finish_of(*part.key), part.key
    operations = bundle.operations(finish) if kept and finish else fresh.operations
    findings = [f for f in fresh.derivation.findings if f.level is not Alert.STEP]
    by_code = {p.code: p for p in (*shelf, *bundle.products)}
    told = [_finding(f) for f in findings]
    if heat.level is not None:
        todo = f"Nearest colour that passes: {heat.admissible}." if heat.admissible else ""
        told.insert(0, _said("heat", heat.level.value, heat.words.rstrip("."), todo))
    told += [_said(f"conflict-{c.step}", c.level.value, c.words, c.todo) for c in fresh.conflicts]
    return {
        "part": id_,
        kind: part.name,
        "face": part.face.name,
        "substrate": part.substrate,
        "surface_m2": round(part.surface_m2, 2),
        "colour": wish.colour,
        "steps": [
            _step(o, part, by_code, wish.colour, hours)
            for o, hours in zip(operations, next_waits(operations), strict=True)
        ],
        "findings": told,
        "cards": [
            {"id": c.id, "title": c.title, "forbids": [t.value for t in c.forbids], "instead": c.instead}
            for c in part_cards(bundle, part, operations)
        ],
        "no_matter": [{"finding": n.finding, "because": n.because} for n in untold(part, fresh)],
        "refused": [{"wish": r.wish, "because": r.because, "instead": r.instead} for r in refusals(wish, fresh, shelf)],
        "tests_missing": [t.test.code for t in open_tests(fresh.derivation)],
        "coats": sum(o.kind is OperationKind.COAT and not o.possible for o in operations),
        "primer": any(o.kind is OperationKind.PRIME for o in operations),
    }


def _said(id_: str, level: str, words: str, todo: str, until: str | None = None, **more: str) -> dict[str, Any]:
    return {"id": id_, "level": level, "kind": "finding", "words": words, "todo": todo, "until": until} | more


def _finding(f: Finding) -> dict[str, Any]:
    until = f.until.isoformat() if f.until else None
    kind = "disclosure" if f.disclosure else "finding"
    return _said(f.rule, f.level.value, f.words, f.todo, until, kind=kind, consequence=f.consequence)


def _colour(o: Operation, product: Product | None, finish_colour: str) -> str | None:
    """Of a coat, or of a primer that is tinted; a clear one has none."""
    if o.colour is not None or o.kind is not OperationKind.COAT or (product is not None and product.clear):
        return o.colour
    return finish_colour


def _step(
    o: Operation, part: PaintedPart, products: dict[str, Product], finish_colour: str, next_h: float
) -> dict[str, Any]:
    product = products.get(o.product or "")
    films = o.kind.lays_film
    return {
        "id": o.id,
        "name": o.name,
        "kind": o.kind.value,
        "technique": o.technique.value if o.technique else None,
        "product_family": product.family.value if product else None,
        "product": o.product,
        "colour": _colour(o, product, finish_colour) if films else None,
        "share": o.share,
        "amount": round(part.surface_m2 * o.share, 2) if o.amount is None else o.amount,
        "unit": "m2" if o.unit is None else o.unit.value,
        "method": o.method.value if o.method else None,
        "back_roll": o.back_roll,
        "where": o.where.value if o.where else None,
        "possible": o.possible,
        "wait_h": o.wait_h,
        "next_h": next_h,
        "wait_until": o.wait_until,
        "note": o.note,
        "because": o.because,
    }


def lines(report: dict[str, Any]) -> Iterable[str]:
    """The specification for reading, a part at a time."""
    for part in report["parts"]:
        name = part.get("zone") or part.get("item")
        yield f"{part['face']}, {name} ({part['substrate']}, {part['surface_m2']:g} m², to {part['colour']})"
        for f in part["findings"]:
            until = f" until {f['until']}" if f["until"] else ""
            yield f"  {f['level'].upper()}{until}: {f['words']}. {f['todo']}".rstrip()
        for r in part["refused"]:
            yield f"  REFUSED: {r['wish']}: {r['because']}; {r['instead']}."
        for n, s in enumerate(part["steps"], 1):
            product = f", {s['product']}" if s["product"] else ""
            wait = f"; then {s['wait_h']:g} h" if s["wait_h"] else ""
            if s["next_h"] < s["wait_h"]:
                wait = f"; then {s['next_h']:g} h, before what seals it {s['wait_h']:g} h"
            until = f", until {s['wait_until']}" if s["wait_until"] else ""
            amount = "" if (s["amount"], s["unit"]) == (1, "pieces") else f" {s['amount']:g} {s['unit']}"
            there = f", {Where(s['where']).words}" if s["where"] else ""
            yield f"  {n:2}. {s['name']}{there} [{s['technique']}{product}]{amount}{wait}{until}"
        for m in part["no_matter"]:
            yield f"  nothing follows from {m['finding']}: {m['because']}"
        if part["cards"]:
            yield f"  cards: {', '.join(c['id'] for c in part['cards'])}"
        if part["tests_missing"]:
            yield f"  tests missing: {', '.join(part['tests_missing'])}"
        yield ""
    for left in report["not_painted"]:
        colour = f", {left['colour_name']} {left['colour']}" if left["colour"] else ""
        by = f" ({left['by']})" if left["by"] else ""
        name = left.get("zone") or left.get("item")
        note = f": {left['note']}" if left["note"] else ""
        yield f"{left['face']}, {name}: {Leaving(left['leaving']).words}{colour}{by}{note}"
    for task in report["others"]:
        day = f", by {task['day']}" if task["day"] else ", no day agreed"
        yield f"{task['who']}: {task['what']}, {Turn(task['turn']).words}{day}"
