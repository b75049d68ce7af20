"""The plan: right amounts, in order, kept apart, split, with waits, tests and cautions."""

from dataclasses import replace

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from kumpan.core.dosing.mass_balance import change_per_g
from kumpan.core.dosing.order_and_waits import ADDITION_LIMITS, LARGEST_PH_MOVE, separation
from kumpan.core.dosing.raisers import STANDARD_INVENTORY, raiser
from kumpan.core.errors import InvalidInput
from kumpan.core.hazards import HAZARDS, Hazard
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.products.catalogue import BY_LABEL, CATALOGUE
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import ProfileKey, profile
from kumpan.core.ranges.targets import aims
from kumpan.core.records.step import Step
from kumpan.core.treatment.plan import Plan, plan
from tests.core.samples import GOOD, INDOOR, PLASTER, POOL_L, SALT_POOL, VINYL_TABLETS
from tests.words import told

M = Measure


def planned(
    readings: Readings,
    traits: Traits = PLASTER,
    named: dict[Measure, float] | None = None,
    inventory: tuple[Product, ...] = STANDARD_INVENTORY,
    key: str = "household",
) -> Plan:
    return plan(readings, POOL_L, traits, aims(profile(key), traits, readings, named or {}), inventory)


def adds(found: Plan) -> list[Step]:
    return [step for step in found.steps if step.kind == "add"]


def test_water_in_range_gets_an_empty_sheet() -> None:
    found = planned(GOOD)
    assert found.steps == ()
    assert found.unmet == ()


def test_what_is_out_of_range_is_brought_to_the_aim() -> None:
    found = planned(
        Readings(free_chlorine=1, ph=7.5, total_alkalinity=100, calcium_hardness=150, cyanuric_acid=20)
    )
    predicted = found.predicted
    assert predicted.free_chlorine == pytest.approx(2.5)
    assert predicted.calcium_hardness == pytest.approx(260)
    assert predicted.cyanuric_acid == pytest.approx(40)


def test_a_named_target_goes_before_the_school() -> None:
    assert planned(GOOD, named={M.FREE_CHLORINE: 5.0}).predicted.free_chlorine == pytest.approx(5.0)


def test_a_named_target_within_what_the_test_can_tell_is_left_alone() -> None:
    assert planned(GOOD, named={M.TOTAL_ALKALINITY: 100.9}).steps == ()


def test_an_unknown_target_is_refused() -> None:
    with pytest.raises(InvalidInput, match="cannot be a target"):
        aims(profile("household"), PLASTER, GOOD, {M.COPPER: 0.1})


def test_a_missing_reading_is_told_and_not_dosed() -> None:
    found = planned(Readings(free_chlorine=1))
    assert {left.measure for left in found.unmet if left.code == "not_tested"} >= {M.PH, M.TOTAL_ALKALINITY}
    assert {step.chemical for step in adds(found)} == {"sodium_hypochlorite"}


def test_what_only_dilution_lowers_is_told() -> None:
    found = planned(
        Readings(free_chlorine=2.5, ph=7.5, total_alkalinity=100, calcium_hardness=600, cyanuric_acid=120)
    )
    assert {(left.measure, left.code) for left in found.unmet} == {
        (M.CALCIUM_HARDNESS, "dilution_needed"),
        (M.CYANURIC_ACID, "dilution_needed"),
    }


def test_nothing_on_the_shelf_is_told() -> None:
    found = planned(Readings(free_chlorine=0.5, cyanuric_acid=40), inventory=())
    assert [left.code for left in found.unmet if left.measure is M.FREE_CHLORINE] == [
        "nothing_suitable_at_hand"
    ]


def test_a_dose_over_the_limit_is_split_over_days_with_a_test_between() -> None:
    found = planned(
        Readings(free_chlorine=2.5, ph=7.5, total_alkalinity=100, calcium_hardness=130, cyanuric_acid=40)
    )
    calcium = adds(found)
    assert len(calcium) == 3
    assert [step.day for step in calcium] == sorted({step.day for step in calcium})
    total = sum(step.mass_g or 0 for step in calcium)
    assert total == pytest.approx(3 * (calcium[0].mass_g or 0))
    kinds = [step.kind for step in found.steps]
    first, second = (i for i, step in enumerate(found.steps) if step in calcium[:2])
    assert "test" in kinds[first:second]


def test_a_first_fill_of_salt_may_go_in_at_once() -> None:
    found = planned(
        Readings(
            free_chlorine=2.5, ph=7.5, total_alkalinity=70, calcium_hardness=250, cyanuric_acid=70, salt=0
        ),
        SALT_POOL,
    )
    salt = [step for step in adds(found) if step.chemical == "sodium_chloride"]
    assert len(salt) == 1


def test_chlorine_under_the_minimum_goes_in_on_the_first_day() -> None:
    found = planned(
        Readings(free_chlorine=0, ph=7.5, total_alkalinity=30, calcium_hardness=50, cyanuric_acid=0)
    )
    assert next(step for step in adds(found) if M.FREE_CHLORINE in step.measures).day == 1


def test_calcium_and_carbonate_are_on_different_days() -> None:
    found = planned(
        Readings(free_chlorine=2.5, ph=7.5, total_alkalinity=60, calcium_hardness=220, cyanuric_acid=40),
        named={M.CALCIUM_HARDNESS: 260},
    )
    days = {step.chemical: step.day for step in adds(found)}
    assert days["sodium_bicarbonate"] != days["calcium_chloride"]


def test_indoors_no_stabilized_chlorine_is_chosen() -> None:
    inventory = (Product("d", "sodium_dichlor", 56), Product("c", "calcium_hypochlorite", 65))
    chosen = raiser(M.FREE_CHLORINE, INDOOR, inventory)
    assert chosen is not None
    assert chosen.id == "c"


def test_a_salt_pool_never_gets_calcium_hypochlorite() -> None:
    assert raiser(M.FREE_CHLORINE, SALT_POOL, (Product("c", "calcium_hypochlorite", 65),)) is None


def test_stabilized_chlorine_comes_last_when_stabilizer_is_full() -> None:
    inventory = (Product("d", "sodium_dichlor", 56), Product("l", "sodium_hypochlorite", 10))
    full = raiser(M.FREE_CHLORINE, VINYL_TABLETS, inventory, stabilizer_full=True)
    room = raiser(M.FREE_CHLORINE, VINYL_TABLETS, inventory)
    assert full is not None
    assert room is not None
    assert (full.id, room.id) == ("l", "d")


def test_ph_and_alkalinity_are_reached_together_and_exactly() -> None:
    found = planned(
        Readings(free_chlorine=2.5, ph=7.1, total_alkalinity=60, calcium_hardness=260, cyanuric_acid=40),
        named={M.PH: 7.6, M.TOTAL_ALKALINITY: 110},
    )
    assert found.unmet == ()
    assert found.predicted.ph == pytest.approx(7.6, abs=1e-6)
    assert found.predicted.total_alkalinity == pytest.approx(110, abs=1e-4)


def test_stabilizers_fall_of_ph_is_reckoned_with() -> None:
    found = planned(
        Readings(free_chlorine=2.5, ph=7.3, total_alkalinity=100, calcium_hardness=260, cyanuric_acid=10)
    )
    assert found.predicted.ph == pytest.approx(7.5, abs=1e-6)
    assert {step.chemical for step in adds(found)} >= {"cyanuric_acid", "sodium_carbonate"}


def test_high_ph_gets_acid_in_steps_of_at_most_point_four() -> None:
    found = planned(
        Readings(free_chlorine=2.5, ph=8.4, total_alkalinity=110, calcium_hardness=260, cyanuric_acid=40)
    )
    acid = adds(found)
    assert len(acid) == 3
    assert {step.chemical for step in acid} == {"hydrochloric_acid"}
    assert found.predicted.ph == pytest.approx(7.5, abs=1e-6)


def test_high_alkalinity_is_acid_then_aeration_and_told() -> None:
    found = planned(
        Readings(free_chlorine=2.5, ph=7.7, total_alkalinity=180, calcium_hardness=260, cyanuric_acid=40)
    )
    assert [(left.measure, left.code) for left in found.unmet] == [(M.TOTAL_ALKALINITY, "aeration")]
    assert any(step.kind == "do" and "Aerate" in told(step.title) for step in found.steps)
    assert (found.predicted.total_alkalinity or 0) < 180


def test_low_ph_is_raised_though_alkalinity_is_high_and_that_is_said() -> None:
    """Law D.1: pH into its band is never cut by a comfort band, but by what moves alkalinity least."""
    water = Readings(free_chlorine=2.5, ph=7.0, total_alkalinity=180, calcium_hardness=260, cyanuric_acid=40)
    found = planned(water)
    assert {step.chemical for step in adds(found)} == {"sodium_carbonate"}
    assert found.predicted.ph == pytest.approx(7.5, abs=0.01)
    assert {left.measure: left.code for left in found.unmet} == {M.TOTAL_ALKALINITY: "aeration"}
    without = tuple(p for p in STANDARD_INVENTORY if p.chemical != "sodium_carbonate")
    found = planned(water, inventory=without)
    assert adds(found) == []
    assert {left.code for left in found.unmet} == {"aeration"}


def test_ph_is_not_dosed_when_stabilizer_is_not_known() -> None:
    found = planned(Readings(free_chlorine=2.5, ph=8.2, total_alkalinity=100, calcium_hardness=260))
    assert [left.code for left in found.unmet if left.measure is M.PH] == ["needs_other_reading"]
    assert adds(found) == []


def test_an_alkalinity_that_stabilizer_exceeds_is_told_not_dosed() -> None:
    found = planned(
        Readings(free_chlorine=2.5, ph=7.5, total_alkalinity=20, calcium_hardness=260, cyanuric_acid=150)
    )
    assert [left.code for left in found.unmet if left.measure is M.TOTAL_ALKALINITY] == ["no_carbonate"]


def test_salt_that_acid_brings_is_not_added_twice() -> None:
    water = Readings(
        free_chlorine=2.5, ph=8.0, total_alkalinity=75, calcium_hardness=250, cyanuric_acid=70, salt=2600
    )
    found = planned(water, SALT_POOL)
    assert found.predicted.salt == pytest.approx(3200, abs=1e-3)


READINGS = st.builds(
    Readings,
    free_chlorine=st.none() | st.floats(0, 12),
    ph=st.none() | st.floats(6.5, 8.6),
    total_alkalinity=st.none() | st.floats(10, 250),
    calcium_hardness=st.none() | st.floats(0, 700),
    cyanuric_acid=st.none() | st.floats(0, 150),
    salt=st.none() | st.floats(0, 4000),
)
TRAITS = st.builds(
    Traits,
    surface=st.sampled_from(list(Surface)),
    chlorination=st.sampled_from(list(Chlorination)),
    filter=st.sampled_from(list(Filter)),
    indoor=st.booleans(),
)
SHELVES = st.lists(
    st.sampled_from(sorted(CATALOGUE)).map(
        lambda key: Product(key, key, CATALOGUE[key].usual_strength_percent)
    ),
    unique_by=lambda product: product.id,
).map(tuple)


SOFT_WATER = Readings(free_chlorine=7.0, ph=7.0, total_alkalinity=10.0, cyanuric_acid=0.0)
ONLY_BORAX = tuple(
    Product(key, key, CATALOGUE[key].usual_strength_percent)
    for key in ("borax", "boric_acid", "calcium_chloride", "sodium_bicarbonate", "cyanuric_acid")
)


@settings(max_examples=40)
@example(
    SOFT_WATER,
    Traits(surface=Surface.PLASTER, chlorination=Chlorination.SALT_CELL, filter=Filter.SAND, indoor=False),
    ONLY_BORAX,
    "household",
).via("found here: rounding up to a scale's step moved pH by 0.416")
@given(READINGS, TRAITS, SHELVES, st.sampled_from([str(key) for key in ProfileKey]))
def test_no_unsafe_plan_exists(
    readings: Readings, traits: Traits, inventory: tuple[Product, ...], key: str
) -> None:
    """Separation held, limits held, caustic never chosen, every step with its hazard, time never runs back."""
    found = planned(readings, traits, inventory=inventory, key=key)
    poured = adds(found)
    ph = readings.ph
    for step in poured:
        after = step.expected.get(M.PH)
        if ph is not None and after is not None:
            assert abs(after - ph) <= LARGEST_PH_MOVE + 0.02 * LARGEST_PH_MOVE
            assert (
                6.98 <= after <= 8.02
                or min(abs(after - 7.0), abs(after - 8.0)) <= min(abs(ph - 7.0), abs(ph - 8.0)) + 0.02
            )
            ph = after
    for i, later in enumerate(poured):
        for earlier in poured[:i]:
            needed = separation(earlier.chemical or "", later.chemical or "").minutes
            assert later.offset_min - earlier.offset_min >= needed
    assert "sodium_hydroxide" not in {step.chemical for step in poured}
    assert [step.offset_min for step in found.steps] == sorted(step.offset_min for step in found.steps)
    for step in found.steps:
        assert step.hazard in HAZARDS
        if step.kind == "add" and step.hazard is not Hazard.NONE:
            assert step.cautions


@settings(max_examples=30, deadline=None)
@given(st.floats(7.0, 8.0), st.floats(60, 140), st.floats(10, 80), st.floats(6.0, 9.0), st.floats(30, 250))
def test_no_aim_leads_the_water_out_of_the_window(
    ph: float, alkalinity: float, stabilizer: float, ph_aim: float, alkalinity_aim: float
) -> None:
    """Not at once, and not in many small steps either: what lies beyond is told, not poured."""
    water = replace(GOOD, ph=ph, total_alkalinity=alkalinity, cyanuric_acid=stabilizer)
    found = planned(water, named={M.PH: ph_aim, M.TOTAL_ALKALINITY: alkalinity_aim})
    for step in adds(found):  # 0.03 is what steps that hardly move pH may add up to
        assert 6.97 <= step.expected.get(M.PH, 7.5) <= 8.03
    assert found.predicted.ph is not None
    assert 6.97 <= found.predicted.ph <= 8.03
    if not 6.95 <= ph_aim <= 8.05:
        assert any(u.code == "limits" or u.measure in (M.PH, M.TOTAL_ALKALINITY) for u in found.unmet)


@settings(max_examples=25)
@given(READINGS)
def test_no_single_addition_moves_its_measure_past_the_limit(readings: Readings) -> None:
    found = planned(readings, SALT_POOL)
    for step in adds(found):
        measure = step.measures[0]
        limit, before = ADDITION_LIMITS.get(measure), readings.value(measure)
        if limit is None or before is None or (measure is M.SALT and before < 500):
            continue
        product = Product("p", step.chemical or "", step.strength_percent or 0.0)
        moved = change_per_g(product, measure, POOL_L) * (step.mass_g or 0.0)
        assert moved <= limit * (1 + 1e-6)


# Found by use: eleven days of baking soda, alkalinity 502, and not a word. Common practice: baking soda moves
# alkalinity many times more than pH, so it ends at the top of alkalinity's band.
def test_baking_soda_alone_ends_at_the_top_of_alkalinity_and_says_what_raises_ph() -> None:
    soda = tuple(product for product in STANDARD_INVENTORY if product.chemical == "sodium_bicarbonate")
    water = Readings(**{**GOOD.__dict__, "ph": 6.8, "total_alkalinity": 80.0})
    found = planned(water, VINYL_TABLETS, inventory=soda)
    top = profile("household").alkalinity.high or 0.0
    assert found.predicted.total_alkalinity == pytest.approx(top, abs=0.5)
    left = next(one for one in found.unmet if one.measure is M.PH)
    assert left.code == "nothing_suitable_at_hand"
    assert "soda ash or borax" in told(left.reason)


@given(ph=st.floats(6.4, 7.1), alkalinity=st.floats(30, 200))
def test_ph_is_never_raised_by_alkalinity_over_its_band_without_a_word(ph: float, alkalinity: float) -> None:
    soda = tuple(product for product in STANDARD_INVENTORY if product.chemical == "sodium_bicarbonate")
    water = Readings(**{**GOOD.__dict__, "ph": ph, "total_alkalinity": alkalinity})
    found = planned(water, VINYL_TABLETS, inventory=soda)
    top = max(alkalinity, profile("household").alkalinity.high or 0.0)
    assert (found.predicted.total_alkalinity or 0.0) <= top + 0.5
    if (found.predicted.ph or 0.0) < 7.15:
        assert M.PH in {one.measure for one in found.unmet}


LABELLED = tuple(Product(key, key, row.usual_strength_percent) for key, row in BY_LABEL.items())


@settings(max_examples=25)
@given(READINGS, TRAITS, SHELVES, st.integers(0, len(LABELLED)))
def test_what_is_dosed_by_its_label_changes_no_plan(
    readings: Readings, traits: Traits, inventory: tuple[Product, ...], first: int
) -> None:
    """Algaecide and clarifier on the shelf are never poured for a reading, wherever they stand on it."""
    mixed = (*LABELLED[:first], *inventory, *LABELLED[first:])
    assert planned(readings, traits, inventory=mixed) == planned(readings, traits, inventory=inventory)
