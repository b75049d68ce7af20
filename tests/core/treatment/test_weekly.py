"""How much a week: the mass balance worked by hand, the trade's facts of handbook 12, and what it refuses."""

import pytest

from kumpan.core.dosing.feeding import TABLET_G
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import L_PER_US_GAL
from kumpan.core.ranges.profiles import Band
from kumpan.core.treatment.plan import AS_SOLD
from kumpan.core.treatment.weekly import (
    FEW_TESTS,
    Loss,
    Regime,
    WeeklyRequest,
    basis,
    in_words,
    once_a_week,
    regimes,
    tablet_g,
)
from tests.words import told

VINYL = Traits(surface=Surface.VINYL, chlorination=Chlorination.LIQUID, filter=Filter.SAND)
BANDS = {Measure.CYANURIC_ACID: Band(30, 50, 40), Measure.CALCIUM_HARDNESS: Band(150, 400, 250)}


def request(
    *inventory: Product,
    gallons: float = 20_000,
    likely: float = 2.0,
    readings: Readings | None = None,
    traits: Traits = VINYL,
) -> WeeklyRequest:
    return WeeklyRequest(
        loss=Loss(likely * 0.6, likely, likely * 1.6, 0),
        volume_l=gallons * L_PER_US_GAL,
        traits=traits,
        readings=readings or Readings(cyanuric_acid=30, calcium_hardness=200),
        bands=BANDS,
        swim_limit_mg_l=4.0,
        level_mg_l=2.0,
        inventory=inventory,
        display=AS_SOLD,
    )


def of(chemical: str, asked: WeeklyRequest) -> Regime:
    return next(regime for regime in regimes(asked) if regime.product.chemical == chemical)


def test_a_week_is_seven_times_the_loss_by_mass_balance() -> None:
    """20 000 gal losing 2 mg/L a day: 14 mg/L x 75 708 L = 1060 g of chlorine; dichlor of 56 % holds 0.56."""
    regime = of("sodium_dichlor", request())
    chlorine_g = 14 * 20_000 * L_PER_US_GAL / 1000
    assert regime.week_g[1] == pytest.approx(chlorine_g / 0.56, rel=1e-6)
    assert regime.week_g[0] == pytest.approx(0.6 * regime.week_g[1])
    assert regime.week_g[2] == pytest.approx(1.6 * regime.week_g[1])


def test_dichlor_brings_nine_tenths_of_its_chlorine_as_stabilizer() -> None:
    """Handbook 04: 0.910 of its available chlorine by mass."""
    regime = of("sodium_dichlor", request())
    assert regime.brings[Measure.CYANURIC_ACID] == pytest.approx(14 * 0.910, rel=2e-3)


def test_liquid_brings_no_stabilizer_and_no_calcium() -> None:
    regime = of("sodium_hypochlorite", request())
    assert Measure.CYANURIC_ACID not in regime.brings
    assert Measure.CALCIUM_HARDNESS not in regime.brings


@pytest.mark.parametrize(("gallons", "grams"), [(9_000, 14.0), (10_500, TABLET_G)])
def test_pools_under_ten_thousand_gallons_take_small_tablets(gallons: float, grams: float) -> None:
    """Handbook 12: 1 in tablets of about 14 g for pools under 10 000 gal, 3 in ones of 8 oz for the others."""
    regime = of("trichlor", request(gallons=gallons))
    assert regime.tablet_g == pytest.approx(grams)
    assert "tablets" in told(in_words(regime))


def test_a_tub_is_no_tablet() -> None:
    tub = Product("t", "trichlor", 90.0, package_g=22_680.0)
    assert tablet_g(tub, 80_000) == pytest.approx(TABLET_G)
    assert tablet_g(Product("t", "trichlor", 90.0, package_g=200.0), 80_000) == 200.0


def test_a_tablespoon_of_granules_is_half_an_ounce() -> None:
    """Handbook 12: 2 to 3 oz are 4 to 6 level tablespoons."""
    regime = of("sodium_dichlor", request(gallons=5_000, likely=1.0))
    assert regime.spoons is not None
    assert regime.each_g / 28.3495 == pytest.approx(regime.spoons / 2, abs=0.13)
    assert "level tablespoons" in told(in_words(regime))


def test_one_pour_a_week_is_advised_against_where_it_peaks_over_the_swim_limit() -> None:
    said = once_a_week(request())
    assert said is not None
    assert said.code == "no_weekly_pour"
    assert once_a_week(request(likely=0.2)) is None
    assert of("sodium_hypochlorite", request(likely=0.9)).every_days == 2
    assert of("sodium_hypochlorite", request(likely=3.0)).every_days == 1


def test_stabilizer_at_its_aim_changes_the_product() -> None:
    """A pool on tablets from 30 to 50: it is said when, and once it is over, at once."""
    (later,) = [n for n in of("trichlor", request()).notes if n.code == "change_product"]
    assert "change to liquid chlorine then" in told(later.text)
    over = request(readings=Readings(cyanuric_acid=60))
    (now,) = [n for n in of("trichlor", over).notes if n.code == "change_product"]
    assert "over its range already" in told(now.text)
    assert regimes(over)[0].product.chemical == "sodium_hypochlorite"


def test_what_does_not_suit_a_pool_stands_last_with_its_reason() -> None:
    salt = Traits(surface=Surface.PLASTER, chlorination=Chlorination.SALT_CELL, filter=Filter.SAND)
    found = regimes(request(traits=salt))
    assert found[-1].product.chemical == "calcium_hypochlorite"
    assert found[-1].unsuited is not None
    indoor = Traits(surface=Surface.VINYL, chlorination=Chlorination.LIQUID, filter=Filter.SAND, indoor=True)
    unsuited = {regime.product.chemical for regime in regimes(request(traits=indoor)) if regime.unsuited}
    assert unsuited == {"sodium_dichlor", "trichlor"}


def test_the_own_shelf_comes_first_and_the_trades_chart_stands_beside() -> None:
    own = Product("mine", "sodium_hypochlorite", 12.5, package_ml=9463)
    found = regimes(request(own))
    assert found[0].product is own
    assert found[0].at_hand
    assert [regime.product.chemical for regime in found].count("sodium_hypochlorite") == 1
    assert found[0].chart is not None
    assert found[0].chart.rule.per_week


def test_what_the_loss_is_told_from() -> None:
    few, many = (Loss(0.7, 1.0, 1.8, tests=tests) for tests in (FEW_TESTS - 1, FEW_TESTS))
    assert told(basis(few)).startswith("Told from sun, season and use, since there are few tests yet")
    assert told(basis(many)) == "Told from this pool's last 4 tests."
    assert told(basis(many, rescue=True)).startswith("These are for clear water.")
