"""Weeks ahead: nobody is forgotten, nobody drives who is away, and the year's work is spread."""

from collections import Counter
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from random import Random
from uuid import UUID, uuid5

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kumpan.core.journal import Body, Entry, StopMoved, TechnicianAway, WorkOnce
from kumpan.core.visits.order import Place
from kumpan.core.visits.season_work import season_work
from kumpan.core.visits.weeks import PARK_MIN, FirmRequest, SeasonWork, Why, drive_min, weeks_ahead
from tests.words import told

ANNA, BO, CLEO = UUID(int=1), UUID(int=2), UUID(int=3)
MONDAY = date(2026, 6, 1)
POOLS = [UUID(int=100 + n) for n in range(6)]
PLACES: dict[UUID, Place] = {pool: (41.80 + 0.01 * n, -88.1) for n, pool in enumerate(POOLS)}
ROUNDS = {(ANNA, 0): (POOLS[0], POOLS[2]), (BO, 0): (POOLS[3], POOLS[5]), (ANNA, 2): (POOLS[1],)}


def entry(body: Body, number: int = 0) -> Entry:
    at = datetime(2026, 5, 30, tzinfo=UTC) + timedelta(minutes=number)
    return Entry(
        id=uuid5(UUID(int=7), str(number)), pool_id=None, at=at, recorded_at=at, person_id=None, body=body
    )


def request(**changes: object) -> FirmRequest:
    plain: dict[str, object] = {"rounds": ROUNDS, "places": PLACES, "minutes": {}}
    plain |= {"first": MONDAY, "weeks": 1}
    return FirmRequest(**{**plain, **changes})  # type: ignore[arg-type]


def laid(found: FirmRequest) -> dict[tuple[date, UUID], list[UUID]]:
    return {(day.day, day.technician): [stop.pool for stop in day.stops] for day in weeks_ahead(found).days}


def test_the_weekly_rounds_stand_on_their_days_with_what_they_take() -> None:
    plan = weeks_ahead(request(weeks=2, minutes={POOLS[0]: 35.0}))
    assert [(day.day, day.technician) for day in plan.days] == [
        (MONDAY + timedelta(weeks=week, days=days), who)
        for week in (0, 1)
        for days, who in ((0, ANNA), (0, BO), (2, ANNA))
    ]
    first = plan.days[0]
    # 0.02 degrees of latitude are 2.224 km; by road a third more; 40 km an hour.
    assert first.km == pytest.approx(2.224 * 1.3, rel=1e-3)
    assert first.drive_min == pytest.approx(drive_min(2.224), rel=1e-3)
    assert first.stop_min == 35 + 20 + 2 * PARK_MIN


def test_a_stop_is_moved_once_and_stands_where_it_costs_least() -> None:
    move = StopMoved(pool_id=POOLS[1], from_day=MONDAY + timedelta(days=2), to_day=MONDAY, technician_id=ANNA)
    found = laid(request(weeks=2, moved=[entry(move)]))
    assert found[MONDAY, ANNA] == [POOLS[0], POOLS[1], POOLS[2]], "between its neighbors"
    assert (MONDAY + timedelta(days=2), ANNA) not in found
    assert found[MONDAY + timedelta(days=9), ANNA] == [POOLS[1]], "next week it stands as ever"
    (stop,) = [
        s for day in weeks_ahead(request(moved=[entry(move)])).days for s in day.stops if s.why is Why.MOVED
    ]
    assert (stop.entry, stop.from_day) == (entry(move).id, MONDAY + timedelta(days=2))


def test_who_is_away_is_driven_for_that_day_by_another_else_on_a_day_near() -> None:
    ill = entry(TechnicianAway(BO, MONDAY, MONDAY), 1)
    assert laid(request(absences=[ill])) == {
        (MONDAY, ANNA): [POOLS[0], POOLS[2], POOLS[3], POOLS[5]],
        (MONDAY + timedelta(days=2), ANNA): [POOLS[1]],
    }
    both = [ill, entry(TechnicianAway(ANNA, MONDAY, MONDAY), 2)]
    found = laid(request(absences=both))
    assert sorted(found[MONDAY + timedelta(days=2), ANNA]) == sorted([POOLS[0], *POOLS[1:4], POOLS[5]])
    nobody = weeks_ahead(
        request(
            absences=[
                entry(TechnicianAway(who, MONDAY - timedelta(days=7), MONDAY + timedelta(days=13)))
                for who in (ANNA, BO)
            ]
        )
    )
    assert nobody.days == ()
    assert {one.pool for one in nobody.unplaced} == set(POOLS) - {POOLS[4]}
    assert "Nobody drives within 3 days" in told(nobody.unplaced[0].reason)


def test_a_full_day_is_spared() -> None:
    """Anna's Monday has eight hours already: what Bo cannot drive waits for Wednesday."""
    found = laid(request(absences=[entry(TechnicianAway(BO, MONDAY, MONDAY))], minutes={POOLS[0]: 440.0}))
    assert found[MONDAY, ANNA] == [POOLS[0], POOLS[2]]
    assert set(found[MONDAY + timedelta(days=2), ANNA]) == {POOLS[1], POOLS[3], POOLS[5]}


def test_work_once_goes_with_who_passes_by_or_along_with_the_weekly_stop() -> None:
    new = WorkOnce(pool_id=POOLS[4], day=MONDAY, minutes=60.0, what="New pump")
    found = weeks_ahead(request(once=[entry(new)]))
    (stop,) = [stop for day in found.days for stop in day.stops if stop.why is Why.ONCE]
    assert laid(request(once=[entry(new)]))[MONDAY, BO] == [POOLS[3], POOLS[4], POOLS[5]]
    assert [told(one) for one in stop.extra] == ["New pump"]
    along = WorkOnce(pool_id=POOLS[3], day=MONDAY, minutes=60.0, what="New pump")
    day = next(day for day in weeks_ahead(request(once=[entry(along)])).days if day.technician == BO)
    assert [(stop.pool, stop.minutes) for stop in day.stops] == [(POOLS[3], 80.0), (POOLS[5], 20.0)]
    sunday = WorkOnce(pool_id=POOLS[4], day=MONDAY + timedelta(days=6))
    assert [one.pool for one in weeks_ahead(request(once=[entry(sunday)])).unplaced] == [POOLS[4]]
    named = WorkOnce(pool_id=POOLS[4], day=MONDAY + timedelta(days=6), technician_id=CLEO)
    assert laid(request(once=[entry(named)]))[MONDAY + timedelta(days=6), CLEO] == [POOLS[4]]


def test_a_return_is_soon_unless_the_pool_is_driven_to_anyway() -> None:
    tuesday = MONDAY + timedelta(days=1)
    found = weeks_ahead(request(returns={POOLS[5]: tuesday, POOLS[1]: tuesday}))
    back = {stop.pool: day.day for day in found.days for stop in day.stops if stop.why is Why.RETURN}
    assert back == {POOLS[5]: MONDAY + timedelta(days=2)}


def a_firm(seed: int, weeks: int) -> FirmRequest:
    """Thirty pools on fifteen days, some absences and moves in the first weeks, and one week more."""
    cast = Random(seed)
    pools = [UUID(int=200 + n) for n in range(30)]
    places = {pool: (41.7 + cast.random() / 5, -88.2 + cast.random() / 5) for pool in pools}
    rounds: dict[tuple[UUID, int], list[UUID]] = {}
    for pool in pools:
        rounds.setdefault((cast.choice((ANNA, BO, CLEO)), cast.randrange(5)), []).append(pool)
    days = [MONDAY + timedelta(days=n) for n in range(7 * weeks)]
    absences = []
    for n in range(cast.randrange(4)):
        first = cast.choice(days)
        last = first + timedelta(days=cast.randrange(4))
        absences.append(entry(TechnicianAway(cast.choice((ANNA, BO)), first, last), n))
    moved: list[Entry] = []
    for (who, weekday), stops in sorted(rounds.items(), key=str)[: cast.randrange(4)]:
        day = MONDAY + timedelta(days=weekday)
        move = StopMoved(
            pool_id=stops[0], from_day=day, to_day=cast.choice(days), technician_id=cast.choice((who, CLEO))
        )
        moved.append(entry(move, 10 + len(moved)))
    season = [
        SeasonWork(pool=pool, first=days[0], last=days[-1], minutes=30.0, title=told_title)
        for pool in pools[:12]
    ]
    return request(
        rounds=rounds, places=places, weeks=weeks + 1, absences=absences, moved=moved, season=season
    )


@given(seed=st.integers(0, 10_000), weeks=st.integers(1, 4))
@settings(max_examples=60, deadline=None)
def test_no_stop_is_lost_or_doubled_and_nobody_away_drives(seed: int, weeks: int) -> None:
    found = a_firm(seed, weeks)
    plan = weeks_ahead(found)
    stands = Counter(stop.pool for day in plan.days for stop in day.stops)
    stands.update(one.pool for one in plan.unplaced)
    assert stands == Counter({stop: weeks + 1 for stops in found.rounds.values() for stop in stops})
    for day in plan.days:
        moved_here = {stop.pool for stop in day.stops if stop.why is Why.MOVED}
        away = any(one.body.covers(day.technician, day.day) for one in found.absences)
        assert not away or moved_here == {stop.pool for stop in day.stops}
    work = Counter(stop.pool for day in plan.days for stop in day.stops if stop.extra)
    assert all(count == 1 for count in work.values())


@given(seed=st.integers(0, 10_000), ahead=st.integers(0, 20))
@settings(max_examples=60, deadline=None)
def test_a_days_plan_is_the_same_from_whatever_day_one_looks(seed: int, ahead: int) -> None:
    """The office sees four weeks, a technician today: they see the same day."""
    found = a_firm(seed, 3)
    day = MONDAY + timedelta(days=ahead)
    whole = [one for one in weeks_ahead(found).days if one.day == day]
    alone = [one for one in weeks_ahead(replace(found, first=day, weeks=1)).days if one.day == day]
    assert whole == alone


told_title = season_work({POOLS[0]: (41.8, -88.1)}, {}, date(2026, 3, 1), date(2026, 3, 2))[0].title


def test_filters_are_spread_over_spring_and_autumn_and_not_done_twice() -> None:
    """Handbook 08 and 10: early spring and early autumn, spread over the weeks."""
    spring = date(2026, 3, 2)
    work = season_work(PLACES, {POOLS[0]: date(2026, 3, 3)}, spring, spring + timedelta(weeks=6))
    assert {one.pool for one in work} == set(POOLS[1:])
    rounds = {(ANNA, 0): tuple(POOLS)}
    plan = weeks_ahead(request(rounds=rounds, first=spring, weeks=6, season=work))
    each = Counter(day.day for day in plan.days for stop in day.stops if stop.extra)
    assert sum(each.values()) == 5
    assert max(each.values()) == 1
    south = season_work({POOLS[0]: (-33.9, 151.2)}, {}, date(2026, 9, 1), date(2026, 9, 20))
    assert [told(one.title) for one in south] == ["Filter cleaned thoroughly (spring)"]
    assert season_work(PLACES, {}, date(2026, 6, 1), date(2026, 7, 1)) == ()
