"""The base of all answers."""

from typing import Self

from pydantic import BaseModel, ConfigDict


class Response(BaseModel):
    """An answer, read off the attributes of the value that a use case hands out."""

    model_config = ConfigDict(from_attributes=True, frozen=True)

    @classmethod
    def of(cls, value: object) -> Self:
        """The answer for a value. Raises ValidationError where the value lacks an attribute: a fault of ours."""
        return cls.model_validate(value)
