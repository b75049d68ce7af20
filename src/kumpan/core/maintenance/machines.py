"""Cleaners, feeders, covers, heaters and more machines of a pool, each with care of its own.

Source: machine-care.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from uuid import UUID

from kumpan.core.hazards import Hazard
from kumpan.core.journal import Entry, MachineKind, MachineSet, PartReplaced, PoolState
from kumpan.core.messages import Message

SOURCE = "machine-care"

MACHINE = "machine_"
YEAR = 365.0
K = MachineKind


@dataclass(frozen=True)
class MachineCare:
    """Care of a kind of machine: how often (days), what being late costs, how it is done, all year or in season."""

    key: str
    title: Message
    days: float
    late: Message
    procedure: str | None = None
    hazard: Hazard = Hazard.NONE
    all_year: bool = False


@dataclass(frozen=True)
class MachineRow:
    """A kind of machine by its name, and its care."""

    name: Message
    care: tuple[MachineCare, ...]


# Handbook 08 (cleaners, their own filters, wheels and hose), 09 (covers), 05 (feeders); intervals by common practice.
KINDS: Mapping[MachineKind, MachineRow] = {
    K.SUCTION_CLEANER: MachineRow(Message("Suction cleaner"), (
        MachineCare("throat", Message("Clear the suction cleaner’s throat, skirt and hose"), 14, Message("It stands still, and the pump runs short of water.")),
        MachineCare("wear", Message("Look at the suction cleaner’s skirt and hose for wear"), 91, Message("A worn skirt misses what it should lift.")),
    )),
    K.PRESSURE_CLEANER: MachineRow(Message("Pressure cleaner with a booster"), (
        MachineCare("bag", Message("Empty the pressure cleaner’s bag"), 7, Message("A full bag drops its dirt again."), "booster_cleaner"),
        MachineCare("wear", Message("Look at the pressure cleaner’s wheels and hose"), 30, Message("It goes in circles, the hose leaks.")),
    )),
    K.ROBOT: MachineRow(Message("Robot cleaner"), (
        MachineCare("filter", Message("Wash the robot’s own filter and dry it"), 7, Message("It blows fine dust back."), "robot", Hazard.ELECTRICITY),
        MachineCare("wear", Message("Look at the robot’s brushes and cable"), 30, Message("A nicked cable is a danger in the water."), "robot", Hazard.ELECTRICITY),
    )),
    K.FEEDER: MachineRow(Message("Chlorine feeder"), (
        MachineCare("feeder", Message("Feeder: o-ring, setting, tablets; flow off, pressure gone, face away"), 14, Message("It runs empty, or leaks."), None, Hazard.TABLETS),
    )),
    K.FLOATER: MachineRow(Message("Floating feeder"), (
        MachineCare("floater", Message("Floater: setting and tablets, away from steps and liner"), 7, Message("It runs empty; stuck in a corner it bleaches it."), None, Hazard.TABLETS),
    )),
    K.COVER: MachineRow(Message("Cover"), (
        MachineCare("cover", Message("Cover: tears, straps, tracks; water on it pumped off"), 14, Message("Water on a cover drowns children: nobody on or under it."), None, Hazard.ELECTRICITY, all_year=True),
    )),
    K.SOLAR_BLANKET: MachineRow(Message("Solar blanket"), (
        MachineCare("blanket", Message("Rinse the solar blanket on both sides"), 30, Message("Its underside holds algae.")),
    )),
    K.GAS_HEATER: MachineRow(Message("Gas heater"), (
        MachineCare("service", Message("Gas heater: yearly service by a licensed trade"), YEAR, Message("Soot, gas and a failed exchanger give no warning."), None, all_year=True),
    )),
    K.HEAT_PUMP: MachineRow(Message("Heat pump"), (
        MachineCare("coil", Message("Leaves and dust off the heat pump’s coil, power off"), 91, Message("It uses more and gives less."), None, Hazard.ELECTRICITY),
    )),
    K.SOLAR_HEATER: MachineRow(Message("Solar panels"), (
        MachineCare("joints", Message("Solar panels: joints, relief valve, sensor"), 182, Message("A leak on a roof is found late.")),
    )),
    K.AUTOMATION: MachineRow(Message("Automation"), (
        MachineCare("probes", Message("Automation: clock, freeze guard, probes against a hand test"), 30, Message("A probe that drifted doses by a wrong number."), None, all_year=True),
    )),
    K.SECOND_FILTER: MachineRow(Message("Second filter"), (
        MachineCare("filter", Message("Second filter: gauge, and cleaned when it is 8 psi over clean"), 28, Message("The flow goes the easier way, past the dirt."), None, Hazard.PRESSURE),
    )),
    K.SECOND_PUMP: MachineRow(Message("Second pump"), (
        MachineCare("basket", Message("Second pump: basket and o-ring, off at the breaker"), 7, Message("It runs short of water."), "baskets", Hazard.ELECTRICITY),
    )),
}  # fmt: skip


@dataclass(frozen=True)
class Machine:
    """A machine as it stands: when it was told of last, and its parts replaced, the latest first."""

    entry: Entry[MachineSet]
    parts: tuple[Entry[PartReplaced], ...]

    @property
    def body(self) -> MachineSet:
        """What it is."""
        return self.entry.body


def machines(state: PoolState) -> tuple[Machine, ...]:
    """Those that are there, the oldest first."""
    last: dict[UUID, Entry[MachineSet]] = {entry.body.machine_id: entry for entry in state.machines}
    return tuple(
        Machine(entry, parts_of_machine(state, key)) for key, entry in last.items() if not entry.body.gone
    )


def parts_of_machine(state: PoolState, machine_id: UUID | None) -> tuple[Entry[PartReplaced], ...]:
    """Parts replaced of one machine (None: of pump, filter and cell), the latest first."""
    return tuple(e for e in reversed(state.parts_replaced) if e.body.machine_id == machine_id)


def task_of(machine: MachineSet, care: MachineCare) -> str:
    """The task's key: the machine's and the care's."""
    return f"{MACHINE}{machine.machine_id.hex[:12]}_{care.key}"


def machine_tasks(state: PoolState) -> Iterator[tuple[Machine, MachineCare, str]]:
    """All care of all machines, with its task's key."""
    for machine in machines(state):
        for care in KINDS[machine.body.kind].care:
            yield machine, care, task_of(machine.body, care)


def title_of(key: str) -> Message | None:
    """What a task of a machine is, by its key alone; None for any other task."""
    if not key.startswith(MACHINE):
        return None
    end = key.rpartition("_")[2]
    return next((care.title for row in KINDS.values() for care in row.care if care.key == end), None)
