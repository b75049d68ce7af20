"""A firm's rounds for weeks ahead: read from the rounds and stored summaries, changed by small entries."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta
from uuid import UUID, uuid5
from zoneinfo import ZoneInfo

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import Entry, StopMoved, TechnicianAway, WorkOnce, effective, of_kind
from kumpan.core.messages import Message
from kumpan.core.visits.fair import fair_rounds
from kumpan.core.visits.order import Place
from kumpan.core.visits.season_work import season_work
from kumpan.core.visits.weeks import (
    MOST_WEEKS,
    MOVED_AT_MOST,
    RETURN_WITHIN,
    FirmRequest,
    StopAhead,
    WeeksAhead,
    weeks_ahead,
)
from kumpan.services.assessment.summaries import Renewal, some, visit_of
from kumpan.services.journal.ledger import (
    Scope,
    Stamp,
    entries_in,
    pool_ids,
    record,
    require_person,
    require_pool,
)
from kumpan.services.journal.rounds import FIRM_KINDS, Rounds, rounds
from kumpan.services.visits.commands import set_round
from kumpan.services.visits.views import FairRound, FairView, FirmView, PlannedPool, Technician
from kumpan.storage.repositories.summaries import Summary

LONGEST_DAYS = 366


@dataclass(frozen=True, kw_only=True)
class _Known:
    """What a plan is made from, for the pools that can be read."""

    rounds: Mapping[tuple[UUID, int], tuple[UUID, ...]]
    summaries: Mapping[UUID, Summary]
    places: Mapping[UUID, Place]
    minutes: Mapping[UUID, float]
    cleaned: Mapping[UUID, date]
    entries: Sequence[Entry]
    today: date


async def firm_weeks(scope: Scope, first: date | None, weeks: int, renewal: Renewal) -> FirmView:
    """Who drives where, from a day on (today where none is named), for so many weeks."""
    known = await _known(scope, renewal)
    begin = first or known.today
    plan = _laid_out(known, begin, min(weeks, MOST_WEEKS))
    return await _view(scope, known, _seen(plan, scope.pools), begin)


async def changed_today(
    scope: Scope, person_id: UUID | None, today: date, renewal: Renewal
) -> tuple[StopAhead, ...] | None:
    """The stops of somebody's day where anything differs from the weekly round; None where nothing can."""
    rows = await scope.tx.journal.entries_of_workspace(scope.workspace_id, FIRM_KINDS)
    driven = await rounds(scope.tx, scope.workspace_id, scope.now)
    if not _touched(effective(entries_in(rows), scope.now), today) and not await _comes_soon(
        scope, driven, today
    ):
        return None
    plan = _seen(_laid_out(await _known(scope, renewal), today, 1), scope.pools)
    return next((day.stops for day in plan.days if day.day == today and day.technician == person_id), ())


def _touched(entries: Sequence[Entry], today: date) -> bool:
    """Whether an entry of the plan reaches this day."""
    near = timedelta(days=MOVED_AT_MOST)
    return (
        any(
            one.body.first - near <= today <= one.body.last + near for one in of_kind(entries, TechnicianAway)
        )
        or any(one.body.day == today for one in of_kind(entries, WorkOnce))
        or any(today in (one.body.from_day, one.body.to_day) for one in of_kind(entries, StopMoved))
    )


async def _comes_soon(scope: Scope, driven: Rounds, today: date) -> bool:
    """Whether a pool is to be come back to that nobody drives to within the next days anyway."""
    weekdays = {(today + timedelta(days=n)).weekday() for n in range(RETURN_WITHIN + 1)}
    soon = {stop for (_, weekday), stops in driven.items() if weekday in weekdays for stop in stops}
    return bool(set(await scope.tx.summaries.returning(scope.workspace_id)) - soon)


def _seen(plan: WeeksAhead, visible: frozenset[UUID] | None) -> WeeksAhead:
    """Without what is not for who asks: the plan is the same for all, each sees a part of it."""
    if visible is None:
        return plan
    days = (replace(day, stops=tuple(one for one in day.stops if one.pool in visible)) for day in plan.days)
    return WeeksAhead(
        tuple(day for day in days if day.stops), tuple(one for one in plan.unplaced if one.pool in visible)
    )


def _laid_out(known: _Known, begin: date, weeks: int) -> WeeksAhead:
    return weeks_ahead(
        FirmRequest(
            rounds=known.rounds,
            places=known.places,
            minutes=known.minutes,
            first=begin,
            weeks=weeks,
            absences=of_kind(known.entries, TechnicianAway),
            once=of_kind(known.entries, WorkOnce),
            moved=of_kind(known.entries, StopMoved),
            returns={
                pool: known.today for pool, one in known.summaries.items() if one.returns and _comes_back(one)
            },
            season=season_work(known.places, known.cleaned, begin, begin + timedelta(weeks=weeks)),
        )
    )


async def fair_days(scope: Scope, renewal: Renewal) -> FairView:
    """The same pools on fairer days. Nothing is changed."""
    known = await _known(scope, renewal)
    found = fair_rounds(known.rounds, known.places, known.minutes)
    people = {person.id: person.name for person in await scope.tx.workspace.people(scope.workspace_id)}
    return FairView(
        before=found.before,
        after=found.after,
        rounds=tuple(
            FairRound(who, people.get(who, ""), weekday, tuple(known.summaries[stop].name for stop in stops))
            for (who, weekday), stops in sorted(
                found.rounds.items(), key=lambda row: (str(row[0][0]), row[0][1])
            )
        ),
    )


async def take_fair_days(scope: Scope, stamp: Stamp, renewal: Renewal) -> None:
    """The rounds as they are suggested, all of them; the same id again changes nothing."""
    known = await _known(scope, renewal)
    found = fair_rounds(known.rounds, known.places, known.minutes)
    for (technician, weekday), stops in sorted(found.rounds.items(), key=str):
        of_it = replace(stamp, id=uuid5(stamp.id, f"{technician}/{weekday}"))
        if await scope.tx.journal.entry(of_it.id) is not None:
            return  # taken already: what is suggested now follows from it
        await set_round(scope, of_it, weekday, stops, technician_id=technician)


async def tell_absence(scope: Scope, stamp: Stamp, away: TechnicianAway) -> None:
    """Somebody does not drive. Raises InvalidInput."""
    await require_person(scope, away.technician_id)
    if away.last < away.first or (away.last - away.first).days > LONGEST_DAYS:
        raise InvalidInput(Message("The last day comes after the first, at most a year later."), "last")
    await record(scope, None, stamp, away)


async def plan_once(scope: Scope, stamp: Stamp, work: WorkOnce) -> None:
    """Work at a pool on one day. Raises InvalidInput, NotFound."""
    await require_pool(scope, work.pool_id)
    if work.technician_id is not None:
        await require_person(scope, work.technician_id)
    await record(scope, None, stamp, work)
    await scope.tx.summaries.expire(scope.workspace_id, (work.pool_id,), scope.now)  # without a stop as yet


async def move_stop(scope: Scope, stamp: Stamp, move: StopMoved, renewal: Renewal) -> None:
    """One stop on another day. Raises InvalidInput where it does not stand on the day that is named."""
    await require_pool(scope, move.pool_id)
    await require_person(scope, move.technician_id)
    plan = await firm_weeks(scope, min(move.from_day, move.to_day), MOST_WEEKS, renewal)
    stands = [
        day for day in plan.days if day.day == move.from_day and move.pool_id in {s.pool for s in day.stops}
    ]
    if not stands and await scope.tx.journal.entry(stamp.id) is None:
        raise InvalidInput(
            Message("This pool is not on that day's round any more; reload the plan."), "from_day"
        )
    await record(scope, None, stamp, move)


def _comes_back(one: Summary) -> bool:
    last = visit_of(one).last if one.visit else None
    return isinstance(last, dict) and bool(last.get("needs_return"))


async def _known(scope: Scope, renewal: Renewal) -> _Known:
    """Names and places as last told: what is only out of date on a summary does not matter here. All pools,
    whoever asks: else two would see two plans.
    """
    scope = replace(scope, pools=None)
    here = await pool_ids(scope)
    found = await scope.tx.summaries.some(scope.workspace_id, here)
    told = [one.summary for one in found if one.summary is not None]
    missing = set(here) - {one.pool_id for one in told}
    told += await some(scope, [pool for pool in here if pool in missing], renewal)
    readable = {one.pool_id: one for one in told if one.visit and not one.unreadable}
    visits = {pool: visit_of(one) for pool, one in readable.items()}
    zone = next((ZoneInfo(visit.zone) for visit in visits.values()), ZoneInfo("UTC"))
    rows = await scope.tx.journal.entries_of_workspace(scope.workspace_id, FIRM_KINDS)
    driven = await rounds(scope.tx, scope.workspace_id, scope.now)
    return _Known(
        rounds={
            (who, weekday): tuple(stop for stop in stops if stop in readable)
            for (who, weekday), stops in driven.items()
            if who is not None and stops
        },
        summaries=readable,
        places={pool: visit.place for pool, visit in visits.items()},
        minutes={pool: visit.minutes for pool, visit in visits.items() if visit.minutes is not None},
        cleaned={
            pool: visit.filter_on.astimezone(zone).date()
            for pool, visit in visits.items()
            if visit.filter_on is not None
        },
        entries=effective(entries_in(rows), scope.now),
        today=scope.now.astimezone(zone).date(),
    )


async def _view(scope: Scope, known: _Known, plan: WeeksAhead, first: date) -> FirmView:
    people = {person.id: person.name for person in await scope.tx.workspace.people(scope.workspace_id)}
    drive = {who for who, _ in known.rounds} | {day.technician for day in plan.days}
    away = of_kind(known.entries, TechnicianAway)
    on_plan = {stop.pool for day in plan.days for stop in day.stops} | {one.pool for one in plan.unplaced}
    return FirmView(
        first=first,
        today=known.today,
        technicians=tuple(Technician(id_, people.get(id_, "")) for id_ in sorted(drive, key=str)),
        days=plan.days,
        unplaced=plan.unplaced,
        pools=tuple(
            PlannedPool(pool, known.summaries[pool].name, pool in on_plan, known.summaries[pool].returns)
            for pool in sorted(known.summaries, key=lambda one: known.summaries[one].name.casefold())
            if scope.pools is None or pool in scope.pools
        ),
        absences=tuple(entry for entry in away if entry.body.last >= known.today),
    )
