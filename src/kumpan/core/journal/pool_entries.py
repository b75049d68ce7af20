"""What is told about the pool itself and its water: how it is built and set, tests, looks, what went in or
out.
"""

from dataclasses import dataclass, field
from enum import StrEnum
from math import isclose
from uuid import UUID

from kumpan.core.pool.equipment import Traits
from kumpan.core.pool.plan_drawing import Fixture
from kumpan.core.pool.shapes import Part
from kumpan.core.pool.shapes import volume_l as volume_of_parts_l
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.choices import Chosen, OwnRange
from kumpan.core.testing.methods import Measured


class Clarity(StrEnum):
    """How clear the water looks."""

    CLEAR = "clear"
    HAZY = "hazy"
    CLOUDY = "cloudy"
    DRAIN_HIDDEN = "drain_hidden"
    GREEN = "green"


class Level(StrEnum):
    """Where the water stands at the skimmer."""

    LOW = "low"
    NORMAL = "normal"
    HIGH = "high"


@dataclass(frozen=True, kw_only=True)
class SettingsMade:
    """Name, place and habits of a pool. `swim_limit_mg_l` None means the school's.

    `latitude_deg`, `longitude_deg` (north and east positive) place it under the sun; None means the time
    zone's chief city. `own_ranges` go before the school's rows; `choices` answer the questions on which
    practitioners differ, the defaults where one is not named. `kit_order` is the order in which this pool's
    kit is read, empty for that of the usual box; `care_preset` whose intervals it is cared for by, empty
    for what fits it; `season_months` the months in season, empty for those of its latitude.
    """

    name: str
    place: str
    time_zone: str
    profile: str
    public: bool = False
    swim_limit_mg_l: float | None = None
    kit: str = "drops"
    latitude_deg: float | None = None
    longitude_deg: float | None = None
    own_ranges: tuple[OwnRange, ...] = ()
    choices: tuple[Chosen, ...] = ()
    kit_order: tuple[Measure, ...] = ()
    care_preset: str = ""
    season_months: tuple[int, ...] = ()


@dataclass(frozen=True, kw_only=True)
class BasinMeasured:
    """The basin: its volume and, unless the volume was typed, the parts it follows from.

    Where nobody knows the volume, `volume_l` is the water that amounts are given for, such as 1,000 gal.
    `volume_uncertainty` is how far it may be off, as a share, where the way it was found says so itself.
    """

    volume_l: float
    parts: tuple[Part, ...] = ()
    fixtures: tuple[Fixture, ...] = ()
    volume_is_unknown: bool = False
    volume_uncertainty: float | None = None

    @property
    def volume_is_typed(self) -> bool:
        """Whether the volume was told by itself; parts are then drawn only."""
        return not self.parts or not isclose(volume_of_parts_l(self.parts), self.volume_l, rel_tol=1e-6)


@dataclass(frozen=True)
class EquipmentSet:
    """What the pool is fitted with, and what its fill water holds."""

    traits: Traits
    fill_water: Readings = field(default_factory=Readings)


@dataclass(frozen=True)
class TestTaken:
    """A test: values with their doubt; combined chlorine measured by itself stands beside free."""

    __test__ = False  # not a test class for pytest

    values: tuple[Measured, ...]
    kit: str
    note: str = ""


@dataclass(frozen=True)
class VisualCheck:
    """What was seen before the test."""

    clarity: Clarity
    level: Level
    odd: tuple[str, ...] = ()
    note: str = ""

    @property
    def floor_hidden(self) -> bool:
        """Green, or so cloudy that the main drain cannot be seen."""
        return self.clarity in (Clarity.GREEN, Clarity.DRAIN_HIDDEN)


@dataclass(frozen=True, kw_only=True)
class AdditionMade:
    """What was poured. `sheet_id` and `step_number` tie it to the sheet's step that asked for it."""

    chemical: str
    strength_percent: float
    label: str
    mass_g: float
    volume_ml: float | None = None
    density_g_per_ml: float | None = None
    product_id: str | None = None
    treatment_id: UUID | None = None
    step_number: int | None = None


class WaterChange(StrEnum):
    """Why water left or came. Liters are what left and was made up, or what ran over."""

    BACKWASH = "backwash"
    REFILL = "refill"
    RAIN = "rain"
    DRAIN = "drain"


@dataclass(frozen=True, kw_only=True)
class WaterChanged:
    """So many liters of pool water replaced: by fill water, or by rain that ran over.

    `sheet_id` and `step_number` tie it to the sheet's step that asked for it.
    """

    kind: WaterChange
    volume_l: float
    note: str = ""
    treatment_id: UUID | None = None
    step_number: int | None = None


@dataclass(frozen=True)
class CellSet:
    """The salt cell from now on: grams of chlorine an hour at 100 %, its setting, and its hours a day."""

    output_g_per_h: float
    percent: float
    hours_per_day: float


@dataclass(frozen=True)
class SwimmersCounted:
    """Swimmers times hours, of one afternoon."""

    bather_hours: float


class PhotoOf(StrEnum):
    """What a photo shows."""

    LOOK = "look"
    STEP = "step"
    CARE = "care"
    EQUIPMENT = "equipment"
    VISIT = "visit"
    RESCUE = "rescue"


@dataclass(frozen=True, kw_only=True)
class PhotoTaken:
    """A photo by the SHA-256 of what is stored; `about` names the entry, task or machine it belongs to."""

    sha256: str
    shows: PhotoOf
    about: str = ""
    note: str = ""
    width: int = 0
    height: int = 0
