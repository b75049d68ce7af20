"""A technician's round: stops in order, the load list, finished visits."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query

from kumpan.core.journal import VisitKind
from kumpan.core.visits.weeks import MOST_WEEKS
from kumpan.services.visits import closed as day
from kumpan.services.visits import commands as visits_commands
from kumpan.services.visits import firm, going, reports
from kumpan.services.visits import queries as visits_queries
from kumpan.web.renewal import renewal
from kumpan.web.requests.base import Day
from kumpan.web.requests.pools import StampIn
from kumpan.web.requests.visits import (
    AwayIn,
    OnceIn,
    RoundIn,
    StopMoveIn,
    TruckItemIn,
    UsualIn,
    VisitBegunIn,
    VisitIn,
)
from kumpan.web.responses.visits import DayClosed, FairView, FirmView, OwnerReport, RoundView, VisitGoing
from kumpan.web.scope import ReaderDep, ScopeDep, UnitsDep
from kumpan.web.stamps import stamp

router = APIRouter(prefix="/api/v1", tags=["round"])


@router.get("/round")
async def the_round(
    scope: ScopeDep,
    reader: ReaderDep,
    units: UnitsDep,
    person_id: UUID | None = None,
    weekday: Annotated[int | None, Query(ge=0, le=6)] = None,
) -> RoundView:
    """A technician's stops on a weekday (today's where none is named), what each needs, and the load list."""
    return RoundView.of(
        await visits_queries.the_round(scope, person_id, weekday, renewal=renewal(), units=units), reader
    )


@router.get("/round/closed")
async def closed(
    scope: ScopeDep, reader: ReaderDep, units: UnitsDep, person_id: UUID | None = None
) -> DayClosed:
    """Today of a technician once it is driven: used, what each pool cost, whose owner can be told."""
    return DayClosed.of(await day.day_closed(scope, person_id, renewal=renewal(), units=units), reader)


@router.post("/rounds", status_code=201)
async def set_round(given: RoundIn, scope: ScopeDep) -> UUID:
    """Who says it drives it: the stops of a weekday in order."""
    who = given.technician_id if scope.for_others else None
    await visits_commands.set_round(scope, stamp(given, scope), given.weekday, given.stops, technician_id=who)
    return given.id


@router.get("/rounds/weeks")
async def weeks(
    scope: ScopeDep,
    reader: ReaderDep,
    first: Day | None = None,
    weeks: Annotated[int, Query(ge=1, le=MOST_WEEKS)] = 2,
) -> FirmView:
    """Who drives where, weeks ahead: the rounds, and what differs from them."""
    return FirmView.of(await firm.firm_weeks(scope, first, weeks, renewal()), reader)


@router.get("/rounds/fair")
async def fair(scope: ScopeDep, reader: ReaderDep) -> FairView:
    """The same pools on fairer days, as a suggestion."""
    return FairView.of(await firm.fair_days(scope, renewal()), reader)


@router.post("/rounds/fair", status_code=201)
async def take_fair(given: StampIn, scope: ScopeDep) -> UUID:
    """Take the suggested days, for every technician."""
    await firm.take_fair_days(scope, stamp(given, scope), renewal())
    return given.id


@router.post("/rounds/absences", status_code=201)
async def absence(given: AwayIn, scope: ScopeDep) -> UUID:
    """Somebody does not drive for some days; the plan gives the stops to others."""
    await firm.tell_absence(scope, stamp(given, scope), given.to_core())
    return given.id


@router.post("/rounds/once", status_code=201)
async def once(given: OnceIn, scope: ScopeDep) -> UUID:
    """Work at a pool on one day."""
    await firm.plan_once(scope, stamp(given, scope), given.to_core())
    return given.id


@router.post("/rounds/moves", status_code=201)
async def move(given: StopMoveIn, scope: ScopeDep) -> UUID:
    """One stop on another day, this once."""
    await firm.move_stop(scope, stamp(given, scope), given.to_core(), renewal())
    return given.id


@router.post("/truck", status_code=201)
async def count_truck(given: TruckItemIn, scope: ScopeDep, units: UnitsDep) -> UUID:
    """Count one product on the truck; what is poured by the same hand comes off from then on."""
    await visits_commands.count_truck(scope, stamp(given, scope), given.product_id, given.amount, units=units)
    return given.id


@router.get("/pools/{pool_id}/report")
async def report(pool_id: UUID, scope: ScopeDep, reader: ReaderDep, day: Day | None = None) -> OwnerReport:
    """One day for the owner: found, added, why, done, what is next, when to swim."""
    return OwnerReport.of(await reports.owner_report(scope, pool_id, day), reader)


@router.get("/pools/{pool_id}/visit")
async def visit(
    pool_id: UUID, scope: ScopeDep, reader: ReaderDep, kind: VisitKind | None = None
) -> VisitGoing:
    """The visit that goes on here, or how one would be that began now: its lines in order."""
    return VisitGoing.of(await going.visit_going(scope, pool_id, kind), reader)


@router.post("/pools/{pool_id}/visit", status_code=201)
async def begin_visit(pool_id: UUID, given: VisitBegunIn, scope: ScopeDep) -> UUID:
    """Somebody is at the pool."""
    await going.begin_visit(scope, pool_id, stamp(given, scope), given.kind)
    return given.id


@router.post("/pools/{pool_id}/visit/usual", status_code=201)
async def as_usual(pool_id: UUID, given: UsualIn, scope: ScopeDep) -> tuple[UUID, ...]:
    """Lines that are as usual, ticked together; what was noted, by id."""
    return await going.as_usual(scope, pool_id, stamp(given, scope), given.keys)


@router.post("/pools/{pool_id}/visits", status_code=201)
async def finish_visit(pool_id: UUID, visit: VisitIn, scope: ScopeDep) -> UUID:
    """A stop is finished."""
    await visits_commands.finish_visit(scope, pool_id, stamp(visit, scope), visit.to_core())
    return visit.id
