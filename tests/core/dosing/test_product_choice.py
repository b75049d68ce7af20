"""Which products a plan is made with: the program's choice, its safety, and what the ways come to."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kumpan.core.dosing.product_choice import ChoiceRequest, Strategy, choose, using
from kumpan.core.dosing.solver import solve
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.catalogue import STABILIZED
from kumpan.core.products.product import Product
from kumpan.core.products.purchase import cheapest, missing
from kumpan.core.products.stock import Stocked
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import profile
from kumpan.core.ranges.targets import aims
from kumpan.core.records.display import DisplayOptions
from kumpan.core.records.step import ADD
from kumpan.core.treatment.plan import plan
from kumpan.core.treatment.strategies import compare, loss_text, not_offered
from tests.core.samples import GOOD, INDOOR, PLASTER, POOL_L, SALT_POOL, VINYL_TABLETS
from tests.words import told

INVENTORY = tuple(
    Stocked(Product(key, chemical, strength, package_g=grams, package_ml=ml), None, price)
    for key, chemical, strength, grams, ml, price in (
        ("liquid", "sodium_hypochlorite", 10.0, None, 9464.0, 14.0),
        ("strong", "sodium_hypochlorite", 12.5, None, 9464.0, 30.0),
        ("calhypo", "calcium_hypochlorite", 65.0, 454.0, None, 1.0),
        ("dichlor", "sodium_dichlor", 56.0, 2268.0, None, 30.0),
        ("tablets", "trichlor", 90.0, 2268.0, None, 5.0),
        ("acid", "hydrochloric_acid", 31.45, None, 3785.0, 9.0),
        ("dry", "sodium_bisulfate", 93.2, 4536.0, None, 20.0),
        ("soda", "sodium_bicarbonate", 100.0, 5443.0, None, 15.0),
        ("ash", "sodium_carbonate", 100.0, 2268.0, None, 14.0),
        ("borax", "borax", 100.0, 2268.0, None, 8.0),
        ("calcium", "calcium_chloride", 77.0, 11340.0, None, 30.0),
        ("stabiliser", "cyanuric_acid", 100.0, 1814.0, None, 22.0),
    )
)
LOW_CHLORINE = replace(GOOD, free_chlorine=0.5, total_chlorine=0.6)


def request(
    readings: Readings, traits: Traits = PLASTER, inventory: tuple[Stocked, ...] = INVENTORY
) -> ChoiceRequest:
    return ChoiceRequest(
        readings=readings,
        volume_l=POOL_L,
        traits=traits,
        aims=aims(profile("household"), traits, readings, {}),
        inventory=inventory,
    )


def chemicals(products: tuple[Product, ...]) -> set[str]:
    return {product.chemical for product in products}


def test_the_cheapest_chlorine_is_chosen_by_its_price() -> None:
    assert "calcium_hypochlorite" in chemicals(choose(request(LOW_CHLORINE), Strategy.CHEAPEST))
    dear = tuple(replace(item, price=99.0) if item.product.id == "calhypo" else item for item in INVENTORY)
    assert "sodium_hypochlorite" in chemicals(
        choose(request(LOW_CHLORINE, inventory=dear), Strategy.CHEAPEST)
    )


def test_the_usual_way_is_the_pools_own_kind() -> None:
    assert chemicals(choose(request(LOW_CHLORINE), Strategy.USUAL)) == {"sodium_hypochlorite"}
    assert "sodium_dichlor" in chemicals(choose(request(LOW_CHLORINE, VINYL_TABLETS), Strategy.USUAL))


def test_the_cleanest_way_leaves_no_stabilizer_behind() -> None:
    assert not chemicals(choose(request(LOW_CHLORINE, VINYL_TABLETS), Strategy.CLEANEST)) & set(STABILIZED)


def test_stock_is_used_before_something_is_bought() -> None:
    inventory = tuple(replace(i, stock_g=0.0 if i.product.id == "liquid" else 50_000.0) for i in INVENTORY)
    assert "liquid" not in {p.id for p in choose(request(LOW_CHLORINE, inventory=inventory), Strategy.USUAL)}


def test_never_calcium_to_a_cell_nor_stabilizer_indoors_nor_tablets_to_raise() -> None:
    for strategy in Strategy:
        assert "calcium_hypochlorite" not in chemicals(choose(request(LOW_CHLORINE, SALT_POOL), strategy))
        assert not chemicals(choose(request(LOW_CHLORINE, INDOOR), strategy)) & set(STABILIZED)
        assert "trichlor" not in chemicals(choose(request(LOW_CHLORINE), strategy))


def test_one_product_can_be_asked_for_in_place_of_its_like() -> None:
    question = using(request(LOW_CHLORINE), "dichlor")
    assert chemicals(choose(question, Strategy.USUAL)) == {"sodium_dichlor"}


@settings(max_examples=60, deadline=None)
@given(
    st.floats(0, 3), st.floats(6.9, 8.2), st.floats(50, 150), st.floats(100, 400), st.floats(10, 80),
    st.sampled_from([PLASTER, SALT_POOL, VINYL_TABLETS]), st.sampled_from(list(Strategy)),
)  # fmt: skip
def test_the_choice_never_leaves_more_undone_than_the_whole_shelf(
    free: float,
    ph: float,
    alkalinity: float,
    calcium: float,
    stabilizer: float,
    traits: Traits,
    strategy: Strategy,
) -> None:
    readings = Readings(
        free_chlorine=free,
        ph=ph,
        total_alkalinity=alkalinity,
        calcium_hardness=calcium,
        cyanuric_acid=stabilizer,
        temperature_c=26,
    )
    question = request(readings, traits)
    everything = tuple(item.product for item in INVENTORY)
    whole = solve(readings, POOL_L, traits, question.aims, everything)
    chosen = solve(readings, POOL_L, traits, question.aims, choose(question, strategy))
    assert {u.measure for u in chosen.unmet} <= {u.measure for u in whole.unmet}


def test_what_a_plan_lacks_is_bought_in_the_cheapest_whole_packages() -> None:
    """4 kg short: five bags of 1 kg at 3 cost 15, one of 5 kg at 12 less; by hand."""
    small = Stocked(Product("small", "sodium_bicarbonate", 100.0, package_g=1000.0), 0.0, 3.0)
    large = Stocked(Product("large", "sodium_bicarbonate", 100.0, package_g=5000.0), None, 12.0)
    assert [(b.product.id, b.packages, b.cost) for b in cheapest(small.product, 4500.0, (small, large))] == [
        ("large", 1, 12.0)
    ]
    assert [(b.product.id, b.packages) for b in cheapest(small.product, 2500.0, (small, large))] == [
        ("small", 3)
    ]
    assert missing({small.product: 800.0}, (replace(small, stock_g=800.0),)) == ()
    assert missing({small.product: 800.0}, (replace(small, stock_g=300.0),))[0].short_g == pytest.approx(
        500.0
    )
    assert missing({large.product: 800.0}, (large,)) == (), "a stock that is not counted counts as there"


def test_a_weaker_strength_counts_by_what_it_holds() -> None:
    """Half the strength takes twice the packages."""
    strong = Stocked(Product("s", "sodium_bisulfate", 93.2, package_g=1000.0), 0.0, 10.0)
    weak = Stocked(Product("w", "sodium_bisulfate", 46.6, package_g=1000.0), 0.0, 4.0)
    assert [(b.product.id, b.packages) for b in cheapest(strong.product, 1000.0, (strong, weak))] == [
        ("w", 2)
    ]


def test_the_ways_side_by_side() -> None:
    found = compare(request(LOW_CHLORINE), 2.0, DisplayOptions())
    usual = next(
        strategy for strategy in found if Strategy.USUAL in strategy.strategies and strategy.use is None
    )
    dichlor = next(strategy for strategy in found if strategy.use == "dichlor")
    assert usual.additions == sum(step.kind == ADD for step in usual.plan.steps)
    assert usual.in_four_weeks[Measure.CYANURIC_ACID] == pytest.approx(40)
    # Handbook 04: dichlor brings 0.91 of stabilizer for each part of chlorine; 28 days at 2, and what is
    # poured now.
    assert dichlor.in_four_weeks[Measure.CYANURIC_ACID] == pytest.approx(40 + 0.91 * (56 + 2.0), rel=0.01)
    liquid_ml = sum(step.rounded_ml or 0 for step in usual.plan.steps)
    assert usual.used_cost == pytest.approx(liquid_ml / 9464.0 * 14.0, rel=1e-6)
    assert len({frozenset(p.id for p in strategy.amounts) for strategy in found}) == len(found), (
        "no way stands twice"
    )


@pytest.mark.parametrize(
    ("traits", "label", "says"),
    [
        (PLASTER, "tablets", "over days"),
        (SALT_POOL, "calhypo", "plates"),
        (INDOOR, "dichlor", "no stabilizer"),
    ],
)
def test_what_does_not_serve_here_is_named_with_its_reason(traits: Traits, label: str, says: str) -> None:
    """Common practice: no calcium to a salt cell, no stabilizer indoors, tablets hold and do not raise."""
    question = request(LOW_CHLORINE, traits)
    found = compare(question, 2.0, DisplayOptions())
    reasons = {product.id: told(why) for product, why in not_offered(question, found)}
    assert says in reasons[label]
    assert not set(reasons) & {product.id for way in found for product in way.amounts}


def test_a_missing_price_is_not_taken_for_nothing() -> None:
    inventory = tuple(replace(item, price=None) for item in INVENTORY)
    assert compare(request(LOW_CHLORINE, inventory=inventory), None, DisplayOptions())[0].used_cost is None


def test_a_plan_with_the_chosen_products_is_an_ordinary_plan() -> None:
    question = request(LOW_CHLORINE)
    made = plan(LOW_CHLORINE, POOL_L, PLASTER, question.aims, choose(question, Strategy.USUAL))
    assert made.predicted.free_chlorine == pytest.approx(2.5)


def test_the_loss_behind_the_weeks_ahead_is_told() -> None:
    assert told(loss_text(1.24)) == "Four weeks ahead at this pool's own loss of 1.2 ppm a day."
    assert told(loss_text(None)) == (
        "Four weeks ahead at a usual loss of 2 ppm a day; this pool's own is not known yet."
    )
