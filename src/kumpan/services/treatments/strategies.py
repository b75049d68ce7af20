"""The ways through one plan side by side, and what holds the pool between visits."""

from uuid import UUID

from kumpan.core.dosing.feeding import cell_note, tablet_note
from kumpan.core.findings import Finding
from kumpan.core.forecast.expected import measured_readings
from kumpan.core.forecast.rates import CELL_OFF_BELOW_C
from kumpan.core.journal import PoolState
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination
from kumpan.core.quantities.units import Units
from kumpan.core.treatment.strategies import StrategyOutcome, loss_text
from kumpan.services.journal.ledger import Scope
from kumpan.services.pools.expectations import modeled_state
from kumpan.services.pools.outlooks import outlook_of
from kumpan.services.pools.queries import PoolParts, compared_strategies, parts_of
from kumpan.services.products.queries import amount_text, buy_line
from kumpan.services.treatments.at_hand import at_hand
from kumpan.services.treatments.views import NotOffered, StrategiesView, StrategyProduct, StrategyView


async def strategies(scope: Scope, pool_id: UUID, *, units: Units) -> StrategiesView:
    """What the same plan comes to with other products; empty before the first test or with nothing to add."""
    state = await modeled_state(scope, pool_id)
    parts = parts_of(state)
    currency = (await at_hand(scope, pool_id)).preferences.currency
    if state.last_test is None:
        return StrategiesView(
            strategies=(),
            not_offered=(),
            between=(),
            loss_mg_l_day=None,
            loss_text=loss_text(None),
            currency=currency,
        )
    loss = (await outlook_of(scope, pool_id)).loss_mg_l_day
    found, unsuited = await compared_strategies(scope, state, parts, loss, units=units)
    views = tuple(_view(outcome, units) for outcome in found if outcome.additions)
    not_here = tuple(NotOffered(product.label, why) for product, why in unsuited)
    return StrategiesView(
        strategies=views,
        not_offered=not_here,
        between=between_visits(state, parts, loss),
        loss_mg_l_day=loss,
        loss_text=loss_text(loss),
        currency=currency,
    )


def _view(found: StrategyOutcome, units: Units) -> StrategyView:
    return StrategyView(
        strategy=found.strategies[0],
        use=found.use,
        name=found.name,
        products=tuple(StrategyProduct(p.label, amount_text(p, grams)) for p, grams in found.amounts.items()),
        used_cost=found.used_cost,
        buy_cost=found.buy_cost,
        missing=tuple(buy_line(short, Message("for this plan"), units) for short in found.missing),
        additions=found.additions,
        days=found.days,
        minutes_to_swim=found.minutes_to_swim,
        in_four_weeks=found.in_four_weeks,
    )


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
