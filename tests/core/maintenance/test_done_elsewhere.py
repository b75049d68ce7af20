"""A backwash in a rescue, a cleaning in an opening: care that was done, and not asked for again the next day."""

from uuid import UUID

from kumpan.core.algae.preparing import PREPARE
from kumpan.core.hazards import Hazard
from kumpan.core.journal import CareDone, ListItemDone, Outcome, StepDone, TreatmentStarted
from kumpan.core.maintenance.done_elsewhere import LIST_ITEMS
from kumpan.core.maintenance.due import Standing
from kumpan.core.maintenance.procedures import PROCEDURES
from kumpan.core.maintenance.tasks import TASKS
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Readings
from kumpan.core.season.plans import CLOSING, OPENING
from kumpan.core.treatment.plan import AS_SOLD
from kumpan.core.treatment.schedule import Timeline
from tests.core.journals import state
from tests.core.maintenance.test_due import due

LONG_AGO = (0.0, CareDone("backwash"))


def sheet() -> TreatmentStarted:
    line = Timeline(50_000.0, Readings(), AS_SOLD, ())
    line.do(Message("Backwash"), Message("First."), Hazard.VALVE, care=("backwash", "baskets"))
    return TreatmentStarted(
        plan="rescue", steps=tuple(line.steps), profile="household", before=Readings(), predicted=Readings()
    )


def test_a_step_of_a_sheet_is_care_once_it_is_ticked() -> None:
    before = due(LONG_AGO, day=40)
    assert before["backwash"].standing is Standing.OVERDUE
    started = state(LONG_AGO, (38.0, sheet())).treatments[0]
    for outcome, standing in ((Outcome.DONE, Standing.LATER), (Outcome.SKIPPED, Standing.OVERDUE)):
        tick = StepDone(started.id, 0, outcome)
        after = due(LONG_AGO, (38.0, sheet()), (39.0, tick), day=40)
        assert after["backwash"].standing is standing
        assert after["baskets"].standing is standing


def test_an_item_of_an_opening_is_care_too() -> None:
    done = ListItemDone(UUID(int=5), "filter_sand", Outcome.DONE)
    assert due(LONG_AGO, (39.0, done), day=40)["backwash"].standing is Standing.LATER


def test_what_is_named_is_there() -> None:
    items = {row.key for row in (*OPENING, *CLOSING)}
    assert set(LIST_ITEMS) <= items
    assert {task for tasks in LIST_ITEMS.values() for task in tasks} <= set(TASKS)
    assert {task for row in PREPARE for task in row.care} <= set(TASKS) & set(PROCEDURES)
