"""Constants and small waters that stand in chemistry textbooks, all from memory, with their usual rounding.

Stumm & Morgan, Aquatic Chemistry (carbonate, calcite, water); White's Handbook of Chlorination (HOCl
share); CRC Handbook (boric acid). Each at zero ionic strength unless said.
"""

from math import log10

import numpy as np
import numpy.typing as npt
import pytest
from scipy.integrate import solve_ivp

from kumpan.core.chemistry.constants import (
    bicarbonate_dissociation_plummer82,
    calcite_solubility_plummer82,
    co2_first_dissociation_plummer82,
    co2_solubility_plummer82,
    constants_at,
    debye_hueckel,
    hocl_dissociation_morris66,
    water_density_kell75,
    water_dissociation_phreeqc,
)
from kumpan.core.chemistry.equilibrium import solve_totals
from kumpan.core.chemistry.gas_exchange import CO2_IN_AIR_ATM, aerated_to_ph, co2_at_air_mol_l, exchanged
from kumpan.core.chemistry.speciation import Totals
from tests.core.samples import engine_state
from tests.published.phreeqc import reference

KELVIN_25 = 298.15
EMPTY = Totals(0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 25.0)


@pytest.mark.parametrize(
    ("found", "textbook"),
    [
        (co2_first_dissociation_plummer82(KELVIN_25), -6.35),
        (bicarbonate_dissociation_plummer82(KELVIN_25), -10.33),
        (co2_solubility_plummer82(KELVIN_25), -1.47),
        (calcite_solubility_plummer82(KELVIN_25), -8.48),
        (water_dissociation_phreeqc(KELVIN_25), -14.00),
        (hocl_dissociation_morris66(KELVIN_25), -7.54),
        (log10(constants_at(25.0).k_boric), -9.24),
    ],
    ids=["carbonic", "bicarbonate", "henry", "calcite", "water", "hocl", "boric"],
)
def test_log_constants_at_25_c(found: float, textbook: float) -> None:
    assert found == pytest.approx(textbook, abs=0.012)


@pytest.mark.parametrize(("celsius", "pk"), [(0, 14.94), (10, 14.53), (20, 14.17), (30, 13.83), (40, 13.53)])
def test_ion_product_of_water(celsius: float, pk: float) -> None:
    """CRC Handbook, from memory: pKw by temperature."""
    assert -water_dissociation_phreeqc(celsius + 273.15) == pytest.approx(pk, abs=0.02)


@pytest.mark.parametrize(("ph", "percent"), [(6.5, 92), (7.0, 78), (7.5, 52), (8.0, 26), (8.5, 10)])
def test_hypochlorous_share_without_stabilizer(ph: float, percent: float) -> None:
    """Share of HOCl in free chlorine at 25 C by Morris's constant: the handbooks' curve."""
    share = 1 / (1 + 10 ** (ph + hocl_dissociation_morris66(KELVIN_25)))
    assert 100 * share == pytest.approx(percent, abs=1)


def test_activity_parameters_and_density_of_water() -> None:
    a, b = debye_hueckel(25.0)
    assert a == pytest.approx(0.51, abs=0.002)
    assert b == pytest.approx(0.3285, abs=0.001)
    assert water_density_kell75(25.0) == pytest.approx(0.99705, abs=0.00002)
    assert water_density_kell75(4.0) == pytest.approx(0.99997, abs=0.00002)


def test_clean_rain_has_ph_5_6() -> None:
    """Pure water at rest with air: pH 5.6, the textbook's clean rain."""
    rain = EMPTY._replace(carbon=co2_at_air_mol_l(25.0))
    for _ in range(20):  # the little that dissociates is drawn in from the air too
        co2 = float(solve_totals(rain, 5.6).species.co2)
        rain = rain._replace(carbon=rain.carbon + co2_at_air_mol_l(25.0) - co2)
    assert float(solve_totals(rain, 5.6).species.ph) == pytest.approx(5.61, abs=0.02)


def test_water_at_rest_with_air_as_phreeqc_has_it() -> None:
    """A pool left open for ever: PHREEQC, equilibrated with CO2(g) at the same pressure, has the same pH."""
    totals = engine_state(ph=7.6, total_alkalinity=100, cyanuric_acid=40, calcium_hardness=250).totals
    solution = reference().solution(totals)
    solution.equalize(["CO2(g)"], [log10(CO2_IN_AIR_ATM)])
    ours = exchanged(totals, 10.0, 1.5, 30.0)
    assert float(solve_totals(ours).species.ph) == pytest.approx(solution.pH, abs=0.02)
    solution.forget()


def test_the_course_of_outgassing_as_scipy_integrates_it() -> None:
    totals = engine_state(ph=7.4, total_alkalinity=110, cyanuric_acid=30, calcium_hardness=250).totals
    velocity, depth, days = 0.5, 1.4, 6.0
    at_air = co2_at_air_mol_l(totals.temperature_c)

    def slope(_time: float, carbon: npt.NDArray[np.float64]) -> list[float]:
        co2 = float(solve_totals(totals._replace(carbon=float(carbon[0]))).species.co2)
        return [-velocity / depth * (co2 - at_air)]

    theirs = solve_ivp(slope, (0, days), [totals.carbon], rtol=1e-8, atol=1e-12).y[0][-1]
    ours = exchanged(totals, velocity, depth, days)
    assert float(ours.carbon) == pytest.approx(float(theirs), rel=1e-4)


def test_aeration_to_a_ph_as_phreeqc_removes_carbon() -> None:
    totals = engine_state(ph=7.2, total_alkalinity=80, cyanuric_acid=40, calcium_hardness=250).totals
    there = aerated_to_ph(totals, 7.7)
    assert there.carbon < totals.carbon
    assert there.alkalinity == totals.alkalinity
    assert reference().solution(there).pH == pytest.approx(7.7, abs=0.03)
