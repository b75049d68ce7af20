"""Setting up a pool: what people type, read into inner units at this door."""

from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field

from kumpan.core.errors import InvalidInput, UnreadableQuantity
from kumpan.core.journal import BasinMeasured, EquipmentSet, SettingsMade
from kumpan.core.messages import Message, Verbatim
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits, refuse_if_out_of_scope
from kumpan.core.pool.plan_drawing import Fixture, FixtureKind
from kumpan.core.pool.salt_rise import UNUSABLE_SHARE, SaltReading
from kumpan.core.pool.shapes import DepthPoint, Part, ShapeKind, volume_l
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.typed import Dimension, read_quantity
from kumpan.core.ranges.choices import Chosen, OwnRange
from kumpan.core.testing.kits import kit_by_key
from kumpan.core.testing.methods import measured
from kumpan.services.assessment.summaries import MOST_A_PAGE, PageRequest
from kumpan.storage.repositories.summaries import Order, Shown
from kumpan.web.requests.base import AsTyped, Concentration, Moment, PhValue, Strict, StrictBool
from kumpan.web.requests.calculations import ReadingsIn

Typed = Annotated[str, Field(max_length=40)]
LengthUnit = Literal["ft", "m"]
VolumeUnit = Literal["gal", "l", "impgal", "m3"]


class DepthTyped(Strict):
    distance: Typed
    depth: Typed


class PartTyped(Strict):
    """One part of a pool as typed; numbers without a unit are in the form's unit."""

    shape: ShapeKind
    length: Typed
    width: Typed = ""
    second_width: Typed = ""
    depths: Annotated[list[DepthTyped], Field(min_length=1, max_length=20)]
    name: Annotated[str, Field(max_length=60)] = ""

    def to_core(self, unit: LengthUnit, where: str) -> Part:
        return Part(
            shape=self.shape,
            length_m=_length(self.length, unit, f"{where}.length"),
            depth=tuple(
                DepthPoint(
                    _length(point.distance, unit, f"{where}.depths.{i}.distance"),
                    _length(point.depth, unit, f"{where}.depths.{i}.depth"),
                )
                for i, point in enumerate(self.depths)
            ),
            width_m=_length(self.width, unit, f"{where}.width") if self.width.strip() else None,
            second_width_m=_length(self.second_width, unit, f"{where}.second_width")
            if self.second_width.strip()
            else None,
            name=self.name.strip(),
        )


class FixtureIn(Strict):
    kind: FixtureKind
    along: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]


class BasinTyped(Strict):
    """The basin as typed: parts with dimensions, or a volume by itself (its parts then only drawn).

    With `volume_is_unknown` amounts are given for each 1,000 gal, or for each 1,000 L. A typed volume that
    was found from salt says with `volume_uncertainty` how far it may be off, as a share of it.
    """

    unit: LengthUnit
    parts: Annotated[list[PartTyped], Field(max_length=8)] = []
    fixtures: Annotated[list[FixtureIn], Field(max_length=24)] = []
    volume: Typed = ""
    volume_unit: VolumeUnit = "gal"
    volume_is_unknown: StrictBool = False
    volume_uncertainty: Annotated[float, Field(ge=0, le=UNUSABLE_SHARE, allow_inf_nan=False)] | None = None

    def to_core(self) -> BasinMeasured:
        parts = tuple(part.to_core(self.unit, f"parts.{i}") for i, part in enumerate(self.parts))
        fixtures = tuple(Fixture(fixture.kind, fixture.along) for fixture in self.fixtures)
        if self.volume_is_unknown:
            each = quantity("1000", Dimension.VOLUME, self.volume_unit, "volume")
            return BasinMeasured(volume_l=each, volume_is_unknown=True)
        if self.volume.strip():
            litres = quantity(self.volume, Dimension.VOLUME, self.volume_unit, "volume")
            if not 100 <= litres <= 50_000_000:
                raise InvalidInput(
                    Message("The volume must be between 100 L (26 gal) and 50 million L; check the unit."),
                    "volume",
                )
            if parts:
                volume_l(parts)
            return BasinMeasured(
                volume_l=litres, parts=parts, fixtures=fixtures, volume_uncertainty=self.volume_uncertainty
            )
        return BasinMeasured(volume_l=volume_l(parts), parts=parts, fixtures=fixtures)


class SaltRiseTyped(Strict):
    """Salt before and after a weighed addition of it, as typed; `kit` is what it was tested with."""

    before: Typed
    added: Typed
    after: Typed
    kit: Annotated[str, Field(max_length=40)] = "drops"
    mass_unit: Literal["lb", "kg"] = "lb"

    def to_core(self) -> tuple[float, SaltReading, SaltReading]:
        mass_g = quantity(self.added, Dimension.MASS, self.mass_unit, "added")
        return mass_g, self._salt(self.before, "before"), self._salt(self.after, "after")

    def _salt(self, text: str, field: str) -> SaltReading:
        ppm = quantity(text, Dimension.CONCENTRATION, "ppm", field)
        try:
            method = kit_by_key(self.kit).method_of(Measure.SALT)
        except KeyError:
            raise InvalidInput(
                Message('There is no test kit "{kit}".', kit=Verbatim(self.kit)), "kit"
            ) from None
        found = measured(Measure.SALT, ppm, method)
        return SaltReading(ppm, found.high - ppm)


def _length(text: str, unit: LengthUnit, field: str) -> float:
    return quantity(text, Dimension.LENGTH, unit, field)


def quantity(text: str, dimension: Dimension, unit: str, field: str) -> float:
    try:
        return read_quantity(text, dimension, unit).value
    except UnreadableQuantity as trouble:
        raise UnreadableQuantity(trouble.message, field) from trouble


Level = Annotated[Annotated[float, Field(ge=0, le=1e5, allow_inf_nan=False)] | None, AsTyped]


class OwnRangeIn(Strict):
    measure: Measure
    low: Level = None
    high: Level = None
    aim: Level = None


class ChosenIn(Strict):
    question: Annotated[str, Field(max_length=40)]
    option: Annotated[str, Field(max_length=40)]


class SettingsIn(Strict):
    name: Annotated[str, Field(max_length=120)]
    place: Annotated[str, Field(max_length=120)] = ""
    time_zone: Annotated[str, Field(max_length=60)]
    school: Annotated[str, Field(max_length=40)] = "household"
    public: StrictBool = False
    swim_limit_mg_l: Annotated[Annotated[float, Field(gt=0, le=20, allow_inf_nan=False)] | None, AsTyped] = (
        None
    )
    kit: Annotated[str, Field(max_length=40)] = "drops"
    latitude_deg: Annotated[Annotated[float, Field(ge=-66, le=66, allow_inf_nan=False)] | None, AsTyped] = (
        None
    )
    longitude_deg: Annotated[
        Annotated[float, Field(ge=-180, le=180, allow_inf_nan=False)] | None, AsTyped
    ] = None

    own_ranges: Annotated[list[OwnRangeIn], Field(max_length=12)] = []
    choices: Annotated[list[ChosenIn], Field(max_length=20)] = []
    kit_order: Annotated[list[Measure], Field(max_length=12)] = []
    care_preset: Annotated[str, Field(max_length=20)] = ""
    season_months: Annotated[list[Annotated[int, Field(ge=1, le=12)]], Field(max_length=12)] = []

    def to_core(self) -> SettingsMade:
        values = self.model_dump()
        values["profile"] = values.pop("school")
        values["name"], values["place"] = self.name.strip(), self.place.strip()
        values["own_ranges"] = tuple(OwnRange(**own.model_dump()) for own in self.own_ranges)
        if len(set(self.kit_order)) != len(self.kit_order):
            raise InvalidInput(
                Message("A measure stands twice in the kit's order; keep it once."), "kit_order"
            )
        values["season_months"] = tuple(sorted(set(self.season_months)))
        values["kit_order"] = tuple(self.kit_order)
        values["choices"] = tuple(Chosen(**chosen.model_dump()) for chosen in self.choices)
        return SettingsMade(**values)


class FillWaterIn(ReadingsIn):
    """What the fill water holds, as typed."""

    ph: Annotated[PhValue | None, AsTyped] = None
    total_alkalinity: Annotated[Concentration | None, AsTyped] = None
    calcium_hardness: Annotated[Concentration | None, AsTyped] = None


class EquipmentIn(Strict):
    """`chlorination` may name a kind that is out of scope; it is refused with the reason."""

    surface: Surface
    chlorination: Annotated[str, Field(max_length=40)]
    filter: Filter
    indoor: StrictBool = False
    covered: StrictBool = False
    spa_apart: StrictBool = False
    fill_water: FillWaterIn = FillWaterIn()

    def to_core(self) -> EquipmentSet:
        refuse_if_out_of_scope(self.chlorination)
        try:
            chlorination = Chlorination(self.chlorination)
        except ValueError:
            known = ", ".join(Chlorination)
            raise InvalidInput(
                Message("chlorination must be one of: {known}.", known=Verbatim(known)), "chlorination"
            ) from None
        traits = Traits(
            surface=self.surface,
            chlorination=chlorination,
            filter=self.filter,
            indoor=self.indoor,
            covered=self.covered,
            spa_apart=self.spa_apart,
        )
        return EquipmentSet(traits, self.fill_water.to_core())


class StampIn(Strict):
    """`id` is made by the client, so that a resend is recognized; `at` is when it happened (default now)."""

    id: UUID
    at: Moment | None = None
    person_id: UUID | None = None


class PageQuery(Strict):
    """A page of pools, as query; `metric` as everywhere."""

    query: Annotated[str, Field(max_length=120, description="anywhere in name or place")] = ""
    sort: Order = Order.ATTENTION
    show: Shown = Shown.ALL
    limit: Annotated[int, Field(ge=1, le=MOST_A_PAGE)] = 50
    cursor: Annotated[str, Field(max_length=1000)] | None = None
    metric: bool = False

    def to_core(self) -> PageRequest:
        return PageRequest(
            query=self.query, order=self.sort, shown=self.show, most=self.limit, cursor=self.cursor
        )


class NewPoolIn(StampIn):
    settings: SettingsIn
    basin: BasinTyped
    equipment: EquipmentIn
    entry_ids: tuple[UUID, UUID, UUID]


class SettingsChange(StampIn):
    settings: SettingsIn


class BasinChange(StampIn):
    basin: BasinTyped


class EquipmentChange(StampIn):
    equipment: EquipmentIn
