"""The engine against PHREEQC (see phreeqc.py) over 72 waters of the range: index, pH, acid demand, HOCl.

Tolerances: saturation index 0.03, pH 0.03, acid demand 2 percent, HOCl 5 percent. The waters are a
fixed grid with hypothesis-free, seeded corners; PHREEQC's answer is computed, not quoted.
"""

import itertools
from dataclasses import replace

import numpy as np
import pytest

from kumpan.core.chemistry.equilibrium import MG_PER_EQ, State, known_from, solve_readings, solve_totals
from kumpan.core.chemistry.saturation import saturation_index
from kumpan.core.dosing.balance import for_ph
from kumpan.core.dosing.mixing import added
from kumpan.core.products.catalogue import CATALOGUE
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Readings
from tests.published.phreeqc import reference


def _waters() -> list[Readings]:
    """Six corners of (pH, alkalinity), crossed with stabilizer, salt and temperature; the rest drawn by
    seed.
    """
    draw = np.random.default_rng(20260601)
    corners = [(7.0, 60), (7.2, 120), (7.5, 80), (7.6, 180), (7.8, 100), (8.2, 240)]
    found = []
    for (ph, alkalinity), cya, salt, temperature in itertools.product(
        corners, (0, 50, 120), (400, 3500), (12, 32)
    ):
        found.append(
            Readings(
                free_chlorine=round(float(draw.uniform(0.5, 12)), 2),
                ph=ph,
                total_alkalinity=alkalinity + cya / 3,
                calcium_hardness=round(float(draw.uniform(50, 900))),
                cyanuric_acid=cya,
                salt=salt + 600,
                borate=float(draw.choice([0.0, 50.0])),
                temperature_c=temperature,
            )
        )
    return found


WATERS = _waters()


def solved(readings: Readings) -> State:
    known = known_from(readings)
    assert known is not None
    state = solve_readings(known)
    assert isinstance(state, State)
    return state


def test_there_are_enough_waters() -> None:
    assert len(WATERS) == 72


@pytest.mark.parametrize(
    "readings",
    WATERS,
    ids=lambda r: f"ph{r.ph}-ta{r.total_alkalinity:.0f}-cya{r.cyanuric_acid}-t{r.temperature_c}",
)
def test_a_water(readings: Readings) -> None:
    state = solved(readings)
    theirs = reference().solution(state.totals)
    assert theirs.pH == pytest.approx(readings.ph, abs=0.03)
    assert float(saturation_index(state)) == pytest.approx(theirs.si("Calcite"), abs=0.03)
    assert float(state.species.hocl) == pytest.approx(theirs.species["HHoc"], rel=0.05)
    assert float(state.species.frame.strength) == pytest.approx(theirs.I, rel=0.01)
    theirs.forget()


@pytest.mark.parametrize("readings", WATERS[::6])
def test_titrated_alkalinity_is_the_acid_that_phreeqc_takes_to_4_5(readings: Readings) -> None:
    state = solved(readings)
    assert reference().acid_to_end_point(state.totals) / 1e3 * MG_PER_EQ == pytest.approx(
        readings.total_alkalinity, rel=0.02
    )


ADDITIONS = [
    ("sodium_hypochlorite", 10, 4.0), ("calcium_hypochlorite", 65, 0.8), ("sodium_dichlor", 56, 0.9), ("trichlor", 90, 0.6),
    ("hydrochloric_acid", 31.45, 2.0), ("sodium_bisulfate", 93.2, 2.0), ("sodium_carbonate", 100, 1.5),
    ("sodium_bicarbonate", 100, 4.0), ("borax", 100, 6.0), ("boric_acid", 100, 6.0), ("calcium_chloride", 77, 6.0),
    ("cyanuric_acid", 100, 2.0), ("sodium_chloride", 100, 60.0), ("sodium_hydroxide", 50, 1.0),
    ("potassium_monopersulfate", 42.8, 1.0),
]  # fmt: skip
START = Readings(
    free_chlorine=2,
    ph=7.6,
    total_alkalinity=110,
    calcium_hardness=300,
    cyanuric_acid=45,
    salt=1800,
    temperature_c=26,
)
LITRES = 37854.0


@pytest.mark.parametrize(("chemical", "strength", "kg"), ADDITIONS)
def test_ph_after_each_addition(chemical: str, strength: float, kg: float) -> None:
    """kg of product per 37 854 L (10,000 US gal)."""
    totals = added(solved(START).totals, Product("p", chemical, strength), kg * 1000, LITRES)
    ours, theirs = solve_totals(totals), reference().solution(totals)
    assert float(ours.species.ph) == pytest.approx(theirs.pH, abs=0.03)
    assert CATALOGUE[chemical].key == chemical
    theirs.forget()


@pytest.mark.parametrize("target", [7.8, 7.4, 7.0])
def test_acid_demand(target: float) -> None:
    """mmol/L of acid to a pH: ours against bisection on PHREEQC."""
    start = solved(replace(START, ph=8.2))
    acid = Product("a", "hydrochloric_acid", 31.45)
    grams = for_ph(start.totals, target, LITRES, acid)
    assert grams is not None
    low, high = 0.0, 2 * grams
    for _ in range(30):
        middle = (low + high) / 2
        solution = reference().solution(added(start.totals, acid, middle, LITRES))
        low, high = (middle, high) if solution.pH > target else (low, middle)
        solution.forget()
    assert grams == pytest.approx((low + high) / 2, rel=0.02)


def test_feel_for_the_numbers() -> None:
    """Three figures computed with PHREEQC and the same constants (stated with the constants): DIC, HOCl,
    carbonate.
    """
    plain = solved(Readings(ph=7.5, total_alkalinity=100, cyanuric_acid=0, calcium_hardness=250, salt=1300))
    assert float(plain.totals.carbon) * 1e3 == pytest.approx(2.103, abs=0.002)
    bound = solved(
        Readings(
            ph=7.5, total_alkalinity=100, cyanuric_acid=50, calcium_hardness=250, salt=1300, free_chlorine=3
        )
    )
    assert float(bound.species.hocl) * 70900 == pytest.approx(0.024, abs=0.0005)
    stabilized = solved(
        Readings(ph=7.5, total_alkalinity=100, cyanuric_acid=60, calcium_hardness=250, salt=1300)
    )
    share = (100 - float(stabilized.species.carbonate_alkalinity) * MG_PER_EQ) / 60
    assert share == pytest.approx(0.33, abs=0.005)


def test_a_thousand_waters_at_once_agree_with_one_by_one() -> None:
    ph = np.linspace(7.0, 8.4, 25)
    known = known_from(START)
    assert known is not None
    many = solve_readings(replace(known, ph=ph))  # type: ignore[arg-type]
    assert isinstance(many, State)
    singles = [float(saturation_index(solved(replace(START, ph=float(p))))) for p in ph]
    assert np.asarray(saturation_index(many)) == pytest.approx(singles, abs=1e-7)
