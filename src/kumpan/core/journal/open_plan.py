"""Which sheet is open, and which of its steps are done."""

from uuid import UUID

from kumpan.core.journal.entry import Entry
from kumpan.core.journal.fold import PoolState
from kumpan.core.journal.pool_entries import AdditionMade, WaterChanged
from kumpan.core.journal.treatment_entries import StepDone, TreatmentStarted

StepEntry = Entry[AdditionMade] | Entry[StepDone] | Entry[WaterChanged]


def open_treatment(state: PoolState) -> Entry[TreatmentStarted] | None:
    """The sheet that was started last, while it has steps that are neither ticked nor skipped."""
    if not state.treatments:
        return None
    treatment = state.treatments[-1]
    done = recorded_steps(state, treatment.id)
    if any(n not in done for n in steps_to_do(treatment.body)):
        return treatment
    return None


def steps_to_do(treatment: TreatmentStarted) -> list[int]:
    """The numbers of the steps that a person ticks: all but the waits."""
    return [number for number, step in enumerate(treatment.steps) if step.kind != "wait"]


def recorded_steps(state: PoolState, treatment_id: UUID) -> dict[int, StepEntry]:
    """Step number -> the entry that ticked it, for one sheet."""
    found: dict[int, StepEntry] = {}
    every: tuple[StepEntry, ...] = (*state.additions, *state.steps_done, *state.water_changes)
    for entry in every:
        if entry.body.treatment_id == treatment_id and entry.body.step_number is not None:
            found[entry.body.step_number] = entry
    return found
