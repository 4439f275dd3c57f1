"""Coating systems to start from, made of the generic products."""

from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.operation import LAYING, CoatingSystem, Operation, OperationKind, Technique

_K, _M, _T = OperationKind, Method, Technique
_WAYS = {_K.WASH: _T.HOSE_WASH, _K.SCRAPE: _T.DRY_SCRAPE, _K.SAND: _T.HAND_SAND, _K.CAULK: _T.BEAD}


def _film(id_: str, name: str, product: str, method: Method = _M.BRUSH, **more: float | bool) -> Operation:
    kind = _K.PRIME if id_ == "prime" else _K.COAT
    return Operation.model_validate(
        {
            "id": id_,
            "name": name,
            "kind": kind,
            "technique": LAYING[method],
            "product": product,
            "method": method,
            **more,
        }
    )


def _step(kind: OperationKind, name: str, **more: float) -> Operation:
    return Operation.model_validate({"id": kind.value, "name": name, "kind": kind, "technique": _WAYS[kind], **more})


_WASH = _step(_K.WASH, "Wash, bottom to top, and rinse", wait_h=24)
_HOUSE, _TRIM = "exterior-acrylic-standard", "soft-gloss-acrylic-trim"
GENERIC_SYSTEMS = (
    CoatingSystem(
        id="generic-sound-siding",
        name="Sound siding: wash, two coats",
        operations=(_WASH, _film("coat-1", "First coat", _HOUSE), _film("coat-2", "Second coat", _HOUSE)),
    ),
    CoatingSystem(
        id="generic-peeling-wood",
        name="Peeling wood: scrape, bond, two coats",
        operations=(
            _WASH,
            _step(_K.SCRAPE, "Scrape and feather loose paint", share=0.25),
            _film("prime", "Peel-bonding primer on worked areas", "peel-bonding-primer", share=0.3, bare=True),
            _step(_K.CAULK, "Caulk open joints", wait_h=2),
            _film("coat-1", "First coat", _HOUSE),
            _film("coat-2", "Second coat", _HOUSE),
        ),
        note="Encapsulates: roughly 12 to 15 years before a mechanical strip.",
    ),
    CoatingSystem(
        id="generic-trim",
        name="Wood trim: sand, prime spots, two coats",
        operations=(
            _step(_K.SAND, "Sand glossy trim dull", share=0.5),
            _film("prime", "Wood primer on bare spots", "acrylic-wood-primer", share=0.2, bare=True),
            _film("coat-1", "First trim coat", _TRIM),
            _film("coat-2", "Second trim coat", _TRIM),
        ),
    ),
    CoatingSystem(
        id="generic-masonry-roller",
        name="Masonry: wash, two rolled coats",
        operations=(
            _step(_K.WASH, "Wash and rinse", wait_h=48),
            _film("coat-1", "First coat", "smooth-masonry-paint", _M.ROLLER),
            _film("coat-2", "Second coat", "smooth-masonry-paint", _M.ROLLER),
        ),
        note="Painted brick cannot be unpainted.",
    ),
    CoatingSystem(
        id="generic-deck-stain",
        name="Bare deck: clean, brighten, stain",
        operations=(
            _step(_K.WASH, "Clean, rinse, brighten", wait_h=72),
            _film("coat-1", "Penetrating stain", "deck-stain-semi-transparent", bare=True),
        ),
    ),
    CoatingSystem(
        id="generic-metal-roof",
        name="Metal roof: wash, two sprayed coats",
        operations=(
            _WASH,
            _film("coat-1", "First roof coat", "roof-coat-reflective", _M.AIRLESS),
            _film("coat-2", "Second roof coat", "roof-coat-reflective", _M.AIRLESS),
        ),
        note="Fall protection as local code asks.",
    ),
)
