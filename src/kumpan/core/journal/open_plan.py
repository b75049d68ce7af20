"""Which sheet is open, which of its steps are done, and which closed the pool and have not ended."""

from collections.abc import Iterable
from datetime import datetime
from uuid import UUID

from kumpan.core.journal.entry import Entry
from kumpan.core.journal.fold import PoolState
from kumpan.core.journal.pool_entries import AdditionMade, WaterChanged
from kumpan.core.journal.readings import last_reading
from kumpan.core.journal.treatment_entries import Outcome, StepDone, TreatmentStarted
from kumpan.core.quantities.readings import Measure
from kumpan.core.records.step import Step

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


# Plans that close the pool from their start until their end and the test that they end with.
CLOSING_PLANS = ("shock", "incident", "drain", "lower_chlorine", "rescue", "drain_day")


def unfinished_closures(state: PoolState) -> list[Entry[TreatmentStarted]]:
    """Plans that closed the pool and have not ended: steps open, or done and not tested for pH and chlorine.

    One that was left for another plan counts while anything of it was done; one put away whole changed
    nothing.
    """
    found = []
    for treatment in state.treatments:
        if treatment.body.plan not in CLOSING_PLANS:
            continue
        done = recorded_steps(state, treatment.id)
        is_open = any(n not in done for n in steps_to_do(treatment.body))
        ended = max((entry.at for entry in done.values()), default=treatment.at)
        goes_on = treatment is state.treatments[-1] and is_open
        if goes_on or (_worked(done.values()) and not _tested_since(state, ended)):
            found.append(treatment)
    return found


def next_step(state: PoolState, treatment: Entry[TreatmentStarted]) -> Step:
    """The first step of an open sheet that is not ticked yet."""
    done = recorded_steps(state, treatment.id)
    return next(treatment.body.steps[n] for n in steps_to_do(treatment.body) if n not in done)


def _worked(done: Iterable[StepEntry]) -> bool:
    return any(not isinstance(e.body, StepDone) or e.body.outcome is Outcome.DONE for e in done)


def _tested_since(state: PoolState, at: datetime) -> bool:
    found = [last_reading(state, measure) for measure in (Measure.FREE_CHLORINE, Measure.PH)]
    return all(one is not None and one.at > at for one in found)
