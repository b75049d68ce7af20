"""Strict bases: unknown fields are refused by name, numbers are finite and never booleans or strings."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field


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
