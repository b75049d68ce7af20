"""Strict bases: unknown fields are refused by name, numbers are finite and never booleans.

The stateless routes take numbers only. Forms send what was typed: a number of theirs travels as text and is
read here, at the door, by the one reader of typed numbers ("2,700" is 2700, "7,8" is 7.8).
"""

import re
from datetime import UTC, date, datetime, time
from typing import Annotated

from pydantic import AwareDatetime, BaseModel, BeforeValidator, ConfigDict, Field
from pydantic_core import PydanticCustomError

from kumpan.core.errors import UnreadableQuantity
from kumpan.core.messages import Message, Verbatim
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


def _written(example: str) -> BeforeValidator:
    """Refuses numbers that stand for a day or a time, also those written as text: nobody means them."""

    def check(value: object) -> object:
        dated = value is None or isinstance(value, date)
        if not dated and not (isinstance(value, str) and re.match(r"\d{4}-\d\d-\d\d", value.strip())):
            sentence = Message("must be written like {example}.", example=Verbatim(example))
            raise PydanticCustomError(
                "typed", "{sentence}", {"sentence": render(sentence), "message": sentence}
            )
        return value

    return BeforeValidator(check, json_schema_input_type=str)


# Nobody tested a pool before 1990 here, and no plan reaches over 2100: what lies outside is a slip of typing.
FIRST_DAY, LAST_DAY = date(1990, 1, 1), date(2100, 1, 1)
Day = Annotated[date, _written("2026-06-01"), Field(ge=FIRST_DAY, le=LAST_DAY)]
Moment = Annotated[
    AwareDatetime,
    _written("2026-06-01T18:40:00Z"),
    Field(
        ge=datetime.combine(FIRST_DAY, time(), UTC),
        le=datetime.combine(LAST_DAY, time(), UTC),
        description="with a zone",
    ),
]


class Strict(BaseModel):
    """A request body: what is not named here is refused."""

    model_config = ConfigDict(extra="forbid", frozen=True)


Concentration = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0, le=200_000)]
PhValue = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0, le=14)]
TemperatureC = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=-5, le=60)]
VolumeL = Annotated[
    float, Field(strict=True, allow_inf_nan=False, ge=1, le=50_000_000)
]  # a bucket is no pool
StrengthPercent = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0.001, le=100)]
Amount = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0, le=1e9)]
Fraction = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0, le=1)]
Density = Annotated[float, Field(strict=True, allow_inf_nan=False, gt=0.5, le=3)]
StrictBool = Annotated[bool, Field(strict=True)]
