"""Choosing what a part gets: every choice derives its steps anew, tells what changed, and keeps them; what must not
stand is refused and nothing is saved."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Annotated

from pydantic import ValidationError

from amber_gable.core.specification.choices.comparison import difference
from amber_gable.core.specification.colour.heat_check import Wanted, heat_checks, last_coat
from amber_gable.core.specification.derived.completing import usual_wish, with_generic
from amber_gable.core.specification.derived.diagnosis import derive
from amber_gable.core.specification.derived.overrides import forbidden_steps
from amber_gable.core.specification.derived.part_facts import part_facts
from amber_gable.core.specification.derived.part_spec import Wish, fresh_spec, made_finish, with_wishes
from amber_gable.core.specification.derived.protection import by_itself
from amber_gable.core.specification.derived.system import Specified
from amber_gable.core.survey.amounts.painted import Key, PaintedPart, painted_part, painted_parts
from amber_gable.domain.errors import InputError, NoSteps, Refused, by_field
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.finish import Finish
from amber_gable.domain.work.operation import Operation
from amber_gable.domain.work.schools import TOPICS, AskedBy, checked_schools
from amber_gable.services.context import Context
from amber_gable.services.forms.form import Form
from amber_gable.services.forms.types import whole_number
from amber_gable.services.job.undo import job_step
from amber_gable.services.specification.customer_changes import CustomerWish, note_changes
from amber_gable.store.company.sheets import company_products
from amber_gable.store.job import journal
from amber_gable.store.job import specification as store
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.survey import check_references
from amber_gable.store.transaction import Transaction


@dataclass(frozen=True)
class Changed:
    """What an edit did to the steps of a part."""

    part: str
    adds: tuple[str, ...]
    drops: tuple[str, ...]

    @property
    def words(self) -> str:
        said = [
            f"in: {', '.join(self.adds)}" if self.adds else "",
            f"out: {', '.join(self.drops)}" if self.drops else "",
        ]
        return "; ".join(s for s in said if s) or "the steps stay as they were"


Steps = tuple[Operation, ...]


def shelf(session: Transaction, bundle: JobBundle) -> list[Product]:
    """What may be chosen from for a job: the company's stores, the generic sheet for every family they lack, and
    the sheets the job reads, each in the revision it reads."""
    own = {p.code: p for p in company_products(session, bundle.company.id)}
    return with_generic(list((own | {p.code: p for p in bundle.products}).values()))


def _as_it_is(session: Transaction, job_id: str, key: Key) -> tuple[JobBundle, PaintedPart, Finish | None, Wish]:
    """The job, a part of it, what it gets and what that was derived from. Raises NotFound."""
    bundle = load_bundle(session, job_id)
    part = painted_part(bundle.property, bundle.deduction, key)
    finish = bundle.finish_of(*key)
    return bundle, part, finish, Wish.of(finish) if finish else usual_wish(bundle, part)


def change_wish(
    ctx: Context,
    job_id: str,
    key: Key,
    version: int,
    change: Callable[[Wish, PaintedPart], Wish],
    asked: CustomerWish | None = None,
) -> Changed:
    """Change what a part is to get and derive its steps. Raises NotFound, Refused or StaleEdit."""
    with job_step(ctx, job_id, "change what a part gets") as session:
        bundle, part, finish, wish = _as_it_is(session, job_id, key)
        journal.call_step(session, f"change what {called(part)} gets")
        products = shelf(session, bundle)
        try:
            wished = change(wish, part)
            _refuse_unknown(wish, wished, products)
            done = _kept(session, bundle, part, finish, wished, products, version)
            face_follows(session, job_id, part.face.id)
            check_references(session, job_id)
            note_changes(ctx, session, bundle, asked)
            return done
        except ValidationError as error:
            raise Refused(by_field(error)) from None


def change_wishes(
    session: Transaction, bundle: JobBundle, wishes: Mapping[Key, Wish]
) -> tuple[list[Changed], dict[str, str]]:
    """Derive several parts anew in one transaction: what changed, and why a part keeps what it has, by part name."""
    products, versions = shelf(session, bundle), store.finish_versions(session, bundle.job.id)
    parts = painted_parts(bundle.property, bundle.deduction)
    done: list[Changed] = []
    refused: dict[str, str] = {}
    wished = with_wishes(bundle, [(parts[k], w) for k, w in wishes.items()])
    for key, wish in wishes.items():
        try:
            kept = bundle.finish_of(*key)
            done.append(_kept(session, wished, parts[key], kept, wish, products, versions.get(key, 0)))
        except Refused as error:
            refused[called(parts[key])] = next(iter(error.fields.values()))
    check_references(session, bundle.job.id)
    return done, refused


def _refuse_unknown(before: Wish, wished: Wish, products: list[Product]) -> None:
    """Raises Refused for a pick that is not on the shelf."""
    codes = {p.code for p in products}
    strange = [c for role, c in wished.picks.items() if c not in codes and before.picks.get(role) != c]
    if strange:
        raise Refused({"product": f"the stores hold no product '{strange[0]}'; choose one of the list"})


def _kept(
    session: Transaction,
    bundle: JobBundle,
    part: PaintedPart,
    finish: Finish | None,
    wish: Wish,
    products: list[Product],
    version: int,
) -> Changed:
    """Derive, refuse what must not stand, save. Whoever calls checks the whole job once, before the end."""
    try:
        fresh = fresh_spec(bundle, part, wish, products)
    except NoSteps as error:
        raise Refused({"": str(error)}) from None
    if fresh.stops:
        raise Refused({"": " ".join(f"{c.words[:1].upper()}{c.words[1:]}. {c.todo}" for c in fresh.stops)})
    _refuse_heat(bundle, part, wish, fresh, products)
    used = {o.product for o in fresh.operations}
    store.shelve_products(session, bundle.job.id, [p for p in products if p.code in used])
    store.put_finish(session, bundle.job.id, made_finish(part, wish, fresh.operations), version)
    before: Iterable[Operation] = bundle.operations(finish) if finish else ()
    by_code = {p.code: p for p in (*bundle.products, *products)}
    return Changed(called(part), *difference(before, fresh.operations, by_code))


def _refuse_heat(
    bundle: JobBundle, part: PaintedPart, wish: Wish, fresh: Specified, products: Iterable[Product]
) -> None:
    """Raises Refused where vinyl must not take the colour. Only vinyl is ever refused, so only it is computed."""
    if "vinyl" not in fresh.derivation.facts.tags:
        return
    schools, product = fresh.derivation.facts.schools, last_coat(fresh.operations, products)
    wanted = Wanted(part, wish.colour, schools["vinyl"], product)
    check = heat_checks(bundle.property, [wanted])[0]
    if check.level is Alert.STOP:
        raise Refused({"colour": f"{check.words} Nearest colour that passes: {check.admissible}."})


def derive_missing(ctx: Context, job_id: str) -> tuple[list[Changed], dict[str, str]]:
    """Give every part without a finish its derived steps; returns what changed, and why a part was left, by its name.
    Raises NotFound."""
    with job_step(ctx, job_id, "derive what had no steps") as session:
        bundle = load_bundle(session, job_id)
        lacking = {
            key: usual_wish(bundle, part)
            for key, part in painted_parts(bundle.property, bundle.deduction).items()
            if key in bundle.undecided
        }
        found = change_wishes(session, bundle, lacking)
        note_changes(ctx, session, bundle)
    return found


def derive_again(ctx: Context, job_id: str) -> list[Changed]:
    """Derive anew every part whose steps are derived; those that come out the same are not touched.

    A part whose overrides now contradict keeps the steps it has. Raises NotFound.
    """
    with job_step(ctx, job_id, "derive anew") as session:
        return derived_anew(session, load_bundle(session, job_id))


def face_follows(session: Transaction, job_id: str, face: str) -> None:
    """What is done once for a face moves to another of its parts where the one that had it is left, or one before it
    is worked on, and what is left is taped with the wall: nobody is without containment until somebody derives anew. Of
    a part that is out of date otherwise nothing is touched; the specification says so."""
    session.flush()
    bundle = load_bundle(session, job_id)
    derived_anew(session, bundle, lambda part, a, b: part.face.id == face and by_itself(a) == by_itself(b))


def derived_anew(
    session: Transaction, bundle: JobBundle, only: Callable[[PaintedPart, Steps, Steps], bool] = lambda *_: True
) -> list[Changed]:
    """The same inside a transaction, for the job as it is there by now; `only` parts of which that holds, with their
    steps as they stand and as they come out."""
    job_id, products = bundle.job.id, shelf(session, bundle)
    versions = store.finish_versions(session, job_id)
    parts = painted_parts(bundle.property, bundle.deduction)
    out = []
    for finish in bundle.job.finishes:
        if not finish.derived:
            continue
        part, wish = parts[finish.part], Wish.of(finish)
        try:
            fresh = fresh_spec(bundle, part, wish, products)
            moved = fresh.operations != finish.operations and only(part, finish.operations, fresh.operations)
            if not fresh.stops and moved:
                out.append(_kept(session, bundle, part, finish, wish, products, versions[finish.part]))
        except (NoSteps, Refused):
            # It keeps the steps it has; the specification says why they are out of date.
            continue
    if out:
        check_references(session, job_id)
    return out


def set_school(ctx: Context, job_id: str, level: str, topic: str, school: str) -> list[Changed]:
    """Choose a school for the job or the company (an empty one gives the choice back to the level above). What the
    specification asks derives this job anew. Raises Refused or NotFound."""
    try:
        checked_schools({topic: school} if school else {})
        if level not in ("job", "company"):
            raise ValueError(f"'{level}' is no level; one of: job, company")
    except ValueError as error:
        raise Refused({topic: str(error)}) from None
    with job_step(ctx, job_id, f"choose {_school_words(topic, school)}") as session:
        store.put_schools(session, job_id, level, topic, school)
        session.flush()
        if TOPICS[topic].asked is not AskedBy.SPECIFICATION:
            return []
        return derived_anew(session, load_bundle(session, job_id))


def called(part: PaintedPart) -> str:
    """As messages and steps name it."""
    return f"{part.name} on {part.face.name}"


def _school_words(topic: str, school: str) -> str:
    """As a step is called."""
    return f"“{TOPICS[topic].school(school).name}”" if school else "the usual school again"


def set_lead(ctx: Context, job_id: str, found: str) -> list[Changed]:
    """Note what the lead test said ('yes', 'no', or '' for none made) and derive the job anew."""
    with job_step(ctx, job_id, "note the lead test") as session:
        store.put_lead(session, job_id, {"yes": True, "no": False}.get(found))
        session.flush()
        return derived_anew(session, load_bundle(session, job_id))


class LeadYearForm(Form):
    """The year before which lead paint is presumed."""

    year: Annotated[int, whole_number(1900, 2100, "a year from 1900 to 2100")]


def set_lead_year(ctx: Context, job_id: str, form: Mapping[str, str]) -> list[Changed]:
    """Change the jurisdiction's year before which lead paint is presumed, and derive the job anew. Raises Refused."""
    typed = LeadYearForm.read(form)
    with job_step(ctx, job_id, "change the year for lead paint") as session:
        store.put_lead_year(session, job_id, typed.year)
        session.flush()
        return derived_anew(session, load_bundle(session, job_id))


def _refuse_forbidden(bundle: JobBundle, part: PaintedPart, wish: Wish, operations: Iterable[Operation]) -> None:
    """Raises Refused where a company's system works in a way that a safety card forbids on this part."""
    derivation = derive(part_facts(bundle, part, wish.colour, wish.aim, wish.schools))
    stops = [c for c in forbidden_steps(tuple(operations), derivation.forbidden) if c.level is Alert.STOP]
    if stops:
        raise Refused({"system": f"{stops[0].words}. {stops[0].todo}"})


def take_system(ctx: Context, job_id: str, key: Key, version: int, system: str) -> None:
    """Give a part one of the company's systems instead of derived steps. Raises Refused, StaleEdit or NotFound."""
    try:
        with job_step(ctx, job_id, "give a part a system") as session:
            bundle, part, _, wish = _as_it_is(session, job_id, key)
            journal.call_step(session, f"give {called(part)} a system")
            store.shelve_system(session, job_id, system)
            _refuse_forbidden(bundle, part, wish, load_bundle(session, job_id).system(system).operations)
            kind, id_ = key
            record = {kind: id_, "system": system, "colour": wish.colour, "colour_name": wish.colour_name}
            store.put_finish(session, job_id, Finish.model_validate(record), version)
            face_follows(session, job_id, painted_part(bundle.property, bundle.deduction, key).face.id)
            check_references(session, job_id)
            note_changes(ctx, session, bundle)
    except InputError as error:
        raise Refused({"system": error.why}) from None


def with_school(wish: Wish, topic: str, school: str) -> Wish:
    """The wish under another school of its own; an empty one gives the choice back to the job."""
    held = {t: s for t, s in wish.schools.items() if t != topic}
    return replace(wish, schools=held | ({topic: school} if school else {}))


def alike(bundle: JobBundle, part: PaintedPart) -> list[PaintedPart]:
    """The other parts of the job that are painted or to be decided on and the same kind of thing: items of its kind,
    zones of its substrate."""
    found = painted_parts(bundle.property, bundle.deduction).values()
    left = {x.part for x in bundle.job.left}
    same = [p for p in found if (p.item_kind, p.substrate) == (part.item_kind, part.substrate) and p.key not in left]
    return [p for p in same if p.key != part.key]


def same_for_alike(ctx: Context, job_id: str, key: Key) -> list[Changed]:
    """Give every like part this one's colour, aim, schools and products; each keeps the steps its own condition asks
    for. Overrides stay where they are. Raises NotFound or Refused."""
    out = []
    with job_step(ctx, job_id, "make like parts the same") as session:
        bundle, part, _, wish = _as_it_is(session, job_id, key)
        journal.call_step(session, f"make all parts like {called(part)} the same")
        products = shelf(session, bundle)
        versions = store.finish_versions(session, job_id)
        for other in alike(bundle, part):
            before = bundle.finish_of(*other.key)
            own = replace(wish, overrides=before.overrides if before else ())
            out.append(_kept(session, bundle, other, before, own, products, versions.get(other.key, 0)))
        check_references(session, job_id)
        note_changes(ctx, session, bundle)
    return out
