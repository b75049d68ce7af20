"""Strict bases: unknown fields are refused by name, numbers are finite and never booleans.

The stateless routes take numbers only. Forms send what was typed: a number of theirs travels as text and is
read here, at the door, by the one reader of typed numbers ("2,700" is 2700, "7,8" is 7.8).
"""

from typing import Annotated

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field
from pydantic_core import PydanticCustomError

from kumpan.core.errors import UnreadableQuantity
from kumpan.core.quantities.typed import read_number
from kumpan.wording.render import render


def _typed(value: object) -> object:
    """A typed number; an empty text is nothing. Anything else is left to the field's own check."""
    if isinstance(value, bool):
        raise PydanticCustomError("float_type", "must be a number")
    if not isinstance(value, str):
        return value
    if not value.strip():
        return None
    try:
        return read_number(value)
    except UnreadableQuantity as trouble:
        raise PydanticCustomError(
            "typed", "{sentence}", {"sentence": render(trouble.message), "message": trouble.message}
        ) from None


AsTyped = BeforeValidator(_typed, json_schema_input_type=float | str | None)


class Strict(BaseModel):
    """A request body: what is not named here is refused."""

    model_config = ConfigDict(extra="forbid", frozen=True)


Concentration = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0, le=200_000)]
PhValue = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0, le=14)]
TemperatureC = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=-5, le=60)]
VolumeL = Annotated[float, Field(strict=True, allow_inf_nan=False, gt=0, le=50_000_000)]
StrengthPercent = Annotated[float, Field(strict=True, allow_inf_nan=False, gt=0, le=100)]
Amount = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0, le=1e9)]
Fraction = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0, le=1)]
Density = Annotated[float, Field(strict=True, allow_inf_nan=False, gt=0.5, le=3)]
StrictBool = Annotated[bool, Field(strict=True)]
