"""The base of all answers."""

from typing import Any, Self

from pydantic import AliasChoices, BaseModel, ConfigDict, Field


class Response(BaseModel):
    """An answer, read off the attributes of the value that a use case hands out."""

    model_config = ConfigDict(from_attributes=True, frozen=True, populate_by_name=True)

    @classmethod
    def of(cls, value: object) -> Self:
        """The answer for a value. Raises ValidationError where the value lacks an attribute: a fault of ours."""
        return cls.model_validate(value)


def read_from(attribute: str) -> Any:
    """A field that goes out under its own name and is read off an attribute with another one."""
    return Field(validation_alias=AliasChoices(attribute))
