"""Losses and half-lives against published and trade figures, each named; and the solution against scipy.

Nowell & Hoigne 1992 (from memory): under a summer noon at the surface HOCl halves in 60 min, OCl- in 12.
The rest is common practice: sun takes unstabilized chlorine within hours; 1 to 4 ppm a day in season
with stabilizer in range; 1 ppm or less overnight in a clean pool; 1 lb of chlorine a day in 20,000 gal
is 6.0 ppm (handbook 06); one 8 oz tablet per 5000 gal gives 10.8 ppm over its week (handbook 04).
"""

from dataclasses import replace
from math import log

import numpy as np
import numpy.typing as npt
import pytest
from scipy.integrate import solve_ivp

from kumpan.core.forecast import rates
from kumpan.core.forecast.chlorine import Factors, course
from kumpan.core.forecast.conditions import Conditions, Place, conditions
from kumpan.core.forecast.forecast import daily_loss, half_life_in_sun_h, overnight_loss
from kumpan.core.journal import AdditionMade, CellSet
from kumpan.core.quantities.units import G_PER_LB, L_PER_US_GAL
from tests.core.journals import LITRES, PLACE, START, bleach, reads, solid, state

DAY_S = 86_400.0
NOTHING = Factors()


def acting(cya: float, days: float = 1.0, *, indoor: bool = False, ph: float = 7.5) -> Conditions:
    pool = state((0, reads(free_chlorine=3, ph=ph, cyanuric_acid=cya, temperature_c=25)))
    begun = START.timestamp()
    return conditions(pool, replace(PLACE, indoor=indoor), begun, begun + days * DAY_S)


def test_surface_half_lives_are_nowell_and_hoignes() -> None:
    assert log(2) / rates.HOCL_PER_HOUR == pytest.approx(1.0, abs=0.01)
    assert 60 * log(2) / rates.OCL_PER_HOUR == pytest.approx(12, abs=0.1)


def test_without_stabilizer_an_hour_of_high_sun_takes_half() -> None:
    """At pH 7.5 half of it is OCl-; depth and sky halve the surface's rate."""
    assert 0.5 < half_life_in_sun_h(rates.sun_loss_per_hour(3.0, 0.0, 7.5)) < 1.2
    assert half_life_in_sun_h(rates.sun_loss_per_hour(3.0, 40.0, 7.5)) > 6


def test_a_summer_day_takes_nearly_all_unstabilized_chlorine() -> None:
    left = course(acting(0.0), NOTHING, 3.0)[-1]
    assert left < 0.05 * 3.0


@pytest.mark.parametrize("cya", [30, 40, 50])
def test_a_summer_day_takes_one_to_four_with_stabilizer_in_range(cya: float) -> None:
    assert 1.0 <= daily_loss(acting(cya), NOTHING, 3.0) <= 4.0


def test_a_clean_pool_loses_at_most_one_overnight() -> None:
    night = acting(40.0, days=10 / 24)
    assert 0 < overnight_loss(night, NOTHING, 3.0) <= 1.0


def test_indoors_the_sun_takes_nothing() -> None:
    assert acting(0.0, indoor=True).light.max() == 0.0
    assert daily_loss(acting(0.0, indoor=True), NOTHING, 2.0) < 1.0


def test_dark_loss_doubles_every_ten_degrees() -> None:
    found = rates.warmth(np.array([25.0, 35.0]))
    assert found.tolist() == pytest.approx([1.0, 2.0])


def test_a_pound_a_day_in_20000_gallons_is_six_ppm() -> None:
    liters = 20_000 * L_PER_US_GAL
    pool = state(
        (-0.5, CellSet(G_PER_LB / 24, 100.0, 24.0)),
        (0, reads(free_chlorine=1, temperature_c=25)),
        volume_l=liters,
    )
    begun = START.timestamp()
    found = conditions(pool, Place(volume_l=liters, latitude_deg=40, longitude_deg=0), begun, begun + DAY_S)
    assert float(np.sum(found.source * found.hours)) == pytest.approx(6.0, abs=0.02)


def test_a_tablet_in_5000_gallons_brings_ten_point_eight_over_its_week() -> None:
    liters = 5000 * L_PER_US_GAL
    tablet = AdditionMade(chemical="trichlor", strength_percent=90.0, label="Tablet", mass_g=227.0)
    pool = state((0, reads(free_chlorine=1)), (0.1, tablet), volume_l=liters)
    begun = START.timestamp()
    found = conditions(
        pool, Place(volume_l=liters, latitude_deg=40, longitude_deg=0), begun, begun + 10 * DAY_S
    )
    assert float(np.sum(found.source * found.hours)) == pytest.approx(10.8, abs=0.05)
    assert found.source[-1] == 0.0


def test_a_cell_rests_in_cold_water() -> None:
    pool = state((-1, CellSet(20, 100, 24)), (0, reads(free_chlorine=1, temperature_c=14)))
    begun = START.timestamp()
    assert conditions(pool, PLACE, begun, begun + DAY_S).source.max() == 0.0


def test_the_course_as_scipy_integrates_it() -> None:
    """Four days with sun, demand, tablets, and a dose in between."""
    pool = state(
        (0, reads(free_chlorine=3, ph=7.5, cyanuric_acid=35, temperature_c=27)),
        (0.2, solid("trichlor", 400, 90)),
        (1.3, bleach(4.0)),
    )
    begun = START.timestamp()
    found = conditions(pool, PLACE, begun, begun + 4 * DAY_S)
    factors = Factors(sun=0.2, organics=0.3, source=-0.1)
    ours = course(found, factors, 3.0)
    value = 3.0
    for i, hours in enumerate(found.hours):
        rate = np.exp(0.2) * found.light[i] + found.dark[i]
        net = np.exp(-0.1) * found.source[i] - np.exp(0.3) * found.organics[i] - found.load[i]

        def slope(
            _time: float, free: npt.NDArray[np.float64], net: float = float(net), rate: float = float(rate)
        ) -> npt.NDArray[np.float64]:
            return net - rate * free

        value = float(solve_ivp(slope, (0, float(hours)), [value], rtol=1e-9, atol=1e-10).y[0][-1])
        value = max(0.0, value) + float(found.pulses[i + 1])
        assert float(ours[i + 1]) == pytest.approx(value, abs=1e-6)
    assert PLACE.volume_l == LITRES
