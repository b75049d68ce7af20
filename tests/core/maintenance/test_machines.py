"""Machines bring their care to the list, and take it with them when they go."""

from datetime import date
from uuid import UUID

from kumpan.core.hazards import HAZARDS
from kumpan.core.journal import CareDone, CareInterval, MachineKind, MachineSet, PartReplaced
from kumpan.core.maintenance.due import Standing
from kumpan.core.maintenance.machines import KINDS, machines, parts_of_machine, task_of, title_of
from kumpan.core.maintenance.procedures import PROCEDURES
from tests.core.journals import state
from tests.core.maintenance.test_due import due
from tests.words import told

ROBOT = MachineSet(
    machine_id=UUID(int=77), kind=MachineKind.ROBOT, label="The blue one", since=date(2025, 5, 1)
)
FILTER = task_of(ROBOT, KINDS[MachineKind.ROBOT].care[0])


def test_every_kind_has_care_that_says_what_being_late_costs() -> None:
    assert set(KINDS) == set(MachineKind)
    for row in KINDS.values():
        assert row.care
        for care in row.care:
            assert told(care.late)
            assert care.procedure is None or care.procedure in PROCEDURES
            assert care.hazard in HAZARDS


def test_keys_are_told_apart_by_machine_and_care() -> None:
    keys = [task_of(ROBOT, care) for row in KINDS.values() for care in row.care]
    assert len({(key, n) for n, key in enumerate(keys)}) == len(keys)
    title = title_of(FILTER)
    assert title is not None
    assert "own filter" in told(title)
    assert title_of("backwash") is None


def test_a_robots_filter_is_due_a_week_after_it_came_and_a_week_after_each_wash() -> None:
    assert due((0, ROBOT), day=3)[FILTER].standing is not Standing.DUE
    found = due((0, ROBOT), day=8)[FILTER]
    assert found.standing is Standing.OVERDUE
    assert "The blue one" in told(found.title)
    assert found.procedure == "robot"
    assert due((0, ROBOT), (8, CareDone(FILTER)), day=9)[FILTER].standing is Standing.LATER
    assert due((0, ROBOT), (1, CareInterval(FILTER, days=30.0)), day=9)[FILTER].standing is Standing.LATER
    assert FILTER not in due((0, ROBOT), (1, CareInterval(FILTER, off=True)), day=9)


def test_a_machine_that_is_gone_asks_for_nothing() -> None:
    gone = MachineSet(machine_id=UUID(int=77), kind=MachineKind.ROBOT, gone=True)
    assert FILTER not in due((0, ROBOT), (5, gone), day=9)
    assert machines(state((0, ROBOT), (5, gone))) == ()


def test_parts_stay_with_their_machine_the_latest_first() -> None:
    found = state(
        (0, ROBOT),
        (1, PartReplaced("Brush", UUID(int=77))),
        (2, PartReplaced("O-ring")),
        (3, PartReplaced("Cable", UUID(int=77))),
    )
    assert [part.body.part for part in machines(found)[0].parts] == ["Cable", "Brush"]
    assert [part.body.part for part in parts_of_machine(found, None)] == ["O-ring"]
