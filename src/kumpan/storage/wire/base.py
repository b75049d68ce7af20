"""The stored form of one kind of entry, apart from the core's classes.

Each kind has a model per version. A row is read by the model of its version, brought up to the newest by
upcasters, and only then becomes the core's body. A field whose name in the core is another one says so
with `renamed`: a rename inside the core changes nothing in the database. What a model does not know it
refuses; such a row is kept as it is and shown as not understood (`NotUnderstood`), never lost, never a crash.

Versions are only ever added. `tests/stored_forms` holds rows of every version as golden files.
"""

import json
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Any, ClassVar, Self

from pydantic import (
    AliasChoices,
    BaseModel,
    ConfigDict,
    Field,
    SerializerFunctionWrapHandler,
    TypeAdapter,
    ValidationError,
    model_serializer,
)

from kumpan.core.journal import Body, NotUnderstood

VERSION = "v"  # the key of a row's version; rows of the first version have none


class Wire(BaseModel):
    """A stored value. `core` is the class that it becomes."""

    model_config = ConfigDict(extra="forbid", frozen=True, from_attributes=True)

    core: ClassVar[type[Any]]

    @classmethod
    def upcast(cls, older: Any) -> Self:
        """From the version before it. Every version but the first has one of its own."""
        raise NotImplementedError(f"{cls.__name__} does not say how it follows from {type(older).__name__}")


def later_fields(*names: str) -> Any:
    """Fields that came to a version after rows of it were written: only what they say is written, so that a
    row without them stays byte for byte what it was.
    """

    def written(self: Wire, plain: SerializerFunctionWrapHandler) -> dict[str, object]:
        row: dict[str, object] = plain(self)
        silent: tuple[object, ...] = (None, "", (), [], False)
        return {key: value for key, value in row.items() if key not in names or value not in silent}

    return model_serializer(mode="wrap")(written)


def renamed(stored: str, core: str, **more: Any) -> Any:
    """A field that is stored under one name and has another in the core."""
    return Field(validation_alias=AliasChoices(stored, core), serialization_alias=core, **more)


@dataclass(frozen=True)
class Stored:
    """A kind of entry as it is stored: its name in the `kind` column and its versions, the newest last."""

    name: str
    versions: tuple[type[Wire], ...]

    @cached_property
    def _core(self) -> TypeAdapter[Any]:
        return TypeAdapter(self.versions[-1].core)

    def read(self, row: Mapping[str, object]) -> Body:
        """The body of a stored row. Raises ValidationError or LookupError for what no version knows."""
        data = dict(row)
        version = int(str(data.pop(VERSION, 1)))
        if not 1 <= version <= len(self.versions):
            raise LookupError(f"version {version} is newer than this program")
        model = self.versions[version - 1].model_validate(data)
        for newer in self.versions[version:]:
            model = newer.upcast(model)
        body: Body = self._core.validate_python(model.model_dump(by_alias=True))
        return body

    def write(self, body: Body) -> dict[str, object]:
        """The row of a body, in the newest version, as plain JSON values."""
        dumped = self.versions[-1].model_validate(body).model_dump(mode="json", by_alias=False)
        number = len(self.versions)
        return dumped if number == 1 else {VERSION: number, **dumped}


def not_understood(kind: str, row: Mapping[str, object], why: str) -> NotUnderstood:
    """A row that no model reads, kept whole."""
    return NotUnderstood(kind, json.dumps(row, ensure_ascii=False, sort_keys=True), why)


def reason_of(trouble: ValidationError) -> str:
    """The first thing that a model refused: the field and why."""
    first = trouble.errors(include_url=False, include_input=False)[0]
    return f"{'.'.join(str(part) for part in first['loc']) or 'row'}: {first['msg']}"
