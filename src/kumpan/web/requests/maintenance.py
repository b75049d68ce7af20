"""What is told about a pool's care over HTTP: finished procedures, put-offs, intervals, events, the plant."""

from typing import Annotated
from uuid import UUID

from pydantic import Field, StrictBool

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import (
    CellKind,
    EventNoted,
    MachineKind,
    MachineSet,
    NotedEvent,
    OwnTask,
    PlantSet,
    PumpWindow,
)
from kumpan.core.messages import Message, Verbatim
from kumpan.core.quantities.typed import Dimension
from kumpan.core.quantities.units import Units
from kumpan.web.requests.base import AsTyped, Day, Moment
from kumpan.web.requests.journal import Note
from kumpan.web.requests.pools import StampIn, Typed, quantity

TaskKey = Annotated[str, Field(min_length=1, max_length=60)]
Positive = Annotated[float, Field(gt=0, le=1e6, allow_inf_nan=False)]
Minute = Annotated[int, Field(ge=0, le=1440, strict=True)]


class FinishIn(StampIn):
    """A procedure that was done, with the values taken in as typed: "18 psi", "90", "none"."""

    values: dict[Annotated[str, Field(max_length=40)], Typed] = {}
    note: Note = ""


class DoneIn(StampIn):
    task: TaskKey
    note: Note = ""


class PutOffIn(StampIn):
    """`until` a day to put it off to; without one it is left out this time, and `reason` says why."""

    task: TaskKey
    until: Day | None = None
    reason: Note = ""


class IntervalIn(StampIn):
    """Days of one's own; null takes the usual ones again; `off` takes the task off the list."""

    task: TaskKey
    days: Annotated[Annotated[float, Field(ge=1, le=4000, allow_inf_nan=False)] | None, AsTyped] = None
    off: StrictBool = False


class EventIn(StampIn):
    kind: NotedEvent
    note: Note = ""

    def to_core(self) -> EventNoted:
        return EventNoted(self.kind, self.note.strip())


class PressureIn(StampIn):
    """The gauge with the pump on, as typed: "18 psi", "1.2 bar"."""

    pressure: Typed


class PlantIn(StampIn):
    """Pump, filter and cell; an empty text means not known. Windows are minutes of the local day."""

    pump_flow: Typed = ""
    pump_kw: Annotated[Positive | None, AsTyped] = None
    price_per_kwh: Annotated[Annotated[float, Field(ge=0, le=1e4, allow_inf_nan=False)] | None, AsTyped] = (
        None
    )
    windows: Annotated[list[tuple[Minute, Minute]], Field(max_length=8)] = []
    clean_pressure: Typed = ""
    media_since: Moment | None = None
    cell_kind: CellKind = CellKind.SELF_CLEANING
    cell_since: Moment | None = None
    cell_rated_h: Annotated[Positive | None, AsTyped] = None
    solar: StrictBool = False

    def to_core(self, units: Units) -> PlantSet:
        flow = self._read(
            self.pump_flow, Dimension.FLOW, "l/min" if units is Units.METRIC else "gpm", "pump_flow"
        )
        clean = self._read(
            self.clean_pressure,
            Dimension.PRESSURE,
            "bar" if units is Units.METRIC else "psi",
            "clean_pressure",
        )
        if flow is not None and not 0 < flow <= 5000:
            raise InvalidInput(
                Message("A pump moves between 0 and 5000 L/min; check the number."), "pump_flow"
            )
        if clean is not None and not 0 <= clean <= 500:
            raise InvalidInput(
                Message("A clean filter reads between 0 and 70 psi; check the number."), "clean_pressure"
            )
        for name in ("media_since", "cell_since"):
            value = getattr(self, name)
            if value is not None and value.tzinfo is None:
                raise InvalidInput(
                    Message("{name}: a time needs its zone, like 2026-06-01T00:00:00Z.", name=Verbatim(name)),
                    name,
                )
        windows = tuple(PumpWindow(start, end % 1440) for start, end in self.windows)
        return PlantSet(
            pump_flow_l_min=flow,
            pump_kw=self.pump_kw,
            price_per_kwh=self.price_per_kwh,
            windows=windows,
            clean_pressure_kpa=clean,
            filter_area_m2=None,
            media_since=self.media_since,
            cell_kind=self.cell_kind,
            cell_since=self.cell_since,
            cell_rated_h=self.cell_rated_h,
            solar=self.solar,
        )

    @staticmethod
    def _read(text: str, dimension: Dimension, unit: str, field: str) -> float | None:
        return quantity(text, dimension, unit, field) if text.strip() else None


class InterviewIn(StampIn):
    tree: TaskKey
    answers: Annotated[list[Annotated[str, Field(max_length=20)]], Field(max_length=20)]


class MachineIn(StampIn):
    """A machine of the pool by its own id, as it is from now on; `gone`: it is there no more."""

    machine_id: UUID
    kind: MachineKind
    label: Annotated[str, Field(max_length=60)] = ""
    since: Day | None = None
    note: Note = ""
    gone: StrictBool = False

    def to_core(self) -> MachineSet:
        """As an entry."""
        return MachineSet(
            machine_id=self.machine_id,
            kind=self.kind,
            label=self.label.strip(),
            since=self.since,
            note=self.note.strip(),
            gone=self.gone,
        )


class PartIn(StampIn):
    """A part that was replaced, of a machine or (without one) of the pump, the filter or the cell."""

    part: Annotated[str, Field(min_length=1, max_length=80)]
    machine_id: UUID | None = None
    note: Note = ""


class OwnTaskIn(StampIn):
    """A task of one's own, for one pool or many: every so many `days`, on a `weekday` (0 is Monday), or
    `after` something happened; in some `months`, none for all.
    """

    pool_ids: Annotated[list[UUID], Field(min_length=1, max_length=500)]
    title: Annotated[str, Field(min_length=1, max_length=50)]
    days: Annotated[float, Field(ge=1, le=730)] | None = None
    weekday: Annotated[int, Field(ge=0, le=6)] | None = None
    after: NotedEvent | None = None
    months: Annotated[list[Annotated[int, Field(ge=1, le=12)]], Field(max_length=12)] = []
    note: Annotated[str, Field(max_length=200)] = ""

    def to_core(self) -> OwnTask:
        """Without its key, which follows from the title."""
        return OwnTask(
            task="",
            title=self.title,
            days=self.days,
            weekday=self.weekday,
            after=self.after,
            months=tuple(self.months),
            note=self.note,
        )


class LampsIn(StampIn):
    """The lamps that are lit, by key; none for all dark."""

    lamps: Annotated[list[Annotated[str, Field(max_length=20)]], Field(max_length=8)]


class DeviceIn(StampIn):
    """A device to poll from now on; an empty address unlinks it."""

    device: Annotated[str, Field(max_length=40)] = "controller"
    address: Annotated[str, Field(max_length=200)] = ""
