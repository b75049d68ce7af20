"""A sheet that runs late: a wait counts from when the step before it was really done.

The plan stays as it was started; only the clock beside its steps moves, and never earlier. Source:
separation.
"""

from collections.abc import Mapping
from datetime import datetime, timedelta

from kumpan.core.findings import Finding
from kumpan.core.journal import TreatmentStarted
from kumpan.core.messages import Message, Plural
from kumpan.core.records.step import WAIT

SOURCE = "separation"

# So long after it was due a step's amount may no longer fit the water.
OVERDUE = timedelta(hours=12)


def step_times(
    treatment: TreatmentStarted, started_at: datetime, done: Mapping[int, datetime], now: datetime
) -> tuple[datetime, ...]:
    """When each step is due. Ticked late, or not ticked yet though due: all that follows moves as far."""
    late = timedelta(0)
    times = []
    for number, step in enumerate(treatment.steps):
        due = started_at + timedelta(minutes=step.offset_min) + late
        times.append(due)
        if step.kind == WAIT:
            continue
        really = done.get(number, now)
        late += max(timedelta(0), really - due)
    return tuple(times)


def late_notes(
    treatment: TreatmentStarted, started_at: datetime, done: Mapping[int, datetime], now: datetime
) -> tuple[Finding, ...]:
    """A word where the next step was due long ago: the water has gone on meanwhile."""
    times = step_times(treatment, started_at, done, now)
    open_ = [n for n, step in enumerate(treatment.steps) if step.kind != WAIT and n not in done]
    if not open_ or now - times[open_[0]] < OVERDUE:
        return ()
    hours = round((now - times[open_[0]]).total_seconds() / 3600)
    ago = (
        Message("{hours}", hours=Plural("{n} hour", "{n} hours", hours))
        if hours < 48
        else Message("{days}", days=Plural("{n} day", "{n} days", hours // 24))
    )
    text = Message(
        "The next step was due {ago} ago. The water has gone on since: test, put the rest away and "
        "compute again rather than pouring by the old plan.",
        ago=ago,
    )
    return (Finding("overdue", text, None, {"hours": float(hours)}),)
