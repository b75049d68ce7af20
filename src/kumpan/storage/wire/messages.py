"""A message as it is stored: the template of its day and its typed values, so that it can be told again to
anyone.

A value is told apart by `is`: the name of a quantity's class as of this version, or one of the words below.
"""

from collections.abc import Mapping
from dataclasses import asdict
from datetime import date, datetime
from typing import Annotated, Any

from pydantic import BeforeValidator, PlainSerializer, TypeAdapter, WithJsonSchema

from kumpan.core import quantity
from kumpan.core.messages import NOTHING, Cased, Listed, Message, Plural, Value, Verbatim
from kumpan.core.quantity import Quantity

# The names that stored rows hold. A class renamed in the core keeps its name here.
QUANTITIES: Mapping[str, type[Any]] = {
    name: getattr(quantity, name)
    for name in (
        "Number", "Percent", "PoolWater", "Liquid", "Mass", "RoughMass", "RoughLiquid", "Pressure", "Flow",
        "Temperature", "Rain", "CellOutput", "Money", "Count", "Duration", "Weeks", "Day", "Clock", "Ahead",
    )
}  # fmt: skip
_NAMES: Mapping[type[Any], str] = {kind: name for name, kind in QUANTITIES.items()}
_ADAPTERS: Mapping[str, TypeAdapter[Any]] = {name: TypeAdapter(kind) for name, kind in QUANTITIES.items()}


def to_json(message: Message) -> dict[str, Any]:
    """The message as plain JSON values."""
    return {"template": message.template, "values": {name: _value(value) for name, value in message.values}}


def from_json(stored: Mapping[str, Any]) -> Message:
    """The message of a stored one. Raises LookupError for a value that this version does not know."""
    return Message(stored["template"], **{name: _read(value) for name, value in stored["values"].items()})


def verbatim(text: str) -> Message:
    """Words of the time before messages: told as they are, in the language of their day."""
    return Message("{text}", text=Verbatim(text)) if text else NOTHING


def _value(value: Value) -> dict[str, Any]:
    if isinstance(value, Message):
        return {"is": "message", **to_json(value)}
    if isinstance(value, Verbatim):
        return {"is": "verbatim", "text": value.text}
    if isinstance(value, Listed):
        return {"is": "listed", "items": [_value(item) for item in value.items], "by": value.joined_by}
    if isinstance(value, Cased):
        return {"is": "cased", "words": to_json(value.words), "upper": value.upper}
    if isinstance(value, Plural):
        return {"is": "plural", **asdict(value)}
    return {"is": _NAMES[type(value)], **{name: _plain(field) for name, field in asdict(value).items()}}


def _plain(field: object) -> object:
    return field.isoformat() if isinstance(field, date | datetime) else field


def _read(stored: Mapping[str, Any]) -> Value:
    rest = {name: value for name, value in stored.items() if name != "is"}
    match stored["is"]:
        case "message":
            return from_json(rest)
        case "verbatim":
            return Verbatim(rest["text"])
        case "listed":
            return Listed(tuple(_read(item) for item in rest["items"]), rest["by"])
        case "cased":
            return Cased(from_json(rest["words"]), rest["upper"])
        case "plural":
            return Plural(**rest)
        case name:
            found: Quantity = _ADAPTERS[name].validate_python(rest)
            return found


def _accept(value: object) -> object:
    return from_json(value) if isinstance(value, Mapping) else value


# As it stands in a file. Which values a template has, and what each holds, may grow: `is` is always there.
STORED_FORM = {
    "type": "object",
    "title": "Words",
    "description": "A template with {names}, and by name the typed values that stand for them.",
    "required": ["template", "values"],
    "properties": {
        "template": {"type": "string"},
        "values": {"type": "object", "additionalProperties": {"type": "object", "required": ["is"]}},
    },
    "additionalProperties": False,
}
MessageField = Annotated[
    Message,
    BeforeValidator(_accept),
    PlainSerializer(to_json, return_type=dict[str, Any], when_used="json"),
    WithJsonSchema(STORED_FORM),
]
