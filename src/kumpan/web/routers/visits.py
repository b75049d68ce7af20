"""A technician's round: stops in order, the load list, finished visits."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query

from kumpan.services.visits import commands as visits_commands
from kumpan.services.visits import queries as visits_queries
from kumpan.services.visits import reports
from kumpan.web.requests.base import Day
from kumpan.web.requests.visits import RoundIn, TruckItemIn, VisitIn
from kumpan.web.responses.visits import OwnerReport, RoundView
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
    return RoundView.of(await visits_queries.the_round(scope, person_id, weekday, units=units), reader)


@router.post("/rounds", status_code=201)
async def set_round(given: RoundIn, scope: ScopeDep) -> UUID:
    """Who says it drives it: the stops of a weekday in order."""
    await visits_commands.set_round(scope, stamp(given, scope), given.weekday, given.stops)
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


@router.post("/pools/{pool_id}/visits", status_code=201)
async def finish_visit(pool_id: UUID, visit: VisitIn, scope: ScopeDep) -> UUID:
    """A stop is finished."""
    await visits_commands.finish_visit(scope, pool_id, stamp(visit, scope), visit.to_core())
    return visit.id
