"""What is due as a calendar (RFC 5545): one event a task and day at nine in the pool's own zone, with an
alarm.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta
from zoneinfo import ZoneInfo

from icalendar import Alarm, Calendar, Event

PRODUCT = "-//Kumpan//Care//EN"
AT = time(9, 0)
MINUTES = 30


@dataclass(frozen=True)
class CareLine:
    """A task on a day: an id that stays the same from one fetch to the next, its title and why."""

    uid: str
    day: date
    title: str
    text: str


def care_calendar(name: str, lines: Sequence[CareLine], zone: ZoneInfo, made_at: datetime) -> bytes:
    """The file. Nine o'clock is the pool's; it is written in UTC, which every reader takes alike."""
    found = Calendar()
    found.add("prodid", PRODUCT)
    found.add("version", "2.0")
    found.add("x-wr-calname", name)
    found.add("x-wr-timezone", zone.key)
    found.add("refresh-interval", timedelta(hours=6), parameters={"value": "DURATION"})
    for line in lines:
        found.add_component(_event(name, line, zone, made_at))
    return bytes(found.to_ical())


def _event(name: str, line: CareLine, zone: ZoneInfo, made_at: datetime) -> Event:
    starts = datetime.combine(line.day, AT, zone).astimezone(UTC)
    event = Event()
    event.add("uid", line.uid)
    event.add("dtstamp", made_at)
    event.add("dtstart", starts)
    event.add("dtend", starts + timedelta(minutes=MINUTES))
    event.add("summary", f"{name}: {line.title}")
    event.add("description", line.text)
    alarm = Alarm()
    alarm.add("action", "DISPLAY")
    alarm.add("trigger", timedelta(0))
    alarm.add("description", line.title)
    event.add_component(alarm)
    return event
