"""The job bundle as JSON: the file that carries a whole job (docs/formats.md)."""

import json
from collections.abc import Iterator
from typing import Any, NoReturn

from pydantic import ValidationError

from amber_gable.core.survey.findings.checks import survey_faults
from amber_gable.domain.errors import InputError, words_of
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.versions import brought_up
from amber_gable.domain.paint.generic_products import GENERIC_PRODUCTS


def dump_bundle(bundle: JobBundle) -> str:
    """Canonical text: the same bundle always gives the same bytes."""
    return json.dumps(bundle.model_dump(mode="json"), indent=2, ensure_ascii=False) + "\n"


def load_bundle(text: str, name: str) -> JobBundle:
    """A validated bundle. Raises InputError naming the field at fault."""
    try:
        raw = json.loads(text, parse_constant=_not_finite)
    except (json.JSONDecodeError, RecursionError) as error:
        line = getattr(error, "lineno", 1)
        raise InputError(f"{name}, line {line}", "is not valid JSON", "export the job again or mend the line") from None
    except ValueError as error:
        raise InputError(name, str(error), "write a number") from None
    if not isinstance(raw, dict) or raw.get("format") != "amber-gable-job":
        raise InputError(name, "is not a job bundle", 'its first field must be "format": "amber-gable-job"')
    raw = _with_generic(brought_up(raw))
    try:
        bundle = JobBundle.model_validate(raw)
    except ValidationError as error:
        raise refusal(error, name, raw) from None
    faults = survey_faults(bundle.property)
    if faults:
        raise InputError(
            f"{name}, {faults[0].kind} '{faults[0].id}'", faults[0].why, f"{faults[0].todo}; nothing was saved"
        )
    return bundle


def _with_generic(raw: dict[str, Any]) -> dict[str, Any]:
    """Products that the file names and does not carry are generic ones."""
    own = raw.get("products", [])
    if not isinstance(own, list):
        return raw
    carried = {p.get("code") for p in own if isinstance(p, dict)}
    named = dict.fromkeys(c for c in _product_names(raw) if c in GENERIC_PRODUCTS and c not in carried)
    return raw | {"products": [*own, *(GENERIC_PRODUCTS[c].model_dump(mode="json") for c in named)]}


def _product_names(value: Any) -> Iterator[str]:
    """What steps name as their product and choices as their pick."""
    if isinstance(value, dict):
        for key, inner in value.items():
            if key == "product" and isinstance(inner, str):
                yield inner
            elif key == "picks" and isinstance(inner, dict):
                yield from (v for v in inner.values() if isinstance(v, str))
            else:
                yield from _product_names(inner)
    elif isinstance(value, list):
        for inner in value:
            yield from _product_names(inner)


def _not_finite(constant: str) -> NoReturn:
    raise ValueError(f"{constant} is not a number a job can hold")


def refusal(error: ValidationError, name: str, raw: Any = None) -> InputError:
    """The first error of a validation as an InputError, with the path of its field."""
    first = error.errors(include_url=False)[0]
    message = words_of(first)
    more = f" (and {error.error_count() - 1} more)" if error.error_count() > 1 else ""
    field = _path(first["loc"], raw)
    given = first.get("input")
    shown = f", not {given!r}" if isinstance(given, int | float | str) and message.startswith("must be") else ""
    return InputError(f"{name}, {field}" if field else name, message + shown + more, "correct it; nothing was saved")


def _path(loc: tuple[int | str, ...], raw: Any) -> str:
    """'property.faces[north].openings[0].height_m': list items by their id where they have one."""
    out = ""
    for part in loc:
        if isinstance(part, int):
            item = raw[part] if isinstance(raw, list) and part < len(raw) else None
            label = (item.get("id") or item.get("code")) if isinstance(item, dict) else None
            out += f"[{label or part}]"
            raw = item
        else:
            if isinstance(raw, dict):
                if part not in raw and part == raw.get("kind"):
                    continue
                raw = raw.get(part)
            out += f".{part}" if out else part
    return out
