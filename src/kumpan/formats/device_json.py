"""What a controller says over HTTP, as open JSON; anything else is nonsense, and told as that."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, TypeAdapter, ValidationError

from kumpan.core.journal import DeviceReading

Number = Annotated[float, Field(allow_inf_nan=False)]


class ControllerJson(BaseModel):
    """A controller's or station's answer. Unknown fields are passed over: makers add what they like."""

    model_config = ConfigDict(extra="ignore")

    output_percent: Number | None = None
    salinity_mg_l: Number | None = None
    water_c: Number | None = None
    flow: bool | None = None
    pressure_kpa: Number | None = None
    rain_mm: Number | None = None
    air_c: Number | None = None
    uv_index: Number | None = None
    lamps: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=8)] = []


_READING: TypeAdapter[DeviceReading] = TypeAdapter(DeviceReading)


def reading_from_answer(content: bytes) -> DeviceReading | None:
    """The reading in an answer's body; None for nonsense."""
    try:
        said = ControllerJson.model_validate_json(content)
    except ValidationError:
        return None
    return DeviceReading(**{**said.model_dump(), "lamps": tuple(said.lamps)})


def reading_to_json(reading: DeviceReading) -> dict[str, object]:
    """A device's reading in its stored form."""
    dumped: dict[str, object] = _READING.dump_python(reading, mode="json")
    return dumped


def reading_from_json(data: dict[str, object]) -> DeviceReading:
    """A stored reading."""
    return _READING.validate_python(data)
