"""A shock or an accident at one pool: the plan, and what the pool's own model says of the hours after it."""

from zoneinfo import ZoneInfo

from kumpan.core.demand.conditions import Pulse
from kumpan.core.demand.forecast import first_under, forecast, under_for_good
from kumpan.core.demand.sun import SECONDS_A_DAY
from kumpan.core.findings import Finding
from kumpan.core.journal import CellSet, PoolState
from kumpan.core.planning.dusk import next_evening
from kumpan.core.planning.incidents import Incident, incident_plan
from kumpan.core.planning.outlook import day_text
from kumpan.core.planning.plan import Plan
from kumpan.core.planning.shock import ShockAsked, ShockWay, shock_plan
from kumpan.core.run_sheet import ADD
from kumpan.core.water import Measure
from kumpan.services.expectations import fitted, water_now
from kumpan.services.ledger import Scope
from kumpan.services.offer import shelf_for
from kumpan.services.places import place_of
from kumpan.services.pools import PoolParts

DAYS_AHEAD = 14


async def offered_shock(
    scope: Scope, state: PoolState, parts: PoolParts, way: ShockWay, *, metric: bool
) -> Plan:
    """The shock as it would be done this evening."""
    asked = await _asked(scope, state, parts, way, metric)
    found = shock_plan(asked)
    notes = (*found.notes, *_swim_again(state, parts, asked, found), *_boost(state, parts))
    return Plan(found.steps, found.predicted, found.unmet, notes)


async def offered_incident(
    scope: Scope, state: PoolState, parts: PoolParts, incident: Incident, *, metric: bool
) -> Plan:
    """What to do now after an accident in the water."""
    return incident_plan(incident, await _asked(scope, state, parts, ShockWay.FIXED, metric))


async def _asked(scope: Scope, state: PoolState, parts: PoolParts, way: ShockWay, metric: bool) -> ShockAsked:
    shelf, _ = await shelf_for(scope)
    zone = ZoneInfo(parts.settings.time_zone)
    return ShockAsked(
        water_now(state, parts.place, scope.now),
        parts.basin.volume_l,
        parts.equipment.traits,
        tuple(shelf),
        parts.bands,
        parts.settings.swim_limit_mg_l or parts.school.swim_limit_mg_l,
        way,
        scope.now,
        next_evening(scope.now, *place_of(parts.settings), zone),
        zone,
        metric,
    )


def _swim_again(state: PoolState, parts: PoolParts, asked: ShockAsked, found: Plan) -> tuple[Finding, ...]:
    """The hour under the swim limit by the pool's own model; a test decides."""
    model = fitted(state, parts.place)
    pour = next((step for step in found.steps if step.kind == ADD), None)
    if model is None or pour is None:
        return ()
    at_s = asked.now.timestamp() + 60 * pour.offset_min
    rise = (found.predicted.free_chlorine or 0.0) - (asked.readings.free_chlorine or 0.0)
    ahead = forecast(state, parts.place, model, at_s + DAYS_AHEAD * SECONDS_A_DAY, [Pulse(at_s, rise)])
    limit, zone = asked.swim_limit_mg_l, ZoneInfo(parts.settings.time_zone)
    likely, surely = first_under(ahead, limit, at_s + 3600), under_for_good(ahead, limit, at_s + 3600)
    if likely is None:
        text = f"Free chlorine will stay over the swim limit of {limit:g} for more than {DAYS_AHEAD} days."
        return (Finding("swim_again", text, Measure.FREE_CHLORINE),)
    text = f"Free chlorine likely comes under the swim limit of {limit:g} {day_text(likely, zone, asked.now)}"
    text += f", surely {day_text(surely, zone, asked.now)}" if surely is not None else ""
    return (Finding("swim_again", f"{text}. A test decides.", Measure.FREE_CHLORINE),)


def _boost(state: PoolState, parts: PoolParts) -> tuple[Finding, ...]:
    """What 24 hours of the cell at 100 % really add."""
    cell = state.cell_settings[-1].body if state.cell_settings else None
    if not isinstance(cell, CellSet):
        return ()
    adds = cell.output_g_per_h * 24 * 1000 / parts.basin.volume_l
    text = (
        f"The cell's boost, 24 h at 100 %, adds {adds:.1f} here, less what the day takes: no shock by itself."
    )
    return (Finding("cell_boost", text, Measure.FREE_CHLORINE, {"adds": adds}),)
