"""Forms as models: one class a form, whose fields say how their text is read and what is said where it cannot be."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any, Self, TypeVar, overload

from pydantic import BaseModel, ConfigDict, GetCoreSchemaHandler, ValidationError, ValidationInfo
from pydantic.fields import FieldInfo
from pydantic_core import CoreSchema, core_schema

from amber_gable.domain.errors import Refused, last_name, words_of
from amber_gable.domain.units import UnitSystem

A = TypeVar("A")
B = TypeVar("B")
C = TypeVar("C")


@dataclass(frozen=True)
class Reads:
    """How the text of a field is read in the reader's units, and the words where it is needed and empty. `reader`
    raises ValueError with words that stand behind the field's name."""

    reader: Callable[[str, UnitSystem], Any]
    needed: str = "is needed"

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        return core_schema.with_info_before_validator_function(self._read, handler(source))

    def _read(self, value: Any, info: ValidationInfo) -> Any:
        # A form made by the program holds values already.
        typed = isinstance(value, str)
        return self.reader(value, (info.context or {}).get("system", UnitSystem.METRIC)) if typed else value


class Form(BaseModel):
    """What a form's fields hold, named as on the page. An empty field is one that was not sent, except one whose name
    is in `may_be_empty`; what else the page sends is left aside."""

    model_config = ConfigDict(frozen=True, extra="ignore")

    @classmethod
    def may_be_empty(cls) -> frozenset[str]:
        return frozenset()

    @classmethod
    def read(
        cls, form: Mapping[str, str], system: UnitSystem = UnitSystem.METRIC, *, before: str = "", after: str = ""
    ) -> Self:
        """The fields, of those whose names begin with `before` and end with `after`. Raises Refused with all that is
        wrong, by field."""
        texts = {name: form.get(f"{before}{name}{after}") for name in cls._named()}
        empty = cls.may_be_empty()
        given = {k: t.strip() for k, t in texts.items() if t is not None and (t.strip() or k in empty)}
        try:
            return cls.model_validate(given, context={"system": system})
        except ValidationError as error:
            faults = {last_name(f["loc"]): cls._words(f) for f in error.errors(include_url=False)}
            raise Refused({f"{before}{k}{after}" if k else "": words for k, words in faults.items()}) from None

    @classmethod
    def _named(cls) -> dict[str, FieldInfo]:
        """Fields by their names on the page, which may be no names of Python."""
        return {field.alias or name: field for name, field in cls.model_fields.items()}

    @classmethod
    def _words(cls, fault: Any) -> str:
        if fault["type"] == "missing":
            told = cls._named()[last_name(fault["loc"])].metadata
            return next((m.needed for m in told if isinstance(m, Reads)), "is needed")
        return words_of(fault)


@overload
def read_all(first: Callable[[], A], second: Callable[[], B], /) -> tuple[A, B]: ...
@overload
def read_all(first: Callable[[], A], second: Callable[[], B], third: Callable[[], C], /) -> tuple[A, B, C]: ...
def read_all(*readers: Callable[[], Any]) -> tuple[Any, ...]:
    """What each reader gives. Raises Refused with what is wrong for all of them, once every one was asked."""
    out, faults = [], dict[str, str]()
    for reader in readers:
        try:
            out.append(reader())
        except Refused as error:
            faults |= error.fields
    if faults:
        raise Refused(faults)
    return tuple(out)
