"""A pool's parts and rules, and the plan that its water asks for."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from kumpan.core.dosing.product_choice import ROLES, ChoiceRequest, Strategy, choose, using
from kumpan.core.errors import InvalidInput
from kumpan.core.forecast.conditions import Place
from kumpan.core.forecast.expected import last_values, measured_readings
from kumpan.core.journal import (
    BasinMeasured,
    EquipmentSet,
    PoolState,
    SettingsMade,
)
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.product import Product
from kumpan.core.products.stock import Stocked
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import Units
from kumpan.core.ranges.pool_rules import PoolRules, rules_for
from kumpan.core.ranges.profiles import Band, Profile, profile
from kumpan.core.ranges.targets import Aims
from kumpan.core.records.display import DisplayOptions
from kumpan.core.testing.methods import Measured
from kumpan.core.treatment.plan import Plan, plan
from kumpan.core.treatment.strategies import StrategyOutcome, compare
from kumpan.core.treatment.too_coarse import requested, too_coarse
from kumpan.core.treatment.too_old import too_old, worded
from kumpan.services.cache import remembered
from kumpan.services.journal.ledger import Scope
from kumpan.services.pools.expectations import water_now
from kumpan.services.pools.places import under_the_sky
from kumpan.services.treatments.at_hand import at_hand, display_options


@dataclass(frozen=True, kw_only=True)
class PoolParts:
    """What every pool has once it is set up, and the rules that it is kept by."""

    settings: SettingsMade
    basin: BasinMeasured
    equipment: EquipmentSet
    profile: Profile
    rules: PoolRules

    @property
    def place(self) -> Place:
        """The pool as the chlorine model wants it."""
        return under_the_sky(self.settings, self.basin, self.equipment.traits)

    @property
    def bands(self) -> Mapping[Measure, Band]:
        """The ranges that hold for this pool."""
        return self.rules.bands


def parts_of(state: PoolState) -> PoolParts:
    """The parts of a pool that is set up. Raises InvalidInput for a journal without them."""
    if state.settings is None or state.basin is None or state.equipment is None:
        raise InvalidInput(Message("This pool is not fully set up: name, volume and equipment are needed."))
    rules = _rules(state.settings, state.equipment.traits, measured_readings(state))
    return PoolParts(
        settings=state.settings,
        basin=state.basin,
        equipment=state.equipment,
        profile=profile(state.settings.profile),
        rules=rules,
    )


@remembered(most=256)
def _rules(settings: SettingsMade, traits: Traits, readings: Readings) -> PoolRules:
    """A pure function; by active chlorine it solves the water a dozen times."""
    return rules_for(settings, traits, readings)


@dataclass(frozen=True)
class Chosen:
    """What the choice of products looks to first, one product that must be used in place of its like, and
    what the user aims at in place of the rules.
    """

    strategy: Strategy = Strategy.USUAL
    use: str | None = None
    targets: tuple[tuple[Measure, float], ...] = ()


AS_USUAL = Chosen()


async def offered_plan(
    scope: Scope, state: PoolState, parts: PoolParts, *, units: Units, chosen: Chosen = AS_USUAL
) -> Plan | None:
    """The plan for the water as it should be now; None before the first test."""
    if state.last_test is None:
        return None
    question, hand = await _question(scope, state, parts), await at_hand(scope)
    display = display_options(parts.settings, hand.preferences, units=units)
    found = _plan_for(question, chosen, parts.equipment.fill_water, display)
    unmet = worded(found.unmet, too_old(state, scope.now))
    coarse = _coarse(state, question.readings, parts)
    return replace(found, unmet=(*unmet, *requested(coarse)))


async def plan_products(
    scope: Scope, state: PoolState, parts: PoolParts, chosen: Chosen = AS_USUAL
) -> tuple[Product, ...]:
    """The products that the plan is made with: chosen once, then amounts are solved with them."""
    return _products(await _question(scope, state, parts), chosen)


async def compared_strategies(
    scope: Scope, state: PoolState, parts: PoolParts, loss_mg_l_day: float | None, *, units: Units
) -> tuple[StrategyOutcome, ...]:
    """All ways through the plan, side by side."""
    question, hand = await _question(scope, state, parts), await at_hand(scope)
    return compare(
        question.choice, loss_mg_l_day, display_options(parts.settings, hand.preferences, units=units)
    )


@dataclass(frozen=True, kw_only=True)
class PlanQuestion:
    """All that the amounts depend on; hashable, so that the same question is answered once."""

    readings: Readings
    volume_l: float
    traits: Traits
    band_rows: tuple[tuple[Measure, Band], ...]
    held: frozenset[Measure]
    stocked: tuple[Stocked, ...]

    @property
    def aims(self) -> Aims:
        """What the plan aims at."""
        return Aims(dict(self.band_rows), {}, self.held)

    @property
    def choice(self) -> ChoiceRequest:
        """The question which products to take."""
        return ChoiceRequest(
            readings=self.readings,
            volume_l=self.volume_l,
            traits=self.traits,
            aims=self.aims,
            inventory=self.stocked,
        )


async def _question(scope: Scope, state: PoolState, parts: PoolParts) -> PlanQuestion:
    readings = water_now(state, parts.place, scope.now)
    hand = await at_hand(scope)
    held = frozenset(_coarse(state, readings, parts))
    rows = tuple(parts.bands.items())
    return PlanQuestion(
        readings=readings,
        volume_l=parts.basin.volume_l,
        traits=parts.equipment.traits,
        band_rows=rows,
        held=held,
        stocked=hand.stocked,
    )


def _coarse(state: PoolState, readings: Readings, parts: PoolParts) -> dict[Measure, Measured]:
    return too_coarse(readings, last_values(state), parts.bands)


@remembered(most=256)
def _plan_for(question: PlanQuestion, chosen: Chosen, fill: Readings, display: DisplayOptions) -> Plan:
    """The plan is a pure function of these, and head, board and sheet all ask for the same one."""
    products = _products(question, chosen)
    aimed = question.aims
    if chosen.targets:
        products = _with_the_rest(products, question.stocked)
        aimed = replace(aimed, named=dict(chosen.targets))
    return plan(
        question.readings,
        question.volume_l,
        traits=question.traits,
        aims=aimed,
        inventory=products,
        display=display,
        fill=fill,
    )


def _with_the_rest(chosen: Sequence[Product], stocked: Sequence[Stocked]) -> tuple[Product, ...]:
    """The products already chosen stay; for work that none of them does the rest of the shelf stands by."""
    done = [role for role in ROLES if any(product.chemical in role for product in chosen)]
    others = (item.product for item in stocked if not any(item.product.chemical in role for role in done))
    return (*chosen, *(product for product in others if product not in chosen))


@remembered(most=256)
def _products(question: PlanQuestion, chosen: Chosen) -> tuple[Product, ...]:
    request = question.choice if chosen.use is None else using(question.choice, chosen.use)
    return choose(request, chosen.strategy)
