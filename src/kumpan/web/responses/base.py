"""The base of all answers, and where messages are put into a reader's words."""

from collections.abc import Iterable
from typing import Annotated, Any, Self

from pydantic import AliasChoices, BaseModel, BeforeValidator, ConfigDict, Field, ValidationInfo

from kumpan.core.messages import Message
from kumpan.wording.reader import US_READER, Reader
from kumpan.wording.render import render


class Response(BaseModel):
    """An answer, read off the attributes of the value that a use case hands out."""

    model_config = ConfigDict(from_attributes=True, frozen=True, populate_by_name=True)

    @classmethod
    def of(cls, value: object, reader: Reader = US_READER) -> Self:
        """The answer for a value, told to one reader.

        Raises ValidationError where the value lacks an attribute: a fault of ours.
        """
        return cls.model_validate(value, context=reader)


def read_from(attribute: str) -> Any:
    """A field that goes out under its own name and is read off an attribute with another one."""
    return Field(validation_alias=AliasChoices(attribute))


def _told(value: object, info: ValidationInfo) -> object:
    """A message in the reader's words; several, a line each; plain text as it is."""
    reader = info.context if isinstance(info.context, Reader) else US_READER
    if isinstance(value, Message):
        return render(value, reader)
    if isinstance(value, tuple) and value and all(isinstance(line, Message) for line in value):
        return "\n".join(_lines(value, reader))
    return "" if value == () else value


def _lines(messages: Iterable[Message], reader: Reader) -> Iterable[str]:
    return (render(message, reader) for message in messages)


Text = Annotated[str, BeforeValidator(_told)]


class Trouble(BaseModel):
    """What went wrong: a stable code, one sentence with the cure, and the field at fault."""

    code: str
    message: str
    field: str | None


class Refusal(BaseModel):
    """The one shape in which errors go out."""

    error: Trouble
