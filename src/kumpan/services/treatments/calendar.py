"""The sheet as a calendar file, for a locked phone's own alarms."""

from datetime import UTC
from uuid import UUID

from kumpan.core.messages import NOTHING, Message
from kumpan.core.quantities.units import Units
from kumpan.core.records.step import WAIT
from kumpan.formats.calendar import CalendarLine, calendar
from kumpan.services.journal.ledger import Scope, pool_state
from kumpan.services.pools.queries import parts_of
from kumpan.services.treatments.queries import offered_treatment
from kumpan.services.treatments.request import PlanRequest
from kumpan.services.treatments.views import TreatmentPlan, TreatmentStep
from kumpan.wording.reader import Reader
from kumpan.wording.render import render


async def treatment_calendar(scope: Scope, pool_id: UUID, request: PlanRequest, *, units: Units) -> bytes:
    """The open sheet, or the one that is offered, step by step; what is ticked is left out."""
    name = parts_of(await pool_state(scope, pool_id)).settings.name
    treatment = await offered_treatment(scope, pool_id, request, units=units)
    lines = [
        _line(pool_id, treatment, step, Reader(units))
        for step in treatment.steps
        if step.step.kind != WAIT and step.done_as is None
    ]
    return calendar(name, lines, scope.now)


def _line(pool_id: UUID, treatment: TreatmentPlan, line: TreatmentStep, reader: Reader) -> CalendarLine:
    step = line.step
    title = (
        Message("{step}, {amount}", step=step.title, amount=step.rounded_text)
        if step.rounded_text
        else step.title
    )
    text = "\n".join(
        render(part, reader) for part in (step.why, step.where or NOTHING, *step.cautions) if part
    )
    uid = f"{treatment.id or pool_id}-{line.number}@kumpan"
    return CalendarLine(uid, line.at.astimezone(UTC), render(title, reader), text)
