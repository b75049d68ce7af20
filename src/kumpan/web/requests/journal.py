"""What is told to the journal over HTTP: looks, tests, ticks, purchases, corrections."""

from dataclasses import replace
from datetime import date
from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field

from kumpan.core.dosing.product_choice import Strategy
from kumpan.core.dosing.typed_amount import read_amount
from kumpan.core.errors import InvalidInput, UnreadableQuantity
from kumpan.core.journal import (
    CellSet,
    Clarity,
    Level,
    Outcome,
    Place,
    PreferencesSet,
    SwimmersCounted,
    VisualCheck,
    WaterChange,
    WaterChanged,
)
from kumpan.core.messages import Message, Verbatim
from kumpan.core.products.by_label import LabelDose, checked
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.typed import Dimension, read_number
from kumpan.core.quantities.units import G_PER_LB, L_PER_M3, L_PER_US_GAL, Units
from kumpan.core.records.containers import Container, ContainerKind
from kumpan.core.treatment.special.incident import Incident
from kumpan.core.treatment.special.shock import ShockReason, ShockStrategy
from kumpan.services.treatments.request import BorateBy, PlanKind, PlanRequest
from kumpan.web.requests.base import AsTyped, Density, StrengthPercent, Strict
from kumpan.web.requests.pools import StampIn, Typed, VolumeUnit, quantity

ProductId = Annotated[str, Field(max_length=60)]
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

    def to_core(self) -> VisualCheck:
        return VisualCheck(self.clarity, self.level, tuple(self.odd), self.note)


class AdditionTyped(StampIn):
    """Something poured outside a sheet, by product of the shelf or by chemical and strength."""

    product_id: ProductId | None = None
    chemical: Annotated[str, Field(max_length=60)] | None = None
    strength_percent: StrengthPercent | None = None
    amount: Annotated[str, Field(max_length=40)]


class WaterChangeIn(StampIn):
    """Water that left and was made up; `volume` as typed, in gallons unless a unit says else."""

    kind: WaterChange
    volume: Typed
    volume_unit: VolumeUnit = "gal"
    note: Note = ""

    def to_core(self) -> WaterChanged:
        litres = quantity(self.volume, Dimension.VOLUME, self.volume_unit, "volume")
        if litres <= 0:
            raise InvalidInput(
                Message("The water changed must be more than nothing; type gallons or liters."), "volume"
            )
        return WaterChanged(kind=self.kind, volume_l=litres, note=self.note)


class CellIn(StampIn):
    """The cell's output at 100 % (g/h), its setting and its hours a day."""

    output_g_per_h: Annotated[float, Field(gt=0, le=1000, allow_inf_nan=False), AsTyped]
    output_unit: Literal["g/h", "lb/day"] = "g/h"
    percent: Annotated[float, Field(ge=0, le=100, allow_inf_nan=False), AsTyped]
    hours_per_day: Annotated[float, Field(ge=0, le=24, allow_inf_nan=False), AsTyped]

    def to_core(self) -> CellSet:
        grams = self.output_g_per_h * (G_PER_LB / 24 if self.output_unit == "lb/day" else 1.0)
        return CellSet(grams, self.percent, self.hours_per_day)


BatherHours = Annotated[float, Field(gt=0, le=10_000, allow_inf_nan=False)]


class SwimmersIn(StampIn):
    """Bather hours, or how many swam and for how long each."""

    bather_hours: Annotated[BatherHours | None, AsTyped] = None
    swimmers: Annotated[BatherHours | None, AsTyped] = None
    hours: Annotated[BatherHours | None, AsTyped] = None

    def to_core(self) -> SwimmersCounted:
        if self.bather_hours is not None:
            return SwimmersCounted(self.bather_hours)
        for name, value in (("swimmers", self.swimmers), ("hours", self.hours)):
            if value is None:
                raise InvalidInput(
                    Message("{name} is required; write a number like 4 or 2.5.", name=Verbatim(name)), name
                )
        return SwimmersCounted((self.swimmers or 0.0) * (self.hours or 0.0))


class AmountChange(StampIn):
    amount: Annotated[str, Field(max_length=40)]


AimValue = Annotated[float, Field(ge=0, le=1e5, allow_inf_nan=False)]
AimPlace = Annotated[float, Field(ge=-3, le=4, allow_inf_nan=False)]


class PlanFields(Strict):
    """Which plan, and what each kind asks besides; all left out, the plan that the test asks for."""

    plan: PlanKind = PlanKind.BALANCE
    way: Strategy = Strategy.USUAL
    use: Annotated[str, Field(max_length=60)] | None = None
    shock: ShockStrategy | None = None
    reason: ShockReason = ShockReason.ROUTINE
    incident: Incident = Incident.FORMED_STOOL
    today: bool = False
    borate: BorateBy = BorateBy.BORIC_ACID
    measure: Measure | None = None
    wanted: Annotated[Annotated[float, Field(ge=0, le=1e5, allow_inf_nan=False)] | None, AsTyped] = None
    advice: Annotated[str, Field(max_length=600)] = ""
    upkeep: bool = False

    def to_core(self) -> PlanRequest:
        values = {name: getattr(self, name) for name in PlanFields.model_fields}
        return PlanRequest(strategy=values.pop("way"), **values)


class PlanAskedIn(PlanFields):
    """As query: the plan, and the units to tell it in."""

    metric: bool = False


class PlanWithAims(PlanFields):
    """`targets`: what the user aims at in place of the rules, mg/L or pH."""

    targets: Annotated[dict[Measure, AimValue], Field(max_length=8)] = {}

    def to_core(self) -> PlanRequest:
        return replace(super().to_core(), targets=dict(self.targets))


class SheetStartIn(StampIn):
    asked: PlanWithAims = PlanWithAims()


class WhatIfIn(Strict):
    """Aims by value, and aims by their place on the lane (bands from the left rope), as a hand moves them."""

    values: Annotated[dict[Measure, AimValue], Field(max_length=8)] = {}
    places: Annotated[dict[Measure, AimPlace], Field(max_length=8)] = {}


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


LabelAmount = Annotated[str, Field(max_length=40, description='like "8 fl oz" or "2 lb"; empty if not said')]


class LabelIn(Strict):
    """What the label says: so much for `per` of pool."""

    first: LabelAmount
    upkeep: LabelAmount = ""
    most: LabelAmount = ""
    per: Annotated[str, Field(max_length=40)] = "10000 gal"
    repeat_days: Annotated[int, AsTyped, Field(ge=1, le=400)] | None = None
    swim_wait_min: Annotated[int, AsTyped, Field(ge=0, le=20160)] = 15

    def to_core(self, product: Product, units: Units) -> LabelDose:
        """For this product, g or mL for each liter. Raises UnreadableQuantity and InvalidInput by field."""
        per_l = quantity(self.per, Dimension.VOLUME, "l" if units is Units.METRIC else "gal", "per")
        if per_l <= 0:
            raise InvalidInput(Message("Say for how much water the label means it, like 10000 gal."), "per")

        def each(field: str) -> float | None:
            text = str(getattr(self, field)).strip()
            if not text:
                return None
            try:
                read = read_amount(product, text, units=units)
            except (UnreadableQuantity, InvalidInput) as trouble:
                raise InvalidInput(trouble.message, field) from trouble
            amount = read.mass_g if read.volume_ml is None else read.volume_ml
            return amount / per_l

        first = each("first")
        if first is None:
            raise InvalidInput(Message("Type the first dose as on the label, like 8 fl oz."), "first")
        return checked(
            LabelDose(
                first_per_l=first,
                upkeep_per_l=each("upkeep"),
                most_per_l=each("most"),
                repeat_days=self.repeat_days,
                swim_wait_min=self.swim_wait_min,
            )
        )


class ProductTyped(Strict):
    id: UUID
    name: Annotated[str, Field(max_length=120)] = ""
    chemical: Annotated[str, Field(max_length=60)]
    strength_percent: Annotated[StrengthPercent, AsTyped]
    package: Annotated[str, Field(max_length=40, description='like "40 lb" or "2.5 gal"; empty if none')] = ""
    density_g_per_ml: Density | None = None
    label_dose: LabelIn | None = None


class PlaceIn(StampIn):
    """Where a product stands from now on: `pool_id` with "pool" alone, `technician_id` with "truck" alone."""

    product_id: ProductId
    place: Place
    pool_id: UUID | None = None
    technician_id: UUID | None = None
    best_before: date | None = None


class CountIn(StampIn):
    """What is left, by product id, as typed: "2 jugs", "half a bag", "0"."""

    left: Annotated[dict[ProductId, LabelAmount], Field(min_length=1, max_length=200)]


class StrengthIn(StampIn):
    """The strength that a test of the product showed."""

    product_id: ProductId
    strength_percent: Annotated[StrengthPercent, AsTyped]


class ContainerTyped(Strict):
    """A measure as typed: `holds` is a cup's or jug's volume, a scoop's weight, a scale's step."""

    kind: ContainerKind
    name: Annotated[str, Field(max_length=40)] = ""
    holds: Typed
    product_id: ProductId | None = None
    parts: Annotated[int, AsTyped, Field(ge=1, le=4)] = 1

    def to_core(self, units: Units) -> Container:
        name = self.name.strip() or self.kind.value
        if self.kind in (ContainerKind.CUP, ContainerKind.JUG):
            litres = quantity(
                self.holds, Dimension.VOLUME, "ml" if units is Units.METRIC else "floz", "containers"
            )
            return Container(kind=self.kind, name=name, volume_ml=litres * 1000, parts=self.parts)
        grams = quantity(self.holds, Dimension.MASS, "g" if units is Units.METRIC else "oz", "containers")
        product_id = self.product_id if self.kind is ContainerKind.SCOOP else None
        return Container(kind=self.kind, name=name, mass_g=grams, product_id=product_id, parts=self.parts)


class HabitsIn(StampIn):
    """What holds for the whole workspace.

    Amounts as typed; `storage` a temperature, `water_price` per 1000 gal or m3.
    """

    containers: Annotated[list[ContainerTyped], Field(max_length=20)] = []
    currency: Annotated[str, Field(min_length=1, max_length=4)] = "$"
    storage: Typed = ""
    water_price: Typed = ""
    drain_rate: Typed = ""
    fill_rate: Typed = ""

    def to_core(self, units: Units) -> PreferencesSet:
        usual = PreferencesSet()
        per_m3 = 1.0 if units is Units.METRIC else L_PER_M3 / (1000 * L_PER_US_GAL)
        price = _number(self.water_price, "water_price")
        return PreferencesSet(
            containers=tuple(box.to_core(units) for box in self.containers),
            currency=self.currency,
            storage_c=quantity(
                self.storage, Dimension.TEMPERATURE, "c" if units is Units.METRIC else "f", "storage"
            )
            if self.storage.strip()
            else usual.storage_c,
            water_price=None if price is None else price * per_m3,
            drain_l_per_h=self._rate(self.drain_rate, "drain_rate", usual.drain_l_per_h, units),
            fill_l_per_h=self._rate(self.fill_rate, "fill_rate", usual.fill_l_per_h, units),
        )

    def _rate(self, text: str, field: str, usual: float, units: Units) -> float:
        if not text.strip():
            return usual
        rate = quantity(text, Dimension.VOLUME, "l" if units is Units.METRIC else "gal", field)
        if rate <= 0:
            raise InvalidInput(Message("The rate must be over 0; type gallons or liters an hour."), field)
        return rate


def _number(text: str, field: str) -> float | None:
    if not text.strip():
        return None
    try:
        found = read_number(text)
    except UnreadableQuantity as trouble:
        raise UnreadableQuantity(trouble.message, field) from trouble
    if found < 0:
        raise InvalidInput(Message("A price cannot be below 0."), field)
    return found


class PurchaseIn(StampIn):
    product_id: ProductId
    packages: Annotated[float, Field(gt=0, le=10_000, allow_inf_nan=False), AsTyped]
    price: Annotated[Annotated[float, Field(ge=0, le=1e7, allow_inf_nan=False)] | None, AsTyped] = None
