"""What one stop of a round needs: tests, care, doses, what the next visit will find, what drifts."""

from collections.abc import Sequence
from dataclasses import replace
from datetime import timedelta
from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.findings import Finding
from kumpan.core.journal import PoolState
from kumpan.core.maintenance.due import Standing, due_list
from kumpan.core.maintenance.tasks import Preset
from kumpan.core.maintenance.test_intervals import DueTest, Rhythm, due_tests
from kumpan.core.messages import Message, Verbatim
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import Units
from kumpan.core.treatment.plan import Plan, poured_by
from kumpan.core.visits.until_next import Between, UntilNext, until_next
from kumpan.services.algae.queries import plan_that_counts
from kumpan.services.journal.ledger import Scope
from kumpan.services.maintenance.queries import care_inputs
from kumpan.services.pools.expectations import model_of, modeled_state, water_now
from kumpan.services.pools.outlooks import outlook_of
from kumpan.services.pools.queries import PoolParts, parts_of
from kumpan.services.products.queries import roughly_text
from kumpan.services.treatments.at_hand import AtHand, at_hand
from kumpan.services.visits.views import StopInside, StopNeed, VisitView

VISIT_EVERY = timedelta(days=7)
DRIFTS = ("stabiliser_climbs", "salt_due", "off_prediction", "volume_hint", "low_now", "over_limit")


async def stop_inside(scope: Scope, pool_id: UUID, units: Units) -> StopInside:
    """All of a stop but its head. Raises NotFound for a pool that is not here."""
    state = await modeled_state(scope, pool_id)
    parts, hand = parts_of(state), await at_hand(scope, pool_id)
    offered = await plan_that_counts(scope, state, parts, units=units)
    tests = due_tests(state, parts.equipment.traits, Rhythm.SERVICE, scope.now)
    next_time = await _until_next(
        scope, pool_id, state=state, parts=parts, offered=offered, hand=hand, units=units
    )
    return StopInside(
        tests=_needs(tests),
        care=await _care_due(scope, state, parts),
        doses=_doses(offered, hand, units),
        next_visit=next_time.sentences if next_time else (),
        holds=next_time.holds if next_time else None,
        drift=await _drift(scope, pool_id),
    )


def last_visit(state: PoolState) -> VisitView | None:
    """The last stop as it was finished."""
    if not state.visits:
        return None
    entry = state.visits[-1]
    return VisitView(
        entry_id=entry.id,
        at=entry.at,
        person_id=entry.person_id,
        note=entry.body.note,
        needs_return=entry.body.needs_return,
        trade=entry.body.trade,
    )


def _doses(offered: Plan | None, hand: AtHand, units: Units) -> tuple[Message, ...]:
    """What the offered sheet pours on its first day, in words."""
    products = {product.id: product for product in hand.products}
    grams = poured_by(offered, first_day=True) if offered is not None else {}
    return tuple(
        Message(
            "{amount} {product}",
            amount=roughly_text(products[id_], mass_g, units),
            product=Verbatim(products[id_].label),
        )
        for id_, mass_g in grams.items()
        if id_ in products
    )


async def _care_due(scope: Scope, state: PoolState, parts: PoolParts) -> tuple[Message, ...]:
    """What of the equipment's care is due at this visit, by a technician's intervals."""
    inputs = replace(await care_inputs(scope, state, parts), preset=Preset.SERVICE)
    items = due_list(inputs, scope.now)
    return tuple(
        item.title
        for item in items
        if item.standing in (Standing.DUE, Standing.OVERDUE) and item.station != "slip"
    )


AT_EVERY_STOP = (Measure.FREE_CHLORINE, Measure.TOTAL_CHLORINE, Measure.PH)


def _needs(tests: Sequence[DueTest]) -> tuple[StopNeed, ...]:
    """Chlorine and pH at every visit, the others by their date."""
    always = tuple(StopNeed(measure, Message("At every visit.")) for measure in AT_EVERY_STOP)
    due = (StopNeed(test.measure, test.why) for test in tests if test.measure not in AT_EVERY_STOP)
    return (*always, *due)


async def _until_next(
    scope: Scope,
    pool_id: UUID,
    state: PoolState,
    parts: PoolParts,
    offered: Plan | None,
    hand: AtHand,
    units: Units,
) -> UntilNext | None:
    """What the next weekly visit will find after today's sheet; None without a model to say it by."""
    found = await model_of(state, parts.place)
    loss = (await outlook_of(scope, pool_id)).loss_mg_l_day
    minimum = parts.bands[Measure.FREE_CHLORINE].low
    if found is None or loss is None or minimum is None:
        return None
    now = water_now(state, parts.place, scope.now).free_chlorine or 0.0
    then = offered.predicted.free_chlorine if offered is not None and offered.steps else now
    return until_next(
        Between(
            state=state,
            place=parts.place,
            traits=parts.equipment.traits,
            fitted=found,
            now=scope.now,
            visit_at=scope.now + VISIT_EVERY,
            dose_mg_l=max(0.0, (then or now) - now),
            minimum_mg_l=minimum,
            limit_mg_l=parts.rules.swim_limit_mg_l,
            loss_mg_l_day=loss,
            zone=ZoneInfo(parts.settings.time_zone),
            products=hand.products,
            units=units,
        )
    )


async def _drift(scope: Scope, pool_id: UUID) -> tuple[Finding, ...]:
    """What the outlook says that a technician should see coming."""
    said = (await outlook_of(scope, pool_id)).sentences
    return tuple(sentence for sentence in said if sentence.code in DRIFTS)
