"""When the water crosses 65 F in spring and autumn: from the pool's own log, else from a table of months.

Source: water-climate.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta, tzinfo
from itertools import pairwise
from types import MappingProxyType

from kumpan.core.journal import PoolState, Reading, Which, history
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import DateForm, Day
from kumpan.core.season.plans import SWIM_SEASON_C

SOURCE = "water-climate"

MONTHS = 12
MIDDLE_OF_MONTH = 15
LOGGED_APART = timedelta(days=24)  # two readings further apart do not show the day between
LOG_HOLDS = timedelta(days=420)
READING_HOLDS = timedelta(days=10)  # a temperature says something about so many days around it

# The water of an unheated outdoor pool in the middle of each month, C, by latitude north, January first.
BY_LATITUDE: Mapping[float, tuple[float, ...]] = MappingProxyType({
    0.0: (23, 23, 25, 26, 28, 29, 29, 29, 29, 28, 26, 24),
    25.0: (14, 15, 18, 22, 26, 28, 29, 29, 28, 24, 19, 15),
    31.0: (9, 10, 14, 18, 23, 27, 29, 28, 25, 20, 14, 10),
    36.0: (5, 6, 10, 15, 20, 25, 27, 26, 23, 17, 11, 6),
    41.0: (3, 3, 6, 11, 17, 22, 25, 24, 19, 13, 7, 4),
    47.0: (3, 3, 5, 9, 14, 18, 21, 20, 16, 11, 6, 4),
})  # fmt: skip

# Sea all round: a southern winter is that of a northern place nearer to the equator (common practice).
SOUTH_IS_MILDER_BY_DEG = 6.0
INDOORS = "indoors"


@dataclass(frozen=True)
class Crossing:
    """The next day on which the water should cross 65 F, and where that is from: "log", "table" or "indoors";
    None where it never does.
    """

    on: date | None
    source: str


def monthly_water_c(state: PoolState, latitude_deg: float) -> tuple[float, ...]:
    """The pool's own table if it has one, else its latitude's; turned by half a year in the south."""
    own = state.climates[-1].body if state.climates else None
    if own is not None:
        return own.monthly_c
    milder = SOUTH_IS_MILDER_BY_DEG if latitude_deg < 0 else 0.0
    like = max(0.0, abs(latitude_deg) - milder)
    row = BY_LATITUDE[max(least for least in BY_LATITUDE if least <= like)]
    return row if latitude_deg >= 0 else row[6:] + row[:6]


def water_on_c(day: date, state: PoolState, latitude_deg: float, zone: tzinfo) -> float:
    """The water on a day, C: as read shortly before or after it, else by straight lines through the table
    of months.
    """
    near = [
        reading
        for reading in history(state, Measure.TEMPERATURE)
        if abs(reading.at.astimezone(zone).date() - day) <= READING_HOLDS
    ]
    if near:
        return near[-1].value.value
    monthly = monthly_water_c(state, latitude_deg)
    start, end = next(
        (start, end) for start, end in pairwise(_middle(day, n) for n in (-1, 0, 1)) if start <= day <= end
    )
    share = (day - start) / (end - start)
    return monthly[start.month - 1] + share * (monthly[end.month - 1] - monthly[start.month - 1])


def crossing(
    which: Which, state: PoolState, latitude_deg: float, zone: tzinfo, today: date, *, indoor: bool = False
) -> Crossing:
    """Up over it for an opening, down under it for a closing: the next one after today; none indoors."""
    if indoor:
        return Crossing(None, INDOORS)
    logged = _from_log(which, history(state, Measure.TEMPERATURE), zone, today)
    if logged is not None:
        return Crossing(logged, "log")
    return Crossing(_from_table(which, monthly_water_c(state, latitude_deg), today), "table")


def _from_log(which: Which, past: Sequence[Reading], zone: tzinfo, today: date) -> date | None:
    """The last crossing between two readings close together, a year on."""
    for before, after in reversed(list(pairwise(past))):
        low, high = before.value.value, after.value.value
        if after.at - before.at > LOGGED_APART or not _crosses(which, low, high):
            continue
        share = (SWIM_SEASON_C - low) / (high - low)
        on = (before.at + share * (after.at - before.at)).astimezone(zone).date()
        if timedelta() <= today - on <= LOG_HOLDS:
            while on < today:
                on += timedelta(days=365)
            return on
    return None


def _crosses(which: Which, first: float, then: float) -> bool:
    if which is Which.OPENING:
        return first < SWIM_SEASON_C <= then
    return first > SWIM_SEASON_C >= then


def _from_table(which: Which, monthly: Sequence[float], today: date) -> date | None:
    """By straight lines between the middles of the months."""
    middles = [_middle(today, n) for n in range(-1, MONTHS + 2)]
    for start, end in pairwise(middles):
        low, high = monthly[start.month - 1], monthly[end.month - 1]
        if _crosses(which, low, high):
            on = start + timedelta(days=round((end - start).days * (SWIM_SEASON_C - low) / (high - low)))
            if on >= today:
                return on
    return None


def _middle(today: date, months: int) -> date:
    count = today.year * MONTHS + today.month - 1 + months
    return date(count // MONTHS, count % MONTHS + 1, MIDDLE_OF_MONTH)


def crossing_text(which: Which, found: Crossing, today: date) -> Message | None:
    """When the water crosses, and where that is from; None where it never does."""
    if found.on is None:
        return None
    day = _day(found.on, today)
    if which is Which.OPENING:
        if found.source == "log":
            return Message("The water gets over 65 °F (18 °C) about {day}, by this pool's log.", day=day)
        return Message("The water gets over 65 °F (18 °C) about {day}, by the table of months.", day=day)
    if found.source == "log":
        return Message("The water gets under 65 °F (18 °C) about {day}, by this pool's log.", day=day)
    return Message("The water gets under 65 °F (18 °C) about {day}, by the table of months.", day=day)


def season_text(opening: Crossing, closing: Crossing, today: date) -> Message:
    """When to open and when the water cools again."""
    if opening.source == INDOORS:
        return Message("Indoors the weather neither opens nor closes a pool.")
    if opening.on is None or closing.on is None:
        return Message("The water stays on one side of 65 °F (18 °C) all year.")
    return Message(
        "Open before {opening}: then the water gets over 65 °F (18 °C). It gets under that about {closing}.",
        opening=_day(opening.on, today),
        closing=_day(closing.on, today),
    )


def _day(day: date, today: date) -> Day:
    return Day(day, DateForm.WEEKDAY_AND_DAY if day.year == today.year else DateForm.DAY_AND_YEAR)
