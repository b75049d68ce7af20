"""A firm of three technicians and 150 pools, planned for four weeks: the time it takes, and the miles against
the order in which the pools were entered.
"""

import time
from datetime import UTC, date, datetime, timedelta
from random import Random
from uuid import UUID

from kumpan.core.journal import Entry, TechnicianAway
from kumpan.core.visits.fair import fair_rounds, measured
from kumpan.core.visits.season_work import season_work
from kumpan.core.visits.weeks import FirmRequest, weeks_ahead

KM_PER_MILE = 1.609344
TECHNICIANS, POOLS, DAYS, WEEKS = 3, 150, 5, 4
SPRING = date(2026, 3, 2)


def bench_firm() -> None:
    """Time of the plan and of fairer days; miles a week before and after."""
    cast = Random(11)
    drivers = [UUID(int=n) for n in range(TECHNICIANS)]
    pools = [UUID(int=1000 + n) for n in range(POOLS)]
    places = {pool: (29.6 + cast.uniform(0, 0.3), -95.6 + cast.uniform(0, 0.35)) for pool in pools}
    minutes = {pool: cast.uniform(10, 25) for pool in pools}
    slots = [(driver, day) for driver in drivers for day in range(DAYS)]
    # As entered: one pool after the other on the next day that is not full.
    each = POOLS // len(slots)
    entered = {slot: tuple(pools[n * each : (n + 1) * each]) for n, slot in enumerate(slots)}
    began = time.perf_counter()
    fair = fair_rounds(entered, places, minutes)
    fair_s = time.perf_counter() - began
    week = TechnicianAway(drivers[0], SPRING + timedelta(days=7), SPRING + timedelta(days=11))
    told = datetime(2026, 3, 1, tzinfo=UTC)
    away = Entry(id=UUID(int=1), pool_id=None, at=told, recorded_at=told, person_id=None, body=week)
    began = time.perf_counter()
    plan = weeks_ahead(
        FirmRequest(
            rounds=fair.rounds,
            places=places,
            minutes=minutes,
            first=SPRING,
            weeks=WEEKS,
            absences=[away],
            returns=dict.fromkeys(pools[:5], SPRING),
            season=season_work(places, {}, SPRING, SPRING + timedelta(weeks=WEEKS)),
        )
    )
    plan_s = time.perf_counter() - began
    before = measured(entered, places, minutes)
    print(
        f"{TECHNICIANS} technicians and {POOLS} pools, {WEEKS} weeks ahead: {plan_s:.2f} s, fairer "
        f"days {fair_s:.2f} s (bar: 2 s together); {len(plan.days)} days, {len(plan.unplaced)} stops over"
    )
    print(
        f"its miles a week: {before.km / KM_PER_MILE:.0f} as entered, {fair.after.km / KM_PER_MILE:.0f} as "
        f"suggested; longest day {before.longest_min / 60:.1f} h and {fair.after.longest_min / 60:.1f} h"
    )
