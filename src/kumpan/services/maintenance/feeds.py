"""Calendar feeds under a secret name: whoever has the link reads what is due, nothing else."""

from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.errors import NotFound
from kumpan.core.messages import Message
from kumpan.formats.care_calendar import CareLine, care_calendar
from kumpan.services.journal.ledger import Scope, pool_state
from kumpan.services.maintenance.queries import calendar_days
from kumpan.services.people.links import feed_behind
from kumpan.services.pools.queries import parts_of
from kumpan.wording.render import render

DAYS_AHEAD = 366


async def feed(scope: Scope, secret: str) -> bytes:
    """The calendar behind a secret. Raises NotFound, the same for a wrong and for a closed one."""
    found = await feed_behind(scope, secret)
    if found is None:
        raise NotFound(Message("There is no calendar at this address."))
    workspace_id, pool_id = found
    return await care_file(Scope(scope.tx, workspace_id, scope.now, staff=False), pool_id)


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
