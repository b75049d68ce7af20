"""The run sheet: offered, started, ticked."""

from uuid import UUID

from fastapi import APIRouter

from kumpan.services import sheets
from kumpan.services.views import Sheet
from kumpan.web.schemas.journal import TickIn
from kumpan.web.schemas.pools import StampIn
from kumpan.web.scope import Metric, ScopeDep
from kumpan.web.stamps import stamp

router = APIRouter(prefix="/api/v1/pools/{pool_id}", tags=["sheets"])


@router.get("/sheet")
async def current(pool_id: UUID, scope: ScopeDep, metric: Metric = False) -> Sheet:
    """The open sheet when one was started, else the plan that is offered now."""
    return await sheets.current_sheet(scope, pool_id, metric=metric)


@router.post("/sheets", status_code=201)
async def start(pool_id: UUID, given: StampIn, scope: ScopeDep, metric: Metric = False) -> Sheet:
    """Start the offered plan; it becomes a journal entry and never changes."""
    return await sheets.start(scope, pool_id, stamp(given, scope), metric=metric)


@router.post("/sheets/{sheet_id}/ticks")
async def tick(
    pool_id: UUID, sheet_id: UUID, given: TickIn, scope: ScopeDep, metric: Metric = False
) -> Sheet:
    """Tick a step as done, with the amount really poured, or as skipped."""
    ticked = sheets.TickGiven(sheet_id, given.step_number, given.outcome, given.amount, given.note)
    return await sheets.tick(scope, pool_id, stamp(given, scope), ticked, metric=metric)
