"""Answers about maintenance: what is due, procedures, equipment."""

from datetime import date, datetime
from uuid import UUID

from kumpan.core.hazards import Hazard
from kumpan.core.journal import MachineKind
from kumpan.core.journal.maintenance_entries import CellKind
from kumpan.core.maintenance.due import Standing
from kumpan.core.maintenance.fault_tree import Part
from kumpan.core.maintenance.tasks import Preset
from kumpan.core.quantities.readings import Measure
from kumpan.web.responses.base import Response, Text, read_from
from kumpan.web.responses.shared import Finding


class DueItem(Response):
    """One thing on the list.

    `task` is what is done, snoozed or left out by; `days` its interval where it has one.
    """

    task: Text
    title: Text
    due_on: date
    standing: Standing
    late_days: int
    why: Text
    early: Text
    late: Text
    procedure: Text | None
    station: Text | None
    days: float | None
    last_on: date | None
    put_off_until: date | None
    measures: tuple[Measure, ...]
    ahead: tuple[date, ...]


class TodayView(Response):
    """What is due now and soon at a pool, most pressing first; how many lie later, and the next of those."""

    day: date
    items: tuple[DueItem, ...]
    later: int
    next_later: date | None


class IntervalOffer(Response):
    """An interval that the log suggests for a task, days, and why."""

    task: Text
    days: float
    why: Text


class ProcedureChoice(Response):
    key: Text
    title: Text


class PumpWindow(Response):
    """When the timer runs the pump, minutes of the local day; an end before its start goes over midnight."""

    start_min: int
    end_min: int


class PlantSet(Response):
    """Pump, filter and cell as they are from now on; None where nobody knows."""

    pump_flow_l_min: float | None
    pump_kw: float | None
    price_per_kwh: float | None
    windows: tuple[PumpWindow, ...]
    clean_pressure_kpa: float | None
    filter_area_m2: float | None
    media_since: datetime | None
    cell_kind: CellKind
    cell_since: datetime | None
    cell_rated_h: float | None
    solar: bool


class CareView(Response):
    """Every task with its date; suggestions; procedures; what was taken off; whose intervals hold, and the
    plant.
    """

    items: tuple[DueItem, ...]
    offers: tuple[IntervalOffer, ...]
    procedures: tuple[ProcedureChoice, ...]
    off: tuple[ProcedureChoice, ...]
    preset: Preset
    usual_preset: Preset
    season_months: tuple[int, ...]
    plant: PlantSet


class CalendarDay(Response):
    day: date
    items: tuple[DueItem, ...]


class AskView(Response):
    """A value that a step takes in: its label, the unit that a bare number is read in, or its choices."""

    name: Text
    label: Text
    unit: Text
    choices: tuple[Text, ...]


class StepView(Response):
    """One step of a procedure; a timer from and to, in seconds."""

    text: Text
    hazard: Hazard
    cautions: tuple[Text, ...]
    timer_from_s: int | None
    timer_to_s: int | None
    asks: tuple[AskView, ...]


class ProcedureView(Response):
    key: Text
    title: Text
    materials: tuple[Text, ...]
    steps: tuple[StepView, ...]
    asks_at_end: tuple[AskView, ...]
    wastes_water: bool


class FinishedView(Response):
    """What finishing led to: the next dates, and a word on the water that went."""

    entry_id: UUID
    next_dates: tuple[Text, ...]
    water_text: Text


class CellSet(Response):
    """The salt cell from now on: grams of chlorine an hour at 100 %, its setting, and its hours a day."""

    output_g_per_h: float
    percent: float
    hours_per_day: float


class Knobs(Response):
    """One way to set the cell: percent and hours a day."""

    percent: float
    hours: float


class CellBalance(Response):
    """mg/L a day that it makes now and that the pool uses; ways to set it that hold; what 24 h at 100 %
    adds.
    """

    makes_mg_l_day: float
    uses_mg_l_day: float | None
    settings: tuple[Knobs, ...]
    boost_mg_l: float
    boost_text: Text
    undersized: bool
    findings: tuple[Finding, ...]


class CellLife(Response):
    """Hours at output so far, the rated hours, what is left, and when it ends at the present pace."""

    run_h: float
    rated_h: float
    left_h: float
    ends_at: datetime | None


class IndexPoint(Response):
    at: datetime
    index: float


class Tree(Response):
    """One complaint with its questions in order."""

    key: Text
    title: Text
    first: Text
    part: Part


class LampView(Response):
    """A lamp of the unit, whether it was lit when last told, and the interview that looks into it."""

    key: Text
    name: Text
    lit: bool
    tree: Text


class CellView(Response):
    """The cell's bench; `setting` None until it is told once. `index_text` is the mean of the last weeks,
    and what it means for the cell.
    """

    setting: CellSet | None
    bench: CellBalance | None = read_from("balance")
    life: CellLife | None
    index: tuple[IndexPoint, ...]
    index_text: Text | None
    washes: int
    trees: tuple[Tree, ...]
    lamps: tuple[LampView, ...]


class PressurePoint(Response):
    at: datetime
    pressure_kpa: float


class PressureTrend(Response):
    """The gauge since the last cleaning, kPa.

    `limit_at` is the day it is fitted to reach the limit, if it rises.
    """

    points: tuple[PressurePoint, ...]
    clean_kpa: float
    clean_known: bool
    last_kpa: float
    last_at: datetime
    rise_kpa: float
    rise_kpa_a_day: float | None
    limit_at: datetime | None


class FilterView(Response):
    """The filter's gauge over time, kPa; `doubt` is a word on the gauge itself."""

    trend: PressureTrend | None
    clean_kpa: float
    clean_known: bool
    limit_kpa: float
    doubt: Text = read_from("uncertainty")
    media_age_days: int | None
    media_due: bool


class CirculationView(Response):
    """Hours a day, turnovers a day and one turnover's hours where the flow is known, kWh and money a day."""

    hours: float
    turnovers: float | None
    turnover_h: float | None
    kwh_day: float | None
    cost_day: float | None
    windows: tuple[PumpWindow, ...]
    suggested: tuple[PumpWindow, ...]
    wanted_hours: float
    findings: tuple[Finding, ...]


class DeviceReading(Response):
    """What a controller or weather station says at a moment; None where it says nothing."""

    output_percent: float | None
    salinity_mg_l: float | None
    water_c: float | None
    flow: bool | None
    pressure_kpa: float | None
    rain_mm: float | None
    air_c: float | None
    uv_index: float | None
    lamps: tuple[Text, ...]


class DeviceView(Response):
    """A device as it stands: its last reading and how long ago; `address` empty where none is linked."""

    device: Text
    address: Text
    last: DeviceReading | None
    last_at: datetime | None
    silent_min: int | None


class PartView(Response):
    """A part that was replaced, when, and a word on it."""

    entry_id: UUID
    at: datetime
    part: Text
    note: Text


class MachineChoice(Response):
    """A kind of machine to choose."""

    kind: MachineKind
    name: Text


class MachineView(Response):
    """A machine of the pool: its kind by name, its label, since when, and its parts replaced."""

    machine_id: UUID
    kind: MachineKind
    name: Text
    label: Text
    since: date | None
    note: Text
    parts: tuple[PartView, ...]


class EquipmentView(Response):
    cell: CellView | None
    filter: FilterView
    circulation: CirculationView
    device: DeviceView
    trees: tuple[Tree, ...]
    machines: tuple[MachineView, ...]
    kinds: tuple[MachineChoice, ...]
    parts: tuple[PartView, ...]


class Reply(Response):
    """An answer, and the question it leads to; or, at an end, the `outcome`'s key."""

    key: Text
    label: Text
    leads_to: Text


class Ask(Response):
    """A question, and how to find its answer out."""

    key: Text
    text: Text
    test: Text
    replies: tuple[Reply, ...]
    hazard: Hazard


class End(Response):
    """What it came to, and what to do now. `station` is a screen, `procedure` a piece of care."""

    key: Text
    title: Text
    action: Text
    procedure: Text | None
    station: Text | None
    hazard: Hazard


class Interview(Response):
    """Where an interview stands: the next question, or what it came to; with the cautions of that place."""

    ask: Ask | None
    end: End | None
    cautions: tuple[Text, ...]


class AcidBath(Response):
    """What goes into the container, mL: the water first; and the strength that results, percent by weight."""

    water_ml: float
    acid_ml: float
    strength_percent: float
