"""Opening and closing lists, and the water's climate."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query

from kumpan.services.season import commands as season_commands
from kumpan.services.season import queries as season_queries
from kumpan.web.requests.base import Day
from kumpan.web.requests.season import ClimateIn, KeepListIn, ListAsked, TickItemIn
from kumpan.web.responses.season import ClimateView, SeasonListView
from kumpan.web.scope import ReaderDep, ScopeDep, UnitsDep, units_of
from kumpan.web.stamps import stamp

router = APIRouter(prefix="/api/v1/pools/{pool_id}", tags=["season"])


class ListQuery(ListAsked):
    """As query: the list, and the units to tell it in."""

    day: Day
    metric: bool = False


@router.get("/season-plan")
async def plan(
    pool_id: UUID, scope: ScopeDep, request: Annotated[ListQuery, Query()], reader: ReaderDep
) -> SeasonListView:
    """The dated list for opening or closing on a day; adapted to filter, cell, surface and the last look.

    Not kept.
    """
    return SeasonListView.of(
        await season_queries.season_list(
            scope, pool_id, request.to_core(), units=units_of(metric=request.metric)
        ),
        reader,
    )


@router.get("/season-lists")
async def saved(
    pool_id: UUID, scope: ScopeDep, reader: ReaderDep, units: UnitsDep
) -> tuple[SeasonListView, ...]:
    """The lists that are kept, with their ticks."""
    return tuple(
        [
            SeasonListView.of(one, reader)
            for one in await season_queries.season_lists(scope, pool_id, units=units)
        ]
    )


@router.post("/season-lists", status_code=201)
async def keep(
    pool_id: UUID, given: KeepListIn, scope: ScopeDep, reader: ReaderDep, units: UnitsDep
) -> tuple[SeasonListView, ...]:
    """Keep a list, change it, or drop it."""
    return tuple(
        [
            SeasonListView.of(one, reader)
            for one in await season_commands.keep_list(
                scope, pool_id, stamp(given, scope), given.to_core(), units=units
            )
        ]
    )


@router.post("/season-lists/ticks", status_code=201)
async def record_list_step(
    pool_id: UUID, given: TickItemIn, scope: ScopeDep, reader: ReaderDep, units: UnitsDep
) -> tuple[SeasonListView, ...]:
    """Tick an item as done, or leave it out this time."""
    return tuple(
        [
            SeasonListView.of(one, reader)
            for one in await season_commands.record_item(
                scope, pool_id, stamp(given, scope), given.to_core(), units=units
            )
        ]
    )


@router.get("/climate")
async def climate(pool_id: UUID, scope: ScopeDep, reader: ReaderDep) -> ClimateView:
    """The water by month, and when it crosses 65 F."""
    return ClimateView.of(await season_queries.climate(scope, pool_id), reader)


@router.post("/climate", status_code=201)
async def set_climate(
    pool_id: UUID, given: ClimateIn, scope: ScopeDep, reader: ReaderDep, units: UnitsDep
) -> ClimateView:
    """One's own table of months, as typed."""
    return ClimateView.of(
        await season_commands.set_climate(scope, pool_id, stamp(given, scope), given.to_core(units)),
        reader,
    )
