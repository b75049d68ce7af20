"""Plans that are asked for: shock, accident, drain, too much chlorine, borate, minerals, advice."""

from datetime import datetime
from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.algae.drain_day import drain_day_plan
from kumpan.core.errors import InvalidInput
from kumpan.core.findings import Finding
from kumpan.core.forecast.conditions import Pulse
from kumpan.core.forecast.forecast import first_under, forecast, under_for_good
from kumpan.core.forecast.sun import SECONDS_A_DAY
from kumpan.core.journal import PoolState
from kumpan.core.messages import Message
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import Units
from kumpan.core.quantity import Ahead, Number
from kumpan.core.ranges.disagreements import answer
from kumpan.core.records.step import ADD
from kumpan.core.treatment.dusk import next_evening
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.special.borate import borate_plan
from kumpan.core.treatment.special.drain import DrainRequest, Hoses, drain_plan
from kumpan.core.treatment.special.incident import incident_plan
from kumpan.core.treatment.special.label_dose import label_plan
from kumpan.core.treatment.special.lower_chlorine import lower_chlorine_plan
from kumpan.core.treatment.special.mineral import mineral_plan
from kumpan.core.treatment.special.request import SpecialRequest
from kumpan.core.treatment.special.second_opinion import advised_plan
from kumpan.core.treatment.special.shock import ShockReason, ShockRequest, ShockStrategy, offered, shock_plan
from kumpan.services.algae.queries import rescue_plan
from kumpan.services.journal.ledger import Scope
from kumpan.services.pools.expectations import fitted, modeled_state, water_now
from kumpan.services.pools.places import place_of
from kumpan.services.pools.queries import PoolParts, parts_of, poured_lately
from kumpan.services.treatments.at_hand import AtHand, at_hand, display_options
from kumpan.services.treatments.request import PlanKind, PlanRequest
from kumpan.services.treatments.views import ShockChoice

DAYS_AHEAD = 14
OXIDIZER_WAIT_MIN = {"hour": 60, "quarter": 15}


async def special_plan(
    scope: Scope, state: PoolState, parts: PoolParts, request: PlanRequest, *, units: Units
) -> Plan:
    """The plan of any kind but the balance. Raises InvalidInput for advice before the first test."""
    hand = await at_hand(scope, state.pool_id)
    if request.plan is PlanKind.SHOCK:
        return _shock(scope, state, parts=parts, request=request, hand=hand, units=units)
    if request.plan is PlanKind.INCIDENT:
        return incident_plan(
            request.incident,
            _shock_request(scope, state, parts=parts, request=request, hand=hand, units=units),
        )
    if request.plan is PlanKind.DRAIN:
        return drain_plan(_drain_request(scope, state, parts=parts, request=request, hand=hand, units=units))
    if request.plan is PlanKind.DRAIN_DAY:
        return drain_day_plan(
            _drain_request(scope, state, parts=parts, request=request, hand=hand, units=units)
        )
    if request.plan is PlanKind.RESCUE:
        return rescue_plan(scope, state, parts, hand, units=units)
    if request.plan is PlanKind.ADVICE:
        return _advice(scope, state, parts=parts, request=request, hand=hand, units=units)
    return _other_plan(scope, state, parts=parts, request=request, hand=hand, units=units)


async def shock_choices(scope: Scope, pool_id: UUID) -> tuple[ShockChoice, ...]:
    """What stands at this pool or on the shelf of all to shock it with; none of a shelf that is not noted."""
    parts, hand = parts_of(await modeled_state(scope, pool_id)), await at_hand(scope, pool_id)
    found = () if hand.standard else offered(hand.products, parts.equipment.traits)
    return tuple(ShockChoice(product.id, product.label, why_not) for product, why_not in found)


def _other_plan(
    scope: Scope, state: PoolState, parts: PoolParts, request: PlanRequest, hand: AtHand, units: Units
) -> Plan:
    """Those that ask no more than the pool, its water and what may be poured."""
    special = SpecialRequest(
        readings=water_now(state, parts.place, scope.now),
        volume_l=parts.basin.volume_l,
        traits=parts.equipment.traits,
        bands=dict(parts.rules.bands),
        inventory=hand.products,
        swim_limit_mg_l=parts.rules.swim_limit_mg_l,
        now=scope.now,
        zone=ZoneInfo(parts.settings.time_zone),
        display=display_options(parts.settings, hand.preferences, units=units),
        poured=poured_lately(state, scope.now),
    )
    if request.plan is PlanKind.LOWER_CHLORINE:
        return lower_chlorine_plan(special, today=request.today)
    if request.plan is PlanKind.BORATE:
        return borate_plan(special, request.borate)
    if request.plan is PlanKind.LABEL_DOSE:
        return label_plan(special, _by_label(hand, request.use), upkeep=request.upkeep)
    return mineral_plan(special)


def _by_label(hand: AtHand, product_id: str | None) -> Product:
    """The product that is meant. Raises InvalidInput where it is not on the shelf."""
    found = next((product for product in hand.products if product.id == product_id), None)
    if found is None:
        raise InvalidInput(
            Message("Say which product of the shelf; put it there with its label first."), "use"
        )
    return found


def _advice(
    scope: Scope, state: PoolState, parts: PoolParts, request: PlanRequest, hand: AtHand, units: Units
) -> Plan:
    if state.last_test is None:
        raise InvalidInput(Message("Test the water first: advice is computed from the last test."), "advice")
    if not request.advice.strip():
        raise InvalidInput(Message('Type what was advised, like "salt 20 kg, buffer 400 g".'), "advice")
    now = water_now(state, parts.place, scope.now)
    display = display_options(parts.settings, hand.preferences, units=units)
    return advised_plan(
        request.advice, now, volume_l=parts.known_volume_l(), traits=parts.equipment.traits, display=display
    )


def _drain_request(
    scope: Scope, state: PoolState, parts: PoolParts, request: PlanRequest, hand: AtHand, units: Units
) -> DrainRequest:
    preferences = hand.preferences
    return DrainRequest(
        readings=water_now(state, parts.place, scope.now),
        volume_l=parts.basin.volume_l,
        traits=parts.equipment.traits,
        bands=dict(parts.rules.bands),
        fill=parts.equipment.fill_water,
        hoses=Hoses(
            preferences.drain_l_per_h, preferences.fill_l_per_h, preferences.water_price, preferences.currency
        ),
        measure=request.measure,
        wanted=request.wanted,
        display=display_options(parts.settings, preferences, units=units),
    )


def _shock(
    scope: Scope, state: PoolState, parts: PoolParts, request: PlanRequest, hand: AtHand, units: Units
) -> Plan:
    """The shock as it would be done this evening."""
    question = _shock_request(scope, state, parts=parts, request=request, hand=hand, units=units)
    found = shock_plan(question)
    notes = found.notes
    if question.strategy is not ShockStrategy.OXIDIZER:
        notes = (*notes, *_swim_again(state, parts, question, found), *_boost(state, parts))
    return Plan(found.steps, found.predicted, found.unmet, notes)


def _shock_request(
    scope: Scope, state: PoolState, parts: PoolParts, request: PlanRequest, hand: AtHand, units: Units
) -> ShockRequest:
    zone, choices = ZoneInfo(parts.settings.time_zone), parts.settings.choices
    return ShockRequest(
        readings=water_now(state, parts.place, scope.now),
        volume_l=parts.basin.volume_l,
        traits=parts.equipment.traits,
        inventory=hand.products,
        bands=dict(parts.rules.bands),
        swim_limit_mg_l=parts.rules.swim_limit_mg_l,
        strategy=request.shock or ShockStrategy(answer(choices, "shock")),
        now=scope.now,
        evening=next_evening(scope.now, *place_of(parts.settings), zone),
        zone=zone,
        reason=request.reason if request.plan is PlanKind.SHOCK else ShockReason.ROUTINE,
        swim_after_oxidizer_min=OXIDIZER_WAIT_MIN[answer(choices, "after_oxidiser")],
        display=display_options(parts.settings, hand.preferences, units=units),
        poured=poured_lately(state, scope.now),
        use=request.use,
    )


def _swim_again(
    state: PoolState, parts: PoolParts, request: ShockRequest, found: Plan
) -> tuple[Finding, ...]:
    """The hour under the swim limit by the pool's own model; a test decides."""
    model = fitted(state, parts.place)
    pour = next((step for step in found.steps if step.kind == ADD), None)
    if model is None or pour is None:
        return ()
    at_s = request.now.timestamp() + 60 * pour.offset_min
    rise = (found.predicted.free_chlorine or 0.0) - (request.readings.free_chlorine or 0.0)
    ahead = forecast(
        state,
        parts.place,
        fitted=model,
        until_s=at_s + DAYS_AHEAD * SECONDS_A_DAY,
        planned=[Pulse(at_s, rise)],
    )
    limit, zone = request.swim_limit_mg_l, ZoneInfo(parts.settings.time_zone)
    likely, surely = first_under(ahead, limit, at_s + 3600), under_for_good(ahead, limit, at_s + 3600)
    text = _swim_again_text(limit, likely, surely, local=request.now.astimezone(zone))
    return (Finding("swim_again", text, Measure.FREE_CHLORINE),)


def _swim_again_text(
    limit: float, likely: datetime | None, surely: datetime | None, *, local: datetime
) -> Message:
    if likely is None:
        return Message(
            "Free chlorine will stay over the swim limit of {limit} for more than {days_ahead} days.",
            limit=Number(limit),
            days_ahead=Number(DAYS_AHEAD),
        )
    first = Ahead(likely.astimezone(local.tzinfo), local)
    if surely is None:
        return Message(
            "Free chlorine likely comes under the swim limit of {limit} {likely}. A test decides.",
            limit=Number(limit),
            likely=first,
        )
    return Message(
        "Free chlorine likely comes under the swim limit of {limit} {likely}, surely {surely}. A test "
        "decides.",
        limit=Number(limit),
        likely=first,
        surely=Ahead(surely.astimezone(local.tzinfo), local),
    )


def _boost(state: PoolState, parts: PoolParts) -> tuple[Finding, ...]:
    """What 24 hours of the cell at 100 % really add."""
    cell = state.cell_settings[-1].body if state.cell_settings else None
    if cell is None or parts.basin.volume_is_unknown:
        return ()
    adds = cell.output_g_per_h * 24 * 1000 / parts.basin.volume_l
    text = Message(
        "The cell's boost, 24 h at 100 %, adds {adds} here, less what the day takes: no shock by itself.",
        adds=Number(adds, digits=1),
    )
    return (Finding("cell_boost", text, Measure.FREE_CHLORINE, {"adds": adds}),)
