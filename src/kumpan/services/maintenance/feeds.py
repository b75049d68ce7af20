"""Calendar feeds under a secret name: whoever has the link reads what is due, nothing else."""

import secrets
from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.errors import NotFound
from kumpan.core.journal import FeedOpened, effective, of_kind
from kumpan.core.messages import Message
from kumpan.formats.care_calendar import CareLine, care_calendar
from kumpan.services.journal.ledger import Scope, Stamp, entries_in, pool_state, record, void
from kumpan.services.maintenance.queries import calendar_days
from kumpan.services.pools.queries import parts_of
from kumpan.wording.render import render

DAYS_AHEAD = 366
SECRET_BYTES = 32


async def open_feed(scope: Scope, pool_id: UUID, stamp: Stamp) -> str:
    """The secret of the pool's feed; the one that is open already is answered again."""
    state = await pool_state(scope, pool_id)
    known = [entry.body.secret for entry in state.feeds]
    if known:
        return known[-1]
    secret = secrets.token_urlsafe(SECRET_BYTES)
    await record(scope, pool_id, stamp, FeedOpened(secret))
    return secret


async def close_feed(scope: Scope, pool_id: UUID, stamp: Stamp) -> None:
    """From now on the old link opens nothing. Raises NotFound when none is open."""
    feeds = (await pool_state(scope, pool_id)).feeds
    if not feeds:
        raise NotFound(Message("No calendar feed is open for this pool."))
    await void(scope, feeds[-1].id, stamp, "calendar feed closed")


async def feed(scope: Scope, secret: str) -> bytes:
    """The calendar behind a secret. Raises NotFound, the same for a wrong and for a closed one."""
    for workspace_id in await scope.tx.workspace.workspace_ids():
        inside = Scope(scope.tx, workspace_id, scope.now)
        rows = await scope.tx.journal.entries_of_workspace(workspace_id, ("feed", "void"))
        for entry in of_kind(effective(entries_in(rows), scope.now), FeedOpened):
            given = secret.encode()
            if secrets.compare_digest(entry.body.secret.encode(), given) and entry.pool_id:
                return await care_file(inside, entry.pool_id)
    raise NotFound(Message("There is no calendar at this address."))


async def care_file(scope: Scope, pool_id: UUID) -> bytes:
    """The coming year of one pool as a calendar file."""
    settings = parts_of(await pool_state(scope, pool_id)).settings
    lines = [
        CareLine(
            f"{pool_id}-{item.task}-{day.day.isoformat()}@kumpan",
            day.day,
            render(item.title),
            render(item.why),
        )
        for day in await calendar_days(scope, pool_id, DAYS_AHEAD)
        for item in day.items
    ]
    return care_calendar(settings.name, lines, ZoneInfo(settings.time_zone), scope.now)
