"""Tasks that a person adds to a pool's care: by an interval, a weekday, or after something happened.

Source: own-tasks.
"""

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import date, timedelta, tzinfo

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import CareInterval, Entry, OwnTask, PoolState
from kumpan.core.maintenance.recurrence import ALL_YEAR, local_day
from kumpan.core.messages import Message, Verbatim

SOURCE = "own-tasks"

OWN = "own_"
LONGEST_KEY = 60
DAYS_MOST = 730.0
# What happened longer ago than this asks for nothing any more.
AFTER_DAYS = 30
WEEKDAYS = (
    Message("Monday"), Message("Tuesday"), Message("Wednesday"), Message("Thursday"), Message("Friday"),
    Message("Saturday"), Message("Sunday"),
)  # fmt: skip


def own_key(title: str) -> str:
    """The key of a task of this title: the same words, the same task. Raises InvalidInput without any."""
    words = re.findall(r"\w+", title.casefold())
    if not words:
        raise InvalidInput(Message("Say what is to be done."), "title")
    return (OWN + "_".join(words))[:LONGEST_KEY]


def words_of_own(key: str) -> str:
    """What a key says where nothing else does."""
    return key.removeprefix(OWN).replace("_", " ")


def checked(task: OwnTask) -> OwnTask:
    """The same; raises InvalidInput where it does not say exactly one time."""
    times = [task.days is not None, task.weekday is not None, task.after is not None]
    if times.count(True) != 1:
        raise InvalidInput(
            Message("Say when: every so many days, on a weekday, or after something happened."), "days"
        )
    if task.days is not None and not 1 <= task.days <= DAYS_MOST:
        raise InvalidInput(Message("Choose from one day to two years."), "days")
    if task.weekday is not None and not 0 <= task.weekday <= 6:
        raise InvalidInput(Message("weekday must be 0 (Monday) to 6 (Sunday)."), "weekday")
    if not set(task.months) <= ALL_YEAR:
        raise InvalidInput(Message("Months are 1 to 12."), "months")
    return task


@dataclass(frozen=True)
class OwnDue:
    """An own task with the day that its interval counts from; None: it is due now."""

    task: OwnTask
    days: float
    last: date | None
    why: Message

    @property
    def season(self) -> frozenset[int]:
        """The months in which it is due."""
        return frozenset(self.task.months) or ALL_YEAR


def own_tasks(state: PoolState) -> dict[str, Entry[OwnTask]]:
    """The last word on each, less those taken off the list."""
    found = {entry.body.task: entry for entry in state.own_tasks}
    switched: dict[str, Entry[CareInterval]] = {entry.body.task: entry for entry in state.intervals}
    return {
        key: entry
        for key, entry in found.items()
        if key not in switched or not switched[key].body.off or switched[key].at < entry.at
    }


def own_due(state: PoolState, last_days: Mapping[str, date], zone: tzinfo, today: date) -> Iterator[OwnDue]:
    """Those that have a date. `last_days`: when each task was last done or left out."""
    for key, entry in own_tasks(state).items():
        task, told_on = entry.body, local_day(entry.at, zone)
        last = last_days.get(key)
        if task.after is not None:
            happened = [local_day(one.at, zone) for one in state.events if one.body.kind is task.after]
            lately = happened and today - happened[-1] < timedelta(days=AFTER_DAYS)
            if lately and (last is None or last < happened[-1]):
                why = Message("After what happened on that day, your own task.")
                yield OwnDue(task, 1.0, happened[-1] - timedelta(days=1), why)
        elif task.weekday is not None:
            why = Message("Every {day}, your own task.", day=WEEKDAYS[task.weekday])
            yield OwnDue(task, 7.0, _weekday_before(last or told_on, task.weekday, first=last is None), why)
        elif task.days is not None:
            days = Message("Every {days} days, your own task.", days=Verbatim(f"{task.days:g}"))
            yield OwnDue(task, task.days, last, days)


def _weekday_before(day: date, weekday: int, *, first: bool) -> date:
    """The day so that a week later is the first such weekday after `day`; on it for the first time."""
    ahead = (weekday - day.weekday()) % 7
    if ahead == 0 and not first:
        ahead = 7
    return day + timedelta(days=ahead - 7)
