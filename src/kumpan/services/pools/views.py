"""What is seen of a pool: its header, board, outlook and history."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from kumpan.core.assessment.assessment import NextThing
from kumpan.core.assessment.swim import SwimAnswer
from kumpan.core.findings import Finding
from kumpan.core.journal import BasinMeasured, EquipmentSet, SettingsMade, VisualCheck
from kumpan.core.messages import Message
from kumpan.core.pool.plan_drawing import PlanDrawing
from kumpan.core.quantities.readings import Measure
from kumpan.wording.gauges import Gauge, GaugeMark


@dataclass(frozen=True, kw_only=True)
class PoolHeader:
    """The sign of the pool: name, swim answer, the one next thing; `treating` while a rescue goes on."""

    id: UUID
    settings: SettingsMade
    basin: BasinMeasured
    equipment: EquipmentSet
    swim: SwimAnswer
    next: NextThing
    notices: tuple[Finding, ...]
    last_test_at: datetime | None
    last_visual_check: VisualCheck | None
    last_visual_check_at: datetime | None
    treating: bool
    marks: tuple[GaugeMark, ...] = ()


@dataclass(frozen=True)
class PouredSince:
    """An addition since the test."""

    label: str
    at: datetime


@dataclass(frozen=True, kw_only=True)
class Board:
    """The lane board: lanes in order, the school that judges, when the water was tested, what went in
    since.
    """

    gauges: tuple[Gauge, ...]
    profile_name: Message
    tested_at: datetime | None
    kit: str | None
    temperature_c: float | None
    poured_since: tuple[PouredSince, ...]
    findings: tuple[Finding, ...]


@dataclass(frozen=True, kw_only=True)
class DayAhead:
    """Free chlorine (mg/L, low to high is the 90 percent band) and pH on one evening."""

    at: datetime
    low: float
    likely: float
    high: float
    under_range: bool
    ph: float | None


@dataclass(frozen=True, kw_only=True)
class OutlookView:
    """What is ahead: in sentences, the most pressing first, and as a strip of evenings."""

    sentences: tuple[Finding, ...]
    days: tuple[DayAhead, ...]
    runs_low_at: datetime | None
    loss_mg_l_day: float | None
    volume_hint_l: float | None


@dataclass(frozen=True)
class HistoryPoint:
    """A tested value with its doubt."""

    at: datetime
    value: float
    low: float
    high: float


@dataclass(frozen=True)
class HistoryMark:
    """Something that was done to the water, in words."""

    at: datetime
    kind: str
    text: Message


@dataclass(frozen=True)
class AheadPoint:
    """A measure at a later time: low to high is the 90 percent band."""

    at: datetime
    low: float
    likely: float
    high: float


@dataclass(frozen=True, kw_only=True)
class HistoryView:
    """One measure over time: its range, its tests, what was done, and the forecast band."""

    measure: Measure
    name: Message
    low: float | None
    high: float | None
    points: tuple[HistoryPoint, ...]
    marks: tuple[HistoryMark, ...]
    ahead: tuple[AheadPoint, ...]


@dataclass(frozen=True)
class BasinView:
    """Liters, plan area and mean depth of all parts together, and the drawing where there are parts."""

    volume_l: float
    area_m2: float | None
    mean_depth_m: float | None
    drawing: PlanDrawing | None
