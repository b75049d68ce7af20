"""What is said of a pool now: everything that shows an answer reads it here, and none reckons it again."""

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.algae.overnight import CLEAN_WATER_LOSES, Night, nights
from kumpan.core.assessment.assessment import Assessment, assess
from kumpan.core.assessment.case import Case
from kumpan.core.findings import Finding
from kumpan.core.forecast.forecast import ChlorineForecast
from kumpan.core.forecast.sun import darkness
from kumpan.core.journal import PoolState, SettingsMade
from kumpan.core.maintenance.due import Standing
from kumpan.core.maintenance.tasks import Preset
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import Units
from kumpan.core.season.saved import closed_for_the_winter
from kumpan.services.journal.ledger import Scope
from kumpan.services.maintenance.queries import care_inputs, due_items
from kumpan.services.pools.board import marks
from kumpan.services.pools.expectations import chlorine_ahead, model_turns, modeled_state, water_now
from kumpan.services.pools.places import place_of
from kumpan.services.pools.queries import PoolParts, least_mg_l, maybe_bleached, offered_plan, parts_of
from kumpan.services.pools.views import PoolHeader

NIGHT_SPEAKS_FOR = timedelta(days=2)


async def head(scope: Scope, pool_id: UUID) -> PoolHeader:
    """What stands at the head of a pool: whether they may swim, the one next thing, what it is."""
    return (await head_and_assessment(scope, pool_id))[0]


async def head_and_assessment(scope: Scope, pool_id: UUID) -> tuple[PoolHeader, Assessment]:
    """The head with the judge's whole answer that it was read from."""
    return head_of(await looked_at(scope, pool_id))


@dataclass(frozen=True)
class Judged:
    """A pool as the judge looked at it, and the answer."""

    pool_id: UUID
    parts: PoolParts
    case: Case
    found: Assessment


async def looked_at(scope: Scope, pool_id: UUID) -> Judged:
    """One look at a pool, for whoever needs more than its head. Raises NotFound."""
    state = await modeled_state(scope, pool_id)
    parts = parts_of(state)
    case = await case_of(scope, state, parts)
    return Judged(pool_id, parts, case, assess(case))


def head_of(judged: Judged) -> tuple[PoolHeader, Assessment]:
    """The head that follows from a look, with the judge's whole answer."""
    parts, found, state = judged.parts, judged.found, judged.case.state
    header = PoolHeader(
        id=judged.pool_id,
        settings=parts.settings,
        basin=parts.basin,
        equipment=parts.equipment,
        swim=found.swim,
        next=found.next,
        notices=(*_notices(parts.settings), *parts.rules.findings),
        last_test_at=state.last_test.at if state.last_test else None,
        last_visual_check=state.last_visual_check,
        last_visual_check_at=state.visual_checks[-1].at if state.visual_checks else None,
        treating=state.rescue_goes_on,
        marks=marks(state, parts),
    )
    return header, found


async def assessment_of(scope: Scope, pool_id: UUID) -> Assessment:
    """The whole answer of the judge. Raises NotFound for a pool that is not here."""
    state = await modeled_state(scope, pool_id)
    return assess(await case_of(scope, state, parts_of(state)))


async def case_of(scope: Scope, state: PoolState, parts: PoolParts) -> Case:
    """A pool as the judge looks at it; `state` comes from `modeled_state`."""
    offered = await offered_plan(scope, state, parts, units=Units.US)
    traits = parts.equipment.traits
    low = parts.bands[Measure.FREE_CHLORINE].low or 0.0
    least, limit = least_mg_l(state, parts), parts.rules.swim_limit_mg_l
    ahead = chlorine_ahead(state, parts.place, scope.now)
    now_s = scope.now.timestamp()
    expected = water_now(state, parts.place, scope.now)
    dark, changes_at = darkness(scope.now, *place_of(parts.settings))
    return Case(
        state=state,
        now=scope.now,
        zone=ZoneInfo(parts.settings.time_zone),
        volume_l=0.0 if parts.basin.volume_is_unknown else parts.basin.volume_l,
        amounts_for_l=parts.basin.volume_l if parts.basin.volume_is_unknown else None,
        spa_apart=traits.spa_apart,
        bands=parts.bands,
        swim_limit_mg_l=limit,
        least_mg_l=least,
        indoor=traits.indoor,
        public=parts.settings.public,
        service=(await care_inputs(scope, state, parts)).preset is Preset.SERVICE,
        cell=traits.chlorination is Chlorination.SALT_CELL,
        cement=traits.surface.is_cement,
        expected=expected,
        expected_mg_l=expected.free_chlorine if ahead is not None else None,
        bleached=maybe_bleached(state, parts),
        under_limit_at=_first(ahead, limit, now_s),
        model_turns=model_turns(state),
        crossings=tuple(at for edge in (least, low, limit) if (at := _first(ahead, edge, now_s)) is not None),
        offered=offered,
        care_due=await _care_due(scope, state, parts),
        lost_overnight=_lost_overnight(state, parts, scope.now),
        dark=traits.indoor or dark,
        light_changes_at=None if traits.indoor else changes_at,
        winter_closed=closed_for_the_winter(state, traits),
        fill=parts.equipment.fill_water,
    )


def _first(ahead: ChlorineForecast | None, edge_mg_l: float, now_s: float) -> datetime | None:
    """When the forecast's middle first passes under an edge from over it; None where it is under already."""
    if ahead is None or ahead.at(now_s)[1] <= edge_mg_l:
        return None
    under = [float(at) for at, likely in zip(ahead.at_s, ahead.likely, strict=True) if likely < edge_mg_l]
    later = [at for at in under if at > now_s]
    return datetime.fromtimestamp(round(later[0]), UTC) if later else None


async def _care_due(scope: Scope, state: PoolState, parts: PoolParts) -> tuple[Message, ...]:
    due = due_items(await care_inputs(scope, state, parts), scope.now)
    return tuple(item.title for item in due if item.standing in (Standing.DUE, Standing.OVERDUE))


def _lost_overnight(state: PoolState, parts: PoolParts, now: datetime) -> tuple[float, float] | None:
    """The last night between two tests, where it did not hold: what was lost, and what clean water loses."""
    latitude, longitude = place_of(parts.settings)
    recent = [entry for entry in state.tests if now - entry.at <= 2 * NIGHT_SPEAKS_FOR]
    found: tuple[Night, ...] = nights(recent, state.additions, latitude, longitude)
    if not found or found[-1].holds or now - found[-1].morning_at > NIGHT_SPEAKS_FOR:
        return None
    return found[-1].lost_mg_l, CLEAN_WATER_LOSES * found[-1].evening_mg_l


def _notices(settings: SettingsMade) -> tuple[Finding, ...]:
    if not settings.public:
        return ()
    return (
        Finding(
            "public_pool",
            Message(
                "A public pool falls under the health code and usually needs a certified operator. They "
                "decide."
            ),
        ),
    )
