"""When something is due again: whole local days, so that no change of the clocks moves it; only in its
season.

Every walk over dates has a cap. Source: care-intervals.
"""

from collections.abc import Iterator
from datetime import date, datetime, timedelta, tzinfo

SOURCE = "care-intervals"

MOST_DATES = 400
ALL_YEAR = frozenset(range(1, 13))


def local_day(at: datetime, zone: tzinfo) -> date:
    """The day on the pool's own calendar."""
    return at.astimezone(zone).date()


def first_in_season(day: date, months: frozenset[int]) -> date:
    """The day itself inside the season, else the first day of the next month that is. `months` not empty."""
    while day.month not in months:
        day = (day.replace(day=1) + timedelta(days=32)).replace(day=1)
    return day


def next_due(last: date, days: float, months: frozenset[int]) -> date:
    """The day on which something done on `last` is due again; half days are rounded to the later day."""
    return first_in_season(last + timedelta(days=max(1, int(days + 0.5))), months)


def dates_ahead(first: date, days: float, months: frozenset[int], until: date) -> Iterator[date]:
    """The days on which it would be due, one after the other as if each were done on its day."""
    day = first_in_season(first, months)
    for _ in range(MOST_DATES):
        if day > until:
            return
        yield day
        day = next_due(day, days, months)


def season_months(latitude_deg: float) -> frozenset[int]:
    """The months in which a pool is in season: all of them where winters are mild, else the warm half.

    Under 33 degrees the water of most pools stays over 18 C; beyond, April to October, or October to April
    in the south (common practice).
    """
    if abs(latitude_deg) < 33:
        return ALL_YEAR
    return frozenset(range(4, 11)) if latitude_deg > 0 else frozenset((10, 11, 12, 1, 2, 3, 4))
