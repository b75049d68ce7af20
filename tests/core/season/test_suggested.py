"""A new list begins with a day by the water and with the pool as it stood last time."""

from datetime import UTC, date, datetime, timedelta
from uuid import UUID

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.journal import Cover, Entry, PoolKind, PoolState, SeasonListSaved, Which, Winter, fold
from kumpan.core.season.climate import BY_LATITUDE, Crossing
from kumpan.core.season.suggested import Suggested, suggested

TODAY = date(2026, 3, 1)
NEVER = Crossing(None, "table")
COLD, WARM = (2.0,) * 3 + (15.0,) * 9, (14.0,) * 12
DAYS = st.dates(date(2026, 1, 1), date(2027, 12, 31))


def on(day: date) -> Crossing:
    return Crossing(day, "table")


def kept_on(*bodies: SeasonListSaved) -> PoolState:
    start = datetime(2026, 1, 1, tzinfo=UTC)
    return fold(
        Entry(
            id=UUID(int=9 + n),
            pool_id=UUID(int=1),
            at=start + timedelta(days=n),
            recorded_at=start,
            person_id=None,
            body=body,
        )
        for n, body in enumerate(bodies)
    )


def of(opening: Crossing = NEVER, closing: Crossing = NEVER, state: PoolState | None = None) -> Suggested:
    return suggested(state or fold(()), COLD, opening, closing, TODAY)


def test_it_opens_a_week_before_the_water_turns() -> None:
    """Handbook 09: open before the water gets to 65 F; a week leaves time to balance and clear."""
    assert of(opening=on(date(2026, 5, 10))).opening_day == date(2026, 5, 3)


def test_it_closes_when_the_water_is_under_it() -> None:
    """Handbook 09: close when water stays under 60 to 65 F."""
    assert of(closing=on(date(2026, 10, 9))).closing_day == date(2026, 10, 9)


def test_too_late_to_open_early_it_opens_today() -> None:
    assert of(opening=on(date(2026, 3, 4))).opening_day == TODAY


def test_a_closing_leaves_five_days_for_its_full_test() -> None:
    assert of(closing=on(TODAY)).closing_day == TODAY + timedelta(days=5)


def test_water_that_never_turns_gives_a_day_soon() -> None:
    """At the equator no day is better than another."""
    found = of()
    assert (found.opening_day, found.closing_day) == (TODAY, TODAY + timedelta(days=5))


@pytest.mark.parametrize("days_ago", [1, 20, 60])
def test_turned_a_few_weeks_ago_it_is_done_now_and_not_in_a_year(days_ago: int) -> None:
    """The next crossing is nearly a year off because this autumn's, or this spring's, has just been."""
    next_time = on(TODAY + timedelta(days=365 - days_ago))
    assert of(closing=next_time).closing_day == TODAY + timedelta(days=5)
    assert of(opening=next_time).opening_day == TODAY


def test_half_a_year_off_is_waited_for() -> None:
    later = TODAY + timedelta(days=200)
    assert of(closing=on(later)).closing_day == later


@pytest.mark.parametrize(
    ("monthly", "winter"),
    [(COLD, Winter.FROST), (WARM, Winter.MILD), (BY_LATITUDE[41.0], Winter.FROST), (BY_LATITUDE[25.0], Winter.MILD)],
)  # fmt: skip
def test_a_first_list_takes_the_winter_from_the_coldest_month(
    monthly: tuple[float, ...], winter: Winter
) -> None:
    """Common practice: pools are closed for frost at 41 N and kept running at 25 N."""
    assert suggested(fold(()), monthly, NEVER, NEVER, TODAY).winter is winter


def test_the_next_list_stands_as_the_last_one_did() -> None:
    older = SeasonListSaved(
        list_id=UUID(int=2), which=Which.CLOSING, day=TODAY, kind=PoolKind.IN_GROUND, cover=Cover.SOLID
    )
    last = SeasonListSaved(
        list_id=UUID(int=3),
        which=Which.OPENING,
        day=TODAY,
        kind=PoolKind.ABOVE_GROUND,
        cover=Cover.MESH,
        winter=Winter.MILD,
        skimmer_plate=True,
    )
    found = of(state=kept_on(older, last))
    assert (found.kind, found.cover, found.winter, found.skimmer_plate) == (
        PoolKind.ABOVE_GROUND,
        Cover.MESH,
        Winter.MILD,
        True,
    )


def test_a_dropped_list_still_tells_how_the_pool_stands() -> None:
    dropped = SeasonListSaved(
        list_id=UUID(int=2),
        which=Which.CLOSING,
        day=TODAY,
        kind=PoolKind.ABOVE_GROUND,
        cover=Cover.NONE,
        dropped=True,
    )
    assert of(state=kept_on(dropped)).cover is Cover.NONE


@given(DAYS, DAYS)
def test_no_day_lies_in_the_past(opening: date, closing: date) -> None:
    found = of(on(opening), on(closing))
    assert found.opening_day >= TODAY
    assert found.closing_day >= TODAY + timedelta(days=5)
