"""Job files that say only what is wished: the steps are derived, from the file's products and the generic ones."""

from amber_gable.core.specification.derived.facts import surface_tags
from amber_gable.core.specification.derived.part_spec import Wish, fresh_spec, made_finish
from amber_gable.core.survey.amounts.painted import PaintedPart, painted_parts
from amber_gable.domain.errors import NoSteps
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.generic_products import GENERIC_PRODUCTS
from amber_gable.domain.paint.product import Product
from amber_gable.domain.paint.scheme import colour_group


def bundle_shelf(bundle: JobBundle) -> list[Product]:
    """What may be chosen from: the products the job carries, and the generic ones for every family they lack."""
    return with_generic(list(bundle.products))


def with_generic(own: list[Product]) -> list[Product]:
    """These products, and the generic ones for every family they lack."""
    there = {p.family for p in own}
    return own + [p for p in GENERIC_PRODUCTS.values() if p.family not in there]


def usual_wish(bundle: JobBundle, part: PaintedPart) -> Wish:
    """To start from: the colour that other parts of its group get, else the colour it has."""
    parts = painted_parts(bundle.property, bundle.deduction)
    group = colour_group(surface_tags(part.substrate, part.item_kind))
    for finish in bundle.job.finishes:
        other = parts[finish.part]
        if colour_group(surface_tags(other.substrate, other.item_kind)) is group:
            return Wish(finish.colour, finish.colour_name)
    return Wish(part.colour_now, "as it is")


def completed(bundle: JobBundle) -> JobBundle:
    """The job with the steps of every finish that holds none. Raises NoSteps naming the part that cannot be
    derived."""
    if all(f.operations or f.system for f in bundle.job.finishes):
        return bundle
    parts, shelf = painted_parts(bundle.property, bundle.deduction), bundle_shelf(bundle)
    finishes = []
    for finish in bundle.job.finishes:
        if not finish.operations and finish.system is None:
            part, wish = parts[finish.part], Wish.of(finish)
            try:
                finish = made_finish(part, wish, fresh_spec(bundle, part, wish, shelf).operations)
            except NoSteps as error:
                raise NoSteps(f"finish of {part.key[0]} '{part.key[1]}': {error}") from None
        finishes.append(finish)
    used = {o.product for f in finishes for o in f.operations}
    carried = {p.code for p in bundle.products}
    more = tuple(p for p in shelf if p.code in used and p.code not in carried)
    job = bundle.job.model_copy(update={"finishes": tuple(finishes)})
    return bundle.model_copy(update={"job": job, "products": bundle.products + more})
