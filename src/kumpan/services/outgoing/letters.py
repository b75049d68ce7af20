"""Messages that are due: the report of a visit, what is due today, the week. Each is queued once.

The text is made when it is due, by whoever has the duty; a restart makes none twice, since what a message is
about is a unique key.
"""

from collections.abc import Mapping
from dataclasses import replace
from datetime import date, datetime, timedelta
from functools import partial
from uuid import UUID
from zoneinfo import ZoneInfo

import structlog

from kumpan.core.errors import Unavailable
from kumpan.formats.pdf import pdf_of
from kumpan.services.assessment.queries import head
from kumpan.services.each_pool import each_pool
from kumpan.services.journal.ledger import Scope, pool_ids
from kumpan.services.outgoing.choices import Letter
from kumpan.services.outgoing.moments import opened_again, steps_due
from kumpan.services.outgoing.queueing import Text, once, reader_of
from kumpan.services.people.access import Principal, Role, pools_seen
from kumpan.services.pools.views import PoolHeader
from kumpan.services.products.costs import costs
from kumpan.services.reports.documents import PaperKind, PaperWanted, document
from kumpan.services.visits.reports import owner_report
from kumpan.services.workers import WORKERS
from kumpan.storage.repositories.outgoing import MailChoice
from kumpan.storage.transaction import Database
from kumpan.wording.reader import Reader
from kumpan.wording.render import render

REPORTED_WITHIN = timedelta(days=2)
MONDAY, STAFF = 0, (Role.OFFICE, Role.TECHNICIAN)
MOST_POOLS = 200


async def queue_due(database: Database, now: datetime) -> int:
    """Everything that is due for anybody; how many messages are new."""
    async with database.transaction() as tx:
        choices = [one for one in await tx.outgoing.choices() if one.kinds]
    new = 0
    for choice in choices:
        try:
            new += await _of_person(database, choice, now)
        except Unavailable:
            raise
        except Exception as trouble:  # one person's pools keep nobody else waiting
            structlog.get_logger().error(
                "no letter could be made", exc_info=trouble, person=str(choice.person_id)
            )
    return new


async def _of_person(database: Database, choice: MailChoice, now: datetime) -> int:
    async with database.transaction() as tx:
        scope = await _scope_of(Scope(tx, choice.workspace_id, now), choice)
        if scope is None:
            return 0
        new = await _reports(scope, choice) if Letter.REPORT in choice.kinds else 0
        new += await steps_due(scope, choice) if Letter.STEP in choice.kinds else 0
        new += await opened_again(scope, choice) if Letter.SWIM in choice.kinds else 0
        reader = reader_of(choice)
        local = now.astimezone(ZoneInfo(choice.time_zone))
        if local.hour < choice.hour:
            return new
        day = local.date()
        if Letter.DUE in choice.kinds:
            new += await once(
                scope, choice, Letter.DUE, about=f"due:{choice.person_id}:{day}", make=partial(_due, reader)
            )
        if Letter.DIGEST in choice.kinds and local.weekday() == MONDAY:
            new += await once(
                scope,
                choice,
                Letter.DIGEST,
                about=f"digest:{choice.person_id}:{day}",
                make=partial(_digest, reader),
            )
        return new


async def _scope_of(scope: Scope, choice: MailChoice) -> Scope | None:
    """What that person sees; None for somebody who has left."""
    person = await scope.tx.workspace.person(choice.workspace_id, choice.person_id)
    if person is None or person.ended_at is not None:
        return None
    principal = Principal(workspace_id=choice.workspace_id, role=Role(person.role), person_id=person.id)
    pools = await pools_seen(scope.tx, principal, scope)
    return replace(scope, person_id=person.id, pools=pools, staff=principal.role in STAFF)


async def _reports(scope: Scope, choice: MailChoice) -> int:
    """Of each visit that ended lately at a pool that this person sees."""
    new = 0
    since = scope.now - REPORTED_WITHIN
    for row in await scope.tx.journal.of_pools_since(await pool_ids(scope), "visit", since):
        assert row.pool_id is not None
        day = row.at.astimezone(ZoneInfo(choice.time_zone)).date()
        about = f"report:{row.id}:{choice.person_id}"
        made = partial(_report, row.pool_id, day, reader_of(choice))
        new += await once(scope, choice, Letter.REPORT, about=about, make=made)
    return new


async def _report(pool_id: UUID, day: date, reader: Reader, scope: Scope) -> Text | None:
    """The day in words, and on paper."""
    report = await owner_report(scope, pool_id, day)
    paper = await document(scope, PaperKind.VISIT, PaperWanted(pool_id=pool_id, last=day, reader=reader))
    lines = "\n".join(render(line, reader) for line in report.text)
    subject = f"{report.pool}: the visit of {report.day:%B %-d}"
    return Text(subject, lines, await WORKERS.run(pdf_of, paper))


async def _due(reader: Reader, scope: Scope) -> Text | None:
    """What each pool asks for today; no message where none asks."""
    heads, cut = await _heads(scope)
    asking = [one for one in heads.values() if one.next.code != "nothing"]
    if not asking:
        return None
    lines = [
        f"{one.settings.name}: {render(one.next.text, reader)}. {render(one.next.why, reader)}\n"
        f"  Swim: {render(one.swim.text, reader)}"
        for one in asking
    ]
    subject = f"Today: {asking[0].settings.name}" + (
        f" and {len(asking) - 1} more" if len(asking) > 1 else ""
    )
    return Text(subject, "\n".join([*lines, *cut]))


async def _heads(scope: Scope) -> tuple[Mapping[UUID, PoolHeader], tuple[str, ...]]:
    """What stands at the head of each pool; where they are more than a message holds, that is said."""
    ids = await pool_ids(scope)
    heads = await each_pool(ids[:MOST_POOLS], lambda id_: head(scope, id_))
    return heads, ("\nMore pools are only in the list of pools.",) if len(ids) > MOST_POOLS else ()


async def _digest(reader: Reader, scope: Scope) -> Text | None:
    """The week: every pool with its answer and what is next; costs for those who bought."""
    heads, cut = await _heads(scope)
    if not heads:
        return None
    lines = [
        f"{one.settings.name}: {render(one.swim.text, reader)} Next: {render(one.next.text, reader)}."
        for one in heads.values()
    ]
    lines += cut
    if scope.staff:
        spent = await costs(scope, 7, reader.units)
        lines.append(f"\nWhat went in over the last seven days cost {spent.currency}{spent.total:.2f}.")
    return Text(
        f"Your week with {len(heads)} pools" if len(heads) > 1 else "Your week at the pool", "\n".join(lines)
    )
