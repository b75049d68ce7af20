"""The ways through one plan side by side, and what holds the pool between visits."""

from uuid import UUID

from kumpan.core.dosing.feeding import cell_note, tablet_note
from kumpan.core.findings import Finding
from kumpan.core.forecast.expected import measured_readings
from kumpan.core.forecast.rates import CELL_OFF_BELOW_C
from kumpan.core.journal import PoolState
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination
from kumpan.core.products.product import Product
from kumpan.core.quantities.units import Units
from kumpan.core.records.step import ADD, Step
from kumpan.core.treatment.strategies import StrategyOutcome
from kumpan.services.each_pool import each_pool
from kumpan.services.journal.ledger import Scope, pool_ids
from kumpan.services.pools.expectations import modeled_state
from kumpan.services.pools.outlooks import outlook_of
from kumpan.services.pools.queries import PoolParts, compared_strategies, offered_plan, parts_of
from kumpan.services.products.queries import amount_text, buy_line, to_buy
from kumpan.services.products.views import BuyLine
from kumpan.services.treatments.at_hand import at_hand
from kumpan.services.treatments.views import StrategiesView, StrategyProduct, StrategyView


async def strategies(scope: Scope, pool_id: UUID, *, units: Units) -> StrategiesView:
    """What the same plan comes to with other products; empty before the first test or with nothing to add."""
    state = await modeled_state(scope, pool_id)
    parts = parts_of(state)
    currency = (await at_hand(scope)).preferences.currency
    if state.last_test is None:
        return StrategiesView((), (), None, currency)
    loss = (await outlook_of(scope, pool_id)).loss_mg_l_day
    found = await compared_strategies(scope, state, parts, loss, units=units)
    views = tuple(_view(outcome, units) for outcome in found if outcome.additions)
    return StrategiesView(views, between_visits(state, parts, loss), loss, currency)


def _view(found: StrategyOutcome, units: Units) -> StrategyView:
    return StrategyView(
        strategy=found.strategies[0],
        use=found.use,
        name=found.name,
        products=tuple(StrategyProduct(p.label, amount_text(p, grams)) for p, grams in found.amounts.items()),
        used_cost=found.used_cost,
        buy_cost=found.buy_cost,
        missing=tuple(buy_line(short, Message("for this sheet"), units) for short in found.missing),
        additions=found.additions,
        days=found.days,
        minutes_to_swim=found.minutes_to_swim,
        in_four_weeks=found.in_four_weeks,
    )


async def shopping(scope: Scope, *, units: Units) -> list[BuyLine]:
    """What to buy for the sheets that are offered now at all pools, and for the weeks ahead."""
    needs: dict[Product, float] = {}
    hand = await at_hand(scope)
    products = {product.id: product for product in hand.products}

    async def pours(pool_id: UUID) -> tuple[Step, ...]:
        state = await modeled_state(scope, pool_id)
        parts = parts_of(state)
        found = await offered_plan(scope, state, parts, units=units)
        known = (
            found is not None and not parts.basin.volume_is_unknown
        )  # else nobody can say how much it needs
        return found.steps if found is not None and known else ()

    for steps in (await each_pool(await pool_ids(scope), pours)).values():
        for step in steps:
            if step.kind == ADD and step.product_id in products:
                product = products[step.product_id]
                needs[product] = needs.get(product, 0.0) + (step.rounded_g or 0.0)
    return await to_buy(scope, needs, units=units)


def between_visits(state: PoolState, parts: PoolParts, loss: float | None) -> tuple[Finding, ...]:
    """Tablets a week or the cell's setting that make good what this pool loses a day."""
    if loss is None or loss <= 0:
        return ()
    kind, volume_l = parts.equipment.traits.chlorination, parts.basin.volume_l
    if kind is Chlorination.TABLETS:
        return (tablet_note(loss, volume_l),)
    cell = state.cell_settings[-1].body if state.cell_settings else None
    temperature = measured_readings(state).temperature_c
    warm = temperature is None or temperature >= CELL_OFF_BELOW_C
    if kind is Chlorination.SALT_CELL and cell is not None and cell.output_g_per_h > 0 and warm:
        return (cell_note(loss, volume_l, cell.output_g_per_h, max(cell.hours_per_day, 1.0)),)
    return ()
