"""A run sheet as a calendar file (RFC 5545): what to do and when, with an alarm at each step."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from icalendar import Alarm, Calendar, Event

PRODUCT = "-//Kumpan//Run sheet//EN"
EVENT_MINUTES = 15


@dataclass(frozen=True)
class CalendarLine:
    """One step: a stable id, when it begins (with a zone), its title and what stands with it."""

    uid: str
    at: datetime
    title: str
    text: str


def calendar(name: str, lines: Sequence[CalendarLine], made_at: datetime) -> bytes:
    """The file. Times are written in UTC, so that no zone table is needed."""
    found = Calendar()
    found.add("prodid", PRODUCT)
    found.add("version", "2.0")
    found.add("x-wr-calname", name)
    for line in lines:
        found.add_component(_event(name, line, made_at))
    return bytes(found.to_ical())


def _event(name: str, line: CalendarLine, made_at: datetime) -> Event:
    event = Event()
    event.add("uid", line.uid)
    event.add("dtstamp", made_at)
    event.add("dtstart", line.at)
    event.add("dtend", line.at + timedelta(minutes=EVENT_MINUTES))
    event.add("summary", f"{name}: {line.title}")
    event.add("description", line.text)
    alarm = Alarm()
    alarm.add("action", "DISPLAY")
    alarm.add("trigger", timedelta(0))
    alarm.add("description", line.title)
    event.add_component(alarm)
    return event
