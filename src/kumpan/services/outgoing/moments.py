"""Messages that are true for an hour: a step of a plan is due, a pool is open again.

What they say is judged when they are queued and once more when they are sent: a phone that was without a
signal must not be told to pour what was poured, or to swim where nobody may.
"""

from datetime import datetime, timedelta
from functools import partial
from uuid import UUID

from kumpan.core.assessment.swim import SwimCode
from kumpan.core.errors import KumpanError
from kumpan.core.journal import PoolState, TreatmentStarted, open_treatment, recorded_steps
from kumpan.core.journal.kinds import BY_BODY
from kumpan.core.treatment.lateness import OVERDUE
from kumpan.services.assessment.queries import head
from kumpan.services.journal.ledger import Scope, pool_ids, pool_state
from kumpan.services.outgoing.choices import Letter
from kumpan.services.outgoing.queueing import Text, once, reader_of
from kumpan.services.pools.queries import parts_of
from kumpan.services.treatments.queries import started_plan
from kumpan.services.treatments.views import TreatmentPlan, TreatmentStep
from kumpan.storage.repositories.outgoing import MailChoice
from kumpan.storage.repositories.summaries import Listed
from kumpan.wording.reader import Reader
from kumpan.wording.render import render

OPEN_SHEETS_WITHIN = timedelta(days=14)
CLOSED = (SwimCode.NO, SwimCode.NOT_BEFORE)


async def steps_due(scope: Scope, choice: MailChoice) -> int:
    """The next step of each open sheet, once its time has come; how many messages are new."""
    since = scope.now - OPEN_SHEETS_WITHIN
    rows = await scope.tx.journal.of_pools_since(await pool_ids(scope), BY_BODY[TreatmentStarted].name, since)
    new = 0
    for pool_id in {row.pool_id for row in rows if row.pool_id is not None}:
        state = await pool_state(scope, pool_id)
        sheet = _open_plan(scope, state)
        step = None if sheet is None else _due_now(sheet, scope)
        if sheet is not None and step is not None:
            about = f"step:{pool_id}:{sheet.id}:{step.number}:{choice.person_id}"
            name = state.settings.name if state.settings else ""
            made = partial(_step, name, step, reader_of(choice))
            new += await once(scope, choice, Letter.STEP, about=about, make=made)
    return new


def _open_plan(scope: Scope, state: PoolState) -> TreatmentPlan | None:
    opened = open_treatment(state)
    if opened is None:
        return None
    try:
        return started_plan(scope, state, parts_of(state), opened)
    except KumpanError:
        return None  # a pool without a set-up


def _due_now(plan: TreatmentPlan, scope: Scope) -> TreatmentStep | None:
    """The step at hand, where somebody waited for it and it is not so late that the plan no longer fits."""
    begun = any(step.done_as is not None for step in plan.steps)
    at_hand = next((step for step in plan.steps if step.step.kind != "wait" and step.done_as is None), None)
    if at_hand is None or not begun:
        return None  # whoever has just started a plan stands before its first step
    waited = plan.steps[at_hand.number - 1].step.kind == "wait"
    return at_hand if waited and at_hand.at <= scope.now < at_hand.at + OVERDUE else None


async def _step(pool: str, step: TreatmentStep, reader: Reader, _: Scope) -> Text:
    amount = step.step.rounded_text
    what = render(step.step.title, reader) + (f", {render(amount, reader)}" if amount is not None else "")
    subject = f"{pool}: {render(step.step.title, reader)}, due now"
    return Text(
        subject, f"The wait is over. Next: {what}. Its cautions stand on the plan; read them before you pour."
    )


async def opened_again(scope: Scope, choice: MailChoice) -> int:
    """Pools where nobody could swim and now somebody may; how many messages are new.

    Read off the stored summaries that still hold, so that a firm's pools are watched without judging each.
    """
    waiting = await scope.tx.push.watched(choice.person_id)
    new = 0
    for line in await scope.tx.summaries.some(scope.workspace_id, list(await pool_ids(scope))):
        code = _swim_code(line, scope.now)
        if code in CLOSED:
            await scope.tx.push.watch(choice.person_id, line.pool_id, scope.now)
        elif code is SwimCode.YES and line.pool_id in waiting:
            since = waiting[line.pool_id]
            about = f"swim:{line.pool_id}:{choice.person_id}:{since:%Y%m%dT%H%M%S}"
            words = partial(_open, line.pool_id, reader_of(choice))
            new += await once(scope, choice, Letter.SWIM, about=about, make=words)
            await scope.tx.push.unwatch(choice.person_id, line.pool_id)
    return new


def _swim_code(line: Listed, now: datetime) -> SwimCode | None:
    """The answer that is stored, while it holds; else it is made anew within seconds by the background."""
    made = line.summary
    if made is None or made.unreadable or made.pool_writes != line.pool_writes or made.holds_until <= now:
        return None
    in_units = made.rendered.get("us")
    swim = in_units.get("swim") if isinstance(in_units, dict) else None
    code = swim.get("code") if isinstance(swim, dict) else None
    return SwimCode(code) if code in set(SwimCode) else None


async def _open(pool_id: UUID, reader: Reader, scope: Scope) -> Text | None:
    now = await head(scope, pool_id)
    if now.swim.code is not SwimCode.YES:
        return None
    return Text(f"{now.settings.name}: swimming is open again", render(now.swim.text, reader))


async def still_true(scope: Scope, about: str) -> bool:
    """Whether a message may still be sent; one that is not about an hour always may.

    A pool that closed again meanwhile is waited for anew.
    """
    kind, *parts = about.split(":")
    if kind == Letter.STEP:
        return await _is_open_step(scope, UUID(parts[0]), UUID(parts[1]), int(parts[2]))
    if kind == Letter.SWIM:
        return await _is_open_pool(scope, UUID(parts[0]), UUID(parts[1]))
    return True


async def _is_open_step(scope: Scope, pool_id: UUID, treatment_id: UUID, number: int) -> bool:
    try:
        state = await pool_state(scope, pool_id)
    except KumpanError:
        return False
    opened = open_treatment(state)
    if opened is None or opened.id != treatment_id or number in recorded_steps(state, treatment_id):
        return False
    sheet = _open_plan(scope, state)
    return sheet is not None and _due_now(sheet, scope) is not None


async def _is_open_pool(scope: Scope, pool_id: UUID, person_id: UUID) -> bool:
    try:
        swim = (await head(scope, pool_id)).swim
    except KumpanError:
        return False
    if swim.code in CLOSED:
        await scope.tx.push.watch(person_id, pool_id, scope.now)
    return swim.code is SwimCode.YES


def link_of(about: str) -> str:
    """Where a message leads, as a path of the screens."""
    kind, *parts = about.split(":")
    if kind == Letter.STEP:
        return f"/pools/{parts[0]}/plan"
    return f"/pools/{parts[0]}" if kind == Letter.SWIM else "/"
