"""A pool's parts and rules, and the plan that its water asks for."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from kumpan.core.assessment.swim import least_free_mg_l
from kumpan.core.dosing.product_choice import ROLES, ChoiceRequest, Strategy, choose, using
from kumpan.core.errors import InvalidInput
from kumpan.core.forecast.conditions import Place
from kumpan.core.forecast.expected import last_values, measured_readings, settled_reading, untested_since
from kumpan.core.journal import (
    BasinMeasured,
    EquipmentSet,
    PoolState,
    SettingsMade,
    last_reading,
    needs_rescue,
)
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination, Traits
from kumpan.core.products.product import Product
from kumpan.core.products.stock import Stocked
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import Units
from kumpan.core.quantity import PoolWater
from kumpan.core.ranges.disagreements import answer
from kumpan.core.ranges.pool_rules import PoolRules, rules_for
from kumpan.core.ranges.profiles import Band, Profile, profile
from kumpan.core.ranges.targets import Aims
from kumpan.core.records.display import DisplayOptions
from kumpan.core.testing.methods import Measured
from kumpan.core.testing.plausibility import BLEACHING_FREE_CHLORINE_MG_L
from kumpan.core.treatment.amount_ranges import volume_share, with_ranges
from kumpan.core.treatment.careful import careful_plan, stabilizer_prior
from kumpan.core.treatment.not_now import NotNow, not_now
from kumpan.core.treatment.plan import Plan, beside_a_rescue
from kumpan.core.treatment.plan_inputs import PlanInputs
from kumpan.core.treatment.strategies import StrategyOutcome, compare, not_offered
from kumpan.core.treatment.too_coarse import too_coarse
from kumpan.core.treatment.too_old import too_old, worded
from kumpan.services.cache import remembered
from kumpan.services.journal.ledger import Scope
from kumpan.services.pools.expectations import chlorine_before, water_now
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

    def known_volume_l(self) -> float:
        """The volume, for amounts of the whole pool. Raises InvalidInput where nobody knows it."""
        if self.basin.volume_is_unknown:
            raise InvalidInput(
                Message(
                    "The volume of this pool is not known: amounts are for each {water}. Set it first.",
                    water=PoolWater(self.basin.volume_l),
                )
            )
        return self.basin.volume_l

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


@remembered(most=128)
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
    question, hand = await _question(scope, state, parts), await at_hand(scope, state.pool_id)
    display = display_options(parts.settings, hand.preferences, units=units)
    found = _plan_for(question, chosen, parts.equipment.fill_water, display)
    found = beside_a_rescue(found) if needs_rescue(state) else found
    return replace(found, unmet=worded(found.unmet, too_old(state, scope.now)))


async def with_amount_ranges(
    scope: Scope, state: PoolState, parts: PoolParts, found: Plan, chosen: Chosen, *, units: Units
) -> Plan:
    """The plan with the range of each amount and the reading behind most of it."""
    question, hand = await _question(scope, state, parts), await at_hand(scope, state.pool_id)
    display = display_options(parts.settings, hand.preferences, units=units)
    inputs = _inputs(question, chosen, parts.equipment.fill_water, display)
    return with_ranges(found, inputs, volume_share(parts.basin))


async def compared_strategies(
    scope: Scope, state: PoolState, parts: PoolParts, loss_mg_l_day: float | None, *, units: Units
) -> tuple[tuple[StrategyOutcome, ...], tuple[tuple[Product, Message], ...]]:
    """All ways through the plan, side by side; and what of the shelf does not serve here, with the reason."""
    question, hand = await _question(scope, state, parts), await at_hand(scope, state.pool_id)
    display = display_options(parts.settings, hand.preferences, units=units)
    found = compare(question.choice, loss_mg_l_day, display)
    return found, not_offered(question.choice, found)


@dataclass(frozen=True, kw_only=True)
class PlanQuestion:
    """All that the amounts depend on; hashable, so that the same question is answered once."""

    readings: Readings
    volume_l: float
    traits: Traits
    band_rows: tuple[tuple[Measure, Band], ...]
    held: frozenset[Measure]
    stocked: tuple[Stocked, ...]
    measured: tuple[Measured, ...]
    poured: tuple[tuple[int, str], ...]
    bleached: bool
    raise_ph_by: str
    least_mg_l: float
    stabilizer_prior: tuple[float, float]
    waiting: tuple[NotNow, ...]
    untested: frozenset[Measure]

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
    hand = await at_hand(scope, state.pool_id)
    held = frozenset(_coarse(state, readings, parts))
    rows = tuple(parts.bands.items())
    return PlanQuestion(
        readings=readings,
        volume_l=parts.basin.volume_l,
        traits=parts.equipment.traits,
        band_rows=rows,
        held=held,
        stocked=hand.stocked,
        measured=last_values(state),
        poured=poured_lately(state, scope.now),
        bleached=maybe_bleached(state, parts),
        raise_ph_by=answer(parts.settings.choices, "ph_up"),
        least_mg_l=least_mg_l(state, parts),
        stabilizer_prior=stabilizer_prior(state),
        waiting=not_now(state, scope.now, readings.temperature_c),
        untested=untested_since(state, scope.now),
    )


def poured_lately(state: PoolState, now: datetime) -> tuple[tuple[int, str], ...]:
    """What went in during the last day, as (minutes ago, chemical): waits reach across plans."""
    since = now - timedelta(days=1)
    return tuple(
        (int((now - entry.at).total_seconds() // 60), entry.body.chemical)
        for entry in state.additions
        if entry.at > since
    )


def maybe_bleached(state: PoolState, parts: PoolParts) -> bool:
    """A zero of chlorine where the tests before it foretold up to more than what bleaches colors."""
    read = settled_reading(state, Measure.FREE_CHLORINE)
    if read is None or read.value.value > 0:
        return False
    foretold = chlorine_before(state, parts.place)
    return foretold is not None and foretold.at(read.at.timestamp())[2] > BLEACHING_FREE_CHLORINE_MG_L


def least_mg_l(state: PoolState, parts: PoolParts) -> float:
    """The free chlorine under which nobody swims here."""
    stabilizer = last_reading(state, Measure.CYANURIC_ACID)
    traits = parts.equipment.traits
    return least_free_mg_l(
        parts.settings.profile,
        stabilized=stabilizer.value.value > 0 if stabilizer is not None else not traits.indoor,
        supplement=answer(parts.settings.choices, "supplement") == "lower"
        and traits.chlorination is Chlorination.MINERAL,
    )


def _coarse(state: PoolState, readings: Readings, parts: PoolParts) -> dict[Measure, Measured]:
    return too_coarse(readings, last_values(state), parts.bands)


@remembered(most=128)
def _plan_for(question: PlanQuestion, chosen: Chosen, fill: Readings, display: DisplayOptions) -> Plan:
    """The plan is a pure function of these, and head, board and sheet all ask for the same one."""
    return careful_plan(_inputs(question, chosen, fill, display))


def _inputs(question: PlanQuestion, chosen: Chosen, fill: Readings, display: DisplayOptions) -> PlanInputs:
    products = _products(question, chosen)
    aimed = Aims(dict(question.band_rows), {})
    if chosen.targets:
        products = _with_the_rest(products, question.stocked)
        aimed = replace(aimed, named=dict(chosen.targets))
    return PlanInputs(
        readings=question.readings,
        volume_l=question.volume_l,
        traits=question.traits,
        aims=aimed,
        inventory=products,
        measured=question.measured,
        display=display,
        fill=fill,
        least_mg_l=question.least_mg_l,
        poured=question.poured,
        bleached=question.bleached,
        raise_ph_by=question.raise_ph_by,
        stabilizer_prior=question.stabilizer_prior,
        waiting=question.waiting,
        untested=question.untested,
    )


def _with_the_rest(chosen: Sequence[Product], stocked: Sequence[Stocked]) -> tuple[Product, ...]:
    """The products already chosen stay; for work that none of them does the rest of the shelf stands by."""
    done = [role for role in ROLES if any(product.chemical in role for product in chosen)]
    others = (item.product for item in stocked if not any(item.product.chemical in role for role in done))
    return (*chosen, *(product for product in others if product not in chosen))


@remembered(most=128)
def _products(question: PlanQuestion, chosen: Chosen) -> tuple[Product, ...]:
    request = question.choice if chosen.use is None else using(question.choice, chosen.use)
    return choose(request, chosen.strategy)
