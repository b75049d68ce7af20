"""Which sheet is open, and which of its steps are done."""

from uuid import UUID

from kumpan.core.journal.entry import Entry
from kumpan.core.journal.fold import PoolState
from kumpan.core.journal.pool_entries import AdditionMade, WaterChanged
from kumpan.core.journal.treatment_entries import SheetStarted, StepTicked

TickEntry = Entry[AdditionMade] | Entry[StepTicked] | Entry[WaterChanged]


def open_sheet(state: PoolState) -> Entry[SheetStarted] | None:
    """The sheet that was started last, while it has steps that are neither ticked nor skipped."""
    if not state.sheets:
        return None
    sheet = state.sheets[-1]
    done = ticked_steps(state, sheet.id)
    if any(n not in done for n in tickable(sheet.body)):
        return sheet
    return None


def tickable(sheet: SheetStarted) -> list[int]:
    """The numbers of the steps that a person ticks: all but the waits."""
    return [number for number, step in enumerate(sheet.steps) if step.kind != "wait"]


def ticked_steps(state: PoolState, sheet_id: UUID) -> dict[int, TickEntry]:
    """Step number -> the entry that ticked it, for one sheet."""
    found: dict[int, TickEntry] = {}
    every: tuple[TickEntry, ...] = (*state.additions, *state.ticks, *state.water_changes)
    for entry in every:
        if entry.body.sheet_id == sheet_id and entry.body.step_number is not None:
            found[entry.body.step_number] = entry
    return found
