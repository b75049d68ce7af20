"""What several entries are made of. As stored; see `base`."""

from pydantic import Field

from kumpan.core.pool.equipment import Traits
from kumpan.core.pool.plan_drawing import Fixture
from kumpan.core.pool.shapes import DepthPoint, Part
from kumpan.core.quantities.readings import Readings
from kumpan.core.ranges.choices import Chosen, OwnRange
from kumpan.core.records.containers import Container
from kumpan.core.records.derivation import Derivation, Input, Origin
from kumpan.core.records.step import Step
from kumpan.core.testing.methods import Measured
from kumpan.storage.wire.base import Wire, later_fields, renamed
from kumpan.storage.wire.words import (
    ChlorinationWord,
    ContainerKindWord,
    FilterWord,
    FixtureKindWord,
    HazardWord,
    MeasureWord,
    MethodWord,
    ShapeKindWord,
    SurfaceWord,
)


class OwnRangeV1(Wire):
    core = OwnRange

    measure: MeasureWord
    low: float | None
    high: float | None
    aim: float | None


class ChosenV1(Wire):
    core = Chosen

    question: str
    option: str


class DepthPointV1(Wire):
    core = DepthPoint

    distance_m: float
    depth_m: float


class PartV1(Wire):
    core = Part

    shape: ShapeKindWord
    length_m: float
    depth: tuple[DepthPointV1, ...]
    width_m: float | None = None
    second_width_m: float | None = None
    name: str = ""


class FixtureV1(Wire):
    core = Fixture

    kind: FixtureKindWord
    along: float


class TraitsV1(Wire):
    core = Traits

    surface: SurfaceWord
    chlorination: ChlorinationWord
    filter: FilterWord
    indoor: bool = False
    covered: bool = False
    spa_apart: bool = False

    _later = later_fields("spa_apart")


class ReadingsV1(Wire):
    core = Readings

    free_chlorine: float | None = None
    total_chlorine: float | None = None
    ph: float | None = None
    total_alkalinity: float | None = None
    calcium_hardness: float | None = None
    cyanuric_acid: float | None = None
    salt: float | None = None
    borate: float | None = None
    sulfate: float | None = None
    phosphate_ppb: float | None = None
    copper: float | None = None
    iron: float | None = None
    tds: float | None = None
    temperature_c: float | None = None

    _later = later_fields("iron", "tds")


class MeasuredV1(Wire):
    core = Measured

    measure: MeasureWord
    value: float
    low: float
    high: float
    method: MethodWord
    typed: str = ""


class InputV1(Wire):
    core = Input

    name: str
    value: str


class OriginV1(Wire):
    core = Origin

    kind: str
    reference: str
    note: str


class WorkingV1(Wire):
    core = Derivation

    equation: str
    inputs: tuple[InputV1, ...]
    origins: tuple[OriginV1, ...]


class StepV1(Wire):
    core = Step

    kind: str
    day: int
    offset_min: int
    title: str
    why: str
    hazard: HazardWord
    cautions: tuple[str, ...]
    minutes: int | None = None
    product_id: str | None = None
    chemical: str | None = None
    strength_percent: float | None = None
    density_g_per_ml: float | None = None
    mass_g: float | None = None
    volume_ml: float | None = None
    rounded_g: float | None = None
    rounded_ml: float | None = None
    rounded_text: str | None = None
    where: str | None = None
    pour_path: bool = False
    measures: tuple[MeasureWord, ...] = ()
    expected: dict[MeasureWord, float] = Field(default_factory=dict)
    side_effects: dict[MeasureWord, float] = Field(default_factory=dict)
    working: WorkingV1 | None = renamed("working", "derivation", default=None)
    range_text: str | None = None
    range_from: MeasureWord | None = None
    water_l: float | None = None


class ContainerV1(Wire):
    core = Container

    kind: ContainerKindWord
    name: str
    volume_ml: float | None = None
    mass_g: float | None = None
    product_id: str | None = None
    parts: int = 1
