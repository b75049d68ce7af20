"""How much a week: the regime of one pool, product by product."""

from datetime import timedelta
from uuid import UUID

from kumpan.core.dosing.rounding import rough_amount
from kumpan.core.forecast.conditions import conditions
from kumpan.core.journal import PoolState, needs_rescue
from kumpan.core.maintenance.due import regime_task
from kumpan.core.messages import NOTHING, Message
from kumpan.core.pool.equipment import Chlorination
from kumpan.core.products.product import Product, volume_from_mass_ml
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import G_PER_LB, L_PER_US_GAL, Units
from kumpan.core.quantity import Number
from kumpan.core.treatment.weekly import (
    MONTH,
    SEASON,
    WEEK,
    Loss,
    Regime,
    WeeklyRequest,
    basis,
    cell_week,
    in_words,
    once_a_week,
    regimes,
    weekly_loss,
)
from kumpan.services.journal.ledger import Scope
from kumpan.services.pools.expectations import model_of, modeled_state, water_now
from kumpan.services.pools.queries import PoolParts, parts_of
from kumpan.services.products.queries import roughly_text
from kumpan.services.treatments.at_hand import at_hand, display_options
from kumpan.services.treatments.views import Moved, RegimeView, WeeklyView

LEVEL_MG_L = 3.0  # held where nothing says else


async def weekly(scope: Scope, pool_id: UUID, *, units: Units) -> WeeklyView:
    """What this pool loses a week, and what that is in each product. Raises NotFound."""
    state = await modeled_state(scope, pool_id)
    parts, hand = parts_of(state), await at_hand(scope, pool_id)
    volume_l = parts.known_volume_l()
    fitted = await model_of(state, parts.place)
    band = parts.bands[Measure.FREE_CHLORINE]
    level = band.low if band.low is not None else LEVEL_MG_L
    start_s = scope.now.timestamp()
    acting = conditions(state, parts.place, start_s, start_s + timedelta(days=WEEK).total_seconds())
    loss = weekly_loss(acting, fitted, level)
    request = WeeklyRequest(
        loss=loss,
        volume_l=volume_l,
        traits=parts.equipment.traits,
        readings=water_now(state, parts.place, scope.now),
        bands=parts.bands,
        swim_limit_mg_l=parts.rules.swim_limit_mg_l,
        level_mg_l=level,
        inventory=() if hand.standard else hand.products,
        display=display_options(parts.settings, hand.preferences, units=units),
    )
    prices = {item.product.id: item.price_per_g for item in hand.stocked}
    scheduled = _on_the_schedule(state)
    return WeeklyView(
        low=loss.low,
        likely=loss.likely,
        high=loss.high,
        tests=loss.tests,
        basis=basis(loss, rescue=needs_rescue(state)),
        level=level,
        once=once_a_week(request),
        cell=_cell(state, parts, loss),
        regimes=tuple(
            _view(regime, prices.get(regime.product.id), scheduled, units=units)
            for regime in regimes(request)
        ),
        currency=hand.preferences.currency,
    )


def _on_the_schedule(state: PoolState) -> frozenset[str]:
    """The tasks that come round by an interval of their own."""
    last = {entry.body.task: entry.body for entry in state.intervals}
    return frozenset(task for task, own in last.items() if not own.off and own.days is not None)


def _cell(state: PoolState, parts: PoolParts, loss: Loss) -> Message | None:
    """What the cell has to run; None without a cell whose output is known."""
    cell = state.cell_settings[-1].body if state.cell_settings else None
    if parts.equipment.traits.chlorination is not Chlorination.SALT_CELL or cell is None:
        return None
    if cell.output_g_per_h <= 0:
        return None
    hours = max(1.0, cell.hours_per_day)
    runs = cell_week(loss, parts.basin.volume_l, cell.output_g_per_h, hours)
    return _cell_words(runs.percent, runs.hours_per_day, runs.hours_at_full)


def _cell_words(percent: float, hours: float, hours_at_full: float) -> Message:
    if percent <= 100:
        return Message(
            "The cell at {percent} % for {hours} h a day.",
            percent=Number(percent, digits=0),
            hours=Number(hours),
        )
    if hours_at_full <= 24:
        return Message("The cell at 100 % for {hours} h a day.", hours=Number(hours_at_full, digits=0))
    return Message("Even 100 % around the clock is not enough: what is missing goes in by hand.")


def _view(
    regime: Regime, price_per_g: float | None, scheduled: frozenset[str], *, units: Units
) -> RegimeView:
    low, likely, high = regime.week_g
    return RegimeView(
        product_id=regime.product.id,
        name=regime.product.label,
        task=regime_task(regime.product.chemical),
        every_days=regime.every_days,
        on_schedule=regime_task(regime.product.chemical) in scheduled,
        at_hand=regime.at_hand,
        words=in_words(regime),
        week_text=_about(regime.product, likely, units),
        range_text=Message(
            "{low} to {high}",
            low=_about(regime.product, low, units),
            high=_about(regime.product, high, units),
        ),
        week_cost=None if price_per_g is None else likely * price_per_g,
        moves=tuple(
            Moved(measure, change * MONTH / WEEK, change * SEASON / WEEK)
            for measure, change in regime.brings.items()
        ),
        unsuited=regime.unsuited or NOTHING,
        notes=regime.notes,
        chart=_chart(regime, units),
    )


def _about(product: Product, mass_g: float, units: Units) -> Message:
    """A week's amount in one large unit; what is less than one of these in whole small ones."""
    ml = volume_from_mass_ml(product, mass_g)
    large = mass_g >= G_PER_LB if ml is None else ml >= L_PER_US_GAL * 1000
    if not large:
        return roughly_text(product, mass_g, units)
    return Message("{amount}", amount=rough_amount(product, mass_g))


def _chart(regime: Regime, units: Units) -> Message:
    """The trade's rule for a week, what it is here, and how it differs from what the pool needs."""
    if regime.chart is None:
        return NOTHING
    brings, needs = regime.chart.brings.get(Measure.FREE_CHLORINE, 0.0), 0.0
    needs = brings * regime.week_g[1] / regime.chart.mass_g if regime.chart.mass_g else 0.0
    product = Product(
        regime.product.id, regime.chart.rule.product.chemical, regime.chart.rule.product.strength_percent
    )
    return Message(
        "The trade's chart: {says}. Here that is {amount}, {brings} "
        "ppm a week; this pool loses about {needs}.",
        says=regime.chart.rule.says,
        amount=roughly_text(product, regime.chart.mass_g, units),
        brings=Number(brings, digits=0),
        needs=Number(needs, digits=0),
    )
