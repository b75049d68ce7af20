"""Shock: the level, the product, dusk, the notes. Rules of thumb and second opinions beside the sum."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.dosing.caps import HIGHEST_MG_L
from kumpan.core.dosing.raisers import STANDARD_INVENTORY
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import G_PER_LB, L_PER_US_GAL
from kumpan.core.ranges.profiles import bands, profile
from kumpan.core.records.step import ADD, TEST, Step
from kumpan.core.treatment.dusk import Evening, next_evening, next_morning
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.special.shock import (
    REASONS,
    ShockReason,
    ShockRequest,
    ShockStrategy,
    shock_level,
    shock_plan,
    shock_product,
)
from tests.core.samples import GOOD, INDOOR, PLASTER, POOL_L, SALT_POOL, VINYL_TABLETS
from tests.words import told

M = Measure
ZONE = ZoneInfo("America/Chicago")
NOW = datetime(2026, 7, 4, 20, 0, tzinfo=UTC)  # three in the afternoon there
CAL_HYPO = Product("c", "calcium_hypochlorite", 65)
DICHLOR = Product("d", "sodium_dichlor", 56)
TABLETS = Product("t", "trichlor", 90)


def request(
    readings: Readings = GOOD,
    traits: Traits = PLASTER,
    inventory: tuple[Product, ...] = STANDARD_INVENTORY,
    strategy: ShockStrategy = ShockStrategy.FIXED,
) -> ShockRequest:
    judged = bands(profile("household"), traits, readings.cyanuric_acid)
    evening = next_evening(NOW, 34.0, -90.0, ZONE)
    return ShockRequest(
        readings=readings,
        volume_l=POOL_L,
        traits=traits,
        inventory=inventory,
        bands=judged,
        swim_limit_mg_l=3.0,
        strategy=strategy,
        now=NOW,
        evening=evening,
        zone=ZONE,
    )


def pour_of(found: Plan) -> Step:
    return next(step for step in found.steps if step.kind == ADD)


def codes(found: Plan) -> set[str]:
    return {note.code for note in found.notes}


def local(step: Step) -> datetime:
    return (NOW + timedelta(minutes=step.offset_min)).astimezone(ZONE)


def test_to_ten_at_dusk_and_a_test_in_the_morning() -> None:
    found = shock_plan(request())
    pour = pour_of(found)
    # 7.5 mg/L in 20,000 gal: 12.8 fl oz of 10 % a ppm and 10,000 gal (handbook 04)
    assert (pour.volume_ml or 0) / 29.5735 == pytest.approx(7.5 * 2 * 12.8, rel=0.01)
    assert found.predicted.free_chlorine == pytest.approx(10)
    assert local(pour).hour in (20, 21)
    last = found.steps[-1]
    assert last.kind == TEST
    assert local(last).hour == 7
    assert last.expected[M.TOTAL_CHLORINE] == pytest.approx(10.1, abs=0.3)


def test_every_step_of_a_shock_has_its_caution() -> None:
    for step in shock_plan(request()).steps:
        assert step.kind == "wait" or step.cautions


@pytest.mark.parametrize(
    ("cya", "strategy", "target"),
    [
        (0, "fixed", 10),
        (50, "ratio", 20),
        (20, "ratio", 10),
        (70, "ratio", 28),
        (120, "ratio", 30),
        (120, "fixed", 10),
    ],
)
def test_levels_of_both_ways(cya: float, strategy: str, target: float) -> None:
    """Handbook 07: 10 by the fixed way, about 40 % of stabilizer by the other, at most 30."""
    level = shock_level(Readings(cyanuric_acid=cya), PLASTER, ShockStrategy(strategy))
    assert level.target == pytest.approx(target)
    assert level.capped == (strategy == "ratio" and 0.4 * cya > HIGHEST_MG_L)


@pytest.mark.parametrize("traits", [VINYL_TABLETS, INDOOR])
def test_vinyl_and_indoor_pools_bear_fifteen(traits: Traits) -> None:
    assert shock_level(Readings(cyanuric_acid=90), traits, ShockStrategy.RATIO).target == 15


def test_ten_is_not_a_shock_where_stabilizer_binds_it() -> None:
    water = Readings(**{**GOOD.__dict__, "cyanuric_acid": 80})
    found = shock_plan(request(water))
    assert "weak_shock" in codes(found)
    assert "takes 32" in told(next(note.text for note in found.notes if note.code == "weak_shock"))
    assert "weak_shock" not in codes(shock_plan(request(water, strategy=ShockStrategy.RATIO)))


def test_what_asks_for_more_than_the_pool_bears_gets_dilute_first() -> None:
    water = Readings(**{**GOOD.__dict__, "cyanuric_acid": 140})
    found = shock_plan(request(water, strategy=ShockStrategy.RATIO))
    assert "dilute_first" in codes(found)
    assert found.predicted.free_chlorine == pytest.approx(30)


def test_ph_out_of_its_window_is_told_first() -> None:
    assert "ph_first" in codes(shock_plan(request(Readings(**{**GOOD.__dict__, "ph": 8.0}))))
    assert "ph_first" not in codes(shock_plan(request()))
    assert "ph_first" in codes(shock_plan(request(Readings(free_chlorine=1))))


def test_ten_times_combined_is_a_rule_beside_the_sum_only() -> None:
    water = Readings(**{**GOOD.__dict__, "total_chlorine": 4.5})
    found = shock_plan(request(water))
    assert "rule_ten_times" in codes(found)
    assert found.predicted.free_chlorine == pytest.approx(10)


def test_the_bag_rule_stands_beside_the_sum() -> None:
    """A 1 lb bag a 10,000 gal: 2 lb in 20,000 gal, +7.8 and calcium +5.5 (handbook 04)."""
    found = shock_plan(request(inventory=(CAL_HYPO,)))
    text = next(note.text for note in found.notes if note.code == "rule_beside")
    assert "here 2 lb, which adds 7.8 ppm (and calcium 5.5). This water needs 7.5 ppm." in told(text)


def test_products_by_their_side_effects() -> None:
    assert shock_product(request(traits=SALT_POOL, inventory=(CAL_HYPO,)), 7) is None
    assert shock_product(request(inventory=(CAL_HYPO,)), 7) == CAL_HYPO
    hard = Readings(**{**GOOD.__dict__, "calcium_hardness": 399})
    assert shock_product(request(hard, inventory=(CAL_HYPO,)), 7) is None
    assert shock_product(request(inventory=(DICHLOR,)), 7) == DICHLOR
    full = Readings(**{**GOOD.__dict__, "cyanuric_acid": 48})
    assert shock_product(request(full, inventory=(DICHLOR,)), 7) is None
    assert shock_product(request(traits=INDOOR, inventory=(DICHLOR,)), 7) is None
    assert shock_product(request(inventory=(TABLETS,)), 7) is None


@pytest.mark.parametrize(
    ("readings", "inventory", "code"),
    [
        (Readings(ph=7.5), STANDARD_INVENTORY, "not_tested"),
        (Readings(free_chlorine=9.6), STANDARD_INVENTORY, "there_already"),
        (Readings(free_chlorine=1), (TABLETS,), "nothing_suitable_at_hand"),
    ],
)
def test_no_shock_has_its_reason(readings: Readings, inventory: tuple[Product, ...], code: str) -> None:
    found = shock_plan(request(readings, inventory=inventory))
    assert found.steps == ()
    assert [left.code for left in found.unmet] == [code]


@given(
    st.floats(0, 30),
    st.floats(0, 200),
    st.sampled_from([PLASTER, VINYL_TABLETS, SALT_POOL, INDOOR]),
    st.sampled_from(ShockStrategy),
)
def test_no_shock_goes_over_what_the_pool_bears(
    free: float, cya: float, traits: Traits, strategy: ShockStrategy
) -> None:
    water = Readings(**{**GOOD.__dict__, "free_chlorine": free, "cyanuric_acid": cya})
    found = shock_plan(request(water, traits, (*STANDARD_INVENTORY, CAL_HYPO, DICHLOR), strategy))
    cap = 15 if traits in (VINYL_TABLETS, INDOOR) else 30
    assert (found.predicted.free_chlorine or 0) <= max(cap, free) + 1e-9
    assert [step.offset_min for step in found.steps] == sorted(step.offset_min for step in found.steps)


def test_dusk_at_34_degrees_is_after_sunset_and_the_next_one() -> None:
    """Sunset near Memphis on 4 July is about 20:18, civil dusk about 20:47 (almanac, from memory)."""
    evening = next_evening(NOW, 35.1, -90.0, ZONE)
    assert "Dusk" in told(evening.why)
    assert evening.at.astimezone(ZONE).strftime("%H:%M") == pytest.approx("20:47") or abs(
        evening.at - datetime(2026, 7, 5, 1, 47, tzinfo=UTC)
    ) < timedelta(minutes=4)
    later = next_evening(evening.at + timedelta(minutes=1), 35.1, -90.0, ZONE)
    assert timedelta(hours=23) < later.at - evening.at < timedelta(hours=25)


def test_at_60_degrees_in_june_dusk_comes_after_midnight() -> None:
    oslo = ZoneInfo("Europe/Oslo")
    now = datetime(2026, 6, 21, 18, 0, tzinfo=UTC)
    evening = next_evening(now, 60.0, 10.0, oslo)
    assert now < evening.at < now + timedelta(hours=8)


def test_at_64_degrees_in_june_there_is_only_sunset() -> None:
    now = datetime(2026, 6, 21, 18, 0, tzinfo=UTC)
    assert "Sunset" in told(next_evening(now, 64.5, 15.0, ZoneInfo("Europe/Stockholm")).why)


@pytest.mark.parametrize(("month", "hour"), [(6, 12), (6, 21), (12, 12)])
def test_at_70_degrees_it_is_ten_at_night_with_the_reason(month: int, hour: int) -> None:
    now = datetime(2026, month, 21, hour, 0, tzinfo=UTC)
    zone = ZoneInfo("Europe/Oslo")
    evening: Evening = next_evening(now, 70.0, 20.0, zone)
    if month == 6:
        assert evening.at.astimezone(zone).hour == 22
        assert "does not rise or set" in told(evening.why)
    assert now < evening.at <= now + timedelta(hours=25)


def test_the_morning_is_at_least_a_night_later() -> None:
    late = datetime(2026, 7, 5, 6, 30, tzinfo=UTC)  # half past one at night there
    morning = next_morning(late, ZONE, timedelta(hours=8))
    assert morning - late >= timedelta(hours=8)
    assert morning.astimezone(ZONE).hour == 7


OXIDIZER = Product("o", "potassium_monopersulfate", 42.8, package_g=G_PER_LB)


def test_without_chlorine_by_the_bag_rule() -> None:
    """Handbook 04, worked example [C]: 1 lb per 10,000 gal; 2000 gal takes a fifth of the bag."""
    small = replace(
        request(inventory=(OXIDIZER,), strategy=ShockStrategy.OXIDIZER), volume_l=2000 * L_PER_US_GAL
    )
    made = shock_plan(small)
    pour = next(step for step in made.steps if step.kind == ADD)
    assert (pour.mass_g or 0) / G_PER_LB == pytest.approx(0.2)
    assert made.predicted.free_chlorine == GOOD.free_chlorine, "it adds no free chlorine"
    assert "combined" in told(made.notes[0].text)


@pytest.mark.parametrize("minutes", [15, 60])
def test_the_wait_after_an_oxidizer_is_the_schools(minutes: int) -> None:
    question = replace(
        request(inventory=(OXIDIZER,), strategy=ShockStrategy.OXIDIZER), swim_after_oxidizer_min=minutes
    )
    assert [step.minutes for step in shock_plan(question).steps if step.kind == "wait"] == [minutes]


def test_without_the_product_it_is_told() -> None:
    assert shock_plan(request(strategy=ShockStrategy.OXIDIZER)).unmet[0].code == "nothing_suitable_at_hand"


@pytest.mark.parametrize("reason", list(ShockReason))
def test_each_reason_prepares_in_its_own_way(reason: ShockReason) -> None:
    titles = [step.title for step in shock_plan(replace(request(), reason=reason)).steps]
    assert REASONS[reason].first in titles
    assert sum(row.first in titles for row in REASONS.values()) == 1


def test_the_products_own_choice_is_the_persons_and_what_it_does_is_said() -> None:
    """The planner takes liquid; granules are obeyed, with what they raise over its range."""
    shelf = (*STANDARD_INVENTORY, CAL_HYPO, DICHLOR)
    usual = shock_plan(request(inventory=shelf))
    assert pour_of(usual).chemical == "sodium_hypochlorite"
    own = shock_plan(replace(request(inventory=shelf), use="d"))
    assert pour_of(own).chemical == "sodium_dichlor"
    hard = replace(GOOD, calcium_hardness=395.0)
    told_so = shock_plan(replace(request(hard, inventory=shelf), use="c"))
    assert pour_of(told_so).chemical == "calcium_hypochlorite"
    assert "leaves_band" in codes(told_so)
    assert "leaves_band" not in codes(usual)


@pytest.mark.parametrize(
    ("traits", "chosen", "says"),
    [(SALT_POOL, CAL_HYPO, "plates"), (INDOOR, DICHLOR, "stabilizer"), (PLASTER, TABLETS, "acts over days")],
)
def test_a_choice_that_does_harm_is_not_poured_and_the_reason_is_said(
    traits: Traits, chosen: Product, says: str
) -> None:
    shelf = (*STANDARD_INVENTORY, chosen)
    found = shock_plan(replace(request(traits=traits, inventory=shelf), use=chosen.id))
    assert not found.steps
    (left,) = found.unmet
    assert left.code == "not_here"
    assert says in told(left.reason)


def test_a_choice_that_does_not_stand_here_is_said_and_the_plan_goes_on_without_it() -> None:
    found = shock_plan(replace(request(inventory=STANDARD_INVENTORY), use="at-another-pool"))
    assert pour_of(found).chemical == "sodium_hypochlorite"
    assert "choice_not_at_hand" in codes(found)
    assert "choice_not_at_hand" not in codes(shock_plan(request(inventory=STANDARD_INVENTORY)))
