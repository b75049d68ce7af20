"""Tasks of one's own: on their day, once done not before the next, off the list when switched off."""

from datetime import date

import pytest

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import CareDone, CareInterval, EventNoted, NotedEvent, OwnTask
from kumpan.core.maintenance.due import Standing
from kumpan.core.maintenance.own_tasks import checked, own_key
from tests.core.journals import when
from tests.core.maintenance.test_due import CHICAGO, due

KEY = "own_oil_the_hinge"


def own(**times: object) -> OwnTask:
    return OwnTask(task=KEY, title="Oil the hinge", **times)  # type: ignore[arg-type]


def day(number: float) -> date:
    return when(number).astimezone(CHICAGO).date()


def test_every_so_many_days_from_when_it_was_done() -> None:
    assert due((0, own(days=10.0)), day=0)[KEY].standing is Standing.DUE
    done = due((0, own(days=10.0)), (1, CareDone(KEY)), day=3)[KEY]
    assert (done.standing, done.due_on) == (Standing.LATER, day(11))


def test_on_its_weekday_whether_told_or_done_on_it_or_between() -> None:
    told_on = day(0)
    weekday = (told_on.weekday() + 2) % 7
    assert due((0, own(weekday=weekday)), day=0)[KEY].due_on == day(2)
    assert due((0, own(weekday=told_on.weekday())), day=0)[KEY].due_on == day(0)
    assert due((0, own(weekday=weekday)), (2, CareDone(KEY)), day=3)[KEY].due_on == day(9)
    assert due((0, own(weekday=weekday)), (4, CareDone(KEY)), day=5)[KEY].due_on == day(9)


def test_after_a_storm_and_only_then() -> None:
    task = own(after=NotedEvent.STORM)
    assert KEY not in due((0, task), day=1)
    storm = EventNoted(kind=NotedEvent.STORM)
    assert due((0, task), (1, storm), day=1)[KEY].due_on == day(1)
    assert KEY not in due((0, task), (1, storm), (2, CareDone(KEY)), day=3)
    assert KEY not in due((0, task), (1, storm), day=40)


def test_in_its_months_alone_and_off_when_switched_off() -> None:
    later = (day(0).month % 12) + 1
    assert due((0, own(days=5.0, months=(later,))), day=0)[KEY].due_on == date(day(0).year, later, 1)
    off = CareInterval(KEY, off=True)
    assert KEY not in due((0, own(days=5.0)), (1, off), day=2)
    assert KEY in due((0, own(days=5.0)), (1, off), (2, own(days=7.0)), day=2), "told again, it is on again"


@pytest.mark.parametrize(
    "times", [{}, {"days": 5.0, "weekday": 2}, {"days": 0.5}, {"weekday": 9}, {"days": 5.0, "months": (13,)}]
)
def test_a_task_says_one_time(times: dict[str, object]) -> None:
    with pytest.raises(InvalidInput):
        checked(own(**times))


def test_the_same_words_are_the_same_task() -> None:
    assert own_key("  Oil the hinge! ") == own_key("oil the HINGE") == KEY
    with pytest.raises(InvalidInput, match="what is to be done"):
        own_key("!!")
