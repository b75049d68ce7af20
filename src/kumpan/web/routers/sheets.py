"""The run sheet: offered, started, ticked."""

from uuid import UUID

from fastapi import APIRouter, Response

from kumpan.core.planning.incidents import Incident
from kumpan.core.planning.shock import ShockWay
from kumpan.services import sheets
from kumpan.services.calendars import sheet_calendar
from kumpan.services.opinions import opinion
from kumpan.services.views import OpinionView, Sheet
from kumpan.web.schemas.journal import AdviceIn, SheetStartIn, TickIn
from kumpan.web.schemas.pools import StampIn
from kumpan.web.scope import Metric, ScopeDep
from kumpan.web.stamps import stamp

router = APIRouter(prefix="/api/v1/pools/{pool_id}", tags=["sheets"])


@router.get("/sheet")
async def current(pool_id: UUID, scope: ScopeDep, metric: Metric = False) -> Sheet:
    """The open sheet when one was started, else the plan that is offered now."""
    return await sheets.current_sheet(scope, pool_id, metric=metric)


@router.get("/sheet.ics", response_class=Response)
async def as_calendar(
    pool_id: UUID,
    scope: ScopeDep,
    shock: ShockWay | None = None,
    incident: Incident | None = None,
    metric: Metric = False,
) -> Response:
    """The sheet as an iCalendar file with an alarm at each step."""
    content = await sheet_calendar(scope, pool_id, sheets.PlanAsked(shock, incident), metric=metric)
    headers = {"Content-Disposition": 'attachment; filename="run-sheet.ics"'}
    return Response(content, media_type="text/calendar", headers=headers)


@router.get("/shock")
async def shock(pool_id: UUID, scope: ScopeDep, way: ShockWay, metric: Metric = False) -> Sheet:
    """A shock as it would be done this evening: to 10 (`fixed`), or to 40 % of stabiliser (`ratio`)."""
    return await sheets.special_sheet(scope, pool_id, sheets.PlanAsked(shock=way), metric=metric)


@router.get("/incident")
async def incident(pool_id: UUID, scope: ScopeDep, kind: Incident, metric: Metric = False) -> Sheet:
    """What to do after an accident in the water; where the guidance gives no time, none is given."""
    return await sheets.special_sheet(scope, pool_id, sheets.PlanAsked(incident=kind), metric=metric)


@router.post("/second-opinion")
async def second_opinion(
    pool_id: UUID, advised: AdviceIn, scope: ScopeDep, metric: Metric = False
) -> OpinionView:
    """What somebody advised, read and reckoned beside our own plan. Nothing is kept."""
    return await opinion(scope, pool_id, advised.text, metric=metric)


@router.post("/sheets", status_code=201)
async def start(pool_id: UUID, given: SheetStartIn, scope: ScopeDep, metric: Metric = False) -> Sheet:
    """Start the offered plan, or a shock; it becomes a journal entry and never changes."""
    asked = sheets.PlanAsked(given.shock, given.incident)
    return await sheets.start(scope, pool_id, stamp(given, scope), asked, metric=metric)


@router.post("/sheets/{sheet_id}/put-away")
async def put_away(
    pool_id: UUID, sheet_id: UUID, given: StampIn, scope: ScopeDep, metric: Metric = False
) -> Sheet:
    """Leave out the rest of a started sheet; answers the sheet that is offered now."""
    return await sheets.put_away(scope, pool_id, sheet_id, stamp(given, scope), metric=metric)


@router.post("/sheets/{sheet_id}/ticks")
async def tick(
    pool_id: UUID, sheet_id: UUID, given: TickIn, scope: ScopeDep, metric: Metric = False
) -> Sheet:
    """Tick a step as done, with the amount really poured, or as skipped."""
    ticked = sheets.TickGiven(sheet_id, given.step_number, given.outcome, given.amount, given.note)
    return await sheets.tick(scope, pool_id, stamp(given, scope), ticked, metric=metric)
