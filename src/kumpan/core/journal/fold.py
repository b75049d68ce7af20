"""The pool as it stands, folded from its entries."""

from collections.abc import Callable, Hashable, Iterable, Mapping, Sequence
from dataclasses import dataclass, fields
from datetime import datetime
from functools import cached_property, wraps
from typing import Any, Concatenate, ParamSpec, TypeVar, cast
from uuid import UUID

from kumpan.core.journal.algae_entries import RescueEnded, RescueSet
from kumpan.core.journal.device_entries import DeviceChanged, DeviceDay, DeviceLinked
from kumpan.core.journal.entry import Entry, NotUnderstood, Voided
from kumpan.core.journal.kinds import BY_BODY
from kumpan.core.journal.maintenance_entries import (
    CareDone,
    CareInterval,
    CarePutOff,
    EventNoted,
    FeedOpened,
    InterviewHeld,
    MachineSet,
    OwnTask,
    PartReplaced,
    PlantSet,
    PressureRead,
)
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
from kumpan.core.journal.season_entries import ClimateSet, ListItemDone, SeasonListSaved
from kumpan.core.journal.treatment_entries import StepDone, TreatmentStarted
from kumpan.core.journal.workspace_entries import VisitBegun, VisitDone


@dataclass(frozen=True, kw_only=True)
class PoolState:
    """The pool as it stands at a time: everything here follows from the effective entries."""

    settings: SettingsMade | None
    basin: BasinMeasured | None
    equipment: EquipmentSet | None
    tests: tuple[Entry[TestTaken], ...] = ()
    visual_checks: tuple[Entry[VisualCheck], ...] = ()
    additions: tuple[Entry[AdditionMade], ...] = ()
    treatments: tuple[Entry[TreatmentStarted], ...] = ()
    steps_done: tuple[Entry[StepDone], ...] = ()
    water_changes: tuple[Entry[WaterChanged], ...] = ()
    cell_settings: tuple[Entry[CellSet], ...] = ()
    swims: tuple[Entry[SwimmersCounted], ...] = ()
    visits: tuple[Entry[VisitDone], ...] = ()
    visits_begun: tuple[Entry[VisitBegun], ...] = ()
    events: tuple[Entry[EventNoted], ...] = ()
    pressures: tuple[Entry[PressureRead], ...] = ()
    plants: tuple[Entry[PlantSet], ...] = ()
    care: tuple[Entry[CareDone], ...] = ()
    put_off: tuple[Entry[CarePutOff], ...] = ()
    intervals: tuple[Entry[CareInterval], ...] = ()
    own_tasks: tuple[Entry[OwnTask], ...] = ()
    machines: tuple[Entry[MachineSet], ...] = ()
    parts_replaced: tuple[Entry[PartReplaced], ...] = ()
    photos: tuple[Entry[PhotoTaken], ...] = ()
    interviews: tuple[Entry[InterviewHeld], ...] = ()
    feeds: tuple[Entry[FeedOpened], ...] = ()
    devices: tuple[Entry[DeviceLinked], ...] = ()
    device_days: tuple[Entry[DeviceDay], ...] = ()
    device_changes: tuple[Entry[DeviceChanged], ...] = ()
    rescues: tuple[Entry[RescueSet], ...] = ()
    rescue_ends: tuple[Entry[RescueEnded], ...] = ()
    season_lists: tuple[Entry[SeasonListSaved], ...] = ()
    list_items_done: tuple[Entry[ListItemDone], ...] = ()
    climates: tuple[Entry[ClimateSet], ...] = ()
    not_understood: tuple[Entry[NotUnderstood], ...] = ()
    pool_id: UUID | None = None

    @cached_property
    def _hash(self) -> int:
        return hash(tuple(entry.id for name in LISTS for entry in getattr(self, name)))

    def __hash__(self) -> int:
        """By the entries' ids alone: a season has hundreds, and a state is asked about many times."""
        return self._hash

    @cached_property
    def found(self) -> dict[Hashable, Any]:
        """What pure functions have found of this state; see `once_a_state`."""
        return {}

    def __getstate__(self) -> dict[str, Any]:
        """Only the entries go to another process, not what was found of them here."""
        return {field.name: getattr(self, field.name) for field in fields(self)}

    @property
    def entered_at(self) -> datetime | None:
        """When the last of the entries happened; None without any."""
        return max((entry.at for name in LISTS for entry in getattr(self, name)), default=None)

    def only(self, *lists: str) -> "PoolState":
        """The same pool with nothing in it but some lists of entries, for what depends on these alone."""
        return PoolState(
            settings=None, basin=None, equipment=None, **{name: getattr(self, name) for name in lists}
        )

    @property
    def plant(self) -> PlantSet:
        """Pump, filter and cell as they stand."""
        return self.plants[-1].body if self.plants else PlantSet()

    @property
    def rescue_goes_on(self) -> bool:
        """A rescue was begun and not ended."""
        if not self.rescues or not self.rescue_ends:
            return bool(self.rescues)
        return self.rescues[-1].at > self.rescue_ends[-1].at

    @property
    def last_test(self) -> Entry[TestTaken] | None:
        """The latest test, if there is one."""
        return self.tests[-1] if self.tests else None

    @property
    def last_visual_check(self) -> VisualCheck | None:
        """The latest visual check, if there is one."""
        return self.visual_checks[-1].body if self.visual_checks else None


B = TypeVar("B")
P = ParamSpec("P")
R = TypeVar("R")


def once_a_state(
    function: Callable[Concatenate[PoolState, P], R],
) -> Callable[Concatenate[PoolState, P], R]:
    """Decorates a pure function of a state: its answer is kept with the state, and goes with it.

    A state never changes, and one assessment asks for the same history dozens of times. Answers must not be
    changed by who gets them.
    """

    @wraps(function)
    def answered(state: PoolState, /, *args: P.args, **kwargs: P.kwargs) -> R:
        question = (function, args, tuple(kwargs.items()))
        if question not in state.found:
            state.found[question] = function(state, *args, **kwargs)
        found: R = state.found[question]
        return found

    return answered


NOT_UNDERSTOOD = "not_understood"
_NO_LISTS = ("settings", "basin", "equipment", "pool_id")
LISTS = tuple(field.name for field in fields(PoolState) if field.name not in _NO_LISTS)


def in_order(entries: Iterable[Entry]) -> list[Entry]:
    """By the time it happened, then the time it was recorded; entry order does not matter."""
    return sorted(entries, key=lambda entry: (entry.at, entry.recorded_at, str(entry.id)))


def effective(entries: Iterable[Entry], until: datetime | None = None) -> list[Entry]:
    """What counts: superseded entries and voids are gone, and so is what happened after `until`."""
    listed = list(entries)
    replaced = {entry.supersedes for entry in listed if entry.supersedes is not None}
    return in_order(
        entry
        for entry in listed
        if entry.id not in replaced
        and not isinstance(entry.body, Voided)
        and (until is None or entry.at <= until)
    )


def fold(entries: Iterable[Entry], until: datetime | None = None) -> PoolState:
    """The pool as it stands at `until`; the latest settings, basin and equipment count."""
    found: dict[str, list[Entry]] = {}
    counting = effective(entries, until)
    for entry in counting:
        into = (
            NOT_UNDERSTOOD if isinstance(entry.body, NotUnderstood) else BY_BODY[type(entry.body)].folds_into
        )
        if into is not None:
            found.setdefault(into, []).append(entry)
    lists: dict[str, Any] = {name: tuple(found.get(name, ())) for name in LISTS}
    return PoolState(
        settings=_latest(found, "settings"),
        basin=_latest(found, "basins"),
        equipment=_latest(found, "equipments"),
        pool_id=counting[0].pool_id if counting else None,
        **lists,
    )


def _latest(found: Mapping[str, Sequence[Entry]], name: str) -> Any:
    """The newest body of a list; what it is follows from the table of kinds."""
    entries = found.get(name)
    return entries[-1].body if entries else None


def of_kind(entries: Iterable[Entry], body: type[B]) -> list[Entry[B]]:
    """Those of one kind, in the order given, each with its body's type."""
    return [cast("Entry[B]", entry) for entry in entries if isinstance(entry.body, body)]
