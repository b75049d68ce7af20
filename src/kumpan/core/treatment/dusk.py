"""The next dusk at a pool: the hour to shock, since the sun would take the chlorine. Source: shock-hour.

Civil dusk (the sun 6 degrees under) where there is one; in northern summers sunset, else 22:00.
"""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import date, datetime, timedelta, tzinfo

from astral import Observer
from astral.sun import dusk, sunset

from kumpan.core.messages import Message
from kumpan.core.quantity import Number

SOURCE = "shock-hour"

LATE_HOUR = 22
MORNING_HOUR = 7


@dataclass(frozen=True)
class Evening:
    """When to begin, on the pool's clock, and why then."""

    at: datetime
    why: Message


def next_evening(now: datetime, latitude_deg: float, longitude_deg: float, zone: tzinfo) -> Evening:
    """The first dusk after now; where the sun never goes down far enough, sunset; else 22:00."""
    place = Observer(latitude_deg, longitude_deg)
    local = now.astimezone(zone)
    days = [local.date() + timedelta(days=n) for n in (-1, 0, 1)]
    at = _next(lambda day: dusk(place, day, tzinfo=zone), days, now)
    if at is not None:
        return Evening(at, Message("Dusk: no sun takes the chlorine before it has worked."))
    at = _next(lambda day: sunset(place, day, tzinfo=zone), days, now)
    if at is not None:
        return Evening(at, Message("Sunset: it does not get quite dark here now."))
    late = local.replace(hour=LATE_HOUR, minute=0, second=0, microsecond=0)
    why = Message(
        "{late_hour}:00: the sun does not rise or set here now, and late is when it is weakest.",
        late_hour=Number(LATE_HOUR),
    )
    return Evening(late if late > local else late + timedelta(days=1), why)


def next_morning(after: datetime, zone: tzinfo, at_least: timedelta) -> datetime:
    """Seven o'clock on the pool's clock, at least so long after a time."""
    earliest = (after + at_least).astimezone(zone)
    morning = earliest.replace(hour=MORNING_HOUR, minute=0, second=0, microsecond=0)
    return morning if morning >= earliest else morning + timedelta(days=1)


def _next(of_day: Callable[[date], datetime], days: list[date], now: datetime) -> datetime | None:
    """The first moment after now, if within a day; a day without one counts as none."""
    found = []
    for day in days:
        try:
            found.append(of_day(day))
        except ValueError:
            continue
    later = [at for at in found if now < at <= now + timedelta(hours=25)]
    return min(later, default=None)
