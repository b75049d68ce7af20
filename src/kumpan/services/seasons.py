"""The season ribbon of one pool."""

from datetime import date, datetime, time
from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.care.ribbon import AHEAD, Ribbon, RibbonMark, RibbonRow, ribbon
from kumpan.core.errors import InvalidInput
from kumpan.core.journal import Clarity, Cover, PoolKind, Which, Winter
from kumpan.core.planning.expected import measured_readings
from kumpan.core.season.plans import SeasonAsked, SeasonPlan, season_plan
from kumpan.services.care import calendar_days
from kumpan.services.ledger import Scope, pool_state
from kumpan.services.pools import parts_of

MOST_DAYS_OFF = 366
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


async def season_list(
    scope: Scope,
    pool_id: UUID,
    which: Which,
    day: date,
    kind: PoolKind,
    cover: Cover,
    winter: Winter,
    *,
    skimmer_plate: bool,
) -> SeasonPlan:
    """Opening or closing on a day. Raises InvalidInput for a day that is nowhere near."""
    state = await pool_state(scope, pool_id)
    if abs((day - scope.now.date()).days) > MOST_DAYS_OFF:
        raise InvalidInput("Choose a day within a year of today.", "day")
    look = state.last_look
    green = look is not None and look.clarity in (Clarity.GREEN, Clarity.DRAIN_HIDDEN)
    asked = SeasonAsked(parts_of(state).equipment.traits, kind, cover, winter, skimmer_plate, green)
    return season_plan(which, asked, day, measured_readings(state).temperature_c)
