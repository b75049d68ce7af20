"""What several answers have in common."""

from datetime import datetime
from uuid import UUID

from kumpan.core.assessment.swim import SwimCode
from kumpan.core.hazard_pictograms import Pictogram
from kumpan.core.hazards import Hazard
from kumpan.core.journal.pool_entries import Clarity, Level
from kumpan.core.pool.equipment import Chlorination, Filter, Surface
from kumpan.core.pool.plan_drawing import FixtureKind
from kumpan.core.pool.shapes import ShapeKind
from kumpan.core.quantities.readings import Measure
from kumpan.core.ranges.verdicts import VerdictCode
from kumpan.storage.repositories.summaries import Shown
from kumpan.web.responses.base import Response, Text, read_from


class Finding(Response):
    """Something worth knowing, with a stable `code`, the measure it is about, and one plain sentence."""

    code: Text
    text: Text
    measure: Text | None
    fields: dict[str, Text | float | int | bool | None]


class Readings(Response):
    """One water as measured; None means not known."""

    free_chlorine: float | None
    total_chlorine: float | None
    ph: float | None
    total_alkalinity: float | None
    calcium_hardness: float | None
    cyanuric_acid: float | None
    salt: float | None
    borate: float | None
    sulfate: float | None
    phosphate_ppb: float | None
    copper: float | None
    iron: float | None
    tds: float | None
    temperature_c: float | None


class Input(Response):
    """One figure that went into a number, with its unit in the text."""

    name: Text
    value: Text


class Origin(Response):
    """A source as a reader sees it: the reference, its kind, and its reservations."""

    kind: Text
    reference: Text
    note: Text


class Derivation(Response):
    """How a number came about: one or a few plain sentences, the inputs, the sources."""

    equation: Text
    inputs: tuple[Input, ...]
    origins: tuple[Origin, ...]


class HazardSign(Response):
    """A caution in short: which pictogram, and its words."""

    sign: Pictogram = read_from("pictogram")
    text: Text


class Step(Response):
    """One line of the run sheet. `kind` is add, wait, test or do; amounts only for add.

    `mass_low_g` to `mass_high_g` holds the true dose in 95 of 100 cases; `reason_code` is what it is for.
    """

    kind: Text
    day: int
    offset_min: int
    title: Text
    why: Text
    hazard: Hazard
    cautions: tuple[Text, ...]
    signs: tuple[HazardSign, ...] = read_from("pictograms")
    minutes: int | None
    product_id: Text | None
    chemical: Text | None
    strength_percent: float | None
    density_g_per_ml: float | None
    mass_g: float | None
    volume_ml: float | None
    rounded_g: float | None
    rounded_ml: float | None
    rounded_text: Text | None
    where: Text | None
    pour_path: bool
    measures: tuple[Measure, ...]
    expected: dict[Measure, float]
    side_effects: dict[Measure, float]
    working: Derivation | None = read_from("derivation")
    range_text: Text | None
    range_from: Measure | None
    mass_low_g: float | None
    mass_high_g: float | None
    reason_code: Text
    water_l: float | None


class Unmet(Response):
    """A measure that this plan leaves where it is, with a stable code and the reason."""

    measure: Measure
    code: Text
    reason: Text


class PlacedFixture(Response):
    kind: FixtureKind
    along: float
    at: tuple[float, float]


class DepthMark(Response):
    at: tuple[float, float]
    depth_m: float


class PlanDrawing(Response):
    """All in meters; y grows downward as on a screen. `pour_path` runs along the deep end's edge."""

    width_m: float
    height_m: float
    outlines: tuple[tuple[tuple[float, float], ...], ...]
    fixtures: tuple[PlacedFixture, ...]
    depth_marks: tuple[DepthMark, ...]
    sample_at: tuple[float, float]
    pour_path: tuple[tuple[float, float], ...]


class OwnRange(Response):
    """A range of one's own, in the measure's inner unit; a dose goes to `aim`. None means no such side."""

    measure: Measure
    low: float | None
    high: float | None
    aim: float | None


class Chosen(Response):
    """The option taken for one question on which practitioners differ, by their keys."""

    question: Text
    option: Text


class SettingsMade(Response):
    """Name, place and habits of a pool. `swim_limit_mg_l` None means the school's."""

    name: Text
    place: Text
    time_zone: Text
    school: Text = read_from("profile")
    public: bool
    swim_limit_mg_l: float | None
    kit: Text
    latitude_deg: float | None
    longitude_deg: float | None
    own_ranges: tuple[OwnRange, ...]
    choices: tuple[Chosen, ...]
    kit_order: tuple[Measure, ...]
    care_preset: Text
    season_months: tuple[int, ...]


class DepthPoint(Response):
    """Depth at a distance from the shallow end's wall, both in meters."""

    distance_m: float
    depth_m: float


class BasinPart(Response):
    """One part of a pool. `length_m` is the diameter of a round one; a kidney has two lobe widths."""

    shape: ShapeKind
    length_m: float
    depth: tuple[DepthPoint, ...]
    width_m: float | None
    second_width_m: float | None
    name: Text


class Fixture(Response):
    """A fixture at `along` the edge (0 to 1); a drain sits in the floor of the deep half."""

    kind: FixtureKind
    along: float


class BasinMeasured(Response):
    """The basin: its volume and, unless the volume was typed, the parts it follows from."""

    volume_l: float
    parts: tuple[BasinPart, ...]
    fixtures: tuple[Fixture, ...]
    volume_is_typed: bool
    volume_is_unknown: bool
    volume_uncertainty: float | None


class Traits(Response):
    """The traits of a pool that ranges and doses depend on."""

    surface: Surface
    chlorination: Chlorination
    filter: Filter
    indoor: bool
    covered: bool
    spa_apart: bool


class EquipmentSet(Response):
    traits: Traits
    fill_water: Readings


class SwimReason(Response):
    """Something that stands against swimming, or is said beside a yes; `measures`, `entries` of the journal
    and the `law` of advice are what it stands on.
    """

    code: str
    text: Text
    measures: tuple[Measure, ...]
    entries: tuple[UUID, ...]
    law: str


class SwimAnswer(Response):
    """The answer at the head of the pool. `not_before` is when a test may open it, for that code.

    `because` is all that stands against it, or is said beside a yes; `also` what the text does not say;
    `reasons` the words of all of them.
    """

    code: SwimCode
    text: Text
    not_before: datetime | None
    reasons: tuple[Text, ...]
    because: tuple[SwimReason, ...]
    also: tuple[SwimReason, ...]


class NextThing(Response):
    """`station` is the screen where it is done: slip, sheet, board, rescue, care or identify."""

    code: Text
    text: Text
    why: Text
    station: Text
    due: datetime | None


class VisualCheck(Response):
    clarity: Clarity
    level: Level
    odd: tuple[Text, ...]
    note: Text


class Spot(Response):
    """A place on the lane, in bands from the left rope; `off_edge` is -1 or 1 when an arrow stands for it."""

    position: float
    off_edge: int


class LaneMark(Response):
    """One measure as a tick in a list: where it stands, None where it is not known or has no lane."""

    measure: Measure
    at: Spot | None
    code: str


class PoolHeader(Response):
    """The sign of the pool: name, swim answer, the one next thing; `treating` while a rescue goes on."""

    id: UUID
    settings: SettingsMade
    basin: BasinMeasured
    equipment: EquipmentSet
    swim: SwimAnswer
    next: NextThing
    notices: tuple[Finding, ...]
    last_test_at: datetime | None
    last_look: VisualCheck | None = read_from("last_visual_check")
    last_look_at: datetime | None = read_from("last_visual_check_at")
    treating: bool
    marks: tuple[LaneMark, ...]


class UnreadablePool(Response):
    """A pool whose journal cannot be told now, and why; `name` empty where not even that can be read."""

    id: UUID
    name: str
    why: str


class PoolPage(Response):
    """A page of pools; `cursor` leads to the next one, None at the end; `counts` by what can be shown."""

    pools: tuple[PoolHeader, ...]
    counts: dict[Shown, int]
    unreadable: tuple[UnreadablePool, ...]
    cursor: str | None


class Float(Response):
    """A reading on its lane: the value, and its doubt as a bar from `low` to `high`."""

    value: float
    low: float
    high: float
    at: Spot
    low_at: Spot
    high_at: Spot


class Verdict(Response):
    code: VerdictCode
    text: Text


class BuyLine(Response):
    """What to buy and why; `packages_text` empty where no package is known, `cost` None without a price."""

    product_id: Text
    label: Text
    short_text: Text
    packages_text: Text
    cost: float | None
    why: Text
