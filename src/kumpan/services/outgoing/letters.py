"""Messages that are due: the report of a visit, what is due today, the week. Each is queued once.

The text is made when it is due, by whoever has the duty; a restart makes none twice, since what a message is
about is a unique key.
"""

from collections.abc import Awaitable, Callable, Mapping
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from functools import partial
from uuid import UUID, uuid4
from zoneinfo import ZoneInfo

import structlog

from kumpan.core.errors import KumpanError, Unavailable
from kumpan.core.quantities.units import Units
from kumpan.formats.pdf import pdf_of
from kumpan.services.assessment.queries import head
from kumpan.services.each_pool import each_pool
from kumpan.services.journal.ledger import Scope, pool_ids
from kumpan.services.outgoing.choices import Letter
from kumpan.services.people.access import Principal, Role, pools_seen
from kumpan.services.pools.views import PoolHeader
from kumpan.services.products.costs import costs
from kumpan.services.reports.documents import PaperKind, PaperWanted, document
from kumpan.services.visits.reports import owner_report
from kumpan.services.workers import WORKERS
from kumpan.storage.repositories.outgoing import QUEUED, Mail, MailChoice
from kumpan.storage.transaction import Database
from kumpan.wording.reader import Reader
from kumpan.wording.render import render

READER = Reader(Units.US, "en")
REPORTED_WITHIN = timedelta(days=2)
MONDAY, STAFF = 0, (Role.OFFICE, Role.TECHNICIAN)
MOST_POOLS = 200


@dataclass(frozen=True)
class _Text:
    subject: str
    text: str
    file: bytes | None = None


Maker = Callable[[Scope], Awaitable[_Text | None]]


async def queue_due(database: Database, now: datetime) -> int:
    """Everything that is due for anybody; how many messages are new."""
    async with database.transaction() as tx:
        choices = [one for one in await tx.outgoing.choices() if one.kinds and one.address]
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
        local = now.astimezone(ZoneInfo(choice.time_zone))
        if local.hour < choice.hour:
            return new
        day = local.date()
        if Letter.DUE in choice.kinds:
            new += await _once(scope, choice, Letter.DUE, about=f"due:{choice.person_id}:{day}", make=_due)
        if Letter.DIGEST in choice.kinds and local.weekday() == MONDAY:
            new += await _once(
                scope, choice, Letter.DIGEST, about=f"digest:{choice.person_id}:{day}", make=_digest
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
        made = partial(_report, row.pool_id, day)
        new += await _once(scope, choice, Letter.REPORT, about=about, make=made)
    return new


async def _report(pool_id: UUID, day: date, scope: Scope) -> _Text | None:
    """The day in words, and on paper."""
    report = await owner_report(scope, pool_id, day)
    paper = await document(scope, PaperKind.VISIT, PaperWanted(pool_id=pool_id, last=day, reader=READER))
    lines = "\n".join(render(line, READER) for line in report.text)
    subject = f"{report.pool}: the visit of {report.day:%B %-d}"
    return _Text(subject, lines, await WORKERS.run(pdf_of, paper))


async def _due(scope: Scope) -> _Text | None:
    """What each pool asks for today; no message where none asks."""
    heads, cut = await _heads(scope)
    asking = [one for one in heads.values() if one.next.code != "nothing"]
    if not asking:
        return None
    lines = [
        f"{one.settings.name}: {render(one.next.text, READER)}. {render(one.next.why, READER)}\n"
        f"  Swim: {render(one.swim.text, READER)}"
        for one in asking
    ]
    subject = f"Today: {asking[0].settings.name}" + (
        f" and {len(asking) - 1} more" if len(asking) > 1 else ""
    )
    return _Text(subject, "\n".join([*lines, *cut]))


async def _heads(scope: Scope) -> tuple[Mapping[UUID, PoolHeader], tuple[str, ...]]:
    """What stands at the head of each pool; where they are more than a message holds, that is said."""
    ids = await pool_ids(scope)
    heads = await each_pool(ids[:MOST_POOLS], lambda id_: head(scope, id_))
    return heads, ("\nMore pools are only in the list of pools.",) if len(ids) > MOST_POOLS else ()


async def _digest(scope: Scope) -> _Text | None:
    """The week: every pool with its answer and what is next; costs for those who bought."""
    heads, cut = await _heads(scope)
    if not heads:
        return None
    lines = [
        f"{one.settings.name}: {render(one.swim.text, READER)} Next: {render(one.next.text, READER)}."
        for one in heads.values()
    ]
    lines += cut
    if scope.staff:
        spent = await costs(scope, 7, READER.units)
        lines.append(f"\nWhat went in over the last seven days cost {spent.currency}{spent.total:.2f}.")
    return _Text(
        f"Your week with {len(heads)} pools" if len(heads) > 1 else "Your week at the pool", "\n".join(lines)
    )


async def _once(scope: Scope, choice: MailChoice, kind: Letter, *, about: str, make: Maker) -> int:
    """Queue a message that was not queued before; what has nothing to say is noted, and not made again."""
    if await scope.tx.outgoing.is_known(about):
        return 0
    try:
        told = await make(scope)
    except KumpanError:
        told = None  # a pool without a set-up says nothing
    mail = Mail(
        id=uuid4(),
        workspace_id=choice.workspace_id,
        person_id=choice.person_id,
        kind=kind,
        once=about,
        address=choice.address,
        subject=told.subject[:200] if told else "",
        text=told.text if told else "",
        file_name="report.pdf" if told and told.file else "",
        file=told.file if told else None,
        created_at=scope.now,
        next_at=scope.now,
        state=QUEUED if told else "nothing",
    )
    return int(await scope.tx.outgoing.queue(mail) and told is not None)
