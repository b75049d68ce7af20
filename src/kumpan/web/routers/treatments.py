"""The run sheet: offered, started, ticked."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Response

from kumpan.services.treatments import commands as treatments_commands
from kumpan.services.treatments import queries as treatments_queries
from kumpan.services.treatments.calendar import treatment_calendar
from kumpan.services.treatments.second_opinion import opinion
from kumpan.services.treatments.special import shock_choices
from kumpan.services.treatments.strategies import strategies as compared
from kumpan.services.treatments.weekly import weekly
from kumpan.services.treatments.what_if import what_if as aimed
from kumpan.web.requests.journal import AdviceIn, PlanAskedIn, SheetStartIn, TickIn, WhatIfIn
from kumpan.web.requests.pools import StampIn
from kumpan.web.responses.treatments import (
    OpinionView,
    ShockChoice,
    StrategiesView,
    TreatmentPlan,
    WeeklyView,
    WhatIf,
)
from kumpan.web.scope import ReaderDep, ScopeDep, UnitsDep, units_of
from kumpan.web.stamps import stamp

router = APIRouter(prefix="/api/v1/pools/{pool_id}", tags=["sheets"])


Asked = Annotated[PlanAskedIn, Query()]


@router.get("/sheet")
async def current(pool_id: UUID, scope: ScopeDep, reader: ReaderDep, units: UnitsDep) -> TreatmentPlan:
    """The open sheet when one was started, else the plan that is offered now."""
    return TreatmentPlan.of(await treatments_queries.current_treatment(scope, pool_id, units=units), reader)


@router.get("/offer")
async def offer(pool_id: UUID, scope: ScopeDep, request: Asked, reader: ReaderDep) -> TreatmentPlan:
    """A plan as it could be started now: shock, accident, drain, borate and the rest, or other products."""
    return TreatmentPlan.of(
        await treatments_queries.offered_treatment(
            scope, pool_id, request.to_core(), units=units_of(metric=request.metric)
        ),
        reader,
    )


@router.get("/sheet.ics", response_class=Response)
async def as_calendar(pool_id: UUID, scope: ScopeDep, request: Asked) -> Response:
    """The sheet as an iCalendar file with an alarm at each step."""
    content = await treatment_calendar(
        scope, pool_id, request.to_core(), units=units_of(metric=request.metric)
    )
    headers = {"Content-Disposition": 'attachment; filename="plan.ics"'}
    return Response(content, media_type="text/calendar", headers=headers)


@router.post("/what-if")
async def what_if(
    pool_id: UUID, given: WhatIfIn, scope: ScopeDep, reader: ReaderDep, units: UnitsDep
) -> WhatIf:
    """The doses and side effects of aiming elsewhere. Nothing is kept."""
    return WhatIf.of(await aimed(scope, pool_id, given.values, given.places, units=units), reader)


@router.get("/weekly")
async def weekly_regime(pool_id: UUID, scope: ScopeDep, reader: ReaderDep, units: UnitsDep) -> WeeklyView:
    """How much a week: the pool's own loss, and what it is in each product, with what that does besides."""
    return WeeklyView.of(await weekly(scope, pool_id, units=units), reader)


@router.get("/shock-products")
async def shock_products(pool_id: UUID, scope: ScopeDep, reader: ReaderDep) -> list[ShockChoice]:
    """What a person may choose to shock this pool with, each with the reason where it may not go in."""
    return [ShockChoice.of(choice, reader) for choice in await shock_choices(scope, pool_id)]


@router.get("/ways")
async def strategies(pool_id: UUID, scope: ScopeDep, reader: ReaderDep, units: UnitsDep) -> StrategiesView:
    """The same plan with other products, side by side: cost, additions, time to swim, what it leaves
    behind.
    """
    return StrategiesView.of(await compared(scope, pool_id, units=units), reader)


@router.post("/second-opinion")
async def second_opinion(
    pool_id: UUID, advised: AdviceIn, scope: ScopeDep, reader: ReaderDep, units: UnitsDep
) -> OpinionView:
    """What somebody advised, read and reckoned beside our own plan. Nothing is kept."""
    return OpinionView.of(await opinion(scope, pool_id, advised.text, units=units), reader)


@router.post("/sheets", status_code=201)
async def start(
    pool_id: UUID, given: SheetStartIn, scope: ScopeDep, reader: ReaderDep, units: UnitsDep
) -> TreatmentPlan:
    """Start a plan; it becomes a journal entry and never changes."""
    return TreatmentPlan.of(
        await treatments_commands.start(
            scope, pool_id, stamp(given, scope), given.asked.to_core(), units=units
        ),
        reader,
    )


@router.post("/sheets/{sheet_id}/put-away")
async def put_away(
    pool_id: UUID, sheet_id: UUID, given: StampIn, scope: ScopeDep, reader: ReaderDep, units: UnitsDep
) -> TreatmentPlan:
    """Leave out the rest of a started sheet; answers the sheet that is offered now."""
    return TreatmentPlan.of(
        await treatments_commands.put_away(scope, pool_id, sheet_id, stamp(given, scope), units=units),
        reader,
    )


@router.post("/sheets/{sheet_id}/ticks")
async def record_step(
    pool_id: UUID, sheet_id: UUID, given: TickIn, scope: ScopeDep, reader: ReaderDep, units: UnitsDep
) -> TreatmentPlan:
    """Tick a step as done, with the amount really poured, or as skipped."""
    done_as = treatments_commands.StepReport(
        treatment_id=sheet_id,
        step_number=given.step_number,
        outcome=given.outcome,
        amount=given.amount,
        note=given.note,
    )
    return TreatmentPlan.of(
        await treatments_commands.record_step(scope, pool_id, stamp(given, scope), done_as, units=units),
        reader,
    )
