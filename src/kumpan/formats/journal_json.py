"""The journal's bodies as open JSON: one adapter a kind, inner units, nothing lost either way."""

from typing import Any

from pydantic import TypeAdapter

from kumpan.core.journal import KINDS, Body

_ADAPTERS: dict[str, TypeAdapter[Any]] = {kind: TypeAdapter(type_) for type_, kind in KINDS.items()}


def body_to_json(body: Body) -> dict[str, object]:
    """The body as plain JSON values."""
    dumped: dict[str, object] = _ADAPTERS[KINDS[type(body)]].dump_python(body, mode="json")
    return dumped


def body_from_json(kind: str, data: dict[str, object]) -> Body:
    """The body of a kind from its JSON. Raises KeyError for an unknown kind."""
    body: Body = _ADAPTERS[kind].validate_python(data)
    return body
