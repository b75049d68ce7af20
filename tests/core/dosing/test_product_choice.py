"""Which products a plan is made with: the programme's choice, its safety, and what the ways come to."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kumpan.core.dosing.product_choice import ChoiceAsked, Way, choose, using
from kumpan.core.dosing.solver import solve
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.catalogue import STABILISED
from kumpan.core.products.product import Product
from kumpan.core.products.purchase import cheapest, missing
from kumpan.core.products.stock import Stocked
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import school
from kumpan.core.ranges.targets import aims
from kumpan.core.records.display import Telling
from kumpan.core.records.step import ADD
from kumpan.core.treatment.plan import plan
from kumpan.core.treatment.strategies import compare
from tests.core.samples import GOOD, INDOOR, PLASTER, POOL_L, SALT_POOL, VINYL_TABLETS

SHELF = tuple(
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


def asked(readings: Readings, traits: Traits = PLASTER, shelf: tuple[Stocked, ...] = SHELF) -> ChoiceAsked:
    return ChoiceAsked(readings, POOL_L, traits, aims(school("household"), traits, readings, {}), shelf)


def chemicals(products: tuple[Product, ...]) -> set[str]:
    return {product.chemical for product in products}


def test_the_cheapest_chlorine_is_chosen_by_its_price() -> None:
    assert "calcium_hypochlorite" in chemicals(choose(asked(LOW_CHLORINE), Way.CHEAPEST))
    dear = tuple(replace(item, price=99.0) if item.product.id == "calhypo" else item for item in SHELF)
    assert "sodium_hypochlorite" in chemicals(choose(asked(LOW_CHLORINE, shelf=dear), Way.CHEAPEST))


def test_the_usual_way_is_the_pools_own_kind() -> None:
    assert chemicals(choose(asked(LOW_CHLORINE), Way.USUAL)) == {"sodium_hypochlorite"}
    assert "sodium_dichlor" in chemicals(choose(asked(LOW_CHLORINE, VINYL_TABLETS), Way.USUAL))


def test_the_cleanest_way_leaves_no_stabiliser_behind() -> None:
    assert not chemicals(choose(asked(LOW_CHLORINE, VINYL_TABLETS), Way.CLEANEST)) & set(STABILISED)


def test_stock_is_used_before_something_is_bought() -> None:
    shelf = tuple(replace(i, stock_g=0.0 if i.product.id == "liquid" else 50_000.0) for i in SHELF)
    assert "liquid" not in {p.id for p in choose(asked(LOW_CHLORINE, shelf=shelf), Way.USUAL)}


def test_never_calcium_to_a_cell_nor_stabiliser_indoors_nor_tablets_to_raise() -> None:
    for way in Way:
        assert "calcium_hypochlorite" not in chemicals(choose(asked(LOW_CHLORINE, SALT_POOL), way))
        assert not chemicals(choose(asked(LOW_CHLORINE, INDOOR), way)) & set(STABILISED)
        assert "trichlor" not in chemicals(choose(asked(LOW_CHLORINE), way))


def test_one_product_can_be_asked_for_in_place_of_its_like() -> None:
    question = using(asked(LOW_CHLORINE), "dichlor")
    assert chemicals(choose(question, Way.USUAL)) == {"sodium_dichlor"}


@settings(max_examples=60, deadline=None)
@given(
    st.floats(0, 3), st.floats(6.9, 8.2), st.floats(50, 150), st.floats(100, 400), st.floats(10, 80),
    st.sampled_from([PLASTER, SALT_POOL, VINYL_TABLETS]), st.sampled_from(list(Way)),
)  # fmt: skip
def test_the_choice_never_leaves_more_undone_than_the_whole_shelf(
    free: float, ph: float, alkalinity: float, calcium: float, stabiliser: float, traits: Traits, way: Way
) -> None:
    readings = Readings(
        free_chlorine=free, ph=ph, total_alkalinity=alkalinity, calcium_hardness=calcium,
        cyanuric_acid=stabiliser, temperature_c=26,
    )  # fmt: skip
    question = asked(readings, traits)
    everything = tuple(item.product for item in SHELF)
    whole = solve(readings, POOL_L, traits, question.aims, everything)
    chosen = solve(readings, POOL_L, traits, question.aims, choose(question, way))
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
    found = compare(asked(LOW_CHLORINE), 2.0, Telling())
    usual = next(way for way in found if Way.USUAL in way.ways and way.use is None)
    dichlor = next(way for way in found if way.use == "dichlor")
    assert usual.additions == sum(step.kind == ADD for step in usual.plan.steps)
    assert usual.in_four_weeks[Measure.CYANURIC_ACID] == pytest.approx(40)
    # Handbook 04: dichlor brings 0.91 of stabiliser for each part of chlorine; 28 days at 2, and what is poured now.
    assert dichlor.in_four_weeks[Measure.CYANURIC_ACID] == pytest.approx(40 + 0.91 * (56 + 2.0), rel=0.01)
    liquid_ml = sum(step.rounded_ml or 0 for step in usual.plan.steps)
    assert usual.used_cost == pytest.approx(liquid_ml / 9464.0 * 14.0, rel=1e-6)
    assert len({frozenset(p.id for p in way.amounts) for way in found}) == len(found), "no way stands twice"


def test_a_missing_price_is_not_taken_for_nothing() -> None:
    shelf = tuple(replace(item, price=None) for item in SHELF)
    assert compare(asked(LOW_CHLORINE, shelf=shelf), None, Telling())[0].used_cost is None


def test_a_plan_with_the_chosen_products_is_an_ordinary_plan() -> None:
    question = asked(LOW_CHLORINE)
    made = plan(LOW_CHLORINE, POOL_L, PLASTER, question.aims, choose(question, Way.USUAL))
    assert made.predicted.free_chlorine == pytest.approx(2.5)
