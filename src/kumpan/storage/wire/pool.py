"""How a pool is built and set; tests, looks, what went in or out. As stored; see `base`."""

from uuid import UUID

from pydantic import Field

from kumpan.core.journal.pool_entries import (
    AdditionMade,
    BasinMeasured,
    CellSet,
    EquipmentSet,
    PhotoTaken,
    SettingsMade,
    SwimmersCounted,
    TestTaken,
    VisualCheck,
    WaterChanged,
)
from kumpan.storage.wire.base import Wire, later_fields, renamed
from kumpan.storage.wire.parts import (
    ChosenV1,
    FixtureV1,
    MeasuredV1,
    OwnRangeV1,
    PartV1,
    ReadingsV1,
    TraitsV1,
)
from kumpan.storage.wire.words import ClarityWord, LevelWord, MeasureWord, PhotoOfWord, WaterChangeWord


class SettingsV1(Wire):
    core = SettingsMade

    name: str
    place: str
    time_zone: str
    school: str = renamed("school", "profile")
    public: bool = False
    swim_limit_mg_l: float | None = None
    kit: str = "drops"
    latitude_deg: float | None = None
    longitude_deg: float | None = None
    own_ranges: tuple[OwnRangeV1, ...] = ()
    choices: tuple[ChosenV1, ...] = ()
    kit_order: tuple[MeasureWord, ...] = ()
    care_preset: str = ""
    season_months: tuple[int, ...] = ()


class BasinMeasuredV1(Wire):
    core = BasinMeasured

    volume_l: float
    parts: tuple[PartV1, ...] = ()
    fixtures: tuple[FixtureV1, ...] = ()
    volume_is_unknown: bool = False
    volume_uncertainty: float | None = None

    _later = later_fields("volume_is_unknown", "volume_uncertainty")


class EquipmentSetV1(Wire):
    core = EquipmentSet

    traits: TraitsV1
    fill_water: ReadingsV1 = Field(default_factory=ReadingsV1)


class TestV1(Wire):
    core = TestTaken

    values: tuple[MeasuredV1, ...]
    kit: str
    note: str = ""


class LookV1(Wire):
    core = VisualCheck

    clarity: ClarityWord
    level: LevelWord
    odd: tuple[str, ...] = ()
    note: str = ""


class AdditionV1(Wire):
    core = AdditionMade

    chemical: str
    strength_percent: float
    label: str
    mass_g: float
    volume_ml: float | None = None
    density_g_per_ml: float | None = None
    product_id: str | None = None
    sheet_id: UUID | None = renamed("sheet_id", "treatment_id", default=None)
    step_number: int | None = None


class WaterChangedV1(Wire):
    core = WaterChanged

    kind: WaterChangeWord
    volume_l: float
    note: str = ""
    sheet_id: UUID | None = renamed("sheet_id", "treatment_id", default=None)
    step_number: int | None = None


class CellSetV1(Wire):
    core = CellSet

    output_g_per_h: float
    percent: float
    hours_per_day: float


class SwimmersCountedV1(Wire):
    core = SwimmersCounted

    bather_hours: float


class PhotoTakenV1(Wire):
    core = PhotoTaken

    sha256: str
    shows: PhotoOfWord
    about: str = ""
    note: str = ""
    width: int = 0
    height: int = 0
