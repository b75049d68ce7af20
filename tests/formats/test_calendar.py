"""The calendar file against RFC 5545's own rules, read back by the icalendar library."""

from datetime import UTC, datetime, timedelta
from typing import Any

from icalendar import Calendar

from kumpan.formats.calendar import CalendarLine, calendar

MADE = datetime(2026, 6, 1, 12, 0, tzinfo=UTC)
LONG = "Goggles and gloves on; " * 20 + "never mix, never into the skimmer"
LINES = [
    CalendarLine("one@kumpan", MADE + timedelta(hours=n), f"Step {n}; with, signs\\ and “quotes”", LONG)
    for n in range(3)
]


def events() -> list[Any]:
    return [
        part for part in Calendar.from_ical(calendar("Łódka 🐟", LINES, MADE)).walk() if part.name == "VEVENT"
    ]


def test_lines_are_folded_at_75_octets_and_end_in_crlf() -> None:
    """RFC 5545, 3.1."""
    raw = calendar("Łódka 🐟", LINES, MADE)
    assert raw.endswith(b"\r\n")
    assert all(len(line) <= 75 for line in raw.split(b"\r\n"))
    assert b"\n" not in raw.replace(b"\r\n", b"")


def test_what_must_stand_in_a_calendar_stands_there() -> None:
    """RFC 5545, 3.6: PRODID and VERSION once; UID and DTSTAMP in every event."""
    text = calendar("Pool", LINES, MADE).decode()
    assert text.count("VERSION:2.0") == 1
    assert text.count("PRODID:") == 1
    assert text.count("UID:") == text.count("DTSTAMP:") == 3


def test_titles_and_texts_come_back_as_they_were() -> None:
    for event, line in zip(events(), LINES, strict=True):
        assert str(event["SUMMARY"]) == f"Łódka 🐟: {line.title}"
        assert str(event["DESCRIPTION"]) == LONG


def test_each_step_rings_when_it_begins() -> None:
    for event, line in zip(events(), LINES, strict=True):
        assert event["DTSTART"].dt == line.at
        alarm = event.subcomponents[0]
        assert alarm.name == "VALARM"
        assert alarm["TRIGGER"].dt == timedelta(0)


def test_a_sheet_without_steps_is_an_empty_calendar() -> None:
    assert b"BEGIN:VEVENT" not in calendar("Pool", [], MADE)
