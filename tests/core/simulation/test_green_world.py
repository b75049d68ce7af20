"""The truth behind a green pool: its own laws, each as one would expect of real water."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kumpan.core.products.product import Product
from kumpan.core.simulation.green_world import EDGES, Green, GreenWorld
from kumpan.core.simulation.pouring import pour
from kumpan.core.simulation.world import Climate, Nature, Water

START_S = 1_780_322_400.0
NATURE = Nature(true_volume_l=60_000.0, guests_a_week=0.0, mood=0.0)
DRY = Climate(latitude_deg=32.0, rain_chance=0.0)
SICK = Water(
    free=0.1, dead=0.1, combined=0.3, ph=7.5, alkalinity=100, calcium=250, stabilizer=40, salt=900, bloom=5.0
)
LIQUID = Product("liquid", "sodium_hypochlorite", 10.0)
DICHLOR = Product("dichlor", "sodium_dichlor", 56.0)
TABLETS = Product("tablets", "trichlor", 90.0)
ACID = Product("acid", "hydrochloric_acid", 31.45)
SODA = Product("soda", "sodium_bicarbonate", 100.0)
CALCIUM = Product("calcium", "calcium_chloride", 77.0)
SALT = Product("salt", "sodium_chloride", 99.5)


def world(*, water: Water = SICK, green: Green | None = None, seed: int = 5) -> GreenWorld:
    return GreenWorld(
        nature=NATURE,
        climate=DRY,
        water=replace(water, tablets_g=[]),
        start_s=START_S,
        seed=seed,
        green=green or Green(),
    )


def run(one: GreenWorld, hours: int, keep_mg_l: float | None = None) -> GreenWorld:
    """So many hours, with chlorine kept at a level if one is named."""
    for _ in range(hours):
        if keep_mg_l is not None:
            one.water.free = one.water.dead = keep_mg_l
        one.step()
    return one


def test_without_chlorine_it_grows_and_with_it_it_dies() -> None:
    assert run(world(), 24, 0.0).water.bloom > 5.0
    assert run(world(), 24, 16.0).water.bloom < 3.0


@given(st.floats(0.5, 25.0), st.floats(1.0, 5.0))
@settings(max_examples=25)
def test_more_chlorine_kills_more(level: float, more: float) -> None:
    low, high = run(world(), 12, level), run(world(), 12, level + more)
    assert high.water.bloom < low.water.bloom


@given(st.floats(10.0, 90.0), st.floats(10.0, 60.0))
@settings(max_examples=25)
def test_stabilizer_binds_what_kills(stabilizer: float, more: float) -> None:
    """The ratio school's reason: the same chlorine does less where stabilizer is higher."""
    low = run(world(water=replace(SICK, stabilizer=stabilizer)), 12, 8.0)
    high = run(world(water=replace(SICK, stabilizer=stabilizer + more)), 12, 8.0)
    assert high.water.bloom > low.water.bloom


def test_what_has_died_clouds_the_water() -> None:
    still = world(green=Green(cloud=1.0, filters=0.0))
    run(still, 24, 16.0)
    dead = 5.0 - still.water.bloom
    assert still.green.cloud == pytest.approx(1.0 + 0.5 * dead, rel=0.02)


def test_the_filter_takes_the_cloud_and_fills_with_it() -> None:
    one = world(water=replace(SICK, bloom=0.0), green=Green(cloud=6.0))
    clean = one.gauge_kpa
    run(one, 24, 3.0)
    assert one.green.cloud < 6.0
    assert one.gauge_kpa > clean


def test_a_cleaned_filter_works_like_new() -> None:
    """Handbook 07: clean it between rounds, or it takes nothing out any more."""
    full = world(water=replace(SICK, bloom=0.0), green=Green(cloud=10.0, load=3.0))
    clean = world(water=replace(SICK, bloom=0.0), green=Green(cloud=10.0, load=3.0))
    clean.clean_filter()
    assert clean.gauge_kpa < full.gauge_kpa
    assert run(clean, 12, 3.0).green.cloud < 0.95 * run(full, 12, 3.0).green.cloud


def test_a_skin_keeps_chlorine_out_until_it_is_brushed() -> None:
    """Black and mustard: a level alone does little."""
    alone = run(world(green=Green(skin=0.9)), 12, 16.0)
    brushed = world(green=Green(skin=0.9))
    for _ in range(3):
        brushed.brush()
        run(brushed, 4, 16.0)
    bare = run(world(green=Green(skin=0.0)), 12, 16.0)
    assert bare.water.bloom < brushed.water.bloom < alone.water.bloom


def test_brushing_wears_off_in_a_day() -> None:
    one = world(green=Green(skin=0.9))
    one.brush()
    one.brush()
    assert one.green.brushed == 1.0
    run(one, 24)
    assert one.green.brushed < 0.4


def test_a_vacuum_takes_half_of_what_a_still_night_let_settle_and_little_of_what_floats() -> None:
    settled, stirred = world(green=Green(cloud=8.0, pump_on=False)), world(green=Green(cloud=8.0))
    settled.vacuum()
    stirred.vacuum()
    assert settled.green.cloud == pytest.approx(4.0)
    assert stirred.green.cloud == pytest.approx(6.8)


def test_with_the_pump_off_the_filter_rests() -> None:
    one = run(world(water=replace(SICK, bloom=0.0), green=Green(cloud=6.0, pump_on=False)), 12, 3.0)
    assert one.green.cloud == 6.0


def test_the_eye_sees_cloud_and_what_lives_in_the_water_but_not_under_a_skin() -> None:
    free = world(green=Green(cloud=2.0, skin=0.0))
    hidden = world(green=Green(cloud=2.0, skin=0.9))
    assert free.shown > hidden.shown > 2.0
    assert list(EDGES) == sorted(EDGES)


def test_chlorine_in_the_dead_corner_counts_by_its_share() -> None:
    one = world()
    one.water.free, one.water.dead = 10.0, 2.0
    share = NATURE.dead_share
    assert one.mean_free == pytest.approx(10 * (1 - share) + 2 * share)


@given(st.integers(0, 2**31 - 1))
@settings(max_examples=20)
def test_nothing_ever_goes_below_nothing(seed: int) -> None:
    one = run(world(seed=seed, green=Green(cloud=3.0)), 48)
    w = one.water
    assert min(w.free, w.dead, w.combined, w.bloom, one.green.cloud, one.green.load) >= 0
    assert 5.5 <= w.ph <= 9.2


def test_what_is_poured_is_in_the_water_by_mass() -> None:
    """A kilogram of liquid 10 % (trade percent, density 1.16 as the catalog has it) in 60 m3."""
    one = world(water=replace(SICK, free=0.0, dead=0.0, bloom=0.0))
    reported = pour(one, LIQUID, 1000.0)
    assert one.mean_free == pytest.approx(reported, rel=1e-6)
    assert reported == pytest.approx(1000 / 1.16 * 0.1 / 60.0 * 1000 / 1000, rel=0.03)


@pytest.mark.parametrize(
    ("product", "up", "down"),
    [
        (DICHLOR, {"stabilizer"}, set[str]()),
        (ACID, set[str](), {"alkalinity", "ph"}),
        (SODA, {"alkalinity"}, set[str]()),
        (CALCIUM, {"calcium"}, set[str]()),
        (SALT, {"salt"}, set[str]()),
    ],
)
def test_each_product_moves_what_it_should(product: Product, up: set[str], down: set[str]) -> None:
    one = world()
    before = replace(one.water)
    pour(one, product, 2000.0)
    for name in ("alkalinity", "calcium", "stabilizer"):
        moved = getattr(one.water, name) - getattr(before, name)
        expected = 1 if name in up else -1 if name in down else 0
        assert (moved > 1e-9) - (moved < -1e-9) == expected, name
    if "ph" in down:
        assert one.water.ph < before.ph
    if "salt" in up:
        assert one.water.salt > before.salt


def test_a_tablet_brings_its_chlorine_over_days_and_its_stabilizer_with_it() -> None:
    """Handbook 04: each 10 ppm of chlorine from trichlor brings about 6 of stabilizer."""
    one = world(water=replace(SICK, bloom=0.0))
    assert pour(one, TABLETS, 1000.0) == 0.0
    before = one.water.stabilizer
    run(one, 300)
    brought = one.water.stabilizer - before
    assert brought == pytest.approx(1000 * 0.9 * 0.606 / 60.0, rel=0.1)
    assert one.water.tablets_g == []


def test_new_water_thins_all_but_what_it_brings() -> None:
    one = world()
    one.replace_water(30_000.0)
    assert one.water.stabilizer == pytest.approx(20.0)
    assert one.water.calcium == pytest.approx((250 + NATURE.fill_calcium) / 2)


def test_the_same_seed_is_the_same_pool() -> None:
    first, again, other = run(world(seed=3), 60), run(world(seed=3), 60), run(world(seed=4), 60)
    assert first.water == again.water
    assert first.water != other.water
