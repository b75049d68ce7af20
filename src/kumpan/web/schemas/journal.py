"""What is told to the journal over HTTP: looks, tests, ticks, purchases, corrections."""

from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import Clarity, Level, LookTaken, Outcome, WaterChange, WaterChanged
from kumpan.core.planning.incidents import Incident
from kumpan.core.planning.shock import ShockWay
from kumpan.core.units import Dimension
from kumpan.core.water import Measure
from kumpan.web.schemas.base import Density, StrengthPercent, Strict
from kumpan.web.schemas.pools import StampIn, Typed, VolumeUnit, quantity

Note = Annotated[str, Field(max_length=2000)]
TemperatureUnit = Literal["f", "c"]
AmountTyped = Annotated[str, Field(max_length=40, description='like "44 fl oz"; empty means as planned')]


class SlipIn(Strict):
    """A slip to be read: one line, or fields by measure as typed."""

    line: Annotated[str, Field(max_length=400)] | None = None
    fields: dict[Measure, Typed] = {}
    kit: Annotated[str, Field(max_length=40)] = "drops"
    temperature_unit: TemperatureUnit = "f"


class TestIn(StampIn):
    __test__ = False

    fields: dict[Measure, Typed]
    kit: Annotated[str, Field(max_length=40)] = "drops"
    temperature_unit: TemperatureUnit = "f"
    note: Note = ""


class LookIn(StampIn):
    clarity: Clarity
    level: Level
    odd: Annotated[list[Annotated[str, Field(max_length=60)]], Field(max_length=20)] = []
    note: Note = ""

    def to_core(self) -> LookTaken:
        return LookTaken(self.clarity, self.level, tuple(self.odd), self.note)


class AdditionTyped(StampIn):
    """Something poured outside a sheet, by product of the shelf or by chemical and strength."""

    product_id: Annotated[str, Field(max_length=60)] | None = None
    chemical: Annotated[str, Field(max_length=60)] | None = None
    strength_percent: StrengthPercent | None = None
    amount: Annotated[str, Field(max_length=40)]


class WaterChangeIn(StampIn):
    """Water that left and was made up; `volume` as typed, gallons unless `volume_unit` or a unit says else."""

    kind: WaterChange
    volume: Typed
    volume_unit: VolumeUnit = "gal"
    note: Note = ""

    def to_core(self) -> WaterChanged:
        litres = quantity(self.volume, Dimension.VOLUME, self.volume_unit, "volume")
        if litres <= 0:
            raise InvalidInput(
                "The water changed must be more than nothing; type gallons or litres.", "volume"
            )
        return WaterChanged(self.kind, litres, self.note)


class CellIn(StampIn):
    """The cell's output at 100 % (g/h), its setting and its hours a day."""

    output_g_per_h: Annotated[float, Field(gt=0, le=1000, allow_inf_nan=False)]
    percent: Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)]
    hours_per_day: Annotated[float, Field(ge=0, le=24, allow_inf_nan=False)]


class SwimmersIn(StampIn):
    bather_hours: Annotated[float, Field(gt=0, le=10_000, allow_inf_nan=False)]


class AmountChange(StampIn):
    amount: Annotated[str, Field(max_length=40)]


class SheetStartIn(StampIn):
    """`shock` names the way of a shock, `incident` an accident in the water; both left out, the plan that the test asks for is started."""

    shock: ShockWay | None = None
    incident: Incident | None = None


class AdviceIn(Strict):
    text: Annotated[str, Field(max_length=600, description='like "salt 20 kg, buffer 400 g"')]


class TickIn(StampIn):
    step_number: Annotated[int, Field(ge=0, le=500)]
    outcome: Outcome
    amount: AmountTyped = ""
    note: Note = ""


class VoidIn(StampIn):
    reason: Annotated[str, Field(max_length=400)] = ""


class PersonIn(Strict):
    id: UUID | None = None
    name: Annotated[str, Field(max_length=120)]
    initials: Annotated[str, Field(max_length=8)] = ""


class ProductTyped(Strict):
    id: UUID
    name: Annotated[str, Field(max_length=120)] = ""
    chemical: Annotated[str, Field(max_length=60)]
    strength_percent: StrengthPercent
    package: Annotated[str, Field(max_length=40, description='like "40 lb" or "2.5 gal"; empty if none')] = ""
    density_g_per_ml: Density | None = None


class PurchaseIn(StampIn):
    product_id: Annotated[str, Field(max_length=60)]
    packages: Annotated[float, Field(gt=0, le=10_000, allow_inf_nan=False)]
    price: Annotated[float, Field(ge=0, le=1e7, allow_inf_nan=False)] | None = None
