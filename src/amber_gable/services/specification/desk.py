"""What the specification's pages show: every part specified, judged for heat, with what may be chosen for it."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property, partial

import numpy as np

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.estimate.methods import MethodWay, is_coat, method_ways
from amber_gable.core.specification.cautions.open_tests import OpenTest, open_tests
from amber_gable.core.specification.cautions.safety import Card, job_cards
from amber_gable.core.specification.choices.candidates import RankedProduct, candidates
from amber_gable.core.specification.choices.comparison import Choice, choices
from amber_gable.core.specification.colour.cover_cost import CoverCost, cover_costs
from amber_gable.core.specification.colour.heat_check import HeatCheck, Wanted, heat_checks, last_coat
from amber_gable.core.specification.derived.completing import usual_wish
from amber_gable.core.specification.derived.diagnosis import Finding
from amber_gable.core.specification.derived.no_matter import NoMatter
from amber_gable.core.specification.derived.order_drawn import PaintingOrder
from amber_gable.core.specification.derived.part_facts import lead_presumed
from amber_gable.core.specification.derived.part_spec import PartSpec, Wish, part_spec, untold
from amber_gable.core.specification.derived.sequences import painting_order
from amber_gable.core.specification.derived.system import PICK_COATS, candidates_for, pick_of
from amber_gable.core.survey.amounts.painted import Key, PaintedPart, painted_parts
from amber_gable.core.survey.findings.essentials import open_tests as tests_open_on
from amber_gable.core.work.pace import pace_of
from amber_gable.core.work.waits import asks_before
from amber_gable.domain.errors import NoSteps, NotFound
from amber_gable.domain.grid import SLOT_H, SLOT_S, SLOTS_PER_HOUR
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.colour_library import LibraryColour
from amber_gable.domain.paint.families import Family
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.operation import CoatingSystem, Operation, OperationKind
from amber_gable.domain.work.scope import Leaving
from amber_gable.services.company.colour_library import colour_library
from amber_gable.services.context import Context
from amber_gable.services.job.part_digests import part_digests
from amber_gable.services.job.view import JobView
from amber_gable.services.specification.specifying import alike, shelf
from amber_gable.services.workspace import digest
from amber_gable.store.company.sheets import company_systems
from amber_gable.store.job.specification import finish_versions

HOURS_DAYS = 7
FORTNIGHT = 14
"""Days of the forecast over which a product's workable hours are counted."""


@dataclass(frozen=True)
class SpecificationDesk:
    """A job's specification: what may be chosen from, each part as it stands (words where no product serves it), and
    the heat of those that are finished."""

    ctx: Context
    bundle: JobBundle
    products: Sequence[Product]
    systems: Sequence[CoatingSystem]
    versions: Mapping[Key, int]

    @property
    def by_code(self) -> dict[str, Product]:
        return {p.code: p for p in (*self.products, *self.bundle.products)}

    @cached_property
    def specs(self) -> dict[Key, PartSpec | str]:
        """Kept until the job or the stores change; of a job that changed, those parts are worked out anew that it
        touches."""
        whole = digest(self.bundle, *self.products)
        return self.ctx.space.computed.get("specs" + whole, lambda: dict(self._each_part()))

    def _each_part(self) -> Iterator[tuple[Key, PartSpec | str]]:
        parts, stores = painted_parts(self.bundle.property, self.bundle.deduction), digest(*self.products)
        for key, read in part_digests(self.ctx, self.bundle).items():
            yield key, self.ctx.space.parts.get("spec" + stores + read, partial(self._specified, parts[key]))

    def _specified(self, part: PaintedPart) -> PartSpec | str:
        try:
            return part_spec(self.bundle, part, self.products)
        except NoSteps as error:
            return str(error)

    def open_tests(self, key: Key) -> int:
        """How many essential tests of a part have no reading."""
        spec = self.specs[key]
        return 0 if isinstance(spec, str) or spec.left else len(tests_open_on(spec.part.part))

    @cached_property
    def heat(self) -> dict[Key, HeatCheck]:
        """All in one run of the design day."""
        finished = [s for s in self.specs.values() if not isinstance(s, str) and s.finish is not None]

        def all_checks() -> dict[Key, HeatCheck]:
            wanted = [_wanted_heat(self.bundle, s) for s in finished]
            return {c.wanted.part.key: c for c in heat_checks(self.bundle.property, wanted)}

        return self.ctx.space.computed.get("heat" + digest(self.bundle), all_checks)

    @property
    def cards(self) -> list[Card]:
        return self.ctx.space.computed.get("cards" + digest(self.bundle), lambda: job_cards(self.bundle))

    @property
    def lead(self) -> bool:
        """Lead paint is presumed or was found."""
        return lead_presumed(self.bundle)


def specification_desk(ctx: Context, bundle: JobBundle) -> SpecificationDesk:
    with ctx.reading() as session:
        return SpecificationDesk(
            ctx,
            bundle,
            shelf(session, bundle),
            company_systems(session, bundle.company.id),
            finish_versions(session, bundle.job.id),
        )


def _wanted_heat(bundle: JobBundle, spec: PartSpec) -> Wanted:
    """What the heat check asks of a finished part."""
    assert spec.finish is not None
    product = last_coat(spec.operations, bundle.products)
    return Wanted(spec.part, spec.finish.colour, spec.derivation.facts.schools["vinyl"], product)


@dataclass(frozen=True)
class FilmChoice:
    """The products that serve a film, best first, each with its workable hours of the coming days (None without
    weather); `taken` is the code of the one that is laid."""

    key: str
    name: str
    coats: int
    taken: str | None
    ranked: list[tuple[RankedProduct, float | None]]


class PartDesk:
    """One part on the desk. Raises NotFound for a part that is not there, NoSteps where no product serves it."""

    def __init__(self, view: JobView, key: Key) -> None:
        self.view, self.bundle, self.desk = view, view.bundle, specification_desk(view.ctx, view.bundle)
        self.parts = painted_parts(self.bundle.property, self.bundle.deduction)
        if key not in self.parts:
            raise NotFound(*key)
        self.key, self.part = key, self.parts[key]
        self.spec = part_spec(self.bundle, self.part, self.desk.products)
        finish = self.spec.finish
        self.wish = Wish.of(finish) if finish else usual_wish(self.bundle, self.part)

    @property
    def version(self) -> int:
        return self.desk.versions.get(self.key, 0)

    @property
    def library(self) -> dict[str, list[LibraryColour]]:
        with self.view.ctx.reading() as session:
            return colour_library(session, self.bundle.company.id)

    @property
    def choices(self) -> Sequence[Choice]:
        """The schools side by side, where they make a difference here."""
        products, facts, pace = self.desk.products, self.spec.derivation.facts, pace_of(self.bundle)
        key = "choices" + digest(self.bundle, self.key, *products)
        return self.view.ctx.space.computed.get(key, lambda: choices(self.part, facts, products, self.wish.picks, pace))

    @property
    def heat(self) -> HeatCheck | None:
        if self.spec.finish is None:
            return None
        wanted = _wanted_heat(self.bundle, self.spec)
        place = self.bundle.property.model_copy(update={"faces": (), "zones": (), "items": (), "photos": ()})
        asked = digest(place, self.part.face, self.part.part, wanted.colour, wanted.vinyl_school, wanted.product)
        return self.view.ctx.space.computed.get("peak" + asked, lambda: heat_checks(self.bundle.property, [wanted])[0])

    @property
    def findings(self) -> list[Finding]:
        """What stops, what is to be decided and what to know, beside the steps themselves."""
        return [f for f in self.spec.derivation.findings if f.level is not Alert.STEP]

    @property
    def untold(self) -> tuple[NoMatter, ...]:
        """What was recorded and changes nothing."""
        return untold(self.part, self.spec.fresh)

    @property
    def tests(self) -> tuple[OpenTest, ...]:
        return open_tests(self.spec.derivation)

    @property
    def order(self) -> PaintingOrder | None:
        others = self.bundle.property.items_of(self.part.face.id)
        return painting_order(self.part, others, self.spec.operations)

    @property
    def beside_it(self) -> str:
        """What is done beside or behind a part that is left, and with which; nothing where nothing is."""
        left, face = self.spec.left, self.part.face
        rest = next((z for z in self.bundle.property.zones_of(face.id) if z.area.kind == "face"), None)
        if left is None or self.key[0] != "item" or left.leaving is Leaving.REPLACED:
            return ""
        gone = left.leaving is Leaving.TAKEN_AWAY
        what = "Its holes are filled and the patch behind is primed" if gone else "It is taped and covered"
        if rest is None or self.bundle.finish_of("zone", rest.id) is None:
            return f"{what} by nobody: no wall of {face.name} is painted. Add it by hand where it is wanted."
        return f"{what} with {rest.name}{'' if gone else ', unless the masking of an opening covers it'}."

    @property
    def alike(self) -> list[PaintedPart]:
        return alike(self.bundle, self.part)

    @property
    def neighbours(self) -> tuple[PaintedPart | None, PaintedPart | None]:
        """The part before this one and the one after it."""
        keys = list(self.parts)
        at = keys.index(self.key)
        following = self.parts[keys[at + 1]] if at + 1 < len(keys) else None
        return (self.parts[keys[at - 1]] if at else None), following

    @property
    def covers(self) -> Sequence[CoverCost]:
        """The ladder of coats, alone and behind a tinted primer; nothing for stains that let the wood show,
        or where the colour stays."""
        coat = next((o for o in self.spec.operations if o.kind is OperationKind.COAT), None)
        stains = (Family.DECK_STAIN, Family.DECK_CLEAR)
        if coat is None or coat.product is None or self.spec.derivation.coats.families[0] in stains:
            return []
        facts = self.spec.derivation.facts
        primers = candidates(_TINTED, facts, coat.method or Method.BRUSH, self.desk.products)
        primer, pace = (primers[0].product if primers else None), pace_of(self.bundle)
        ways = cover_costs(self.part, self.wish.colour, coat, self.desk.by_code[coat.product], primer, pace=pace)
        return [] if ways[0].way.rungs[0].hidden else ways

    def film_choices(self, site: SiteClimate | None) -> list[FilmChoice]:
        """One for each film in the order of the steps, all finish coats together."""
        used = {o.id: o.product for o in self.spec.operations}
        out: dict[str, FilmChoice] = {}
        for step in self.spec.derivation.steps:
            key = pick_of(step.role)
            if not step.families or step.method is None or key in out:
                continue
            finish = key == PICK_COATS
            ranked = candidates_for(step, self.spec.derivation, self.desk.products)
            hours = [(c, self.hours(site, c.product, step.method)) for c in ranked]
            name, coats = ("Finish coats", self.spec.derivation.coat_count) if finish else (step.name, 1)
            out[key] = FilmChoice(key, name, coats, used.get(step.role), hours)
        return list(out.values())

    def ways(self, site: SiteClimate | None) -> list[tuple[MethodWay, float | None]]:
        """How the coats may be laid, each with its workable hours of the coming fortnight where a climate is known."""
        spec, by_code = self.spec, self.desk.by_code
        found = method_ways(self.part, spec.operations, by_code, self.wish.colour, pace_of(self.bundle))
        product = next((by_code[o.product] for o in spec.operations if is_coat(o) and o.product), None)
        return [(w, None if product is None else self.hours(site, product, w.method, FORTNIGHT)) for w in found]

    def hours(self, site: SiteClimate | None, product: Product, method: Method, days: int = HOURS_DAYS) -> float | None:
        """Workable hours of the coming days for a product on the part; None without a climate."""
        if site is None or not site.knows(self.part.part):
            return None
        asks = asks_before(self.spec.operations)
        windows = site.for_coat(self.part.part, product, method, self.wish.colour, asks_before=asks)
        slots = windows.slots
        starts = slots.start + SLOT_S * np.arange(len(slots))
        first = int(np.searchsorted(starts, self.view.now.timestamp()))
        open_ = windows.ok[0, first : first + days * 24 * SLOTS_PER_HOUR]
        return float(np.count_nonzero(open_)) * SLOT_H


_TINTED = (Family.BONDING_PRIMER, Family.HYBRID_UNDERCOAT, Family.ACRYLIC_WOOD_PRIMER, Family.MASONRY_UNDERCOAT)


def standing_steps(ctx: Context, bundle: JobBundle, key: Key) -> tuple[Operation, ...]:
    """The operations of a part as they stand. Raises NotFound, NoSteps."""
    desk = specification_desk(ctx, bundle)
    parts = painted_parts(bundle.property, bundle.deduction)
    if key not in parts:
        raise NotFound(*key)
    return part_spec(bundle, parts[key], desk.products).operations
