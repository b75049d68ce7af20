"""What a service firm does at each pool twice a year, with one of its own visits.

Source: firm-planning.
"""

from collections.abc import Mapping
from dataclasses import KW_ONLY, dataclass
from datetime import date, datetime, timedelta
from uuid import UUID

from kumpan.core.journal import PoolState
from kumpan.core.messages import Message
from kumpan.core.visits.order import Place
from kumpan.core.visits.weeks import SeasonWork

SOURCE = "firm-planning"


@dataclass(frozen=True)
class SeasonRow:
    """Work of a part of the year: its first day (month, day) in the north, how many days there are for it."""

    title: Message
    month: int
    day: int
    _: KW_ONLY
    span_days: int
    minutes: float


# Handbook 08: filters on a service route twice a year, early spring and early autumn; 10: spread over weeks.
ROWS: tuple[SeasonRow, ...] = (
    SeasonRow(Message("Filter cleaned thoroughly (spring)"), 3, 1, span_days=45, minutes=30.0),
    SeasonRow(Message("Filter cleaned thoroughly (autumn)"), 9, 1, span_days=45, minutes=30.0),
)
HALF_YEAR = 6


# Care of the filter that is this work, by its task.
FILTER_TASKS = ("cartridge_soak", "cartridge_new", "de_clean", "de_recharge", "sand_new", "backwash")


def filter_cleaned_on(state: PoolState) -> datetime | None:
    """When the filter was cleaned last."""
    return max((entry.at for entry in state.care if entry.body.task in FILTER_TASKS), default=None)


def season_work(
    places: Mapping[UUID, Place], cleaned: Mapping[UUID, date], first: date, last: date
) -> tuple[SeasonWork, ...]:
    """Of these pools, what has its days between `first` and `last` and was not done in them: the whole span,
    so that it lands on the same day whatever weeks are looked at. The south is half a year later.
    """
    found = []
    for pool, (latitude, _) in places.items():
        for row in ROWS:
            month = row.month if latitude >= 0 else (row.month + HALF_YEAR - 1) % 12 + 1
            for year in range(first.year - 1, last.year + 1):
                begin = date(year, month, row.day)
                end = begin + timedelta(days=row.span_days)
                done = pool in cleaned and cleaned[pool] >= begin
                if begin <= last and end >= first and not done:
                    found.append(
                        SeasonWork(pool=pool, first=begin, last=end, minutes=row.minutes, title=row.title)
                    )
    return tuple(found)
