"""The sheet as a calendar file, for a locked phone's own alarms."""

from datetime import UTC
from uuid import UUID

from kumpan.core.records.step import WAIT
from kumpan.formats.calendar import CalendarLine, calendar
from kumpan.services.journal.ledger import Scope, pool_state
from kumpan.services.pools.pools import parts_of
from kumpan.services.treatments.plans import offered_sheet
from kumpan.services.treatments.request import PlanAsked
from kumpan.services.views import Sheet, SheetStep


async def sheet_calendar(scope: Scope, pool_id: UUID, asked: PlanAsked, *, metric: bool) -> bytes:
    """The open sheet, or the one that is offered, step by step; what is ticked is left out."""
    name = parts_of(await pool_state(scope, pool_id)).settings.name
    sheet = await offered_sheet(scope, pool_id, asked, metric=metric)
    lines = [
        _line(pool_id, sheet, step) for step in sheet.steps if step.step.kind != WAIT and step.ticked is None
    ]
    return calendar(name, lines, scope.now)


def _line(pool_id: UUID, sheet: Sheet, line: SheetStep) -> CalendarLine:
    step = line.step
    title = f"{step.title}, {step.rounded_text}" if step.rounded_text else step.title
    text = "\n".join(part for part in (step.why, step.where or "", *step.cautions) if part)
    uid = f"{sheet.id or pool_id}-{line.number}@kumpan"
    return CalendarLine(uid, line.at.astimezone(UTC), title, text)
