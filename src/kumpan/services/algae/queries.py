"""A rescue: seen as a board, begun, set anew, ended. Everything in it follows from the journal."""

from dataclasses import replace
from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.algae.board import board
from kumpan.core.algae.boosters import BOOSTERS, RULE
from kumpan.core.algae.causes import PREVENTION, causes
from kumpan.core.algae.criteria import finished, stage_now
from kumpan.core.algae.episode import RESCUE, Episode, episode_of
from kumpan.core.algae.request import RescueRequest
from kumpan.core.algae.severity import SEVERITIES, suggested
from kumpan.core.algae.stages import stage_plan
from kumpan.core.algae.treat_or_drain import treat_or_drain
from kumpan.core.errors import InvalidInput
from kumpan.core.journal import PoolState, RescueSet, Severity
from kumpan.core.messages import Message
from kumpan.core.quantities.units import Units
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.special.drain import Hoses
from kumpan.services.algae.views import RescueView, SeverityChoice
from kumpan.services.cache import mark_of, remembered
from kumpan.services.journal.ledger import Scope
from kumpan.services.pools.expectations import modeled_state, water_now
from kumpan.services.pools.places import place_of
from kumpan.services.pools.queries import PoolParts, offered_plan, parts_of, poured_lately
from kumpan.services.treatments.at_hand import AtHand, at_hand, display_options
from kumpan.services.workers import WORKERS

SAME_FOR_S = 300
NOT_BEGUN = Message("Begin the rescue first: say how bad it looks.")


CHOICES = tuple(
    SeverityChoice(row.severity, row.name, row.visual_check, row.days) for row in SEVERITIES.values()
)


def open_rescue(state: PoolState) -> Episode | None:
    """The rescue that is going on, if one is."""
    found = episode_of(state)
    return found if found is not None and found.open else None


def requested(
    scope: Scope, state: PoolState, parts: PoolParts, hand: AtHand, setting: RescueSet, *, units: Units
) -> RescueRequest:
    """The question to the core, with what stands on the shelf and what water costs."""
    preferences = hand.preferences
    latitude, longitude = place_of(parts.settings)
    return RescueRequest(
        state=state,
        setting=setting,
        readings=water_now(state, parts.place, scope.now),
        volume_l=parts.basin.volume_l,
        traits=parts.equipment.traits,
        inventory=hand.products,
        bands=parts.rules.bands,
        swim_limit_mg_l=parts.rules.swim_limit_mg_l,
        latitude_deg=latitude,
        longitude_deg=longitude,
        zone=ZoneInfo(parts.settings.time_zone),
        now=scope.now,
        display=display_options(parts.settings, preferences, units=units),
        price_per_g={
            item.product.id: price for item in hand.stocked if (price := item.price_per_g) is not None
        },
        hoses=Hoses(
            preferences.drain_l_per_h, preferences.fill_l_per_h, preferences.water_price, preferences.currency
        ),
        fill=parts.equipment.fill_water,
        poured=poured_lately(state, scope.now),
    )


_board = remembered(most=16)(board)


def _slowly(request: RescueRequest) -> RescueRequest:
    """The request as of the last five minutes, so that the same board serves within them."""
    mark = mark_of(request.now, every_s=SAME_FOR_S, entered=request.state.entered_at)
    return replace(request, now=mark)


async def rescue_view(
    scope: Scope, pool_id: UUID, *, severity: Severity | None, by_ratio: bool, units: Units
) -> RescueView:
    """The rescue that goes on; else how it would be if it began now, at a severity."""
    state = await modeled_state(scope, pool_id)
    parts, hand = parts_of(state), await at_hand(scope, state.pool_id)
    going, last = open_rescue(state), episode_of(state)
    points_at = suggested(state.last_visual_check)
    setting = going.set if going is not None else RescueSet(severity=severity or points_at, by_ratio=by_ratio)
    request = requested(scope, state, parts=parts, hand=hand, setting=setting, units=units)
    slowly = _slowly(request)
    found = await _board.awaited(lambda: WORKERS.run(board, slowly), slowly)
    ended = last.ended.body if last is not None and last.ended is not None else None
    return RescueView(
        open=going is not None,
        setting=setting,
        suggested=points_at,
        severities=CHOICES,
        board=found,
        compared=treat_or_drain(request, found),
        causes=causes(request),
        prevention=PREVENTION,
        boosters=BOOSTERS,
        booster_rule=RULE,
        finished=finished(request),
        last_outcome=ended.outcome if ended is not None else None,
    )


def rescue_plan(scope: Scope, state: PoolState, parts: PoolParts, hand: AtHand, *, units: Units) -> Plan:
    """The sheet of the stage that is due now. Raises InvalidInput before a rescue is begun."""
    going = open_rescue(state)
    if going is None:
        raise InvalidInput(NOT_BEGUN, "plan")
    return stage_plan(requested(scope, state, parts=parts, hand=hand, setting=going.set, units=units))


async def plan_that_counts(scope: Scope, state: PoolState, parts: PoolParts, *, units: Units) -> Plan | None:
    """What is to be poured now: the sheet of a rescue that goes on, else the one for the water."""
    if not state.rescue_goes_on:
        return await offered_plan(scope, state, parts, units=units)
    return rescue_plan(scope, state, parts, await at_hand(scope, state.pool_id), units=units)


async def plan_name(scope: Scope, state: PoolState, parts: PoolParts, plan: str) -> str:
    """How a started sheet is kept: a rescue's with its stage."""
    going = open_rescue(state)
    if plan != RESCUE or going is None:
        return plan
    hand: AtHand = await at_hand(scope, state.pool_id)
    request = requested(scope, state, parts=parts, hand=hand, setting=going.set, units=Units.US)
    return f"{RESCUE}/{stage_now(request)}"
