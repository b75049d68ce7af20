"""The season ribbon of one pool."""

from datetime import datetime, time
from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.care.ribbon import AHEAD, Ribbon, RibbonMark, RibbonRow, ribbon
from kumpan.services.care import calendar_days
from kumpan.services.ledger import Scope, pool_state
from kumpan.services.pools import parts_of

WORTH_A_MARK_DAYS = 10.0  # what comes round more often would only darken the strip


async def season_of(scope: Scope, pool_id: UUID) -> Ribbon:
    """The year as one strip, with what is due ahead."""
    state = await pool_state(scope, pool_id)
    zone = ZoneInfo(parts_of(state).settings.time_zone)
    due = tuple(
        RibbonMark(datetime.combine(day.day, time(9), zone), RibbonRow.DUE, item.title, 0.7)
        for day in await calendar_days(scope, pool_id, AHEAD.days)
        for item in day.items
        if item.days is None or item.days >= WORTH_A_MARK_DAYS
    )
    return ribbon(state, scope.now, due)
